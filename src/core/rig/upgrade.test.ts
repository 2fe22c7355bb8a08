import { EXAMPLE_SHEETS } from '../demo';
import { chainOf } from '../testing/rigs';
import { checkRig } from '.';
import { RENAMED_KINDS, upgrade } from './upgrade';
import { findKind } from '../kinds';

const old = (kind: string) => {
  const rig = chainOf(['guitar-active', 'direct-box', 'console-input']);
  return { ...rig, devices: rig.devices.map((d) => (d.id === 'd1' ? { ...d, kind } : d)) };
};

test('a kind that was renamed is read by its new id, in a document of any version', () => {
  const renamed = { 'direct-injector': 'direct-box' };
  expect(upgrade(old('direct-injector'), renamed)).toEqual(old('direct-box'));
  expect(upgrade(old('direct-box'), renamed)).toEqual(old('direct-box'));
  expect(checkRig(upgrade(old('direct-injector'), renamed)).ok).toBe(true);
  expect(checkRig(old('direct-injector'))).toMatchObject({ ok: false });
});

test('every renamed kind has become one that there is', () => {
  for (const [was, now] of Object.entries(RENAMED_KINDS)) {
    expect(findKind(was)).toBeUndefined();
    expect(findKind(now)).toBeDefined();
  }
});

test('what is no document, or has no list of devices, is left for the schema to refuse', () => {
  for (const strange of [null, 4, 'rig', [], { version: 1 }, { version: 1, devices: 4 }])
    expect(upgrade(strange, { a: 'b' })).toEqual(strange);
});

test('a kind that was renamed is found inside sheets too; one that is gone is told with its place', () => {
  const [box] = EXAMPLE_SHEETS;
  const holding = (kind: string) => ({
    ...old('direct-box'),
    sheets: [
      {
        ...box!,
        parts: box!.is === 'parts' ? [{ ...box!.parts[0]!, kind }, ...box!.parts.slice(1)] : [],
      },
      { is: 'changes', id: 'b', name: 'B', base: kind },
    ],
  });
  expect(upgrade(holding('drive-of-old'), { 'drive-of-old': 'drive-low' })).toEqual(
    holding('drive-low'),
  );
  expect(checkRig(holding('drive-low')).ok).toBe(true);
  const gone = checkRig(holding('drive-of-old'));
  expect(gone.ok ? [] : gone.problems.map((p) => p.where)).toEqual([
    'sheets[0].parts[0].kind',
    'sheets[1].base',
  ]);
});
