import type { Finding, Fix } from '../findings/finding';
import { isOfBuilding } from '../findings/rules';
import { isWorse, SEVERITIES } from '../findings/severity';
import { applyEdits, type Edit, nameOf, type Rig } from '../rig';
import { allOf, fixed } from '../units';
import { idleIn } from './idle';
import { isSafe, type Outcomes, type Tried, type TriedFix } from './outcomes';
import { Analyser, type Report, type SoundReport } from './report';

/** Changes of level under this many dB are not told. */
const TOLD_DB = 1;
const SERIOUS = SEVERITIES.slice(0, SEVERITIES.indexOf('caution') + 1);
const isSerious = (f: Finding): boolean => f.accepted === undefined && SERIOUS.includes(f.severity);

const PLUGGING: ReadonlySet<Edit['edit']> = new Set(['connect', 'disconnect', 'swapEnds']);

/** Whether a fix pulls and plugs leads: of such alone, what they leave idle tells which was meant. */
const isPlugging = ({ edits }: Fix): boolean => edits.every(({ edit }) => PLUGGING.has(edit));

/** So many fixes of other findings are tried for a broken promise. */
const MOST_CAUSES = 12;
/** So many changed rigs are kept with their reports. */
const MOST_KNOWN = 40;

interface Changed {
  rig: Rig;
  report: Report;
}

/**
 * Tries fixes on copies of one rig. Nothing that it says of a fix is estimated: the edits are made
 * on a copy, the copy is analysed as any rig is, and the two reports are compared.
 */
export class FixTrial {
  private readonly analyser = Analyser.withWaysOut();
  private readonly known = new Map<string, Changed>();
  readonly report: Report;

  constructor(readonly rig: Rig) {
    this.report = this.analyser.analyse(rig);
  }

  /**
   * Every way to cure a finding that does cure it: what breaks nothing first, and of those what
   * leaves the rig with the least wrong, of leads least idle, then most heard; then what costs least.
   */
  waysOut(finding: Finding): TriedFix[] {
    return this.candidates(finding)
      .map((fix) => ({ fix, tried: this.try(finding, fix) }))
      .filter(({ tried }) => tried.cures)
      .sort(
        (a, b) =>
          a.tried.breaks.length - b.tried.breaks.length ||
          a.tried.leaves - b.tried.leaves ||
          (isPlugging(a.fix) && isPlugging(b.fix) ? a.tried.idle - b.tried.idle : 0) ||
          b.tried.heard - a.tried.heard ||
          a.tried.costs.length - b.tried.costs.length,
      );
  }

  /**
   * Fixes that may cure a finding: its own; of a broken promise those of what else is found in the same
   * sounds, since the cause of it has them.
   */
  candidates(finding: Finding): Fix[] {
    if (finding.rule !== 'promise') return fixesOf(finding);
    const named = new Set(finding.sounds);
    const causes = this.report.findings.filter(
      (f) =>
        f.rule !== 'promise' &&
        f.accepted === undefined &&
        !isOfBuilding(f.rule) &&
        f.sounds.some((s) => named.has(s)),
    );
    const [first, others] = [causes.map((f) => fixesOf(f)[0]), causes.flatMap(fixesOf)];
    const all = [...first, ...others].filter((f) => f !== undefined);
    return withoutTwins(all).slice(0, MOST_CAUSES);
  }

  /** What comes of one fix. */
  try(finding: Finding, fix: Fix): Tried {
    const changed = this.changed(fix.edits);
    if (!changed) return { cures: false, leaves: Infinity, heard: 0, idle: 0, ...IMPOSSIBLE };
    const { rig, report: after } = changed;
    return {
      cures: !remains(finding, this.report, after),
      leaves: after.findings.filter(isSerious).length,
      heard: after.sounds
        .flatMap((x) => x.destinations)
        .reduce((sum, d) => sum + d.sources.length + (d.channels === 'stereo' ? 2 : 0), 0),
      idle: idleIn(rig, after),
      ...this.compared(after),
    };
  }

  /** What any change makes worse, and what else is different then. */
  outcome(edits: readonly Edit[]): Outcomes {
    const changed = this.changed(edits);
    return changed ? this.compared(changed.report) : IMPOSSIBLE;
  }

