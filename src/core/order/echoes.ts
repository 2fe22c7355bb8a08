import { type Job, kindOf } from '../kinds';
import { byId } from '../rig/find';
import type { StationFigures } from '../signal/station-figures';
import { type Breach, DIRT, type Look, name, pick } from './look';
import { allOf } from '../units';

/** An amplifier that adds this much saturation behind a delay distorts its echoes audibly. */
export const ADDED_DIRT_PERCENT = 8;

const TIME: Job[] = ['delay', 'reverb'];

/**
 * Echoes that an amplifier distorts: one matter, whatever their number, told of the first of them; the
 * amplifier's loop cures it where it has one.
 */
export function distorted(at: Look, amp: StationFigures): Breach[] {
  const { ctx, stations } = at.evidence;
  const isAlike = (s: StationFigures) => {
    const behind = at.near.behind(s);
    const { job } = kindOf(ctx.device(s.device).kind);
    const nearest = pick(behind, ['amp', 'simulator']);
    return TIME.includes(job) && nearest?.device === amp.device && !pick(behind, DIRT);
  };
  const all = at.s.state === 'engaged' ? stations : [at.s];
  const here = all
    .filter((s) => s.state === at.s.state && isAlike(s))
    .sort((a, b) => a.column - b.column || byId({ id: a.device }, { id: b.device }));
  const [first, ...more] = new Set(here.map((s) => s.device));
  if (first !== at.s.device) return [];
  const devices = [first, ...more];
  const names = allOf(devices.map((id) => ctx.device(id).name));
  const { jacks, loops } = kindOf(ctx.device(amp.device).kind);
  const loop = loops?.find((l) => jacks.find((j) => j.id === l.send[0])?.signal === 'audio');
  return [
    {
      other: amp,
      more,
      what: `${names} ${more.length ? 'feed' : 'feeds'} ${name(at, amp)}, which distorts.`,
      why:
        `${name(at, amp)} takes the sound ` +
        `to ${amp.output.thdPercent!.normal.toFixed(0)} % saturation, so it distorts the ` +
        'echoes together with the notes.',
      fix: loop && {
        words: `Put ${names} into the ${loop.label} of ${name(at, amp)}`,
        edits: devices.map((id) => ({
          edit: 'putInLoop' as const,
          device: ctx.device(id),
          host: amp.device,
          loop: loop.id,
        })),
      },
    },
  ];
}
