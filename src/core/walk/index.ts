export { placeStations } from './place';
export { passGroups, type Station, stationsOf, type Step } from './stations';
export { routeBetween, routeTo } from './route';
