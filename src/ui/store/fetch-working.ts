import { later } from '../look/later';

/** What changes a rig, as {@link file://./working.ts} has it. */
export type Working = typeof import('./working');

/** Fetches what changes a rig; fails where the server is away and this browser has not kept it yet. */
export const fetchWorking = later<Working>('working', () => import('./working'));
