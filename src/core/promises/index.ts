export { type Breach, PromiseChecker, type PromiseResult } from './check';
export { promiseRemarks } from './remarks';
export { rescue } from './survives';
