import { sure } from '../outcome';
import { applyEdits, type Rig } from '../rig';
import { wired } from '../testing/wired';
import { analyse, FixTrial, isSafe } from '.';

/** What is told above advice, with the sounds that have it. */
const told = (rig: Rig) =>
  analyse(rig)
    .findings.filter((f) => f.severity !== 'advice')
    .map((f) => [f.rule, f.what]);

/** The first finding with what cures it; all of the serious ones are gone with that. */
function curedByFirst(rig: Rig): string {
  const trial = new FixTrial(rig);
  const finding = sure(trial.report.findings[0]);
  const best = sure(trial.waysOut(finding)[0]);
  expect([best.fix.words, isSafe(best.tried)]).toEqual([best.fix.words, true]);
  const after = applyEdits(rig, best.fix.edits);
  expect(after.ok && told(after.value.rig)).toEqual([]);
  return best.fix.words;
}

/** A guitar, split to two combos with a microphone in front of each. */
const TWO_COMBOS = {
  g: 'guitar-humbucker',
  s: 'splitter-isolated',
  a: 'combo-tube',
  b: 'combo-tube',
  m: 'microphone',
  n: 'microphone',
} as const;

describe('what follows from a cause is not told beside it', () => {
  test('a head without its cabinet: the cabinet and the desk behind it', () => {
    const rig = wired(
      {
        g: 'guitar-humbucker',
        h: 'head-tube',
        c: 'cabinet',
        m: 'microphone',
        f: 'console-input',
      },
      'g.out>h.in c.air>m.air m.out>f.in',
      { One: 'h c m' },
    );
    expect(told(rig)).toEqual([['no-load', 'H has no load on its speaker output.']]);
    expect(analyse(rig).findings[0]?.why).toContain('there is sound again at C and F');
    expect(curedByFirst(rig)).toBe('Connect C to H');
  });

  test('a missing lead to the second amplifier: its microphone at the desk', () => {
    const rig = wired(
      {
        ...TWO_COMBOS,
        f: 'console-input',
        k: 'console-input',
      },
      'g.out>s.in s.a>a.in a.air>m.air b.air>n.air m.out>f.in n.out>k.in',
      { One: 's a b m n' },
    );
    expect(told(rig)).toEqual([['no-route', 'Nothing reaches B and K.']]);
    expect(curedByFirst(rig)).toBe('Plug S, out B into B, in');
  });

  test('copies that cancel: the desk that is silent, and the loudspeakers that push and pull', () => {
    const rig = wired(
      {
        ...TWO_COMBOS,
        x: 'mixer-line',
        f: ['console-input', { settings: { input: 'line' } }],
      },
      'g.out>s.in s.a>a.in s.b>b.in a.air>m.air b.air>n.air m.out>x.a n.out>x.b x.out>f.in',
      { Turned: ['a b m n', { s: { invertB: true } }], Plain: 'a b m n' },
    );
    expect(told(rig)).toEqual([['polarity', 'Two copies of G meet at X with opposite polarity.']]);
    const [finding] = analyse(rig).findings;
    expect(finding?.sounds).toEqual(['Turned']);
    expect(finding?.why).toMatch(/sound again at F\. From the same cause: A and B push and pull/);
    expect(curedByFirst(rig)).toBe('Turn the polarity switch of S in Turned');
  });

  test('one simulator ahead of two cabinets is one matter', () => {
    const rig = wired(
      {
        g: 'guitar-humbucker',
        s: 'amp-cab-simulator',
        p: 'power-amp',
        a: 'cabinet',
        b: 'cabinet',
        m: 'microphone',
        f: 'console-input',
      },
      'g.out>s.in s.out>p.in s.outR>p.inR p.speaker>a.in p.speakerR>b.in a.air>m.air m.out>f.in',
      { One: 's p a b m' },
    );
    expect(told(rig)).toEqual([
      ['two-cabinets', 'S models a cabinet ahead of A and B, which are cabinets.'],
    ]);
    expect(curedByFirst(rig)).toBe('Bypass S here');
  });

  test('exchanged plugs: the circle that they make', () => {
    const rig = wired(
      {
        g: 'guitar-humbucker',
        m: 'modeler-floor',
        d: ['drive-mid', { host: 'm' }],
        h: 'head-tube',
        k: 'cabinet',
        i: 'microphone',
        f: 'console-input',
      },
      'g.out>m.return1 m.fromIn>d.in d.out>m.toSend1 m.send1>h.in h.send>m.in ' +
        'm.fromReturn1>m.toOut m.out>h.return h.speaker>k.in k.air>i.air i.out>f.in',
      { One: 'd h k i' },
    );
    expect(told(rig)).toEqual([['swapped', 'Two plugs look swapped at M: M, return 1 and M, in.']]);
    expect(curedByFirst(rig)).toBe('Exchange the plugs in return 1 and in of M');
  });

  test('a splitter that is wired backwards: the jack that is open for it', () => {
    const rig = wired(
      {
        g: 'guitar-humbucker',
        b: 'buffer',
        s: 'splitter-passive',
        a: 'combo-tube',
        z: 'amp-cab-simulator',
        f: ['console-input', { settings: { input: 'line' } }],
      },
      'g.out>b.in b.out>s.a s.in>a.in s.b>z.in z.out>f.in',
      { One: 'b s a z' },
    );
    const rules = told(rig).map(([rule]) => rule);
    expect(rules).toContain('wrong-way');
    expect(rules).not.toContain('open-end');
  });

  test('treble that one buffer gives back in several sounds is told once, of where most is lost', () => {
    const rig = wired(
      {
        g: 'guitar-humbucker',
        d: 'drive-low',
        e: 'drive-mid',
        h: 'drive-high',
        a: 'combo-tube',
        m: 'microphone',
        f: 'console-input',
      },
      'g.out>d.in d.out>e.in e.out>h.in h.out>a.in a.air>m.air m.out>f.in',
      { Early: 'd a m', Late: 'h a m', Bare: 'a m' },
    );
    const long = {
      ...rig,
      leads: rig.leads.map((l) => (l.to.device === 'a' ? { ...l, metres: 6 } : l)),
    };
    const found = analyse(long).findings.filter((f) => f.rule === 'buffer-place');
    expect(found).toHaveLength(1);
    expect(found[0]?.what).toBe('Leads and loads between G and A take treble.');
    expect(found[0]?.sounds).toEqual(['Late', 'Bare']);
  });
});

