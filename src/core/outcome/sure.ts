/**
 * What must be there, or a mistake of the program: it throws, and whoever contains it tells. For
 * what a person or a file may leave out, an {@link Outcome} is right instead.
 */
export function sure<T>(value: T | undefined, what = 'something that must be there'): T {
  if (value === undefined) throw new Error(`${what} is missing`);
  return value;
}

/** The entry at a place that the list must have. */
export function at<T>(list: ArrayLike<T>, i: number): T {
  const value = list[i];
  if (value === undefined)
    throw new RangeError(`there is no entry ${i} in a list of ${list.length}`);
  return value;
}
