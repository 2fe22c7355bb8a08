import { countOf, openCounts, SEVERITIES } from './severity';

test('one of a severity is said as one, and advice has no more than one form', () => {
  expect(SEVERITIES.map((s) => countOf(1, s))).toEqual([
    '1 danger',
    '1 fault',
    '1 caution',
    '1 advice',
  ]);
  expect(SEVERITIES.map((s) => countOf(2, s))).toEqual([
    '2 dangers',
    '2 faults',
    '2 cautions',
    '2 advice',
  ]);
});

test('what was accepted is not counted as open', () => {
  expect(
    openCounts([
      { severity: 'fault' },
      { severity: 'caution', accepted: 'a spare is packed' },
      { severity: 'caution' },
    ]),
  ).toBe('0 dangers, 1 fault, 1 caution, 0 advice');
});