describe('a broken promise offers what keeps it', () => {
  const rig = wired(
    {
      g: 'guitar-humbucker',
      s: 'amp-cab-simulator',
      e: 'delay',
      r: 'reverb',
      f: ['console-input-stereo', { settings: { input: 'line' } }],
    },
    'g.out>s.in s.out>e.in e.out>r.in r.out>f.in',
    { One: 's e r' },
    { promises: [{ id: 'p', type: 'stereo', destination: 'f' }] },
  );
  test('the fix of its cause, tried on a copy', () => {
    const trial = new FixTrial(rig);
    const broken = sure(trial.report.findings.find((f) => f.rule === 'promise'));
    expect(broken.fix).toBeUndefined();
    const [best] = trial.waysOut(broken);
    expect(best?.fix.words).toMatch(/^Add the right-hand lead/);
    const after = applyEdits(rig, best?.fix.edits ?? []);
    expect(after.ok && analyse(after.value.rig).promises.every((p) => p.kept)).toBe(true);
  });
  test('nothing where nothing that is found would keep it', () => {
    const other: Rig = {
      ...rig,
      promises: [{ id: 'p', type: 'never-hears', destination: 'f', source: 'g' }],
    };
    const trial = new FixTrial(other);
    const broken = sure(trial.report.findings.find((f) => f.rule === 'promise'));
    expect(trial.waysOut(broken)).toEqual([]);
  });
});

test('what a finding says is no advice that was not tried: a cure stands among the ways out alone', () => {
  const rig = wired(
    {
      g: 'guitar-single-coil',
      b: 'buffer',
      s: 'amp-cab-simulator',
      d: 'direct-box-active',
      f: 'console-input',
      e: ['in-ear-mix', { settings: { input: 'line' } }],
    },
    'g.out>b.in b.out>s.in s.out>d.in d.out>f.in d.thru>e.in',
    { One: 'b s' },
  );
  const trial = new FixTrial(rig);
  const loop = sure(trial.report.findings.find((f) => f.rule === 'hum-loop'));
  expect(loop.why).toBe('Closed through protective earth, which must stay connected.');
  // Phantom power comes over the lead to the desk: an isolator there takes it away, and is said to.
  const ways = trial.waysOut(loop);
  expect(ways.length).toBeGreaterThan(1);
  expect(isSafe(sure(ways[0]).tried)).toBe(true);
  const last = sure(ways.find((w) => w.fix.words.includes('between D and F')));
  expect(last.tried.breaks).toContain('fault: Nothing feeds D.');
});
