import fc from 'fast-check';
import { analyse } from '../analysis';
import { kindOf } from '../kinds';
import { integrityProblems, rigSchema, walkOrder } from '../rig';
import { type Brief, type Output, OUTPUTS, proposeRig, START_INSTRUMENTS, START_PEDALS } from '.';

const brief = (rest: Partial<Brief> = {}): Brief => ({
  name: 'Fly rig', instruments: [{ kind: 'guitar-baritone', name: 'Baritone' }], wireless: false, outputs: ['head', 'house'],
  pedals: ['reverb', 'drive-high', 'tuner-true-bypass', 'delay', 'drive-low', 'compressor', 'octave', 'chorus'].map((kind) => ({ kind, name: kindOf(kind).name })), otherSchool: [], sounds: ['Clean', 'Crunch', 'Lead'], ...rest,
});
const order = (b: Brief) => walkOrder(proposeRig(b, 'new'));

test('the usual order, time effects in the loop', () => {
  expect(order(brief())).toEqual(['baritone', 'tuner-true-bypass', 'octave', 'compressor', 'drive-low-gain', 'drive-high-gain', 'chorus', 'head', 'delay', 'reverb', 'cabinet', 'house-mic', 'house']);
});

test('the other school turns its rule round and is kept in the rig', () => {
  const b = brief({ otherSchool: ['compressor-early', 'time-after-dirt'] });
  const found = order(b);
  expect(found.indexOf('compressor')).toBeGreaterThan(found.indexOf('drive-high-gain'));
  expect(found.indexOf('reverb')).toBeLessThan(found.indexOf('head'));
  expect(proposeRig(b, 'new').order!.stances!['compressor-early']).toEqual({ stance: 'other' });
});

test('without an amplifier it goes wide from the first widening effect to a stereo pair', () => {
  const rig = proposeRig(brief({ outputs: ['house'] }), 'new');
  const { sounds } = analyse(rig);
  expect(sounds.at(-1)!.destinations[0]!.channels).toBe('stereo');
  expect(walkOrder(rig)).toContain('amp-and-cab-simulator');
});

test('sounds go from clean to dirty', () => {
  const thd = analyse(proposeRig(brief(), 'new')).sounds.map((s) => s.destinations[0]!.thdPercent!.normal);
  expect(thd[0]).toBeLessThan(thd[1]!);
  expect(thd[1]).toBeLessThan(thd[2]!);
});

test('whatever is asked for, the proposal is a sound rig in which every destination is reached and the order rules are kept', () => {
  const pedals = START_PEDALS.filter((k) => ['tuner', 'pitch', 'filter', 'compressor', 'drive', 'gate', 'modulation', 'delay', 'reverb'].includes(k.job)).map((k) => k.id);
  const instruments = START_INSTRUMENTS.map((k) => k.id);
  fc.assert(fc.property(fc.uniqueArray(fc.constantFrom(...pedals), { maxLength: 9 }), fc.uniqueArray(fc.constantFrom(...instruments), { minLength: 1, maxLength: 3 }), fc.uniqueArray(fc.constantFrom<Output>(...OUTPUTS), { minLength: 1 }), fc.boolean(), (p, i, outputs, wireless) => {
    const named = (ids: string[]) => ids.map((kind) => ({ kind, name: kindOf(kind).name }));
    const rig = proposeRig(brief({ instruments: named(i), pedals: named(p), outputs, wireless }), 'new');
    if (!rigSchema.safeParse(rig).success || integrityProblems(rig).length) return false;
    const { findings } = analyse(rig);
    return !findings.some((f) => ['no-route', 'howl', 'no-load', 'pitch-early', 'filter-before-dirt', 'compressor-early', 'gain-low-to-high', 'gate-place', 'modulation-after-dirt', 'tuner-place'].includes(f.rule));
  }), { numRuns: 60 });
});
