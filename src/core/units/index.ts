export * from './level';
export * from './display';
