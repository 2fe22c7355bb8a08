'use client';
import { type Device, nameOf } from '../../core/rig';
import { fixed } from '../../core/units';
import { useDocument, useSoundReport } from '../store/use-rig';

const ohms = (z: number | null) =>
  z === null ? 'no load' : `${fixed(z, z < 10 && z % 1 ? 2 : 0)} Ω`;

/** What each speaker output of an amplifier sees in this sound: load, tap, power and who takes it. */
export function SpeakerPanel({ device }: { device: Device }) {
  const rig = useDocument();
  const lines = useSoundReport()?.speakers.filter((l) => l.amp === device.id) ?? [];
  if (!lines.length) return null;
  return (
    <div data-speakers={device.id}>
      <h3>Speaker line</h3>
      {lines.map((l, i) => (
        <dl key={i} className="pairs figures">
          <dt>Load</dt>
          <dd
            style={
              l.loadOhms === null && l.tube
                ? { color: 'var(--danger)', fontWeight: 700 }
                : undefined
            }
          >
            {ohms(l.loadOhms)}
          </dd>
          <dt>{l.tube ? 'Tap' : 'Lowest load it bears'}</dt>
          <dd>{ohms(l.tapOhms)}</dd>
          <dt>Rated power</dt>
          <dd>{fixed(l.watts, 0)} W</dd>
          {l.loads.map((x, k) => [
            <dt key={`t${k}`}>{nameOf(rig, x.device)}</dt>,
            <dd key={`d${k}`}>
              gets {fixed(x.watts, 0)} W, rated {fixed(x.ratedWatts, 0)} W
            </dd>,
          ])}
          {l.loadOhms !== null && (
            <>
              <dt>Lost in the leads</dt>
              <dd>{fixed(l.lossDb, 2)} dB</dd>
            </>
          )}
        </dl>
      ))}
      <p className="faint common-text">
        Tube amplifiers hold lethal voltages inside even when unplugged. Standby before a speaker is
        changed, and never without a load.
      </p>
    </div>
  );
}
