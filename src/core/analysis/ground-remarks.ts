import { deviceOf, leadOf } from '../rig/find';
import { sure, at as entryAt } from '../outcome';
import type { Remark } from '../findings/finding';
import type { Rig } from '../rig/schema';
import type { Remarker } from './evidence';
import type { HumLoop } from './ground';
import type { Tie } from './ground-cures';
import { allOf } from '../units';

/** A loop between two boxes only, over their leads' shields: a send and its return, a left and a right. */
export const isPair = (l: HumLoop): boolean =>
  l.devices.length === 2 && l.ties.every((t) => t.kind === 'shield');

/** A loop of patch leads encloses too little to hum, up to this length each, in metres. */
export const PATCH_METRES = 1;

/**
 * Whether nobody would hear a loop: over shields alone, by patch leads within one board (or where
 * nothing is placed), or by two leads of like length to such a group and back, which run together: a
 * loop's send and return, a stereo pair.
 */
export function isHarmless(rig: Rig, loop: HumLoop): boolean {
  if (loop.ties.some((t) => t.kind !== 'shield')) return false;
  const leads = loop.ties.map((t) => sure(leadOf(rig, sure(t.lead))));
  const boardOf = (id: string) => deviceOf(rig, id)?.at?.board;
  const [patches, long] = [
    leads.filter((l) => l.metres <= PATCH_METRES),
    leads.filter((l) => l.metres > PATCH_METRES).map((l) => l.metres),
  ];
  if (patches.some((l) => boardOf(l.from.device) !== boardOf(l.to.device)) && !isPair(loop))
    return false;
  return long.length === 0 || (long.length === 2 && Math.max(...long) <= 1.25 * Math.min(...long));
}

/** Whether every lead of a loop is balanced: its shield carries the current beside the signal, not in it. */
const isBalanced = (loop: HumLoop): boolean =>
  loop.ties.every((t) => t.kind !== 'shield' || t.balanced);

/** Hum loops, worst where mains current can flow: through two protective earths or a shared supply return. */
export const groundRemarks: Remarker = ({ ctx, humLoops }) => {
  const name = (id: string) => ctx.device(id).name;
  // Loops through the same boxes are one matter for a person: the pairs of a loop's send and
  // return, left and right.
  const together = new Map<string, HumLoop[]>();
  const told = humLoops.filter((h) => !isHarmless(ctx.rig, h));
  for (const l of told.filter((h) => !isPair(h))) {
    const key = [...l.devices].sort().join('+');
    together.set(key, [...(together.get(key) ?? []), l]);
  }
  const remarks: Remark[] = [...together].map(([key, same]) => {
    const l = same.find((h) => h.fix) ?? entryAt(same, 0);
    const through = (kind: Tie['kind']) => same.some((h) => h.ties.some((t) => t.kind === kind));
    return {
      rule: 'hum-loop',
      severity:
        (through('earth') || through('supply')) && !same.every(isBalanced) ? 'caution' : 'advice',
      subjects: l.devices,
      about: key,
      what:
        `${same.length > 1 ? `${same.length} hum loops run` : 'A hum loop runs'} ` +
        `through ${l.devices.map(name).join(', ')}.`,
      why:
        (through('earth')
          ? 'Closed through protective earth, which must stay connected.'
          : through('supply')
            ? 'Closed through the shared return of a supply.'
            : 'Closed through the shields of its leads.') +
        // What can be made is made on a copy first, and told by what came of it.
        (l.fix
          ? ''
          : ` What opens it: ${l.cure}${same.length > 1 ? ', then the same for the others' : ''}.`),
      fix: l.fix,
      others: same.flatMap((h) => h.others ?? []),
    };
  });
  const pairs = told.filter(isPair);
  if (pairs.length) {
    const devices = [...new Set(pairs.flatMap((p) => p.devices))];
    remarks.push({
      rule: 'hum-pairs',
      severity: 'advice',
      subjects: devices,
      about: 'pairs',
      what:
        (pairs.length === 1
          ? 'A small ground loop runs between two devices: '
          : `${pairs.length} small ground loops run between two devices each: `) +
        `${pairs.map((p) => allOf(p.devices.map(name))).join('; ')}.`,
      why:
        'Two leads side by side between the same two boxes (a loop’s send and return, a ' +
        'stereo pair). What hums is what they enclose: with both tied together along their whole ' +
        'length that is nothing.',
    });
  }
  return remarks;
};
