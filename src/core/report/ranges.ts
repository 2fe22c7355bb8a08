import type { Finding } from '../findings/finding';
import { believable, type Figure, kindOf, measuringWay } from '../kinds';
import { applyEdits, type Rig } from '../rig';
import { Analyser, type Report } from './report';
import { ALONE, isIn, type Share } from './share';
import { isNearly } from './tried';
import { mostTurned, type ToMeasure, type TurnedVerdict } from './turned';

/** Says how far it is. */
type Tell = (share: number, words: string) => Promise<void>;

/** Typical figures of the rig's devices: those that nobody read off a sheet or measured. */
const typicalFigures = (rig: Rig): { device: string; name: string; figure: Figure }[] =>
  rig.devices.flatMap((d) =>
    kindOf(d.kind)
      .figures.filter((f) => measuringWay(f) && d.figures?.[f.id] === undefined)
      .map((figure) => ({ device: d.id, name: d.name, figure })),
  );

/**
 * Which typical figures a verdict hangs on: each is set to the lowest and to the highest that is
 * believable, on a copy that is analysed as any rig is, and what is told there and not here, or here
 * and not there, turns with it. The figure that turns most verdicts comes first. One figure at a time:
 * two that are off together may turn more. Given a share, the others are left out.
 */
export async function whatToMeasure(
  rig: Rig,
  tell: Tell = () => Promise.resolve(),
  share: Share = ALONE,
): Promise<ToMeasure[]> {
  const analyser = new Analyser();
  const now = analyser.analyse(rig);
  const copies = analyser.forCopies();
  const figures = typicalFigures(rig);
  const found: ToMeasure[] = [];
  for (const [i, { device, name, figure }] of figures.entries()) {
    if (!isIn(share, i)) continue;
    await tell(i / figures.length, `${name}: ${figure.label}`);
    const [low, high] = believable(figure);
    const turns = [low, high]
      .filter((value) => value !== figure.typical)
      .flatMap((value) => {
        const set = applyEdits(rig, [
          {
            edit: 'overrideFigure',
            device,
            figure: figure.id,
            override: { value, from: 'measured' },
          },
        ]);
        return set.ok ? turnedBetween(now, copies.analyse(set.value.rig), value) : [];
      });
    const way = measuringWay(figure);
    if (!turns.length || !way) continue;
    const { label, unit, typical } = figure;
    found.push({
      device,
      figure: figure.id,
      label,
      unit,
      typical,
      low,
      high,
      turns,
      tool: way.tool,
      steps: way.steps,
    });
  }
  return mostTurned(found);
}

/** Verdicts that are other ones in another report; a finding that names another box for the same is not. */
function turnedBetween(now: Report, then: Report, at: number): TurnedVerdict[] {
  const [here, there] = [now, then].map((r) => r.findings.filter((f) => f.rule !== 'promise'));
  const lacks = (list: readonly Finding[] = [], f: Finding) => !list.some((o) => o.key === f.key);
  const fresh = there?.filter((f) => lacks(here, f)) ?? [];
  const gone = here?.filter((f) => lacks(there, f)) ?? [];
  const isOther = (f: Finding, list: readonly Finding[]) => !list.some((o) => isAlike(o, f));
  const told = (appears: boolean) => (f: Finding) => ({ id: f.key, what: f.what, at, appears });
  const broken = (r: Report) => r.promises.filter((p) => !p.kept);
  const promises = (of: Report, other: Report, appears: boolean) =>
    broken(of)
      .filter((p) => !broken(other).some((o) => o.id === p.id))
      .map((p) => ({ id: p.id, what: `promise broken: ${p.words}`, at, appears }));
  return [
    ...fresh.filter((f) => isOther(f, gone)).map(told(true)),
    ...gone.filter((f) => isOther(f, fresh)).map(told(false)),
    ...promises(then, now, true),
    ...promises(now, then, false),
  ];
}

/** Whether two findings are of one rule and as bad, about the same thing in the same sounds. */
const isAlike = (a: Finding, b: Finding): boolean => isNearly(a, b) && isNearly(b, a);
