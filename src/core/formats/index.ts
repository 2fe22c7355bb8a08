export { toDot } from './dot';
export { type Graph, walkGraph, wiringGraph } from './graph';
export { toGraphml } from './graphml';
export { walkSvg, wiringSvg } from './svg';
