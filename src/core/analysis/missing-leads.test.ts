import { applyEdits, type Rig } from '../rig';
import { FixTrial } from '../report';
import { allOn, device, inside, lead, wiringOf, withoutLeads } from '../testing/rigs';
import { isFork } from './missing-leads';

/** A guitar through a modeler with an amplifier inside, to the desk and by the return of a combo to the stage. */
const stage: Rig = {
  ...allOn(
    [
      device('g', 'guitar-humbucker', 'Guitar'),
      device('mic', 'microphone-voice', 'Spare voice'),
      device('m', 'modeler-rack', 'Modeler'),
      device('amp', 'amp-block', 'Amp', { host: 'm' }),
      device('cab', 'cab-block', 'Cabinet block', { host: 'm' }),
      device('combo', 'combo-tube-loop', 'Combo'),
      device('desk', 'console-input', 'House', { settings: { input: 'line' } }),
    ],
    [
      lead('1', 'g.out', 'm.in', 3),
      inside('2', 'm.fromIn', 'amp.in'),
      inside('3', 'amp.out', 'cab.in'),
      inside('4', 'cab.out', 'm.toOut'),
      inside('5', 'amp.out', 'm.toOut2'),
      lead('house', 'm.out', 'desk.in', 9, 'balanced'),
      lead('combo', 'm.out2', 'combo.return', 3),
    ],
  ),
  promises: [
    { id: 'p1', type: 'hears', destination: 'combo', source: 'g' },
    { id: 'p2', type: 'hears', destination: 'desk', source: 'g' },
  ],
};
const told = (rig: Rig) => {
  const trial = new FixTrial(rig);
  const first = trial.report.findings.find((f) => f.severity === 'fault' && f.rule !== 'promise');
  const [best] = first ? trial.waysOut(first) : [];
  const made = best && applyEdits(rig, best.fix.edits);
  return {
    first,
    words: best?.fix.words,
    ends: made?.ok ? wiringOf(made.value.rig) : [],
  };
};
const right = wiringOf(stage);

test('what has an amplifier inside goes to the return of the combo, not to its input', () => {
  const { words, ends } = told(withoutLeads(stage, 'combo'));
  expect(words).toMatch(/into Combo, .*return$/);
  expect(ends).toEqual(right);
});

test('an instrument that merely lies there is not blamed for what another is promised to', () => {
  const { first } = told(withoutLeads(stage, 'combo'));
  expect(first!.subjects).not.toContain('mic');
  expect(first!.what).toBe('Nothing reaches Combo.');
});

test.each(['1', 'house', 'combo'])('lead %s that was pulled comes back first', (id) => {
  expect(told(withoutLeads(stage, id)).ends).toEqual(right);
});

test('without a promise the instrument that lies there may be what is missing', () => {
  const bare = withoutLeads({ ...stage, promises: [] }, 'combo');
  const trial = new FixTrial(bare);
  const words = trial.report.findings.flatMap((f) => trial.waysOut(f)).map((w) => w.fix.words);
  expect(words.some((w) => w.startsWith('Plug Spare voice'))).toBe(true);
});

test('forks feed several from one; what joins, switches or drives does not', () => {
  expect(['splitter-buffered', 'splitter-isolated', 'splitter-passive'].map(isFork)).toEqual(
    Array(3).fill(true),
  );
  const others = ['mixer-line', 'combiner-passive', 'loop-switcher', 'drive-mid', 'direct-box'];
  expect(others.map(isFork)).toEqual(others.map(() => false));
});
