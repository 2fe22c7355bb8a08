import { type Fix, fixes, type Remark } from '../findings/finding';
import { type Job, kindOf } from '../kinds';
import { FAR_UNDER_DB } from '../signal/combing';
import { leadFrom, leadInto } from '../rig/find';
import type { Device, Rig } from '../rig/schema';
import type { Flow } from '../signal/meeting';
import { presentDistortion } from '../signal/point-figures';
import { dbuOfVolts, fixed } from '../units';
import type { Remarker } from './evidence';

/** Brightness that differs by less than this, in dB at 5 kHz against 1 kHz, is like tone. */
const LIKE_DB = 1.5;
/** Saturation that differs by less than this, in percent, is like dirt. */
const LIKE_PERCENT = 8;

/** Pedals that bend on purpose. Two amplifiers side by side are a matter of taste. */
const DIRT: ReadonlySet<Job> = new Set<Job>(['drive', 'fuzz', 'boost']);

/**
 * Two distortions side by side that sound alike: the same playing through both, joined again, of one
 * kind, as bright and as bent.
 */
export const twinDirtRemarks: Remarker = ({ ctx }) => {
  const remarks: Remark[] = [];
  for (const section of ctx.flowing.circuit.sections) {
    const ways = section.drivers.flatMap((d) => d.stages).filter((s) => !s.stage.muted);
    if (ways.length < 2) continue;
    const bent = ways.flatMap((way) =>
      ctx.flowing
        .present(way.from)
        .flows.filter((f) => f.bentBy !== undefined && !f.side)
        .map((f) => ({ ...f, by: f.bentBy ?? '', gainDb: way.stage.gainDb + way.stage.outputDb })),
    );
    for (const [i, a] of bent.entries())
      for (const b of bent.slice(i + 1)) {
        const far = Math.abs(dbuOfVolts(a.volts[1]) + a.gainDb - dbuOfVolts(b.volts[1]) - b.gainDb);
        if (a.by === b.by || a.source !== b.source || far > FAR_UNDER_DB) continue;
        const kind = ctx.device(a.by).kind;
        if (!isAlike(a, b) || kind !== ctx.device(b.by).kind || !DIRT.has(kindOf(kind).job))
          continue;
        const both = [a.by, b.by].sort();
        const [one, other] = both.map((id) => ctx.device(id).name);
        remarks.push({
          rule: 'twin-dirt',
          severity: 'advice',
          subjects: both,
          what: `${one} and ${other} run side by side and sound alike.`,
          why:
            `Both bend the same playing, to ${percent(a)} and ${percent(b)} %, and brightness differs by ` +
            `${fixed(Math.abs(a.tiltDb - b.tiltDb))} dB at 5 kHz, so the second adds little but level.`,
        });
      }
  }
  return remarks.filter((r, i) => remarks.findIndex((x) => x.what === r.what) === i);
};

const distortionOf = (f: Flow): number => 100 * presentDistortion([f], 1);
const percent = (f: Flow): string => fixed(distortionOf(f), 0);
const isAlike = (a: Flow, b: Flow): boolean =>
  Math.abs(a.tiltDb - b.tiltDb) < LIKE_DB &&
  Math.abs(distortionOf(a) - distortionOf(b)) < LIKE_PERCENT;

/** A modelled amplifier that plays into the preamplifier of a real one, not into its return. */
export const twoPreampsRemarks: Remarker = ({ ctx, stations, destinations }) => {
  const isModelled = (id: string) => kindOf(ctx.device(id).kind).block !== undefined;
  const isAmp = (id: string) => kindOf(ctx.device(id).kind).job === 'amp';
  const byId = new Map(stations.map((s) => [s.id, s]));
  const found = destinations.flatMap((d): Remark[] => {
    if (!d.levelDbu) return [];
    const way = d.route.flatMap((id) => byId.get(id) ?? []);
    const real = way.findIndex(
      (s) =>
        isAmp(s.device) &&
        !isModelled(s.device) &&
        s.ins.includes(kindOf(ctx.device(s.device).kind).through?.in ?? 'in'),
    );
    const block = way
      .slice(0, Math.max(0, real))
      .find((s) => isAmp(s.device) && isModelled(s.device) && s.state === 'engaged');
    const amp = way[real];
    if (!block || !amp) return [];
    const [modelled, head] = [ctx.device(block.device), ctx.device(amp.device)];
    return [
      {
        rule: 'two-preamps',
        severity: 'advice',
        subjects: [modelled.id, head.id],
        what: `${modelled.name} plays into the preamplifier of ${head.name}.`,
        why:
          'A modelled amplifier has its own preamplifier and tone: into a real one both shape the sound, ' +
          'one after the other.',
        ...fixes([
          ...intoReturn(ctx.rig, head),
          {
            words: `Bypass ${modelled.name} here`,
            edits: [
              {
                edit: 'setEngaged',
                device: modelled.id,
                ...(ctx.rig.sounds.includes(ctx.sound) && { sound: ctx.sound.id }),
                engaged: false,
              },
            ],
          },
        ]),
      },
    ];
  });
  return [...new Map(found.toReversed().map((r) => [r.what, r])).values()].toReversed();
};

/** What plays into an amplifier's input, into its free return instead, past its preamplifier. */
function intoReturn(rig: Rig, head: Device): Fix[] {
  const { through, loops } = kindOf(head.kind);
  const lead = through && leadInto(rig, head.id, through.in);
  const [loop] = loops ?? [];
  const [send, back] = [loop?.send[0], loop?.return[0]];
  if (!lead || send === undefined || back === undefined) return [];
  if (leadFrom(rig, head.id, send) || leadInto(rig, head.id, back)) return [];
  return [
    {
      words: `Plug what plays into ${head.name} into its return instead`,
      edits: [
        { edit: 'disconnect', lead: lead.id },
        { edit: 'connect', lead: { ...lead, to: { device: head.id, jack: back } } },
      ],
    },
  ];
}
