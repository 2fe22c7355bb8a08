/** Heavy work that could not be done: too much is asked at once, or it took too long. */
export class Busy extends Error {}
