import fc from 'fast-check';
import { touringRig } from '../demo';
import { applyEdit, checkRig, cutText, isStorable, textProblems } from '.';

test('NUL and half a character are found, each with its path; any whole character is fine', () => {
  const [nul, half] = ['a\0b', 'half \uD83C'];
  expect(
    textProblems({ name: 'fine 🎸', list: [{ notes: nul }, half] }).map((p) => p.where),
  ).toEqual(['list[0].notes', 'list[1]']);
  expect(textProblems({ [nul]: 1 })).toHaveLength(1);
  fc.assert(
    fc.property(fc.string({ unit: 'grapheme' }), (s) => isStorable(s) === !s.includes('\0')),
  );
});

test('a document and an edit with such a text are refused with the field', () => {
  const devices = touringRig.devices.map((d, i) => (i === 2 ? { ...d, notes: 'a\0b' } : d));
  const read = checkRig({ ...touringRig, devices });
  expect(!read.ok && read.problems[0]?.where).toBe('devices[2].notes');
  const made = applyEdit(touringRig, { edit: 'renameRig', name: 'half \uDC00' });
  expect(!made.ok && made.problems[0]).toMatchObject({
    where: 'name',
    what: expect.stringContaining('cannot be stored') as string,
  });
});

test('cutting never halves a character, and never gives more than asked for', () => {
  expect([cutText('abc', 5), cutText('abc', 2), cutText('ab🎸', 3), cutText('ab🎸', 4)]).toEqual([
    'abc',
    'ab',
    'ab',
    'ab🎸',
  ]);
  fc.assert(
    fc.property(fc.string({ unit: 'binary' }), fc.nat({ max: 20 }), (s, n) => {
      const cut = cutText(s, n);
      return cut.length <= n && (!isStorable(s) || isStorable(cut)) && s.startsWith(cut);
    }),
  );
});
