import { applyEdits, type Rig } from '../rig';
import { sure } from '../outcome';
import { analyse, FixTrial, isSafe } from '../report';
import { withoutLeads } from '../testing/rigs';
import { wired } from '../testing/wired';

const open = (rig: Rig) => analyse(rig).findings.filter((f) => f.rule === 'unheard-effect');

/** A modeler with a drive in front of an amplifier and an echo in its loop. */
const four = wired(
  {
    g: 'guitar-humbucker',
    m: 'modeler-floor',
    d: ['drive-mid', { host: 'm' }],
    e: ['delay', { host: 'm' }],
    h: 'head-tube',
    k: 'cabinet',
    i: 'microphone',
    f: 'console-input',
  },
  'g.out>m.in m.fromIn>d.in d.out>m.toSend1 m.send1>h.in h.send>m.return1 m.fromReturn1>e.in ' +
    'e.out>m.toOut m.out>h.return h.speaker>k.in k.air>i.air i.out>f.in',
  { Clean: 'd h k i', Wide: 'e h k i' },
);
const out = sure(four.leads.find((l) => l.from.jack === 'out' && l.to.jack === 'return'));

test('all leads plugged: nothing is told', () => {
  expect(open(four)).toEqual([]);
});

test('the lead back into the loop is missing: the echo of the sound that has it is heard nowhere', () => {
  const rig = withoutLeads(four, out.id);
  const [finding, ...more] = open(rig);
  expect(more).toEqual([]);
  expect(finding).toMatchObject({
    severity: 'caution',
    sounds: ['Wide'],
    what: 'E is switched on, and nothing is plugged into M, out left (mono).',
    why: 'What goes into it is heard nowhere.',
  });
  const trial = new FixTrial(rig);
  const told = sure(trial.report.findings.find((f) => f.rule === 'unheard-effect'));
  const [best] = trial.waysOut(told);
  expect([best?.fix.words, best && isSafe(best.tried)]).toEqual([
    'Plug M into H, loop return',
    true,
  ]);
  const again = applyEdits(rig, best?.fix.edits ?? []);
  expect(again.ok && open(again.value.rig)).toEqual([]);
});

test('two effects behind the same open output are one matter', () => {
  const rig = wired(
    {
      g: 'guitar-active',
      m: 'modeler-floor',
      e: ['delay', { host: 'm' }],
      r: ['reverb', { host: 'm' }],
      a: 'combo-tube',
    },
    'g.out>m.in m.fromIn>m.toOut m.fromIn>e.in e.out>r.in r.out>m.toOut2 m.out>a.in',
    { One: 'e r a' },
  );
  expect(open(rig).map((f) => [f.subjects, f.what])).toEqual([
    [['m', 'e', 'r'], 'E and R are switched on, and nothing is plugged into M, second out left.'],
  ]);
});

test('a second output that nobody uses is no matter while the first is heard', () => {
  const both = applyEdits(four, [
    {
      edit: 'connect',
      lead: {
        id: 'also',
        type: 'inside',
        metres: 0,
        from: { device: 'e', jack: 'outR' },
        to: { device: 'm', jack: 'toOut2' },
      },
    },
  ]);
  expect(both.ok && open(both.value.rig)).toEqual([]);
});
