import { kindOf } from '../kinds';
import { midiGraph, reachIn } from '../midi';
import { usualMetres } from '../rig/joining';
import type { Device, End, Sound } from '../rig/schema';
import type { Making } from './making';
import type { Wiring } from './ways/amp-parts';
import { allOf } from '../units';

/** Most devices that hang one behind the other before a box repeats for all at once. */
const MOST_IN_A_ROW = 2;

/** Channels of one MIDI line. */
const CHANNELS = 16;

const outOf = (d: Device, how: 'out' | 'thru'): string | undefined =>
  kindOf(d.kind).jacks.find((j) => j.signal === 'midi' && j.midi === how)?.id;
const intoOf = (d: Device): string | undefined =>
  kindOf(d.kind).jacks.find((j) => j.signal === 'midi' && j.midi === 'in')?.id;

/** Whether a device takes programs by a lead. */
const isCalled = (d: Device): boolean =>
  d.host === undefined && kindOf(d.kind).midi?.programs !== undefined && intoOf(d) !== undefined;

/** Whether a device runs by clock unless it is told otherwise. */
const runsByClock = (d: Device): boolean =>
  d.host === undefined &&
  intoOf(d) !== undefined &&
  (kindOf(d.kind).midi?.clock ?? 'leads') !== 'leads';

const leadsClock = (d: Device): boolean => kindOf(d.kind).midi?.sends?.includes('clock') ?? false;

/**
 * Who calls sounds, leads from there to everything that has programs or runs by clock, a channel for
 * each, and for each sound a program. Where nobody calls, nothing waits for a clock.
 */
export function wireMessages(w: Wiring, sounds: readonly Sound[]): Sound[] {
  const { making, choices, brief } = w;
  const way = brief.means?.calls ?? 'none';
  const able = making.devices.filter((d) => isCalled(d) || runsByClock(d));
  const own = able.filter((d) => isCalled(d) && kindOf(d.kind).midi?.recalls);
  const leader = way === 'own' ? (own.find(leadsClock) ?? own[0]) : undefined;
  const targets = able.filter((d) => d !== leader);
  if (way === 'own' && !leader)
    choices.take(
      'calls',
      'Who calls sounds',
      [['nobody', 'nobody']],
      'nobody',
      () =>
        'Nothing here sends messages by itself: take a switcher with a free order, a ' +
        'modeler, a foot controller or a tablet.',
    );
  if (way === 'none' || !able.length || (way === 'own' && !leader)) {
    for (const d of able.filter(runsByClock)) d.midi = { ...d.midi, clock: 'ignore' };
    return [...sounds];
  }
  const { caller, from } = leader
    ? { caller: leader, from: { device: leader.id, jack: outOf(leader, 'out') ?? 'midiOut' } }
    : callerOf(w, way);
  spread(making, from, targets);
  const called = (leader ? [leader, ...targets] : targets).slice(0, CHANNELS);
  for (const [i, d] of called.entries()) d.midi = { ...d.midi, channel: i + 1 };
  const followers = targets.filter(runsByClock);
  const follows = followers.length > 0 && leadsClock(caller);
  if (follows) caller.midi = { ...caller.midi, clock: 'send' };
  else for (const d of followers) d.midi = { ...d.midi, clock: 'ignore' };
  const reached = reachIn(midiGraph(making.asRig()), caller.id);
  const [there, lost] = [true, false].map((is) =>
    targets.filter((d) => (reached.has(d.id) && called.includes(d)) === is).map((d) => d.name),
  );
  choices.take('calls', 'Who calls sounds', [['so', caller.name]], 'so', () =>
    [
      there?.length
        ? `It reaches ${allOf(there)}, each on a channel of its own; every sound is a program ` +
          'of each that has programs.'
        : 'Every sound is a preset of it.',
      follows ? 'It leads with clock, too.' : '',
      lost?.length
        ? `${allOf(lost)} ${lost.length > 1 ? 'are' : 'is'} beyond the 16 channels of one line.`
        : '',
    ]
      .filter(Boolean)
      .join(' '),
  );
  return sounds.map((s, number) => ({
    ...s,
    states: {
      ...s.states,
      ...Object.fromEntries(
        called
          .filter((d) => number < (kindOf(d.kind).midi?.programs?.count ?? 0))
          .map((d) => [d.id, { ...s.states[d.id], program: addressOf(d, number) }]),
      ),
    },
  }));
}

