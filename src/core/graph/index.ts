export { circlesIn } from './circles';
export { Joined, JoinedNumbers } from './joined';
export { loopsThrough } from './loops';
export { orderByName, orderNodes } from './order';
export { byKey, nearestFirst, reachable } from './search';
