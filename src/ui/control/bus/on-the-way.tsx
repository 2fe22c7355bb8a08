import type { Scene } from '../../../core/control/scene';
import { at as entryAt } from '../../../core/outcome';
import { nameOf } from '../../../core/rig/find';
import type { Rig } from '../../../core/rig/schema';
import { fixed, showLevel } from '../../../core/units';
import { useAnswer } from '../../look/use-answer';
import { useRig } from '../../store/use-rig';

/** Levels between the landings, and whether one rises above both sounds. */
export function OnTheWay({ from, to, rig }: { from: Scene; to: Scene; rig: Rig }) {
  const units = useRig((s) => s.units);
  const isSound = (s: Scene) => rig.sounds.some((x) => x.id === s.id);
  const levels = useAnswer(
    'landing',
    isSound(from) && isSound(to) ? { from: from.id, to: to.id } : null,
  );
  if (!levels || !levels.steps.length) return null;
  const shown = levels.destinations
    .map((d, i) => ({ ...d, i }))
    .filter(
      ({ i }) => new Set([levels.before[i], ...levels.steps.map((s) => s.levels[i])]).size > 1,
    );
  return (
    <>
      <h3>What is heard on the way</h3>
      <p data-spike>{levels.words}</p>
      {shown.length > 0 && (
        <table className="sheet-table figures" data-table="on-the-way">
          <thead>
            <tr>
              <th>After</th>
              {shown.map((d) => (
                <th key={d.device}>{d.name}</th>
              ))}
            </tr>
          </thead>
          <tbody>
            <tr>
              <td>before</td>
              {shown.map(({ i, device }) => (
                <td key={device}>{showLevel(entryAt(levels.before, i), units.level)}</td>
              ))}
            </tr>
            {levels.steps.map((s, k) => (
              <tr key={k}>
                <td>
                  {fixed(s.at, 1)} ms, {nameOf(rig, s.device)}
                </td>
                {shown.map(({ i, device }) => (
                  <td key={device}>{showLevel(entryAt(s.levels, i), units.level)}</td>
                ))}
              </tr>
            ))}
          </tbody>
        </table>
      )}
    </>
  );
}
