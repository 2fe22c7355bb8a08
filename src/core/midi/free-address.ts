import { sure } from '../outcome';
import type { Address } from '../rig/schema';
import type { Stage } from './stage';
import { addressIn } from './commands';

/** Addresses that a device has used, by any scene. */
const usedBy = ({ orders }: Stage, device: string): Address[] =>
  orders.scenes.flatMap((s) => addressIn(s, device) ?? []);

/** The next free address of a device, after those in use. */
export function freeAddress(
  stage: Stage,
  device: string,
  taken: readonly Address[] = [],
): Address | undefined {
  const m = sure(stage.orders.graph.devices.get(device));
  const used = new Set(
    [...usedBy(stage, device), ...taken].map((a) => `${a.bank ?? 0} ${a.number}`),
  );
  const banked = m.bank !== 'none';
  const size = banked && m.shows.size ? m.shows.size : 128;
  const most = Math.min(m.kind.midi?.programs?.count ?? 128, banked ? 16_384 : 128);
  for (let n = 0; n < most; n++) {
    const at = banked ? { bank: Math.floor(n / size), number: n % size } : { number: n };
    if (!used.has(`${at.bank ?? 0} ${at.number}`)) return at;
  }
  return undefined;
}