/** The program of a sound as a device counts it: in banks of its own size where it has banks. */
function addressOf(d: Device, n: number): { bank?: number; number: number } {
  const programs = kindOf(d.kind).midi?.programs;
  if (!programs || programs.bank === 'none') return { number: n };
  const size = programs.shows?.size ?? 128;
  return { bank: Math.floor(n / size), number: n % size };
}

/** A controller, and a tablet where it is to call: a tablet leads a USB bus, the controller passes on. */
function callerOf(
  { making, choices }: Wiring,
  way: 'own' | 'controller' | 'tablet',
): { caller: Device; from: End } {
  const controller = making.add('foot-controller', 'Foot controller', { place: 'floor' });
  const from = { device: controller.id, jack: 'midiOut' };
  if (way !== 'tablet') return { caller: controller, from };
  const tablet = making.add('set-list-app', 'Tablet', { place: 'floor' });
  const isIsolated = choices.take(
    'usb',
    'The USB line of the tablet',
    [
      ['plain', 'one lead'],
      ['isolator', 'by an isolator'],
    ],
    'plain',
    (taken) =>
      taken === 'plain'
        ? 'On its battery the tablet has no ground of its own.'
        : 'A charging tablet brings the noise of its charger along; the isolator keeps its ground apart.',
  );
  const into = { device: controller.id, jack: 'usb' };
  const out = { device: tablet.id, jack: 'usb' };
  if (isIsolated === 'plain') {
    making.join(out, into, 1);
    return { caller: tablet, from };
  }
  const isolator = making.add('usb-isolator', 'USB isolator', { place: 'floor' });
  making.join(out, { device: isolator.id, jack: 'up' }, 1);
  making.join({ device: isolator.id, jack: 'down' }, into, 0.5);
  return { caller: tablet, from };
}

/** Whether a lead joins the two sorts of TRS sockets, so that its tip and ring have to cross. */
function isCrossed(making: Making, from: End, to: End): boolean {
  const [a, b] = [from, to].map(({ device, jack }) => {
    const d = making.devices.find((x) => x.id === device);
    return d && kindOf(d.kind).jacks.find((j) => j.id === jack)?.connector;
  });
  return a !== b && [a, b].every((c) => c === 'TRS-A' || c === 'TRS-B');
}

/** Leads from one output to all: one behind the other where they are few and repeat, else by thru boxes. */
function spread(making: Making, first: End, targets: readonly Device[]): void {
  const plug = (from: End, d: Device) => {
    const to = { device: d.id, jack: intoOf(d) ?? 'midiIn' };
    making.join(from, to, usualMetres(making.asRig(), from, to));
    const lead = making.leads.at(-1);
    if (lead && isCrossed(making, from, to)) lead.crossed = true;
  };
  const repeats = (d: Device) => outOf(d, 'thru') !== undefined;
  const inRow = [...targets].sort((a, b) => Number(repeats(b)) - Number(repeats(a)));
  if (inRow.length <= MOST_IN_A_ROW && inRow.slice(0, -1).every(repeats)) {
    inRow.reduce<End>((from, d) => {
      plug(from, d);
      return { device: d.id, jack: outOf(d, 'thru') ?? 'midiThru' };
    }, first);
    return;
  }
  let from = first;
  let rest = [...targets];
  for (let n = 1; rest.length > 0; n++) {
    const box = making.add('midi-thru-box', n > 1 ? `Thru box ${n}` : 'Thru box', {
      place: 'floor',
    });
    making.join(from, { device: box.id, jack: 'midiIn' }, 0.5);
    const more = rest.length > 5;
    const here = rest.slice(0, more ? 4 : 5);
    for (const [i, d] of here.entries()) plug({ device: box.id, jack: `thru${i + 1}` }, d);
    from = { device: box.id, jack: 'thru5' };
    rest = rest.slice(here.length);
  }
}
