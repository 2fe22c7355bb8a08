import { endsOfAssignment, holdsIn, sweepOf } from '../control';
import { type Fix, fixes, type Remark } from '../findings/finding';
import { kindOf } from '../kinds';
import type { Assignment, Control } from '../rig/schema';
import type { Curve } from '../units';
import type { SoundContext } from '../signal/sound-context';
import { fixed } from '../units';
import type { Remarker } from './evidence';

/** Positions that are tried in every sound: eighths of the travel, the middle among them. */
const POSITIONS = 9;
/** A dip or a bump of a crossfade under this is waved away, in dB. */
const HEARD_DB = 2;

/**
 * Crossfades that dip or swell on the way: a pedal that brings one thing up while another goes down,
 * evaluated on copies along its travel.
 */
export const sweepRemarks: Remarker = ({ ctx, wantsFixes }) =>
  (ctx.rig.controls ?? []).flatMap((control): Remark[] => {
    if (control.type !== 'pedal' || !isCrossfade(ctx, control)) return [];
    const worst = sweepOf(ctx.rig, ctx.sound, control, POSITIONS)
      .destinations.filter((d) => Math.max(d.dipDb, d.bumpDb) > HEARD_DB)
      .reduce<{ name: string; device: string; verdict: string; by: number } | undefined>(
        (most, d) => {
          const by = Math.max(d.dipDb, d.bumpDb);
          return most && most.by >= by ? most : { ...d, by };
        },
        undefined,
      );
    if (!worst) return [];
    return [
      {
        rule: 'sweep',
        severity: worst.verdict.startsWith('silent') ? 'caution' : 'advice',
        subjects: [
          ...new Set(control.assigns.filter((a) => holdsIn(a, ctx.sound.id)).map((a) => a.device)),
          worst.device,
        ],
        about: control.id,
        what: `${control.name}, swept, is uneven at ${worst.name}: ${worst.verdict}.`,
        why:
          'One thing comes up while another goes down. Unrelated signals keep their level with curves of ' +
          'equal power, copies of one signal with linear ones.',
        ...fixes(wantsFixes ? otherCurves(ctx, control, worst.by) : []),
      },
    ];
  });

/** Knobs that a control moves in a sound, each with whether it rises towards the toe. */
function isCrossfade({ rig, sound, device }: SoundContext, control: Control): boolean {
  const directions = control.assigns
    .filter((a) => holdsIn(a, sound.id) && a.on === undefined && a.off === undefined)
    .filter((a) => {
      const known = rig.devices.some((d) => d.id === a.device);
      return (
        known &&
        kindOf(device(a.device).kind).parameters.some(
          (p) => p.id === a.setting && p.type === 'knob',
        )
      );
    })
    .map((a) => {
      const [from, to] = endsOfAssignment(rig, a);
      return Math.sign(to - from);
    });
  return directions.includes(1) && directions.includes(-1);
}

/** Curves that would leave less of a dip or bump, the one that leaves least first. */
function otherCurves(ctx: SoundContext, control: Control, now: number): Fix[] {
  const curves: [Curve, string][] = [
    ['equal-power', 'equal power'],
    ['linear', 'linear'],
  ];
  return curves
    .map(([curve, words]) => {
      const assigns = control.assigns.map((a): Assignment =>
        holdsIn(a, ctx.sound.id) && a.on === undefined && a.off === undefined ? { ...a, curve } : a,
      );
      const changed = { ...control, assigns };
      const { destinations } = sweepOf(ctx.rig, ctx.sound, changed, POSITIONS);
      const left = Math.max(0, ...destinations.flatMap((d) => [d.dipDb, d.bumpDb]));
      const fix: Fix = {
        words: `Give ${control.name} curves that are ${words} (leaves ${fixed(left)} dB)`,
        edits: [{ edit: 'setControl', control: changed }],
      };
      return { left, fix };
    })
    .filter(({ left }) => left < now)
    .sort((a, b) => a.left - b.left)
    .map(({ fix }) => fix);
}
