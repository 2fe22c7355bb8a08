import {
  type Causes,
  evidenceOf,
  type Figuring,
  figuresIn,
  type SoundFigures,
  type ToneMemory,
  unexplained,
  withoutSymptoms,
} from '../analysis';
import { pluggedJacks } from '../circuit';
import { effectiveRig } from '../control/effective';
import type { Finding } from '../findings/finding';
import type { SceneRemark } from '../midi';
import { PromiseChecker, promiseRemarks, type PromiseResult } from '../promises';
import { settle } from '../rig/find';
import type { Rig, Sound } from '../rig/schema';
import { sameJson } from '../rig/same-json';
import { learnSheets } from '../rig/sheets';
import type { SoundContext } from '../signal';
import { sameToTheEar, sameToTheHand } from '../rig/to-the-ear';
import { CHECKS, type Checks, type RigCheck } from './checks';
import { contained, type TellFailure } from './contained';
import { gatherFindings } from './gather';
import { Namer, withoutNames } from './names';

/** All figures of one sound. */
export type SoundReport = SoundFigures;

/** A sound that was worked out: its figures, and what a person should know of them. */
export interface JudgedSound extends Causes {
  figures: SoundReport;
}

/** Figures per sound, which promises are kept, and the findings over all of them. */
export interface Report {
  sounds: SoundReport[];
  promises: PromiseResult[];
  findings: Finding[];
}

/** What a check of the whole rig said last, of which rig, and what it read by way of others. */
interface Kept {
  rig: Rig;
  through: unknown;
  remarks: SceneRemark[];
}

/** The sound that is wanted before the others, and who takes its figures as soon as they are there. */
export interface First {
  sound: string;
  take: (report: SoundReport) => void;
}

/** Parts of a sound's figures in which devices are told by their ids alone: most of all that it has. */
const NAMELESS = ['stations', 'steps', 'tones'] as const satisfies (keyof SoundFigures)[];

/** A sound for rigs that have none: every device as it stands. */
const AS_IT_STANDS: Sound = { id: 'as-it-stands', name: 'As it stands', states: {} };

/** A sound whose figures could not be worked out. */
const noFigures = (sound: Sound): SoundFigures => ({
  sound: sound.id,
  stations: [],
  steps: [],
  columns: 0,
  lanes: 0,
  destinations: [],
  tones: [],
  cycles: [],
  speakers: [],
  humLoops: [],
  hosts: [],
});

const quietly: TellFailure = () => undefined;

/** Figures and remarks of one sound; `take` has the figures before they are judged. */
export function analyseSound(
  rig: Rig,
  sound: Sound,
  figuring: Figuring = {},
  checks: Checks['sound'] = CHECKS.sound,
  tell: TellFailure = quietly,
  take: (figures: SoundReport) => void = () => undefined,
): JudgedSound {
  return contained(
    `the figures of ${sound.name}`,
    tell,
    () => {
      const evidence = evidenceOf(rig, sound, figuring);
      const figures = figuresIn(evidence);
      take(figures);
      const remarks = Object.entries(checks).flatMap(([name, look]) =>
        contained(
          name,
          tell,
          () => look(evidence),
          (failed) => [failed],
        ),
      );
      return { figures, ...withoutSymptoms(remarks) };
    },
    (failed) => ({ figures: noFigures(sound), remarks: [failed], explained: [] }),
  );
}

/**
 * Works a rig out, and remembers what it worked out: an edit that leaves a sound's inputs the same
 * object leaves its report the same object. A check that fails is one finding and is told to
 * `tell`; the others stand.
 */
export class Analyser {
  private promises = new PromiseChecker();
  private readonly kept = new Map<RigCheck, Kept>();
  private last?: { rig: Rig; sounds: Map<Sound, JudgedSound> };
  private heardDevices?: Rig['devices'];
  private builtDevices?: Rig['devices'];
  private contexts = new Map<string, SoundContext>();
  private namer = new Namer();

  constructor(
    private readonly tell: TellFailure = quietly,
    private readonly checks: Checks = CHECKS,
    private readonly tones: ToneMemory = new Map(),
    private readonly wantsFixes = false,
  ) {}

  /** One that also looks for the ways out that are dear to find, each tried on copies. */
  static withWaysOut(): Analyser {
    return new Analyser(undefined, undefined, undefined, true);
  }

  /**
   * Another for copies that are only compared: it begins with all that this one knows, so that what a
   * copy leaves alone is not worked out again.
   */
  forCopies(): Analyser {
    const other = new Analyser(this.tell, this.checks, this.tones);
    other.promises = this.promises.forCopies();
    for (const [check, known] of this.kept) other.kept.set(check, known);
    other.last = this.last;
    other.contexts = new Map(this.contexts);
    // What a copy leaves alone is told under the same names.
    other.namer = this.namer;
    other.heardDevices = this.heardDevices;
    other.builtDevices = this.builtDevices;
    return other;
  }

