export * from './kind';
export { findKind, KINDS, kindOf } from './registry';
export { isEngaged, resolveState, settingOf, stateIn } from './state';
