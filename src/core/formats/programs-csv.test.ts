import fc from 'fast-check';
import { programsFromCsv, programsToCsv } from '.';

test('programs go out and come back as they went', () => {
  const name = fc
    .string({ minLength: 1, maxLength: 40 })
    .map((s) => s.trim())
    .filter((s) => s !== '' && !/[\r\n]/.test(s));
  fc.assert(
    fc.property(
      fc.uniqueArray(fc.record({ number: fc.nat(16_383), name }), {
        selector: (p) => p.number,
        minLength: 1,
        maxLength: 20,
      }),
      (programs) => {
        expect(programsFromCsv(programsToCsv(programs))).toEqual({ ok: true, value: programs });
      },
    ),
  );
});

test.each([
  ['program;name\r\n3;Hall\r\n3;Room', 'row 3', 'program 3 has a name already: Hall'],
  ['program,name\r\nseven,Hall', 'row 2', '"seven" is no program'],
  ['program,name\r\n20000,Hall', 'row 2', '0 to 16383'],
  ['number,name\r\n1,Hall', 'row 1', 'program'],
])('%j is refused with its row', (text, where, what) => {
  expect(programsFromCsv(text)).toEqual({
    ok: false,
    problems: [{ where, what: expect.stringContaining(what) }],
  });
});
