export {
  type Door,
  keepAnalysis,
  loseAnalysis,
  openDoor,
  startAnalysis,
  watchByLock,
} from './door';
export type { ProposalName, Proposals, ReportUpdate, SoFar } from './messages';
export { CANCELLED, propose, type Sharing, type Working } from './solver';
