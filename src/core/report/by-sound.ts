import type { Finding } from '../findings/finding';
import { sure } from '../outcome';
import { type Kind, kindOf } from '../kinds';
import {
  applyEdits,
  type Device,
  type Edit,
  nameOf,
  type Rig,
  settingWords,
  stateIn,
} from '../rig';
import { deviceOf, endWords } from '../rig/find';
import { allOf, fixed } from '../units';
import { type Difference, isAny } from './difference';
import { analyse, type Report, type SoundReport } from './report';
import { isNearly } from './tried';

/** What a change does, sound by sound; sounds that stay as they are are not among them. */
export interface BySound {
  everywhere: Difference;
  sounds: (Difference & { sound: string; name: string })[];
}

/** Changes of level under this many dB are not told. */
const TOLD_DB = 1;

/**
 * What is lost and gained by a change, got by making it on a copy that is analysed as any rig is:
 * leads, jacks and controls; settings that the sounds had; findings that come and go; who hears whom;
 * levels at destinations. The words why it cannot be made, where it cannot.
 */
export function bySound(rig: Rig, edits: readonly Edit[]): BySound | { refused: string } {
  const applied = applyEdits(rig, edits);
  if (!applied.ok) return { refused: applied.problems[0]?.what ?? 'it cannot be done here' };
  const now = applied.value.rig;
  const [before, after] = [analyse(rig), analyse(now)];
  const { came, went } = turned(before.findings, after.findings);
  const sounds = rig.sounds.map(({ id, name }) => {
    const [one, two] = [before, after].map((r) => r.sounds.find((s) => s.sound === id));
    const heard = one && two ? atDestinations(rig, one, two) : NOTHING;
    return {
      sound: id,
      name,
      lost: [...settingsLost(rig, now, id), ...heard.lost],
      gained: heard.gained,
      worse: findingWords(came, id),
      better: findingWords(went, id),
      otherwise: heard.otherwise,
    };
  });
  const devices = changedDevices(rig, now);
  return {
    everywhere: {
      lost: [
        ...leadsLost(rig, now),
        ...devices.flatMap(([was, is]) => beyond(was, is)),
        ...devices.flatMap(([was, is]) => gone(was, was.settings, is.settings)),
        ...serialsLost(rig, now),
        ...promisesLost(before, after),
      ],
      gained: devices.flatMap(([was, is]) => beyond(is, was)),
      worse: findingWords(came),
      better: findingWords(went),
      otherwise: [],
    },
    sounds: sounds.filter(isAny),
  };
}

const NOTHING = { lost: [], gained: [], otherwise: [] };

/** A finding in the sounds in which it came or went; none for one that is about the rig as a whole. */
interface Turn {
  finding: Finding;
  sounds: readonly string[];
}

/** Findings that are there and were not, and the other way; those that are the same in new clothes are neither. */
function turned(before: readonly Finding[], after: readonly Finding[]) {
  const open = (all: readonly Finding[]) => all.filter((f) => f.accepted === undefined);
  const only = (all: readonly Finding[], others: readonly Finding[]): Turn[] =>
    open(all).flatMap((finding) => {
      const same = open(others).find(
        (o) => o.key === finding.key && o.severity === finding.severity,
      );
      const sounds = same ? finding.sounds.filter((s) => !same.sounds.includes(s)) : finding.sounds;
      return same && !sounds.length ? [] : [{ finding, sounds }];
    });
  const [came, went] = [only(after, before), only(before, after)];
  const near = came.flatMap((c) => {
    const was = went.find((w) => isNearly(w.finding, c.finding) && isNearly(c.finding, w.finding));
    return was ? [c, was] : [];
  });
  return {
    came: came.filter((t) => !near.includes(t)),
    went: went.filter((t) => !near.includes(t)),
  };
}

/** Findings that turned in a sound; without a sound, those that are about the rig as a whole. */
const findingWords = (turns: readonly Turn[], sound?: string): string[] =>
  turns.flatMap(({ finding: f, sounds }) =>
    (sound === undefined ? sounds.length === 0 : sounds.includes(sound))
      ? [`${f.severity}: ${f.what}`]
      : [],
  );

