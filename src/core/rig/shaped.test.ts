import fc from 'fast-check';
import { DEMO_RIGS, touringRig } from '../demo';
import { applyEdit, checkRig, type Rig, rigSchema } from '.';
import { shapedSchema } from './shaped';

/** Wrong and right things that may come to stand anywhere. */
const STRAY = [
  undefined,
  null,
  -1,
  1e9,
  '',
  ' to be trimmed ',
  'x'.repeat(5000),
  [],
  {},
  true,
] as const;

/** A copy with one thing, found by steps into whatever is there, put in the place of another. */
function spoilt(rig: Rig, steps: readonly number[], stray: unknown): Rig {
  const copy = structuredClone(rig);
  let at: Record<string, unknown> = copy;
  for (const [n, step] of steps.entries()) {
    const keys = Object.keys(at);
    const key = keys[step % keys.length];
    if (key === undefined) return copy;
    const inside = at[key];
    if (n === steps.length - 1 || typeof inside !== 'object' || inside === null) {
      at[key] = stray;
      return copy;
    }
    at = inside as Record<string, unknown>;
  }
  return copy;
}

test('what is checked once is right where the whole is, and wrong where the whole is wrong', () => {
  fc.assert(
    fc.property(
      fc.constantFrom(...DEMO_RIGS),
      fc.array(fc.nat(400), { minLength: 1, maxLength: 5 }),
      fc.constantFrom(...STRAY),
      (rig, steps, stray) => {
        const one = spoilt(rig, steps, stray);
        const [first, whole] = [shapedSchema.safeParse(one), rigSchema.safeParse(one)];
        expect([first.success, first.data]).toEqual([whole.success, whole.data]);
        // Asked again, of the same objects, it says the same.
        expect(shapedSchema.safeParse(one).success).toBe(whole.success);
      },
    ),
    { numRuns: 80 },
  );
});

test('what is well as it stands stays the same object, so that it is known again', () => {
  const read = checkRig(structuredClone(touringRig));
  if (!read.ok) throw new Error('it was refused');
  const copy = { ...read.value, name: 'Another name' };
  const again = checkRig(copy);
  if (!again.ok) throw new Error('it was refused');
  expect(again.value.devices.every((d, i) => d === read.value.devices[i])).toBe(true);
  expect(again.value).toEqual(copy);
});

test('a list that grows past its limit is refused, though all that was in it was right', () => {
  const promises = Array.from({ length: 201 }, (_, i) => ({
    id: `p${i}`,
    type: 'stereo' as const,
    destination: 'house',
    sounds: [],
  }));
  const full = { ...touringRig, promises: promises.slice(0, 200) };
  expect(shapedSchema.safeParse(full).success).toBe(rigSchema.safeParse(full).success);
  const over = { ...touringRig, promises };
  expect(shapedSchema.safeParse(over).success).toBe(false);
});

test('an edit that would make something wrong is refused with its place, before and after others', () => {
  const wrong = { edit: 'setDevice', device: 'kiln', name: '' } as const;
  const first = applyEdit(touringRig, wrong);
  const done = applyEdit(touringRig, { edit: 'setDevice', device: 'kiln', name: 'Other' });
  if (!done.ok) throw new Error('it was refused');
  const then = applyEdit(done.value.rig, wrong);
  for (const r of [first, then])
    expect(!r.ok && r.problems[0]!.where).toMatch(/^devices\.\d+\.name$/);
});
