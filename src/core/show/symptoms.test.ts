import { SINE, type Flow } from '../signal';
import { voltsOfDbu } from '../units';
import { noiseName } from './faults';
import { bitOf, heardOf, noticed, type SymptomId, symptomWords } from './symptoms';

const flow = (dbu: number, rest: Partial<Flow> = {}): Flow => ({
  source: 'g',
  volts: [voltsOfDbu(dbu - 12), voltsOfDbu(dbu), voltsOfDbu(dbu + 6)],
  peak: voltsOfDbu(dbu),
  latencyMs: 0,
  polarity: 1,
  tiltDb: 0,
  shapes: [SINE, SINE, SINE],
  cabinet: false,
  ...rest,
});
const one = (...flows: Flow[]) => heardOf([flows]);
const has = (bits: number, id: SymptomId) => (bits & bitOf(id)) !== 0;

test('silent is 40 dB down or gone; weaker and louder begin beyond 5 dB', () => {
  const meant = one(flow(0));
  expect(noticed(meant, one())).toBe(bitOf('silent'));
  expect(has(noticed(meant, one(flow(-41))), 'silent')).toBe(true);
  expect(has(noticed(meant, one(flow(-39))), 'silent')).toBe(false);
  expect(noticed(meant, one(flow(-4.9)))).toBe(0);
  expect(noticed(meant, one(flow(-5.1)))).toBe(bitOf('weaker'));
  expect(noticed(meant, one(flow(5.1)))).toBe(bitOf('louder'));
  expect(noticed(one(), one(flow(-20)))).toBe(bitOf('louder'));
  expect(noticed(one(), one())).toBe(0);
});

test('one of two instruments that is gone is silence, though the other plays on', () => {
  const meant = one(flow(0), flow(-3, { source: 'tracks' }));
  expect(has(noticed(meant, one(flow(0))), 'silent')).toBe(true);
  // What is 30 dB under the loudest is missed by nobody.
  const faint = one(flow(0), flow(-31, { source: 'tracks' }));
  expect(noticed(faint, one(flow(0)))).toBe(0);
});

test('one side only is one of two, not both and not a place with one jack', () => {
  const meant = heardOf([[flow(0)], [flow(0)]]);
  expect(has(noticed(meant, heardOf([[flow(0)], []])), 'side')).toBe(true);
  expect(has(noticed(meant, heardOf([[], []])), 'side')).toBe(false);
  expect(has(noticed(meant, heardOf([[], []])), 'silent')).toBe(true);
});

test('a noise counts against the music that is meant, and is no music itself', () => {
  const hum = (dbu: number) => flow(dbu, { source: `box/${noiseName('hum')}` });
  const meant = one(flow(0));
  expect(noticed(meant, one(flow(0), hum(-49)))).toBe(bitOf('hum'));
  expect(noticed(meant, one(flow(0), hum(-51)))).toBe(0);
  expect(symptomWords(noticed(meant, one(hum(-20))))).toBe('silent, hum');
  expect(one(hum(0)).dbu).toBeNull();
});

test('an effect that is there or is not, more of it, another bend, late, dull', () => {
  const meant = one(flow(0), flow(-6, { wet: 'echo', latencyMs: 400 }));
  expect(has(noticed(meant, one(flow(0))), 'effect')).toBe(true);
  const more = one(flow(0), flow(-1, { wet: 'echo', latencyMs: 400 }));
  expect(has(noticed(meant, more), 'effect')).toBe(true);
  expect(has(noticed(one(flow(0)), one(flow(0, { bentBy: 'drive' }))), 'effect')).toBe(true);
  expect(noticed(one(flow(0)), one(flow(0, { latencyMs: 9 })))).toBe(bitOf('late'));
  expect(noticed(one(flow(0)), one(flow(0, { tiltDb: -5 })))).toBe(bitOf('thin'));
  expect(noticed(one(flow(0)), one(flow(0, { tiltDb: -3 })))).toBe(0);
});

test('width that is not there, or made by another box, is another effect', () => {
  const wide = (by: string) =>
    one(flow(0, { side: 'left', widenedBy: by }), flow(0, { side: 'right', widenedBy: by }));
  expect(has(noticed(wide('chorus'), wide('chorus')), 'effect')).toBe(false);
  expect(has(noticed(wide('chorus'), wide('echo')), 'effect')).toBe(true);
  expect(has(noticed(wide('chorus'), one(flow(0), flow(0))), 'effect')).toBe(true);
});

test('late is late or early by more than is felt, and nothing that is silent is late', () => {
  const at = (latencyMs: number) => one(flow(0, { latencyMs }));
  const late = (meant: number, now: number) => has(noticed(at(meant), at(now)), 'late');
  expect([late(0, 2), late(0, 30), late(30, 0), late(30, 31)]).toEqual([false, true, true, false]);
  expect(has(noticed(at(30), one()), 'late')).toBe(false);
});
