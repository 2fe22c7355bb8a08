export * from './kind';
export { findKind, KINDS, kindOf } from './registry';