  /** The rig with some edits made, and its report: the same edits may be asked about by several findings. */
  private changed(edits: readonly Edit[]): Changed | undefined {
    const key = JSON.stringify(edits);
    const known = this.known.get(key);
    if (known) return known;
    const applied = applyEdits(this.rig, edits);
    if (!applied.ok) return undefined;
    const { rig } = applied.value;
    const changed = { rig, report: this.analyser.forCopies().analyse(rig) };
    if (this.known.size >= MOST_KNOWN) this.known.clear();
    this.known.set(key, changed);
    return changed;
  }

  private isBearable(after: Report): (f: Finding) => boolean {
    const gone = this.report.findings.filter((b) => !after.findings.some((f) => f.key === b.key));
    return (f) => {
      if (isOfBuilding(f.rule)) return true;
      const other = gone.findIndex((b) => isNearly(b, f));
      if (other >= 0) gone.splice(other, 1);
      return other >= 0;
    };
  }

  private compared(after: Report): Outcomes {
    const serious = fresh(this.report, after, SERIOUS);
    return {
      breaks: [
        ...brokenPromises(this.report, after),
        ...unheard(this.rig, this.report, after),
        ...serious.map(told),
      ],
      bearable: serious.filter(this.isBearable(after)).map(told),
      costs: [
        ...fresh(this.report, after, ['advice']).map((f) => `advice: ${f.what}`),
        ...levelChange(this.rig, this.report, after),
      ],
    };
  }
}

const told = (f: Finding): string => `${f.severity}: ${f.what}`;

const IMPOSSIBLE: Outcomes = { breaks: ['it cannot be done here'], bearable: [], costs: [] };

/** All fixes of a finding, its first one first; the same edits under other words only once. */
export const fixesOf = (f: Finding): Fix[] =>
  withoutTwins([...(f.fix ? [f.fix] : []), ...(f.others ?? [])]);

function withoutTwins(fixes: readonly Fix[]): Fix[] {
  const seen = new Set<string>();
  return fixes.filter((fix) => {
    const key = JSON.stringify(fix.edits);
    return !seen.has(key) && seen.add(key);
  });
}

/**
 * Whether a finding is still there: under its own key, or as one that is new, of the same rule and
 * about the same thing, in a sound that it named.
 */
function remains(finding: Finding, before: Report, after: Report): boolean {
  const named = new Set(finding.sounds);
  return after.findings.some(
    (f) =>
      f.rule === finding.rule &&
      f.sounds.some((s) => named.has(s)) &&
      (f.key === finding.key ||
        (!before.findings.some((b) => b.key === f.key) &&
          f.subjects.some((s) => finding.subjects.includes(s)))),
  );
}

/** Findings that are there now and were not, or in sounds in which they were not; those accepted do not count. */
const fresh = (before: Report, after: Report, severities: readonly string[]): Finding[] =>
  after.findings.filter((f) => {
    if (f.accepted !== undefined || !severities.includes(f.severity)) return false;
    const was = before.findings.find((b) => b.key === f.key);
    // A promise that is broken is told as that.
    if (f.rule === 'promise') return false;
    return !was || f.sounds.some((s) => !was.sounds.includes(s));
  });

/**
 * Whether a finding is another one in new clothes: of the same rule and no worse, in no more sounds,
 * and something that the one is about the other is about, too. A hum loop through boxes that changed
 * places is one, and hiss at a desk that another box gives most of now.
 */
export const isNearly = (was: Finding, f: Finding): boolean =>
  was.rule === f.rule &&
  !isWorse(f.severity, was.severity) &&
  f.sounds.every((s) => was.sounds.includes(s)) &&
  was.subjects.some((s) => f.subjects.includes(s));

/** Promises that were kept and are not, or are broken in more sounds, or went with a device. */
const brokenPromises = (before: Report, after: Report): string[] =>
  before.promises
    .filter((was) => {
      const now = after.promises.find((p) => p.id === was.id);
      if (!now) return was.kept;
      if (now.kept) return false;
      const sounds = new Set(was.breaches.map((b) => b.sound));
      return was.kept || now.breaches.some((b) => !sounds.has(b.sound));
    })
    .map((p) => `the promise that ${p.words}`);

