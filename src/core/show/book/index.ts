export * from './blank';
export * from './records';
export * from './changed';
export * from './words';
export * from './history';
export * from './schedule';
