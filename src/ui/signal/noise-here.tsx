'use client';
import type { NoiseFigures, NoteAt } from '../../core/note';
import { overNoise } from '../../core/note/over-noise';
import { nameOf } from '../../core/rig';
import { fixed, showLevel, withPrefix } from '../../core/units';
import { useAnswer } from '../look/use-answer';
import { useDocument, useRig } from '../store/use-rig';

/** The noise at one place, weighted: how far the note is over it, which band and box it comes from, its hum. */
export function NoiseHere({
  device,
  point,
  note,
}: {
  device: string;
  point: string;
  note: NoteAt | null;
}) {
  const rig = useDocument();
  const sound = useRig((s) => s.sound);
  const { level } = useRig((s) => s.units);
  const noise = useAnswer('noise', { sound, device, point });
  if (!noise?.playing || !noise.idle) return null;
  const over = overNoise(note, noise);
  const from = ({ device, band }: NoiseFigures) =>
    `${nameOf(rig, device)}, about ${withPrefix(band, 'Hz')}`;
  return (
    <>
      <h3>Noise here, weighted</h3>
      <dl className="pairs figures" data-noise={`${device} ${point}`}>
        {over !== null && (
          <>
            <dt>Note over noise</dt>
            <dd data-over>{fixed(over)} dB</dd>
          </>
        )}
        <dt>While played</dt>
        <dd>{showLevel(noise.playing.weightedDbu, level)}</dd>
        <dt>Between notes</dt>
        <dd>{showLevel(noise.idle.weightedDbu, level)}</dd>
        <dt>Most of it</dt>
        <dd data-most>{from(noise.playing)}</dd>
        <dt>Hum in it</dt>
        <dd>{noise.playing.humDbu === null ? 'none' : showLevel(noise.playing.humDbu, level)}</dd>
      </dl>
      <p className="faint common-text-2">
        Hiss, heat and the hum of coils, weighted as loudness is; mains of 60 Hz, which are heard a
        little more than those of 50. Hum of earth loops is not in it: nobody knows their currents.
      </p>
    </>
  );
}
