import { analyse } from '../report';
import { FixTrial, isSafe } from '../report';
import { fixesOf } from '../report/tried';
import { applyEdits, type Rig } from '../rig';
import { allOn, chainOf, device, lead, rigOf, sound } from '../testing/rigs';

const found = (rig: Rig, rule: string) => analyse(rig).findings.filter((f) => f.rule === rule);
/** The rig with the first fix of a rule applied, which was tried and breaks nothing. */
function restored(rig: Rig, rule: string): Rig {
  const trial = new FixTrial(rig);
  const finding = trial.report.findings.find((f) => f.rule === rule)!;
  const [fix] = fixesOf(finding);
  expect(isSafe(trial.try(finding, fix!))).toBe(true);
  const done = applyEdits(rig, fix!.edits);
  if (!done.ok) throw new Error(done.problems[0]!.what);
  return done.value.rig;
}
const ends = (rig: Rig) =>
  rig.leads.map((l) => `${l.from.device}.${l.from.jack}>${l.to.device}.${l.to.jack}`).sort();

describe('an effect whose output is open', () => {
  const whole = rigOf(
    [
      device('g', 'guitar-humbucker', 'Guitar'),
      device('a', 'combo-tube-loop', 'Combo'),
      device('r', 'reverb', 'Wash', { engaged: true }),
    ],
    [
      lead('1', 'g.out', 'a.in', 3),
      lead('2', 'a.send', 'r.in', 3),
      lead('3', 'r.out', 'a.return', 3),
    ],
    [sound('x', 'X', [])],
  );
  test('in a whole loop nothing is told', () => expect(found(whole, 'open-end')).toEqual([]));
  test('the return that hangs is named, and plugging it restores the rig', () => {
    const rig = { ...whole, leads: whole.leads.slice(0, 2) };
    const [f] = found(rig, 'open-end');
    expect(f).toMatchObject({ severity: 'fault', subjects: ['r'] });
    expect(f!.fix!.words).toBe('Plug Wash into Combo, loop return');
    expect(ends(restored(rig, 'open-end'))).toEqual(ends(whole));
  });
  test.each([0, 1, 2])('lead %i behind an effect of a chain is missed', (n) => {
    const chain = chainOf(
      ['guitar-humbucker', 'compressor', 'drive-low', 'delay', 'combo-tube'],
      1,
    );
    const at = n + 1;
    const rig = { ...chain, leads: chain.leads.filter((_, i) => i !== at) };
    const [f] = found(rig, 'open-end');
    // And who hears nothing, and is heard nowhere, without it: that is not told again.
    expect(f!.subjects).toEqual([`d${at}`, 'd4', 'd0']);
    expect(found(rig, 'no-route')).toEqual([]);
    expect(ends(restored(rig, 'open-end'))).toEqual(ends(chain));
  });
  test('a tuner or a looper on a tap may end there', () => {
    const rig = rigOf(
      [
        device('g', 'guitar-humbucker', 'Guitar'),
        device('s', 'splitter-buffered', 'Fork', { settings: { select: 'both' } }),
        device('t', 'tuner-buffered', 'Needle'),
        device('a', 'combo-tube', 'Combo'),
      ],
      [lead('1', 'g.out', 's.in', 3), lead('2', 's.a', 'a.in', 3), lead('3', 's.b', 't.in', 1)],
      [sound('x', 'X', [])],
    );
    expect(found(rig, 'open-end')).toEqual([]);
    expect(found(rig, 'unplugged')).toEqual([]);
  });
});

describe('a tuner that is not plugged in', () => {
  const chain = chainOf(['guitar-humbucker', 'boost', 'combo-tube'], 1);
  const spare = device('t', 'tuner-buffered', 'Needle');
  test('is told, and put behind the instrument', () => {
    const rig = { ...chain, devices: [...chain.devices, spare] };
    expect(found(rig, 'unplugged').map((f) => f.what)).toEqual([
      'Needle is there, and not plugged in.',
    ]);
    const cured = restored(rig, 'unplugged');
    expect(found(cured, 'unplugged')).toEqual([]);
    expect(ends(cured)).toContain('d0.out>t.in');
  });
  test('a second one is a spare; any other pedal that lies there too', () => {
    const two = chainOf(['guitar-humbucker', 'tuner-buffered', 'combo-tube'], 1);
    expect(found({ ...two, devices: [...two.devices, spare] }, 'unplugged')).toEqual([]);
    const pedal = { ...chain, devices: [...chain.devices, device('p', 'drive-low', 'Rust')] };
    expect(analyse(pedal).findings).toEqual(analyse(chain).findings);
  });
});

