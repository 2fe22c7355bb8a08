import { kindOf } from '../kinds';
import type { Brief, Device, Limits, Rig, Sound, Stance, Voice } from '../rig/schema';
import { learnSheets, type Sheet, sheetIdOf } from '../rig/sheets';
import { type Choice, Choices } from './choices';
import { Making, METRES, type Waiting } from './making';
import { wireMessages } from './messages';
import { isPedal, rank } from './pedal-order';
import { startPromises } from './promised';
import { ampIn, soundsByAmps, soundsByModel, startSounds } from './sounds';
import { hangInLoops, soundsByLoops, staysInFront, type Switching } from './switching';
import { type AmpTurns, isLate, toAmplifiers, type Wiring } from './ways/amplifiers';
import { arrive, type Playing, playersOf } from './ways/arrive';
import { byBoxes, bySimulator, driven, isWet } from './ways/desk';
import { type End, isAmp, toEach } from './ways/ends';
import { toModeler } from './ways/modeler';

/** What a start is told beside the brief. */
export interface StartChoice {
  id: string;
  name: string;
  /** Order rules on which the other school is followed. */
  otherSchool: readonly string[];
  /** What the rig has to keep to, for what is chosen and for what is found later. */
  limits?: Limits;
  /** Sheets of one's own that the gear may be of; those that are used come into the rig. */
  sheets?: readonly Sheet[];
}

/** A rig that is proposed, and what was decided on the way to it. */
export interface Proposal {
  rig: Rig;
  choices: readonly Choice[];
}

/** What makes the sound of an amplifier: what was said, else amplifiers where there are any. */
export const voiceOf = (brief: Brief): Voice =>
  brief.means?.voice ?? (brief.destinations.some(isAmp) ? 'amplifiers' : 'simulator');

/**
 * Makes a rig from a brief: ordered, connected, with the sounds asked for and the promises that
 * follow from it, and each decision with its reason. It is a start, to be edited; levels are set, and
 * what is wrong with it is cured, by `cured` and `settled`, power and a board by `withBuild`.
 */
export function proposeRig(brief: Brief, choice: StartChoice): Proposal {
  const { id, name, otherSchool, limits, sheets = [] } = choice;
  learnSheets(sheets);
  const choices = new Choices(brief.means?.changed ?? {});
  const start = new Start({ making: new Making(), choices, brief, other: new Set(otherSchool) });
  const sounds = start.wire();
  const stances: Record<string, Stance> = Object.fromEntries(
    otherSchool.map((rule) => [rule, { stance: 'other' as const }]),
  );
  return {
    choices: choices.all,
    rig: {
      ...{ format: 'yantrel-rig', version: 1, id, name },
      devices: start.w.making.devices,
      ...usedOf(sheets, start.w.making.devices),
      leads: start.w.making.leads,
      sounds,
      ...(otherSchool.length > 0 && { order: { stances } }),
      ...(limits && Object.keys(limits).length > 0 && { limits }),
      brief,
      promises: start.promises(sounds),
    },
  };
}

const usedOf = (sheets: readonly Sheet[], devices: readonly Device[]) => {
  const used = sheets.filter((s) => devices.some((d) => sheetIdOf(d.kind) === s.id));
  return used.length ? { sheets: used } : {};
};

/** A rig that grows from its instruments towards those who must hear them. */
class Start {
  private readonly players: Playing[];
  private readonly pedals: Device[];
  /** Those who go through the pedals to those who hear them; and others straight to theirs. */
  private readonly main: Playing[];
  private readonly reached = new Map<Playing, readonly End[]>();
  /** Devices of the end of each way, by the player at its beginning. */
  private readonly ends = new Map<string, Playing[]>();
  private turns: AmpTurns | undefined;

  constructor(readonly w: Wiring) {
    const { making, brief, other } = w;
    this.players = playersOf(making, w.choices, brief);
    for (const p of this.players)
      this.reached.set(
        p,
        brief.destinations.filter((d) => !d.not?.includes(p.line.id)),
      );
    const hasEnds = brief.destinations.length > 0;
    const first = this.players.find((p) => !hasEnds || this.reached.get(p)?.length);
    const through = first && this.reached.get(first);
    this.main = through ? this.players.filter((p) => isSame(this.reached.get(p), through)) : [];
    this.pedals = brief.gear
      .filter((g) => isPedal(kindOf(g.kind)))
      .sort((a, b) => rank(a.kind, other) - rank(b.kind, other))
      .map((g) => making.add(g.kind, g.name, { place: 'floor' }));
  }

