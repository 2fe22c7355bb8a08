import type * as z from 'zod';

const THINGS: Record<string, string> = {
  number: 'a number',
  int: 'a whole number',
  string: 'a text',
  boolean: 'true or false',
  array: 'a list',
  object: 'an object',
  record: 'an object',
};
const thing = (expected: string): string => THINGS[expected] ?? expected;

/**
 * What is wrong with one field, so that a person knows what to write instead. Words that the schema
 * has of its own stay.
 */
export function issueWords(issue: z.core.$ZodIssue): string {
  const { message } = issue;
  // Only the library's own words are put into others.
  if (!/^(Invalid|Too|Unrecognized)/.test(message)) return message;
  switch (issue.code) {
    case 'invalid_type':
      return /received undefined/.test(message)
        ? `it is missing; give ${thing(issue.expected)}`
        : issue.expected === 'int'
          ? 'it takes a whole number'
          : `it takes ${thing(issue.expected)}, not ${thing(/received (\w+)/.exec(message)?.[1] ?? 'this')}`;
    case 'too_small':
      return issue.origin === 'string' || issue.origin === 'array'
        ? `it is too short; give at least ${issue.minimum} ${issue.origin === 'string' ? 'letters' : 'entries'}`
        : `it is too small; give ${issue.inclusive === false ? 'more than' : 'at least'} ${issue.minimum}`;
    case 'too_big':
      return issue.origin === 'string' || issue.origin === 'array'
        ? `it is too long; give at most ${issue.maximum} ${issue.origin === 'string' ? 'letters' : 'entries'}`
        : `it is too large; give ${issue.inclusive === false ? 'less than' : 'at most'} ${issue.maximum}`;
    case 'invalid_value':
      return `it is none of ${issue.values.map((v) => JSON.stringify(v)).join(', ')}`;
    case 'invalid_format':
      return issue.format === 'datetime'
        ? 'it takes a date and time, such as "2026-11-25T10:00:00Z"'
        : issue.format === 'date'
          ? 'it takes a date, such as "2026-11-25"'
          : `it is not written as it should be (${issue.format})`;
    case 'invalid_union': {
      const values = issue.errors
        .flat()
        .flatMap((e) => (e.code === 'invalid_value' ? e.values : []));
      return values.length
        ? `it is none of ${values.map((v) => JSON.stringify(v)).join(', ')}`
        : 'it is nothing that is taken here';
    }
    default:
      return message;
  }
}
