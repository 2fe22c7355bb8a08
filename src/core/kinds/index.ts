export * from './kind';
export { type Response, responseOf } from './response';
export { believable, type MeasuringWay, measuringWay } from './measuring';
export { figureWith, settingWith } from './roles';
export { findKind, KINDS, kindOf, learnKind } from './registry';
