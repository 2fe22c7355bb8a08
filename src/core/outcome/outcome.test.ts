import { at, done, problemLines, refused, sure } from '.';

test('what must be there is given, and what is not throws with its name; null is a value', () => {
  expect(sure(0)).toBe(0);
  expect(sure(null)).toBeNull();
  expect(() => sure(undefined, 'the lead')).toThrow('the lead is missing');
  expect(() => sure(undefined)).toThrow('something that must be there is missing');
});

test('an entry of a list is given where there is one', () => {
  expect([at([4, 5], 1), at('ab', 0), at(new Float64Array([2.5]), 0)]).toEqual([5, 'a', 2.5]);
  expect(() => at([4], 1)).toThrow('there is no entry 1 in a list of 1');
  expect(() => at([], -1)).toThrow(RangeError);
});

test('an outcome holds its value, or its reasons with where they are', () => {
  expect(done(4)).toEqual({ ok: true, value: 4 });
  expect(refused('It is full.', 'leads[3]')).toEqual({
    ok: false,
    problems: [{ where: 'leads[3]', what: 'It is full.' }],
  });
  expect(problemLines([...refused('It is full.').problems, { where: 'a', what: 'b' }])).toEqual([
    'It is full.',
    'a: b',
  ]);
});