  analyse(written: Rig, first?: First): Report {
    learnSheets(written.sheets);
    settle(written);
    this.namer.call(written);
    const unnamed = withoutNames(written);
    settle(unnamed);
    const heard = this.toTheEar(unnamed);
    const rig = effectiveRig(heard);
    const sounds = rig.sounds.length ? rig.sounds : [AS_IT_STANDS];
    const known = this.last && sameInputs(this.last.rig, rig) ? this.last.sounds : undefined;
    if (this.tones.size > 4000) this.tones.clear();
    const plugged = pluggedJacks(rig);
    const judged = new Map<Sound, JudgedSound>();
    const wanted = sounds.find((s) => s.id === first?.sound);
    if (wanted && first) {
      const take = (figures: SoundReport) => first.take(this.namer.named(figures, NAMELESS));
      const kept = known?.get(wanted);
      if (!kept) judged.set(wanted, this.sound(rig, wanted, plugged, take));
      else if (!this.namer.isTold(kept.figures)) take(kept.figures);
    }
    const each = sounds.map((s): [Sound, JudgedSound] => [
      s,
      judged.get(s) ?? known?.get(s) ?? this.sound(rig, s, plugged),
    ]);
    this.last = { rig, sounds: new Map(each) };
    const list = each.map(([, { figures }]) => figures);
    const anySound = list[0]?.sound ?? AS_IT_STANDS.id;
    const promises = this.promises.check(rig, list, this.tell, this.contexts);
    const built = this.onRig(this.checks.build, this.toTheHand(unnamed)).map(
      ({ remark }) => remark,
    );
    const explained = new Set(each.flatMap(([, judged]) => judged.explained));
    const remarks = [
      ...this.onRig(this.checks.control, heard).flatMap(({ sounds: named, remark }) =>
        (named.length ? named : [anySound]).map((sound) => ({ sound, remarks: [remark] })),
      ),
      ...each.map(([, { figures, remarks: said }]) => ({
        sound: figures.sound,
        remarks: [...unexplained(said, explained), ...built],
      })),
      ...promiseRemarks(promises).map(({ sound, remark }) => ({
        sound: sound ?? anySound,
        remarks: [remark],
      })),
    ];
    return {
      sounds: list.map((figures) => this.namer.named(figures, NAMELESS)),
      promises: promises.map((promise) => this.namer.named(promise)),
      findings: gatherFindings(rig, remarks).map((finding) => this.namer.named(finding)),
    };
  }

  /**
   * The rig with the devices that were worked with before, where nothing of them that is heard has
   * changed: a note, a place on the board or a weight costs no figure.
   */
  private toTheEar(rig: Rig): Rig {
    const before = this.heardDevices;
    if (before && sameToTheEar(before, rig.devices)) return { ...rig, devices: before };
    this.heardDevices = rig.devices;
    return rig;
  }

  /** The rig with the devices that were built before, where nothing that building reads has changed. */
  private toTheHand(rig: Rig): Rig {
    const before = this.builtDevices;
    if (before && sameToTheHand(before, rig.devices)) return { ...rig, devices: before };
    this.builtDevices = rig.devices;
    return rig;
  }

  private sound(
    rig: Rig,
    sound: Sound,
    plugged: Map<string, Set<string>>,
    take?: First['take'],
  ): JudgedSound {
    const { tones: memory, contexts: known, checks, tell, wantsFixes } = this;
    const figuring = { memory, plugged, wantsFixes, known };
    return analyseSound(rig, sound, figuring, checks.sound, tell, take);
  }

  /** What checks of the whole rig say; each is asked again only when something that it reads has changed. */
  private onRig(checks: Record<string, RigCheck>, rig: Rig): SceneRemark[] {
    return Object.entries(checks).flatMap(([name, check]) => {
      const before = this.kept.get(check);
      const { through, isTold } = readThrough(check, rig);
      const isAsBefore = (was: Rig) =>
        check.reads.every((part) => was[part] === rig[part] || check.isSame?.[part]?.(was, rig));
      if (before && isTold && isAsBefore(before.rig) && sameJson(before.through, through))
        return before.remarks;
      const remarks = contained(
        name,
        this.tell,
        () => check.look(rig),
        (remark) => [{ sounds: rig.sounds.map((s) => s.id), remark }],
      );
      this.kept.set(check, { rig, through, remarks });
      return remarks;
    });
  }
}

/** What a check reads by way of others. Where that fails the check fails in its turn, and is told. */
function readThrough(check: RigCheck, rig: Rig): { through: unknown; isTold: boolean } {
  try {
    return { through: check.through?.(rig), isTold: true };
  } catch {
    return { through: undefined, isTold: false };
  }
}

/** Whether everything that all sounds share is unchanged. */
const sameInputs = (a: Rig, b: Rig): boolean =>
  a.devices === b.devices &&
  a.leads === b.leads &&
  a.controls === b.controls &&
  a.order === b.order &&
  a.reference === b.reference &&
  a.looms === b.looms;

/**
 * Figures per sound and findings over all sounds, with the ways out that need no search; the others
 * come from {@link Analyser.withWaysOut}, and with what they cost from `FixTrial`.
 *
 *     const { findings } = analyse(rig);
 */
export const analyse = (rig: Rig): Report => new Analyser().analyse(rig);
