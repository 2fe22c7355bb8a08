import { isTooLong } from './too-long';

test.each([
  ['in time', 59, 59, false],
  ['over its limit, with all of a core', 60, 60, true],
  ['over its limit, on cores that others want', 120, 20, false],
  ['over its limit, once it has had as much of a core', 300, 60, true],
  ['several threads at once, in time', 30, 60, false],
  ['never done, and doing nothing', 600, 1, true],
])('work that is %s', (_, waited, worked, isStopped) => {
  expect(isTooLong(60_000, waited * 1000, worked * 1000)).toBe(isStopped);
});