  /** Everything joined to everything; the sounds as they then are. */
  wire(): Sound[] {
    const { w, players, main, pedals } = this;
    const several = w.brief.sources.filter((s) => s.wireless).length > 1;
    let sounds = startSounds(w.brief.sounds, pedals);
    const [first] = main;
    if (!first) return sounds;
    const ends = this.reached.get(first) ?? [];
    const before = w.making.devices.length;
    const brief: Brief = { ...w.brief, destinations: [...ends] };
    const at = arrive(w.making, w.choices, main, several);
    sounds = this.simulatePickups(at, sounds);
    this.buffer(at, brief);
    sounds = this.chain({ ...w, brief }, at, sounds);
    this.endsFrom(before, main);
    for (const p of players.filter((x) => !main.includes(x))) this.straight(p, several);
    for (const p of players) this.second(p);
    return wireMessages(w, sounds);
  }

  /**
   * What wants the bare pickup and cannot have it, behind a receiver, a joiner or another of its sort,
   * gets a pickup simulator in front of it, which is on when it is: a coil in front of a long lead is dull.
   */
  private simulatePickups({ left }: Waiting, sounds: Sound[]): Sound[] {
    const { making, choices } = this.w;
    const source = making.devices.find((d) => d.id === left.device);
    const isBare = source && kindOf(source.kind).job === 'instrument';
    const wanting = this.pedals.filter((d) => kindOf(d.kind).wantsBarePickup);
    for (const d of isBare ? wanting.slice(1) : wanting) {
      const taken = choices.take(
        `bare-${d.id}`,
        `In front of ${d.name}`,
        [
          ['simulator', 'a pickup simulator'],
          ['nothing', 'nothing'],
        ],
        'simulator',
        (t) =>
          t === 'simulator'
            ? 'It wants to see a pickup, and something else drives it here: a coil between gives it one.'
            : 'It does not see a pickup, so it will not clean up with the guitar’s volume.',
      );
      if (taken === 'nothing') continue;
      const coil = making.add('pickup-simulator', `Pickup simulator, ${d.name}`, {
        place: 'floor',
      });
      this.pedals.splice(this.pedals.indexOf(d), 0, coil);
      sounds = sounds.map((s) =>
        s.states[d.id]?.engaged
          ? { ...s, states: { ...s.states, [coil.id]: { engaged: true } } }
          : s,
      );
    }
    return sounds;
  }

  /**
   * A buffer in front of pedals that part a bare pickup to two sides: off, they tie it to both, and what
   * stands behind would load it twice.
   */
  private buffer({ left }: Waiting, { destinations }: Brief): void {
    const { making, choices, brief } = this.w;
    const source = making.devices.find((d) => d.id === left.device);
    const isBare = source && kindOf(source.kind).job === 'instrument';
    const amps = voiceOf(brief) === 'amplifiers' ? destinations.filter(isAmp).length : 0;
    const at = this.pedals.findIndex((d) => !staysInFront(d));
    if (!isBare || amps !== 2 || brief.means?.amps === 'one' || !this.pedals.some(isWet)) return;
    choices.take(
      'buffer',
      'Behind the instrument',
      [['buffer', 'a buffer']],
      'buffer',
      () =>
        'When what makes two sides is off, it ties the pickup to both; a buffer drives what stands behind.',
    );
    const buffer = making.add('buffer', 'Buffer', { place: 'floor', engaged: true });
    this.pedals.splice(Math.max(0, at), 0, buffer);
  }

  /** The pedals, switched as was asked, and behind them what makes the sound. */
  private chain(w: Wiring, from: Waiting, first: Sound[]): Sound[] {
    const voice = voiceOf(w.brief);
    const late = this.pedals.filter(voice === 'amplifiers' ? (d) => isLate(d) : (d) => isWet(d));
    const row = this.pedals.filter((d) => !late.includes(d));
    let switching: Switching | undefined;
    let at = from;
    let left = this.pedals;
    if ((w.brief.means?.switching ?? 'foot') !== 'foot') {
      ({ at, switching } = hangInLoops(w, from, row, first));
      left = late;
    }
    const sounds = switching ? soundsByLoops(first, switching, w) : first;
    for (const d of switching?.loops.flat() ?? []) d.engaged = true;
    return this.voice(w, voice, at, left, sounds);
  }

