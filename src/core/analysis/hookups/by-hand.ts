import { applyEdits, type Device, integrityProblems, type Rig } from '../../rig';
import { lead as l } from '../../testing/rigs';
import { analyse, type Report } from '../../report/report';

export const inside = (id: string, from: string, to: string) => l(id, from, to, 0, 'inside');
export const links = (...pairs: [string, string][]) =>
  pairs.map(([from, to], i) => inside(`in${i}`, from, to));
export const sheet = (values: Record<string, number>): Partial<Device> => ({
  figures: Object.fromEntries(
    Object.entries(values).map(([id, value]) => [id, { value, from: 'sheet' as const }]),
  ),
});
export const whole = (rig: Rig): Report => {
  expect(integrityProblems(rig)).toEqual([]);
  return analyse(rig);
};
export const rules = (r: Report) => r.findings.map((f) => f.rule);
export const found = (r: Report, rule: string) => r.findings.filter((f) => f.rule === rule);
export const at = (r: Report, sound: string, device: string) =>
  r.sounds.find((x) => x.sound === sound)!.destinations.find((x) => x.device === device)!;
export const fixed = (rig: Rig, r: Report, rule: string): Rig => {
  const done = applyEdits(rig, found(r, rule).find((f) => f.fix)!.fix!.edits);
  if (!done.ok) throw new Error(done.problems[0]!.what);
  return done.value.rig;
};
export const stations = (r: Report, sound: string, device: string) =>
  r.sounds
    .find((x) => x.sound === sound)!
    .stations.filter((x) => x.device === device)
    .map((x) => x.id);
