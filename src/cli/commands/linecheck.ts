import { CHECK_PARTS, lineCheckOf } from '../../core/show';
import { command, named } from '../command';
import { exactSolver } from '../exact-solver';

export const linecheck = command<{ set?: string }>({
  name: 'linecheck',
  about:
    'the line check for a set: the fewest plays that cover everything, and what is around them',
  options: [{ flags: '--set <name>', about: 'a set, by name or id; the first one' }],
  run: async (rig, { set }) => {
    const chosen = set === undefined ? rig.sets?.[0] : named(rig.sets, set, (s) => s.name, 'set');
    const check = lineCheckOf(rig, chosen, await exactSolver());
    return {
      json: check,
      lines: [
        ...check.steps.map(
          (s) =>
            `[ ] ${CHECK_PARTS[s.part]}: ${s.words}` +
            (s.covers.length ? ` (${s.covers.join('; ')})` : '') +
            (s.mind ? ` Mind: ${s.mind}` : ''),
        ),
        ...(check.uncovered.length
          ? [`No sound of this set uses: ${check.uncovered.join('; ')}`]
          : []),
      ],
    };
  },
});
