import { analyse, FixTrial, isSafe } from '../report';
import { applyEdits, type Rig } from '../rig';
import { device as d, lead as l, rigOf, sound as s } from '../testing/rigs';

/** A switcher whose panel input cuts the rear one off; which instruments are played is the sound's. */
const rig = (leads: readonly ('rear' | 'panel')[], played: string[]): Rig =>
  rigOf(
    [
      d('one', 'guitar-humbucker', 'First'),
      d('two', 'guitar-humbucker', 'Second', { engaged: false }),
      d('sw', 'loop-switcher', 'Switcher'),
      d('amp', 'combo-tube', 'Combo'),
    ],
    [
      ...(leads.includes('rear') ? [l('rear', 'one.out', 'sw.in', 6)] : []),
      ...(leads.includes('panel') ? [l('panel', 'two.out', 'sw.panel', 6)] : []),
      l('on', 'sw.out', 'amp.in', 3),
    ],
    [
      s(
        'a',
        'A',
        played,
        Object.fromEntries(
          ['one', 'two'].filter((id) => !played.includes(id)).map((id) => [id, { engaged: false }]),
        ),
      ),
    ],
  );
const rules = (r: Rig) => analyse(r).findings.map((f) => f.rule);

test('a lead left in the jack that takes priority is told first, and pulling it brings the instrument back', () => {
  const left = rig(['rear', 'panel'], ['one']);
  const trial = new FixTrial(left);
  const [first] = trial.report.findings;
  expect(first).toMatchObject({
    rule: 'priority',
    severity: 'fault',
    // And what is silent without it.
    subjects: ['sw', 'panel', 'amp', 'one'],
  });
  expect(first!.what).toContain('First is not heard');
  const [way] = trial.waysOut(first!);
  expect(way!.fix.words).toMatch(/^Pull the plug from Switcher, panel/);
  expect(isSafe(way!.tried)).toBe(true);
  const pulled = applyEdits(left, way!.fix.edits);
  if (!pulled.ok) throw new Error('it cannot be pulled');
  expect(analyse(pulled.value.rig).sounds[0]!.destinations[0]!.sources).toEqual(['one']);
});

test.each([
  ['nothing in it', rig(['rear'], ['one'])],
  ['the one that is played in it', rig(['rear', 'panel'], ['two'])],
  ['nothing else plugged', rig(['panel'], ['two'])],
])('%s: not told', (_, right) => expect(rules(right)).not.toContain('priority'));
