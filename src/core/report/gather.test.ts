import { rigOf } from '../testing/rigs';
import type { Remark } from '../findings/finding';
import { gatherFindings } from './gather';

const remark = (rest: Partial<Remark> = {}): Remark => ({
  rule: 'noise',
  severity: 'advice',
  subjects: ['d1'],
  what: 'It hisses.',
  why: 'Its noise is high.',
  ...rest,
});
const rig = rigOf([], [], undefined, { accepted: [{ finding: 'noise:d2', reason: 'It is old.' }] });

test('one finding for each rule and subject, with all sounds that have it, once each', () => {
  const found = gatherFindings(rig, [
    { sound: 'a', remarks: [remark(), remark()] },
    { sound: 'b', remarks: [remark(), remark({ subjects: ['d2'] })] },
  ]);
  expect(found.map((f) => [f.key, f.sounds])).toEqual([
    ['noise:d1', ['a', 'b']],
    ['noise:d2', ['b']],
  ]);
});

test('the worst sound words it; the order of sounds does not matter', () => {
  const [mild, bad] = [remark(), remark({ severity: 'fault', what: 'It roars.' })];
  for (const order of [
    [mild, bad],
    [bad, mild],
  ]) {
    const [f] = gatherFindings(
      rig,
      order.map((r, i) => ({ sound: `s${i}`, remarks: [r] })),
    );
    expect(f).toMatchObject({ severity: 'fault', what: 'It roars.', sounds: ['s0', 's1'] });
  }
});

test('the dangerous comes first; what is accepted keeps its reason', () => {
  const found = gatherFindings(rig, [
    {
      sound: 'a',
      remarks: [
        remark({ subjects: ['d2'] }),
        remark({ rule: 'no-load', severity: 'danger' }),
        remark({ rule: 'latency', severity: 'caution' }),
      ],
    },
  ]);
  expect(found.map((f) => f.severity)).toEqual(['danger', 'caution', 'advice']);
  expect(found[2]!.accepted).toBe('It is old.');
});

test('what a remark is about tells it apart from others on the same subjects', () => {
  const found = gatherFindings(rig, [
    { sound: 'a', remarks: [remark({ about: 'left' }), remark({ about: 'right' })] },
  ]);
  expect(found.map((f) => f.key)).toEqual(['noise:left', 'noise:right']);
});
