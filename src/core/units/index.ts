export * from './level';
export * from './display';
export * from './curves';
