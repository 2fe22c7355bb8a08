export { type BufferProposal, proposeBuffers } from './buffers';
export { type HostMove, type InsideProposal, proposeInside } from './inside';
export type { Candidate } from './inside-candidates';
export { type IsolateProposal, proposeIsolation } from './isolate';
export { exactly, type MipSolver } from '../optimum/mip';
export { type FigureChange, type OrderMove, type OrderProposal, proposeOrder } from './order';
export type { Progress } from './step';
export { proposeOnePress } from './one-press';
export { type OnePress } from './press-ways';
