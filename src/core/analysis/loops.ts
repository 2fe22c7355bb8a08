import { at } from '../outcome';
import { passesOf, pluggedJacks } from '../circuit';
import { type Fix, fixes, type Remark } from '../findings/finding';
import { type Kind, kindOf, type Loop, settingWith } from '../kinds';
import { readLoopOrder, writeLoopOrder } from '../kinds/loop-order';
import { joiningLead } from '../rig';
import { settingOf, stateIn } from '../rig/device-state';
import { endWords, leadFrom, leadInto } from '../rig/find';
import type { Device, End, Lead, Rig } from '../rig/schema';
import type { Remarker } from './evidence';
import { againWords, broughtBack, unheardIn } from './missing-leads';
import { kindIn } from './open-ends';

/**
 * Half-plugged loops and inserts, returns that cut off what is ahead of them, and loops in use with
 * nothing in them.
 */
export const loopRemarks: Remarker = ({ ctx, stations, destinations }) => {
  const unheard = unheardIn({ ctx, stations, destinations });
  const remarks: Remark[] = [];
  const plugged = pluggedJacks(ctx.rig);
  for (const device of ctx.rig.devices) {
    const kind = kindOf(device.kind);
    if (!kind.loops) continue;
    const jacks = plugged.get(device.id) ?? new Set<string>();
    const passes = passesOf(device, ctx.sound, plugged);
    const isFed = (point: string) =>
      passes.some(
        (p) =>
          (p.is === 'stage' && p.to === point && !p.muted) ||
          (p.is === 'wire' && (p.a === point || p.b === point)),
      );
    for (const loop of kind.loops) {
      const send = loop.send.some((j) => jacks.has(j));
      const back = loop.return.some((j) => jacks.has(j));
      const say = (severity: Remark['severity'], what: string, why: string) => {
        const ways = waysOutOf(ctx.rig, device, loop);
        const back = broughtBack(ctx, ways[0]?.edits ?? [], unheard);
        remarks.push({
          rule: 'half-loop',
          severity,
          subjects: [device.id, ...boxesOf(ways).filter((id) => id !== device.id), ...back],
          about: `${device.id}+${loop.id}`,
          what,
          why: why + againWords(ctx, back),
          ...fixes(ways),
        });
      };
      if (send && !back) {
        if (loop.opensAt === 'send')
          say(
            'fault',
            `The ${loop.label} of ${device.name} is sent out and does not come back.`,
            'A plug in the send opens the way inside, so the signal stops here.',
          );
        else if (loop.opensAt === 'never' && !kind.hosts && isFed(at(loop.send, 0)))
          say(
            'fault',
            `${capital(loop.label)} of ${device.name} is sent out and does not come back.`,
            'The loop is in this sound’s way, so the signal stops here.',
          );
        else if (loop.opensAt === 'never' && !kind.hosts)
          say(
            'advice',
            `${capital(loop.label)} of ${device.name} is sent out and does not come back.`,
            'The loop is out of this sound’s way, so nothing stops here; where it is in the way, it does.',
          );
      }
      if (back && !send && !kind.hosts) {
        const ahead = kind.jacks.some(
          (j) => j.direction === 'in' && !loop.return.includes(j.id) && jacks.has(j.id),
        );
        if (loop.opensAt === 'return' && ahead)
          say(
            'fault',
            `The ${loop.label} of ${device.name} comes back and is not sent out.`,
            'A plug in the return cuts off everything ahead of it, so what goes into the input ' +
              'is not heard.',
          );
        else if (loop.opensAt === 'never' && ahead)
          if (isFed(at(loop.send, 0)))
            say(
              'fault',
              `${capital(loop.label)} of ${device.name} comes back and is not sent out.`,
              'The loop is in this sound’s way, and nothing is sent through what hangs on it.',
            );
          else
            say(
              'advice',
              `${capital(loop.label)} of ${device.name} comes back and is not sent out.`,
              'Where the loop is in the way, nothing is sent through what hangs on it.',
            );
        else if (loop.opensAt === 'send' && ahead)
          say(
            'fault',
            `The ${loop.label} of ${device.name} comes back and is not sent out.`,
            'A plug in the insert opens the way inside, so what goes into the input is not heard.',
          );
      }
    }
    const order = settingWith(kind, 'loop order');
    const empty = settingWith(kind, 'empty loop');
    const state = stateIn(ctx.sound, device.id);
    const read =
      order &&
      readLoopOrder(String(settingOf(kind, device, state, order.id) ?? ''), kind.loops.length);
    if (order && read?.ok) {
      for (const { loop } of read.value.flat()) {
        const own = kind.loops[loop - 1];
        if ([...(own?.send ?? []), ...(own?.return ?? [])].some((jack) => jacks.has(jack)))
          continue;
        const mutes = empty && settingOf(kind, device, state, empty.id) === 'mute';
        remarks.push({
          rule: 'empty-loop',
          severity: mutes ? 'fault' : 'advice',
          subjects: [device.id],
          about: `${device.id}+loop${loop}`,
          what: `Loop ${loop} of ${device.name} is in use and holds nothing.`,
          why: mutes
            ? 'On this switcher a loop with nothing in it mutes.'
            : 'On this switcher it passes, so nothing is lost.',
          fix: {
            words: `Leave loop ${loop} out`,
            edits: [
              {
                edit: 'setSetting',
                device: device.id,
                setting: order.id,
                ...(ctx.rig.sounds.includes(ctx.sound) && { sound: ctx.sound.id }),
                value: writeLoopOrder(read.value.map((g) => g.filter((w) => w.loop !== loop))),
              },
            ],
          },
        });
      }
    }
  }
  return remarks;
};

