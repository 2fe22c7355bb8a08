import { analyse, FixTrial, isSafe } from '../report';
import { sure } from '../outcome';
import type { Rig } from '../rig';
import { wired } from '../testing/wired';

const told = (rig: Rig, rule: string) =>
  analyse(rig)
    .findings.filter((f) => f.rule === rule)
    .map((f) => f.what);

const END = { h: 'head-tube', c: 'cabinet', m: 'microphone', f: 'console-input' };
const HEARD = 'h.speaker>c.in c.air>m.air m.out>f.in';

describe('a gate that listens before a loop and acts behind it', () => {
  const gate = (ways: string) =>
    wired(
      { g: 'guitar-humbucker', n: 'gate-loop', d: 'drive-mid', e: 'drive-high', ...END },
      `g.out>n.in ${ways} ${HEARD}`,
      { Lead: 'n d e h c m' },
    );
  test('drives in its loop, and the preamplifier too, stand before what it does', () => {
    const four = gate('n.send>d.in d.out>e.in e.out>h.in h.send>n.return n.out>h.return');
    expect(told(four, 'gate-place')).toEqual([]);
  });
  test('a drive behind its output does not', () => {
    const late = gate('n.send>d.in d.out>n.return n.out>e.in e.out>h.in');
    expect(told(late, 'gate-place')).toEqual(['N stands before E.']);
  });
  test('with nothing in its loop it is a gate like any other', () => {
    const plain = gate('n.out>d.in d.out>e.in e.out>h.in');
    expect(told(plain, 'gate-place')).toHaveLength(1);
  });
});

describe('a synthesizer pedal that follows the string, with a loop for the dry sound', () => {
  const synth = (ways: string) =>
    wired(
      { g: 'guitar-humbucker', y: 'synth-pedal', d: 'drive-low', ...END },
      `g.out>${ways}>h.in ${HEARD}`,
      { Lead: 'y d h c m' },
    );
  test('a drive in its loop is not in front of it', () => {
    expect(told(synth('y.in y.send>d.in d.out>y.return y.out'), 'pitch-early')).toEqual([]);
  });
  test('one before its input is', () => {
    expect(told(synth('d.in d.out>y.in y.out'), 'pitch-early')).toEqual(['Y stands behind D.']);
  });
});

describe('drives of which several stand wrong', () => {
  const chain = (kinds: string[]) =>
    wired(
      { g: 'guitar-humbucker', ...Object.fromEntries(kinds.map((k, i) => [`d${i}`, k])), ...END },
      `g.out>d0.in ${kinds.map((_, i) => `d${i}.out>${kinds[i + 1] ? `d${i + 1}` : 'h'}.in`).join(' ')} ${HEARD}`,
      { Lead: `${kinds.map((_, i) => `d${i}`).join(' ')} h c m` },
    );
  test.each([
    [['drive-high', 'drive-low', 'drive-mid'], 'Move D0 behind D2'],
    [['drive-mid', 'drive-high', 'drive-low'], 'Move D2 before D0'],
    [['drive-high', 'drive-mid', 'drive-low'], 'Put them in the order D2, D1, D0'],
  ])('%j: one press puts all of them right', (kinds, words) => {
    const trial = new FixTrial(chain(kinds));
    const finding = sure(trial.report.findings.find((f) => f.rule === 'gain-low-to-high'));
    const ways = trial.waysOut(finding);
    expect(ways.map((w) => w.fix.words)).toContain(words);
    expect(ways.every((w) => w.tried.cures && isSafe(w.tried))).toBe(true);
  });
});
