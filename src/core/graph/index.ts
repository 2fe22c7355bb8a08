export { circlesIn } from './circles';
export { Joined } from './joined';
export { type Order, orderNodes } from './order';
export { byKey, nearestFirst, reachable } from './search';
