export * from './records';
export * from './words';
export * from './history';
export * from './schedule';
