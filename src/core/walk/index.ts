export { placeStations } from './place';
export { figurePoints, passGroups, type Station, stationsOf, type Step } from './stations';
export { sourcesOf } from './sources';
export { reachedFrom, routeBetween, routeTo } from './route';
export { walkOrder } from './walk-order';
