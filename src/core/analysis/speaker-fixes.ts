import type { Fix } from '../findings/finding';
import { byKey, reachable } from '../graph';
import { figureWith, kindOf, settingWith } from '../kinds';
import { settingOf, stateIn } from '../rig/device-state';
import { copyWith } from '../rig/copies';
import type { Edit } from '../rig/edits';
import { byId, endWords, leadFrom, leadInto, leadsFrom, nameOf } from '../rig/find';
import { freshId, idsOf } from '../rig/fresh-id';
import { settingWords } from '../rig/words';
import type { Device, End, Lead } from '../rig/schema';
import { listenedTo, type SoundContext } from '../signal/sound-context';
import { allOf, fixed } from '../units';
import { type SpeakerLine, speakerLines, USUAL_SQUARE_MM } from './speaker-lines';

/** Loads within this factor of the tap are the same load: nominal impedances are round figures. */
export const SAME = 1.15;
/** Taps that most output transformers have, in ohms. */
const USUAL_TAPS = [4, 8, 16];
/** Length of a new speaker lead, in metres. */
const NEW_LEAD_METRES = 1;

export const ohms = (z: number): string => `${fixed(z, z < 10 && z % 1 ? 2 : 0)} Ω`;

/** The tap that matches a load, where a usual one does. */
export function matchingTap(ctx: SoundContext, amp: string, loadOhms: number): Fix[] {
  const tap = figureWith(kindOf(ctx.device(amp).kind), 'speaker tap');
  const value = USUAL_TAPS.find((t) => Math.max(t / loadOhms, loadOhms / t) <= SAME);
  if (value === undefined || !tap) return [];
  return [
    {
      words: `Set the tap of ${ctx.device(amp).name} to ${value} Ω`,
      edits: [
        {
          edit: 'overrideFigure',
          device: amp,
          figure: tap.id,
          override: { value, from: 'sheet' },
        },
      ],
    },
  ];
}

/**
 * A load taken off a line that is too heavy, with what hangs on it, and the tap set to what is left:
 * what is left is worked out on a copy. The fewest come off first; loads without which the amplifier
 * bears the rest no better are left out.
 */
export function withoutOne(ctx: SoundContext, { amp, tapOhms, tube, loads }: SpeakerLine): Fix[] {
  // Without its only load nothing is left to bear.
  if (loads.length < 2) return [];
  const ways = loads.flatMap(({ device }): { off: number; fix: Fix }[] => {
    const edits = ctx.rig.leads
      .filter((l) => l.type === 'speaker' && l.to.device === device)
      .map((l): Edit => ({ edit: 'disconnect', lead: l.id }));
    const off = edits.length ? copyWith(ctx.rig, edits) : undefined;
    if (!off) return [];
    const left = speakerLines(listenedTo(ctx, off)).find((l) => l.amp === amp);
    if (!left || left.loadOhms === null) return [];
    const gone = loads.filter((l) => !left.loads.some((x) => x.device === l.device));
    const names = allOf(gone.map((l) => nameOf(ctx.rig, l.device)));
    const words = `Take ${names} off ${nameOf(ctx.rig, amp)}`;
    const bears = tube
      ? Math.max(left.loadOhms / tapOhms, tapOhms / left.loadOhms) <= SAME
      : left.loadOhms >= tapOhms / SAME;
    const taps = bears ? [undefined] : matchingTap(ctx, amp, left.loadOhms);
    return taps.map((tap) => ({
      off: gone.length,
      fix: {
        words: tap ? `${words}; ${tap.words.replace(/^S/, 's')}` : words,
        edits: [...edits, ...(tap?.edits ?? [])],
      },
    }));
  });
  return ways.sort((a, b) => a.off - b.off).map(({ fix }) => fix);
}

/** What could load an amplifier whose speaker output is free: a cabinet that stands unplugged, a load box. */
export function loadsFor(ctx: SoundContext, amp: string, tapOhms: number): Fix[] {
  const { rig } = ctx;
  const device = ctx.device(amp);
  const line = lineOf(ctx, amp);
  const outs = [...line].flatMap((id) => freeSpeakerOuts(ctx, ctx.device(id)));
  const loads = outs.flatMap((from) =>
    [...rig.devices].sort(byId).flatMap((d): Fix[] =>
      line.has(d.id)
        ? []
        : freeSpeakerIns(ctx, d).map((jack) => ({
            words:
              from.device === amp && kindOf(d.kind).job === 'cabinet'
                ? `Connect ${d.name} to ${device.name}`
                : `Plug ${endWords(rig, from)} into ${endWords(rig, { device: d.id, jack })}`,
            edits: [speakerLead(ctx, from.device, from.jack, { device: d.id, jack })],
          })),
    ),
  );
  const own = outs.find((o) => o.device === amp);
  const box: Fix[] = own
    ? [
        {
          words: `Put a load box of ${ohms(tapOhms)} on ${device.name}`,
          edits: loadBox(ctx, amp, own.jack, tapOhms).edits,
        },
      ]
    : [];
  return [...loadsInside(ctx, line), ...loads.slice(0, MOST_LOADS), ...box];
}

/** Switchers on a line that leave what is not selected without a load, set to the load that they have inside. */
const loadsInside = ({ device, sound }: SoundContext, line: ReadonlySet<string>): Fix[] =>
  [...line].flatMap((id): Fix[] => {
    const { kind, name } = device(id);
    const setting = settingWith(kindOf(kind), 'amplifiers not selected');
    const state = stateIn(sound, id);
    const value = 'load';
    if (!setting || settingOf(kindOf(kind), device(id), state, setting.id) === value) return [];
    const isOfSound = Object.hasOwn(state?.settings ?? {}, setting.id);
    return [
      {
        words: `Set ${name}, ${settingWords(kind, setting.id, value)}`,
        edits: [
          {
            edit: 'setSetting',
            device: id,
            setting: setting.id,
            value,
            ...(isOfSound && { sound: sound.id }),
          },
        ],
      },
    ];
  });

