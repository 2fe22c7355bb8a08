import type { Message } from './message';
import { bytesOf, isRealtime, SYSTEM } from './message-sorts';

/** 31,250 bit/s and 10 bits a byte: 320 µs. */
export const BYTE_MS = 0.32;

/**
 * Time in ms that a list of messages takes on a DIN lead. Running status saves a status byte that
 * is the same as the one before.
 */
export function wireMs(messages: readonly Message[], runningStatus = false): number {
  let status: number | undefined;
  let bytes = 0;
  for (const m of messages) {
    const own = bytesOf(m);
    bytes += own.length - (runningStatus && !isRealtime(m) && own[0] === status ? 1 : 0);
    if (!isRealtime(m)) status = (own[0] ?? 0) < SYSTEM ? own[0] : undefined;
  }
  return bytes * BYTE_MS;
}