  private voice(w: Wiring, voice: Voice, at: Waiting, left: Device[], sounds: Sound[]): Sound[] {
    const lines = w.brief.sounds;
    const direct = w.brief.destinations.filter((d) => !isAmp(d));
    const house: End = { id: 'house', way: 'house', name: 'House' };
    const someone = direct.length ? direct : [house];
    if (voice === 'modeler') {
      const ends = w.brief.destinations.length ? w.brief.destinations : [house];
      const modeler = toModeler(w, at, left, ends);
      const amps = w.making.devices.filter((d) => d.host === modeler.id && d.kind === 'amp-block');
      const ids = amps.map((d) => d.id);
      return soundsByModel(sounds, lines, ids, this.pedals);
    }
    if (voice === 'amplifiers') {
      const some: End = { id: 'amplifier', way: 'combo', name: 'Amplifier' };
      const hasAmp = w.brief.destinations.some(isAmp);
      const destinations = hasAmp ? w.brief.destinations : [some, ...w.brief.destinations];
      this.turns = toAmplifiers({ ...w, brief: { ...w.brief, destinations } }, at, left);
      return this.turns ? soundsByAmps(sounds, lines, this.turns) : sounds;
    }
    if (voice === 'simulator') bySimulator(w, at, left, someone);
    else byBoxes(w, at, left, someone);
    return sounds;
  }

  /** Who must not be heard by all goes past the pedals, by a direct box, to those who may hear it. */
  private straight(p: Playing, several: boolean): void {
    const { making, choices, brief } = this.w;
    const named = (this.reached.get(p) ?? [])
      .filter((e) => !isAmp(e))
      .map((e) => ({ ...e, name: this.isFed(e.name) ? `${e.name}, ${p.line.name}` : e.name }));
    choices.take(
      `straight-${p.line.id}`,
      `The way of ${p.line.name}`,
      [['straight', 'past the pedals, by direct boxes']],
      'straight',
      () =>
        'Not all may hear it who hear the others, so it cannot share their ' +
        `way${named.length ? '' : '; nobody is left who may'}.`,
    );
    if (!named.length) return;
    const before = making.devices.length;
    const at = driven(making, choices, arrive(making, choices, [p], several));
    toEach(making, named, { ...brief, means: { ...brief.means, house: 'mono' } }, at, 'box');
    this.endsFrom(before, [p]);
  }

  /** A second output of an instrument, as a piezo has: a line of its own to the desk. */
  private second(p: Playing): void {
    const { making, choices, brief } = this.w;
    const jack = kindOf(p.line.kind).jacks.find((j) => j.id === 'piezo');
    const desk = (this.reached.get(p) ?? []).filter((e) => e.way === 'house');
    if (!jack || !desk.length) return;
    const taken = choices.take(
      `second-${p.line.id}`,
      `The second output of ${p.line.name}`,
      [
        ['desk', 'to the desk, by a direct box'],
        ['none', 'stays unplugged'],
      ],
      'desk',
      (t) =>
        t === 'desk'
          ? 'It is a sound of its own, with its preamplifier: pedals and amplifiers are made for the other one.'
          : 'Only the first output is used.',
    );
    if (taken === 'none') return;
    const ends = desk.map((e) => ({ ...e, name: `${e.name}, ${p.line.name} piezo` }));
    const at = { left: { device: p.device.id, jack: jack.id }, metres: METRES.player };
    toEach(making, ends, { ...brief, means: { ...brief.means, house: 'mono' } }, at, 'box');
  }

  private isFed = (name: string) => this.w.making.devices.some((d) => d.name === name);

  private endsFrom(before: number, players: readonly Playing[]): void {
    for (const d of this.w.making.devices.slice(before)) this.ends.set(d.id, [...players]);
  }

  promises(sounds: readonly Sound[]) {
    const { w, turns, main } = this;
    const tuned = new Set(this.pedals.map((d) => d.id));
    const reaches = (d: Device, p: Playing) =>
      tuned.has(d.id) ? main.includes(p) : (this.ends.get(d.id) ?? []).includes(p);
    const fedIn = (d: Device) => {
      const amps = turns?.hears[d.id];
      const count = turns?.states.length ?? 0;
      return (
        amps &&
        sounds.filter((_, n) => amps.includes(ampIn(w.brief.sounds, n, count))).map((s) => s.id)
      );
    };
    return startPromises(w.brief, w.making.devices, this.players, reaches, fedIn);
  }
}

const isSame = (a: readonly End[] | undefined, b: readonly End[] | undefined): boolean =>
  a?.length === b?.length && (a ?? []).every((e) => b?.includes(e));