/** Sources that a destination heard and hears no longer, with the sounds in which that is so. */
function unheard(rig: Rig, before: Report, after: Report): string[] {
  const lost = each(before, after, (one, two, sound) =>
    one.destinations.flatMap((d) => {
      const now = two.destinations.find((x) => x.device === d.device)?.sources ?? [];
      const gone = d.sources.filter((s) => !now.includes(s)).map((s) => nameOf(rig, s));
      return gone.length ? [{ what: `${d.name} no longer hears ${allOf(gone)}`, sound }] : [];
    }),
  );
  const sounds = new Map<string, string[]>();
  for (const { what, sound } of lost)
    sounds.set(what, [...(sounds.get(what) ?? []), soundName(rig, sound)]);
  return [...sounds].map(([what, where]) =>
    where.length === rig.sounds.length ? `${what} in any sound` : `${what} in ${where.join(', ')}`,
  );
}

/** The largest change of level at a destination, where one can be told. */
function levelChange(rig: Rig, before: Report, after: Report): string[] {
  const changes = each(before, after, (one, two, sound) =>
    one.destinations.flatMap((d) => {
      const now = two.destinations.find((x) => x.device === d.device)?.levelDbu?.normal;
      const db = d.levelDbu && now !== undefined ? now - d.levelDbu.normal : 0;
      return Math.abs(db) < TOLD_DB ? [] : [{ db, name: d.name, sound }];
    }),
  ).sort((a, b) => Math.abs(b.db) - Math.abs(a.db));
  const [most] = changes;
  if (!most) return [];
  const more = changes.length > 1 ? ` (and ${changes.length - 1} more changes of level)` : '';
  return [
    `${most.name} is ${fixed(Math.abs(most.db))} dB ${most.db > 0 ? 'louder' : 'softer'} in ` +
      `${soundName(rig, most.sound)}${more}`,
  ];
}

const soundName = (rig: Rig, id: string) => rig.sounds.find((s) => s.id === id)?.name ?? id;

const each = <T>(
  before: Report,
  after: Report,
  look: (one: SoundReport, two: SoundReport, sound: string) => T[],
): T[] =>
  before.sounds.flatMap((one) => {
    const two = after.sounds.find((s) => s.sound === one.sound);
    return two ? look(one, two, one.sound) : [];
  });

/** What was done by curing all that could be cured safely. */
export interface Cured {
  rig: Rig;
  edits: Edit[];
  /** Each fix that was made, in words, with the finding that it cured. */
  done: { what: string; words: string }[];
}

/** More fixes than any rig needs, one after the other. */
const MOST_FIXES = 60;

/** Says how far it is. */
type Tell = (share: number, words: string) => Promise<void>;

/**
 * Applies every fix that cures and breaks nothing, the worst finding first, each tried on the rig as
 * the ones before left it. What could not be cured safely is tried once more after others were. A
 * finding that was cured once is not cured again, so that two pieces of advice never undo each other
 * for ever.
 */
export async function cureAll(rig: Rig, tell: Tell = () => Promise.resolve()): Promise<Cured> {
  const cured: Cured = { rig, edits: [], done: [] };
  const once = new Set<string>();
  for (let found = true; found;) {
    found = false;
    const tried = new Set<string>();
    for (let next = await firstSafe(cured.rig, once, tried, tell); next;) {
      const applied = applyEdits(cured.rig, next.fix.edits);
      if (!applied.ok || cured.done.length >= MOST_FIXES) return cured;
      found = true;
      once.add(next.finding.key);
      cured.rig = applied.value.rig;
      cured.edits.push(...next.fix.edits);
      cured.done.push({ what: next.finding.what, words: next.fix.words });
      next = await firstSafe(cured.rig, once, tried, tell);
    }
  }
  return cured;
}

/** The first open finding with a safe way out, of those that were not cured before or tried in this round. */
async function firstSafe(
  rig: Rig,
  once: ReadonlySet<string>,
  tried: Set<string>,
  tell: Tell,
): Promise<{ finding: Finding; fix: Fix } | undefined> {
  const trial = new FixTrial(rig);
  const open = trial.report.findings.filter(
    (f) => f.accepted === undefined && !once.has(f.key) && !tried.has(f.key),
  );
  for (const [i, finding] of open.entries()) {
    await tell(i / open.length, `trying: ${finding.what}`);
    tried.add(finding.key);
    const [best] = trial.waysOut(finding);
    if (best && isSafe(best.tried)) return { finding, fix: best.fix };
  }
  return undefined;
}
