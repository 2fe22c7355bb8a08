export * from './kind';
export { figureWith, settingWith } from './roles';
export { findKind, KINDS, kindOf } from './registry';
