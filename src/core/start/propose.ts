import { kindOf } from '../kinds';
import type { Brief, Device, Limits, Rig, Sound, Stance } from '../rig/schema';
import { learnSheets, type Sheet, sheetIdOf } from '../rig/sheets';
import { type Choice, Choices } from './choices';
import { Making, METRES, type Waiting } from './making';
import { wireMessages } from './messages';
import { isPedal, rank } from './pedal-order';
import { startPromises } from './promised';
import { ampIn, soundsByAmps, soundsByModel, startSounds } from './sounds';
import { hangInLoops, soundsByLoops, staysInFront, type Switching } from './switching';
import { type AmpTurns, isLate, type Wiring } from './ways/amp-parts';
import { toAmplifiers } from './ways/amplifiers';
import { arrive, JOIN, type Playing, playersOf } from './ways/arrive';
import { digitalBeside, effectBeside, instrumentBeside, modelled } from './ways/beside';
import { byBoxes, bySimulator, driven, isWet } from './ways/desk';
import { isDigital, isFeed } from './instruments';
import { type End, isAmp, toEach, voiceOf } from './ways/ends';
import { sharedEars, straightFeed } from './ways/feeds';
import { hold, soundsByCrossing } from './ways/held';
import { enteredBy, type Special, toModeler } from './ways/modeler';
import { secondOutput } from './ways/second-output';

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
      format: 'yantrel-rig',
      version: 1,
      id,
      name,
      devices: start.w.making.devices,
      ...usedOf(sheets, start.w.making.devices),
      leads: start.w.making.leads,
      sounds,
      ...(start.w.making.controls.length > 0 && { controls: start.w.making.controls }),
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
  /** Ears of which the band has the right one. */
  private readonly shared: End | undefined;
  /** Players whose line nothing takes, or lets through. */
  private readonly silent: Playing[] = [];
  /** Players who go through the pedals. */
  private through: readonly Playing[] = [];

  constructor(readonly w: Wiring) {
    const { making, brief, other } = w;
    this.players = playersOf(making, w.choices, brief);
    for (const p of this.players)
      this.reached.set(
        p,
        brief.destinations.filter((d) => !d.not?.includes(p.line.id)),
      );
    const hasEnds = brief.destinations.length > 0;
    const played = this.players.filter((p) => !isFeed(p.line));
    const first = played.find((p) => !hasEnds || this.reached.get(p)?.length);
    const through = first && this.reached.get(first);
    this.main = through ? played.filter((p) => isSame(this.reached.get(p), through)) : [];
    const band = this.players.find((p) => kindOf(p.line.kind).feed === 'band');
    this.shared = band && sharedEars(w, through ?? [], this.reached.get(band) ?? []);
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
    const ends = (this.reached.get(first) ?? []).map((e): End =>
      e === this.shared ? { ...e, isOneSided: true } : e,
    );
    const before = w.making.devices.length;
    const brief: Brief = { ...w.brief, destinations: [...ends] };
    const own: Wiring = { ...w, brief };
    const { joined, special } = this.comeIn(own);
    this.through = special.entered ? main : joined;
    const at = special.entered
      ? { left: { device: special.entered.id, jack: 'send1' }, metres: METRES.patch }
      : arrive(w.making, w.choices, joined, {
          several,
          together: w.brief.means?.together === true,
          hasPedals: this.pedals.length > 0,
        });
    if (joined.length > 1 && w.choices.taken(JOIN) === 'selector')
      this.silent.push(...joined.slice(1));
    sounds = this.simulatePickups(at, sounds);
    this.buffer(at, brief);
    sounds = this.chain(own, at, sounds, special);
    this.endsFrom(before, main);
    for (const p of players.filter((x) => !main.includes(x))) this.straight(p, several);
    for (const p of players) secondOutput(this.w, p, this.reached.get(p) ?? []);
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

  /**
   * What of those who play comes in in front of the pedals, and what at another input of a modeler: a
   * digital line always, another instrument or the effect of a pedal where that is chosen.
   */
  private comeIn(w: Wiring): { joined: Playing[]; special: Special } {
    const analog = this.main.filter((p) => !isDigital(p.line));
    const [digital, ...more] = this.main.filter((p) => isDigital(p.line));
    this.silent.push(...more);
    if (voiceOf(w.brief) !== 'modeler') return { joined: analog, special: {} };
    if (digital && !analog.length) {
      const entered = enteredBy(w, digital.device);
      const second = modelled(w, digital);
      return { joined: [], special: { entered, ...(second && { second }) } };
    }
    if (digital) return { joined: analog, special: { second: digitalBeside(w, digital) } };
    const beside = instrumentBeside(w, analog);
    const special = beside && { second: beside.second };
    return { joined: beside?.joined ?? analog, special: special ?? {} };
  }

  /** The pedals, switched as was asked, and behind them what makes the sound. */
  private chain(w: Wiring, from: Waiting, first: Sound[], special: Special): Sound[] {
    const voice = voiceOf(w.brief);
    const held = hold(w, this.pedals, voice === 'modeler');
    const late = held.row.filter(voice === 'amplifiers' ? (d) => isLate(d) : (d) => isWet(d));
    let row = held.row.filter((d) => !late.includes(d));
    const sounded = held.crossing ? soundsByCrossing(first, held.crossing) : first;
    let switching: Switching | undefined;
    let at = from;
    if (held.around) {
      // It hears the string in front of everything but what has to be first itself.
      const front = row.filter(staysInFront);
      at = w.making.through(at, [...front, held.around]);
      row = row.filter((d) => !front.includes(d));
    }
    let left = [...row, ...late];
    if ((w.brief.means?.switching ?? 'foot') !== 'foot') {
      ({ at, switching } = hangInLoops(w, at, row, sounded));
      left = late;
    }
    const sounds = switching ? soundsByLoops(sounded, switching, w) : sounded;
    for (const d of switching?.loops.flat() ?? []) d.engaged = true;
    const effect =
      voice === 'modeler' && !special.second ? effectBeside(w, this.pedals) : undefined;
    return this.voice(
      w,
      { ...special, ...(effect && { second: effect }), around: held.around },
      at,
      left,
      sounds,
    );
  }

  private voice(
    w: Wiring,
    special: Special,
    at: Waiting,
    left: Device[],
    sounds: Sound[],
  ): Sound[] {
    const voice = voiceOf(w.brief);
    const lines = w.brief.sounds;
    const direct = w.brief.destinations.filter((d) => !isAmp(d));
    const house: End = { id: 'house', way: 'house', name: 'House' };
    const someone = direct.length ? direct : [house];
    if (voice === 'modeler') {
      const ends = w.brief.destinations.length ? w.brief.destinations : [house];
      const modeler = toModeler(w, at, left, ends, special);
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

  /** What is not for pedals, or must not be heard by all, goes past them to those who may hear it. */
  private straight(p: Playing, several: boolean): void {
    const { making, choices, brief } = this.w;
    const reached = this.reached.get(p) ?? [];
    const nameFor = (e: End) => (this.isFed(e.name) ? `${e.name}, ${p.line.name}` : e.name);
    const before = making.devices.length;
    if (isFeed(p.line)) {
      const shared = kindOf(p.line.kind).feed === 'band' ? this.shared : undefined;
      straightFeed(this.w, p, reached, { nameFor, ...(shared && { shared }) });
      const ears = shared && making.devices.find((d) => d.name === shared.name);
      if (ears) this.ends.set(ears.id, [...(this.ends.get(ears.id) ?? []), p]);
      this.endsFrom(before, [p]);
      return;
    }
    const named = reached.filter((e) => !isAmp(e)).map((e) => ({ ...e, name: nameFor(e) }));
    const canGo = !isDigital(p.line);
    choices.take(
      `straight-${p.line.id}`,
      `The way of ${p.line.name}`,
      [['straight', canGo ? 'past the pedals, by direct boxes' : 'none: it stays unplugged']],
      'straight',
      () =>
        'Not all may hear it who hear the others, so it cannot share their ' +
        `way${named.length ? '' : '; nobody is left who may'}.` +
        (canGo
          ? ''
          : ' Only a modeler takes its digital line, and all hear what the modeler sends.'),
    );
    if (!named.length || !canGo) {
      this.silent.push(p);
      return;
    }
    const at = driven(making, choices, arrive(making, choices, [p], { several, together: true }));
    toEach(making, named, { ...brief, means: { ...brief.means, house: 'mono' } }, at, 'box');
    this.endsFrom(before, [p]);
  }

  private isFed = (name: string) => this.w.making.devices.some((d) => d.name === name);

  private endsFrom(before: number, players: readonly Playing[]): void {
    for (const d of this.w.making.devices.slice(before)) this.ends.set(d.id, [...players]);
  }

  promises(sounds: readonly Sound[]) {
    const { w, turns } = this;
    const tuned = new Set(this.pedals.map((d) => d.id));
    const reaches = (d: Device, p: Playing) =>
      !this.silent.includes(p) &&
      isFor(w.making.apart.get(d.id), p) &&
      (tuned.has(d.id) ? this.through.includes(p) : (this.ends.get(d.id) ?? []).includes(p));
    const fedIn = (d: Device) => {
      const amps = turns?.hears[d.id];
      const count = turns?.states.length ?? 0;
      return (
        amps &&
        sounds.filter((_, n) => amps.includes(ampIn(w.brief.sounds, n, count))).map((s) => s.id)
      );
    };
    return [
      ...startPromises(w.brief, w.making.devices, this.players, reaches, fedIn),
      ...w.making.promises,
    ];
  }
}

/** Whether a device at the end of a line of its own is for a player. */
const isFor = (apart: { only?: string; not?: string } | undefined, { device }: Playing): boolean =>
  (apart?.only === undefined || apart.only === device.id) && apart?.not !== device.id;

const isSame = (a: readonly End[] | undefined, b: readonly End[] | undefined): boolean =>
  a?.length === b?.length && (a ?? []).every((e) => b?.includes(e));
