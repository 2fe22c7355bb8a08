export { promiseRemarks } from './broken-promises';
export { PromiseChecker, type PromiseResult } from './check';
export { PROMISE_CHECKS, type PromiseCheck } from './checks';
export type { Breach, Ground, InSound, OverAll } from './ground';
export { rescue } from './survives';
