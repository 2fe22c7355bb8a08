export { type Door, openDoor, startAnalysis, watchByLock } from './door';
export type { BestSoFar, ProposalName, Proposals, ReportUpdate } from './messages';
export { CANCELLED, propose, type Working } from './solver';