const capital = (words: string): string => words.charAt(0).toUpperCase() + words.slice(1);

/**
 * What makes a half-plugged loop whole, or leaves it out: the other jack plugged to where the chain
 * that hangs on it begins or ends, and the plugs that are in it pulled.
 */
function waysOutOf(rig: Rig, device: Device, { label, send, return: back }: Loop): Fix[] {
  const here = (jacks: readonly string[], end: End) =>
    end.device === device.id && jacks.includes(end.jack);
  const out = rig.leads.filter((l) => here(send, l.from));
  const home = rig.leads.filter((l) => here(back, l.to));
  const [sends, returns] = [at(send, 0), at(back, 0)];
  const joins = [
    ...out.map((l) => [chainEnd(rig, l.to.device, 'out'), { device: device.id, jack: returns }]),
    ...home.map((l) => [{ device: device.id, jack: sends }, chainEnd(rig, l.from.device, 'in')]),
  ];
  return [
    ...joins.flatMap(([from, to]): Fix[] =>
      from && to && from.device !== to.device
        ? [
            {
              words: `Plug ${endWords(rig, from)} into ${endWords(rig, to)}`,
              edits: [{ edit: 'connect', lead: joiningLead(rig, from, to) }],
            },
          ]
        : [],
    ),
    {
      words: `Pull the ${label} of ${device.name}`,
      edits: [...out, ...home].map((l) => ({ edit: 'disconnect' as const, lead: l.id })),
    },
  ];
}

/** The open jack of a loop at a box on the way, of which the other one is plugged: the chain begins or ends there. */
const openSide = (rig: Rig, id: string, { loops }: Kind, side: 'in' | 'out'): string | undefined =>
  loops?.flatMap((l) => {
    const [sent, back] = [at(l.send, 0), at(l.return, 0)];
    const [isSent, isBack] = [leadFrom(rig, id, sent), leadInto(rig, id, back)];
    return side === 'in' ? (isSent && !isBack ? [back] : []) : isBack && !isSent ? [sent] : [];
  })[0];

/** The free jack at which a chain of boxes that are played through begins or ends, from one of them on. */
function chainEnd(rig: Rig, from: string, side: 'in' | 'out'): End | undefined {
  const seen = new Set<string>();
  for (let id: string | undefined = from; id !== undefined && !seen.has(id);) {
    seen.add(id);
    const kind = kindIn(rig, id);
    const through = kind?.through;
    if (!through) return undefined;
    const open = kind.hosts ? undefined : openSide(rig, id, kind, side);
    if (open !== undefined) return { device: id, jack: open };
    const lead: Lead | undefined =
      side === 'out' ? leadFrom(rig, id, through.out) : leadInto(rig, id, through.in);
    if (!lead) return { device: id, jack: through[side] };
    id = side === 'out' ? lead.to.device : lead.from.device;
  }
  return undefined;
}

/** The boxes that leads of some fixes join. */
const boxesOf = (ways: readonly Fix[]): string[] => [
  ...new Set(
    ways
      .flatMap(({ edits }) => edits)
      .flatMap((e) => (e.edit === 'connect' ? [e.lead.from.device, e.lead.to.device] : [])),
  ),
];
