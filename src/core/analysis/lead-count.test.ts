import { device, lead, rigOf } from '../testing/rigs';
import { countLeads } from './lead-count';

const rig = rigOf(
  [
    device('g', 'guitar-active', 'G'),
    device('m', 'modeler-floor', 'M'),
    device('b', 'drive-low', 'B', { host: 'm' }),
    device('h', 'head-tube', 'H'),
    device('c', 'cabinet', 'C'),
    device('mic', 'microphone', 'Mic'),
  ],
  [
    lead('1', 'g.out', 'm.in', 6),
    lead('2', 'm.out', 'h.in', 4),
    lead('3', 'h.speaker', 'c.in', 1.5, 'speaker'),
    lead('4', 'c.air', 'mic.air', 0.1, 'air'),
    lead('5', 'm.fromIn', 'b.in', 0, 'inside'),
  ],
);

test('leads by type, plugs and metres; air and links inside hosts are nothing to make', () => {
  const c = countLeads(rig);
  expect(c).toMatchObject({
    leads: 3,
    plugs: 6,
    metres: 11.5,
    byType: [
      { type: 'instrument', count: 2 },
      { type: 'speaker', count: 1 },
    ],
  });
});

test('the two branches of an insert lead share the plug at the insert', () => {
  const insert = rigOf(
    [device('j', 'insert-jack', 'J'), device('d', 'delay', 'D')],
    [lead('1', 'j.insert', 'd.in', 1, 'insert'), lead('2', 'd.out', 'j.insert', 1, 'insert')],
  );
  expect(countLeads(insert)).toMatchObject({ leads: 2, plugs: 3 });
});

test('a rig without leads is no work', () =>
  expect(countLeads(rigOf([], []))).toEqual({ leads: 0, plugs: 0, metres: 0, byType: [] }));