const leadsLost = (rig: Rig, now: Rig): string[] =>
  rig.leads.flatMap((l) =>
    now.leads.some((x) => x.id === l.id)
      ? []
      : [`the lead from ${endWords(rig, l.from)} to ${endWords(rig, l.to)}`],
  );

/** Devices that are of another kind now, as they were and as they are. */
const changedDevices = (rig: Rig, now: Rig): [Device, Device][] =>
  rig.devices.flatMap((was): [Device, Device][] => {
    const is = deviceOf(now, was.id);
    return is && is.kind !== was.kind ? [[was, is]] : [];
  });

/** The jacks and controls that a device has and another has not, by name. */
function beyond(device: Device, other: Device): string[] {
  const [kind, otherKind] = [kindOf(device.kind), kindOf(other.kind)];
  const outside = (k: Kind) => k.jacks.filter((j) => !j.inside).map((j) => j.label);
  const turnable = (k: Kind) => k.parameters.map((p) => p.label);
  const more = (what: string, of: (k: Kind) => string[]) => {
    const labels = of(kind).filter((label) => !of(otherKind).includes(label));
    const things = labels.length === 1 ? what : `${what}s`;
    return labels.length ? [`${device.name}: the ${things} ${labels.join(', ')}`] : [];
  };
  return [...more('jack', outside), ...more('control', turnable)];
}

const serialsLost = (rig: Rig, now: Rig): string[] =>
  rig.devices.flatMap((d) => {
    const serial = d.gear?.serial;
    return serial && !now.devices.some((x) => x.gear?.serial === serial)
      ? [`unit ${serial} is used in it no longer`]
      : [];
  });

const promisesLost = (before: Report, after: Report): string[] =>
  before.promises.flatMap((p) =>
    after.promises.some((x) => x.id === p.id) ? [] : [`the promise that ${p.words}`],
  );

/** Settings that a sound had of its own and that nothing holds any more. */
function settingsLost(rig: Rig, now: Rig, sound: string): string[] {
  const soundIn = (r: Rig) => sure(r.sounds.find((s) => s.id === sound));
  const [one, two] = [soundIn(rig), soundIn(now)];
  return rig.devices.flatMap((d) => {
    return gone(d, stateIn(one, d.id)?.settings, stateIn(two, d.id)?.settings);
  });
}

/** Settings of a device that were said and are not, in words. */
const gone = (d: Device, had: Device['settings'] = {}, has: Device['settings'] = {}): string[] =>
  Object.entries(had).flatMap(([id, value]) =>
    id in has ? [] : [`${d.name} stood with ${settingWords(d.kind, id, value)}`],
  );

/** Who hears whom no longer or anew, and how much louder or softer. */
function atDestinations(
  rig: Rig,
  one: SoundReport,
  two: SoundReport,
): Pick<Difference, keyof typeof NOTHING> {
  const found: Pick<Difference, keyof typeof NOTHING> = { lost: [], gained: [], otherwise: [] };
  for (const d of one.destinations) {
    const now = two.destinations.find((x) => x.device === d.device);
    const heard = now?.sources ?? [];
    const names = (ids: readonly string[]) => allOf(ids.map((s) => nameOf(rig, s)));
    const gone = d.sources.filter((s) => !heard.includes(s));
    const fresh = heard.filter((s) => !d.sources.includes(s));
    if (gone.length) found.lost.push(`${d.name} no longer hears ${names(gone)}`);
    if (fresh.length) found.gained.push(`${d.name} hears ${names(fresh)}`);
    const db = (now?.levelDbu?.normal ?? NaN) - (d.levelDbu?.normal ?? NaN);
    if (Math.abs(db) >= TOLD_DB)
      found.otherwise.push(
        `${d.name} is ${fixed(Math.abs(db))} dB ${db > 0 ? 'louder' : 'softer'}`,
      );
  }
  return found;
}