describe('a splitter the wrong way round', () => {
  const forked = (kind: string, turned: boolean) =>
    rigOf(
      [
        device('g', 'guitar-humbucker', 'Guitar'),
        device('s', kind, 'Fork', { settings: { select: 'both' } }),
        device('a', 'combo-tube', 'Left'),
        device('b', 'combo-tube', 'Right'),
      ],
      [
        lead('1', 'g.out', turned ? 's.a' : 's.in', 3),
        lead('2', turned ? 's.in' : 's.a', 'a.in', 3),
        lead('3', 's.b', 'b.in', 3),
      ],
      [sound('x', 'X', [])],
    );
  test.each(['splitter-buffered', 'splitter-isolated', 'splitter-passive'])('%s', (kind) => {
    const rig = forked(kind, true);
    const told = found(rig, 'wrong-way');
    expect(told.map((f) => f.what)).toEqual(['Fork is wired backwards.']);
    expect(analyse(rig).findings[0]!.rule).toBe('wrong-way');
    expect(ends(restored(rig, 'wrong-way'))).toEqual(ends(forked(kind, false)));
    expect(found(forked(kind, false), 'wrong-way')).toEqual([]);
  });
});

test('a box that chooses an output which no lead is in, in one sound alone, is named with the lead', () => {
  const whole = rigOf(
    [
      device('g', 'guitar-humbucker', 'Guitar'),
      device('s', 'splitter-buffered', 'Fork'),
      ...[device('a', 'combo-tube', 'Left combo'), device('b', 'combo-tube', 'Right combo')],
    ],
    [lead('1', 'g.out', 's.in', 3), lead('2', 's.a', 'a.in', 3), lead('3', 's.b', 'b.in', 3)],
    [
      sound('x', 'X', ['g'], { s: { settings: { select: 'a' } } }),
      sound('y', 'Y', ['g'], { s: { settings: { select: 'b' } } }),
    ],
  );
  expect(found(whole, 'open-end')).toEqual([]);
  // Where the other amplifier stands there without its lead, that is told, with the lead.
  const cut: Rig = { ...whole, leads: whole.leads.slice(0, 2) };
  expect(found(cut, 'open-end')).toEqual([]);
  expect(found(cut, 'no-route')).toMatchObject([
    {
      what: 'Nothing reaches Right combo.',
      sounds: ['x', 'y'],
    },
  ]);
  const open: Rig = { ...cut, devices: cut.devices.filter((d) => d.id !== 'b') };
  const [told] = found(open, 'open-end');
  expect(told).toMatchObject({
    severity: 'caution',
    sounds: ['y'],
    what: 'Fork plays to out B alone, and nothing is plugged in there.',
    why: 'Guitar is heard nowhere.',
  });
  // A sound that is promised to be silent may use that.
  const meant: Rig = { ...open, promises: [{ id: 'p', type: 'muted-silent', sounds: ['y'] }] };
  expect(found(meant, 'open-end')).toEqual([]);
});

describe('of two instruments at one joiner', () => {
  const promises: Rig['promises'] = ['a', 'b'].map((source) => ({
    id: `p-${source}`,
    type: 'hears' as const,
    destination: 'amp',
    source,
  }));
  const rig: Rig = {
    ...allOn(
      [
        device('a', 'guitar-active', 'Elm'),
        device('b', 'guitar-active', 'Oak'),
        device('j', 'mixer-line', 'Joiner'),
        device('d', 'drive-low', 'Dirt'),
        device('amp', 'combo-tube', 'Combo'),
      ],
      [
        lead('1', 'a.out', 'j.a', 5),
        lead('2', 'b.out', 'j.b', 5),
        lead('3', 'j.out', 'd.in', 0.3),
        lead('4', 'd.out', 'amp.in', 5),
      ],
    ),
    promises,
  };
  const cut = (id: string, from = rig): Rig => ({
    ...from,
    leads: from.leads.filter((l) => l.id !== id),
  });
  const told = (r: Rig) => analyse(r).findings.filter((f) => f.rule === 'open-end');

  test('one that is promised and not plugged is told, though the other is heard, with the lead', () => {
    const [finding, ...more] = told(cut('2'));
    expect([finding!.what, more]).toEqual(['Oak is played, and nothing is plugged into it.', []]);
    const [best] = new FixTrial(cut('2')).waysOut(finding!);
    expect(best!.fix.words).toBe('Plug Oak into Joiner, in B');
    expect(best!.tried).toMatchObject({ cures: true, breaks: [], leaves: 0 });
  });

  test('one that merely lies there is not blamed for the lead that is missing elsewhere', () => {
    const spare = { ...cut('2'), promises: promises.slice(0, 1) };
    expect(told(spare)).toEqual([]);
    expect(told(cut('3', spare)).map((f) => f.subjects[0])).toEqual(['j']);
    expect(told(cut('4', spare)).map((f) => f.subjects[0])).toEqual(['d']);
  });
});
