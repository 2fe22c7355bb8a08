import { type Jack, kindOf } from '../kinds';
import { resolveState } from './device-state';
import type { Device } from './schema';

/**
 * The jack by which what is played leaves an instrument: one that answers to the hand, so neither
 * tracks nor a microphone. Nothing for what is no instrument, or rests as it stands.
 */
export function playedOut(device: Device): Jack | undefined {
  const kind = kindOf(device.kind);
  if (kind.job !== 'instrument') return undefined;
  const state = { ...resolveState(kind, device), engaged: true };
  const answers = kind.passes(state, () => true).some((p) => p.is === 'source' && p.touch);
  return answers
    ? kind.jacks.find((j) => j.direction === 'out' && j.signal === 'audio' && j.connector === 'TS')
    : undefined;
}
