export { type Door, openDoor } from './door';
export type { ReportUpdate } from './messages';
