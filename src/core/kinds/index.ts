export * from './kind';
export { type Response, responseOf } from './response';
export { figureWith, settingWith } from './roles';
export { findKind, KINDS, kindOf } from './registry';