/** What hangs on the speaker line of an amplifier, itself with it. */
function lineOf({ rig }: SoundContext, amp: string): Set<string> {
  const behind = byKey(
    rig.leads.filter((l) => l.type === 'speaker'),
    (l) => l.from.device,
  );
  return reachable([amp], (id) => (behind.get(id) ?? []).map((l) => l.to.device));
}

/** So many free inputs are offered to an amplifier without a load. */
const MOST_LOADS = 6;

/** The free speaker outputs of a box; of a cabinet none, since it is a load itself. */
const freeSpeakerOuts = ({ rig }: SoundContext, { id, kind }: Device): End[] =>
  kindOf(kind).jacks.some((j) => j.signal === 'air')
    ? []
    : kindOf(kind)
        .jacks.filter((j) => j.signal === 'speaker' && j.direction === 'out')
        .filter((j) => !leadFrom(rig, id, j.id))
        .map((j) => ({ device: id, jack: j.id }));

/** One of two amplifiers on a line goes onto a load box of its own. */
export function ontoBox(ctx: SoundContext, amp: string): Fix[] {
  const lead = leadsFrom(ctx.rig, amp).find((l) => l.type === 'speaker');
  if (!lead) return [];
  const of = tapOf(ctx, amp);
  return [
    {
      words: `Take ${ctx.device(amp).name} off the line, onto a load box of ${ohms(of)}`,
      edits: [
        { edit: 'disconnect', lead: lead.id },
        ...loadBox(ctx, amp, lead.from.jack, of).edits,
      ],
    },
  ];
}

/** A load box between a speaker output and a signal input: its line output feeds the input. */
export function throughBox(ctx: SoundContext, lead: Lead): Fix[] {
  const { device: amp, jack } = lead.from;
  const of = tapOf(ctx, amp);
  const box = loadBox(ctx, amp, jack, of);
  const line: Lead = {
    id: freshId('line', idsOf(ctx.rig.leads)),
    from: { device: box.id, jack: 'line' },
    to: lead.to,
    type: 'instrument',
    metres: lead.metres,
  };
  return [
    {
      words: `Put a load box of ${ohms(of)} between, and feed ${nameOf(ctx.rig, lead.to.device)} from its line output`,
      edits: [{ edit: 'disconnect', lead: lead.id }, ...box.edits, { edit: 'connect', lead: line }],
    },
  ];
}

/** A load box on a speaker output: the box and its lead. */
function loadBox(
  ctx: SoundContext,
  amp: string,
  jack: string,
  of: number,
): { id: string; edits: Edit[] } {
  const id = freshId('load-box', idsOf(ctx.rig.devices));
  const device: Device = {
    id,
    kind: 'attenuator',
    name: 'Load box',
    figures: { ohms: { value: of, from: 'sheet' } },
  };
  return {
    id,
    edits: [{ edit: 'addDevice', device }, speakerLead(ctx, amp, jack, { device: id, jack: 'in' })],
  };
}

const speakerLead = (ctx: SoundContext, amp: string, jack: string, to: Lead['to']): Edit => ({
  edit: 'connect',
  lead: {
    id: freshId('speaker', idsOf(ctx.rig.leads)),
    from: { device: amp, jack },
    to,
    type: 'speaker',
    metres: NEW_LEAD_METRES,
  },
});

/** The tap that an amplifier is set to, in ohms; eight where it has none. */
function tapOf(ctx: SoundContext, amp: string): number {
  const device = ctx.device(amp);
  const tap = figureWith(kindOf(device.kind), 'speaker tap');
  return tap ? (device.figures?.[tap.id]?.value ?? tap.typical) : 8;
}

/** The speaker input of a cabinet or load that nothing is plugged into; every free one of a switcher. */
function freeSpeakerIns({ rig }: SoundContext, { id, kind }: Device): string[] {
  const { job, jacks } = kindOf(kind);
  const ins = jacks.filter((j) => j.signal === 'speaker' && j.direction === 'in');
  const free = ins.filter((j) => !leadInto(rig, id, j.id)).map((j) => j.id);
  return job === 'cabinet' ? (free.length === ins.length ? free.slice(0, 1) : []) : free;
}

/** Cross-sections of speaker leads that are sold, in mm². */
const SOLD_SQUARE_MM = [0.75, 1.5, 2.5, 4, 6];

/** The speaker leads of an amplifier's line, each in one of the thicker sorts; the thinnest that might do first. */
export function thickerLeads(ctx: SoundContext, amp: string): Fix[] {
  const ofLine = lineOf(ctx, amp);
  const leads = ctx.rig.leads.filter((l) => l.type === 'speaker' && ofLine.has(l.from.device));
  return SOLD_SQUARE_MM.flatMap((squareMm): Fix[] => {
    const thinner = leads.filter((l) => (l.squareMm ?? USUAL_SQUARE_MM) < squareMm);
    return thinner.length
      ? [
          {
            words: `Take leads of ${squareMm} mm² from ${nameOf(ctx.rig, amp)} on`,
            edits: thinner.map((l) => ({ edit: 'setLead', lead: l.id, squareMm })),
          },
        ]
      : [];
  });
}
