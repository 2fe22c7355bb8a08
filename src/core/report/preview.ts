import { done, type Outcome, refused } from '../outcome';
import { applyEdits, type Edit, type Rig } from '../rig';
import type { Finding } from '../findings/finding';
import { analyse, type Report, type SoundReport } from './report';

/** What an edit would change at one destination in one sound; `null` where one of the two is silent. */
export interface PreviewRow {
  destination: string;
  levelDb: number | null;
  thdPercent: number | null;
  signalToNoiseDb: number | null;
  at5kHzDb: number | null;
  latencyMs: number | null;
  channels: string | null;
  silent: boolean;
}

/** What an edit would change, before it is made. */
export interface Preview {
  rows: PreviewRow[];
  gone: string[];
  added: string[];
}

const difference = (a: number | null | undefined, b: number | null | undefined): number | null =>
  a === null || a === undefined || b === null || b === undefined ? null : b - a;

const brightness = (r: SoundReport, device: string): number | null => {
  const s = r.stations.find((x) => x.device === device);
  return s ? (s.input ?? s.output).tiltDb : null;
};

/**
 * Applies edits to a copy and tells (given the report as it stands, if there is one) what changes
 * at each destination of a sound, and which findings come and go.
 */
export function previewEdits(
  rig: Rig,
  edits: readonly Edit[],
  sound: string,
  now?: Report,
): Outcome<Preview> {
  const applied = applyEdits(rig, edits);
  if (!applied.ok) return applied;
  const [before, after] = [now ?? analyse(rig), analyse(applied.value.rig)];
  const [one, two] = [before, after].map((r) => r.sounds.find((s) => s.sound === sound));
  if (!one || !two) return refused('That sound is not in this rig.');
  const rows = one.destinations.flatMap((a) => {
    const b = two.destinations.find((d) => d.device === a.device);
    if (!b) return [];
    const row = {
      destination: a.name,
      levelDb: difference(a.levelDbu?.normal, b.levelDbu?.normal),
      thdPercent: difference(a.thdPercent?.normal, b.thdPercent?.normal),
      signalToNoiseDb: difference(a.signalToNoiseDb, b.signalToNoiseDb),
      at5kHzDb: difference(brightness(one, a.device), brightness(two, a.device)),
      latencyMs: difference(a.latencyMs, b.latencyMs),
      channels: a.channels === b.channels ? null : b.channels,
      silent: a.levelDbu !== null && b.levelDbu === null,
    };
    return [row];
  });
  const only = (x: Finding[], y: Finding[]) =>
    x.filter((f) => !y.some((g) => g.key === f.key)).map((f) => f.what);
  return done({
    rows,
    gone: only(before.findings, after.findings),
    added: only(after.findings, before.findings),
  });
}
