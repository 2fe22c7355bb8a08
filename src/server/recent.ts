import QuickLRU from 'quick-lru';
import type { Rig } from '../core/rig';

/**
 * Documents that were saved or read a moment ago, by the identity of their revision: the next save
 * begins from one of them, and needs neither to read nor to check it again. A revision never
 * changes, so that nothing here grows stale; another server process only has to read for itself.
 */
export const recent = new QuickLRU<string, Rig>({ maxSize: 300 });
