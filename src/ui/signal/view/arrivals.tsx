import { fixed, showLevel } from '../../../core/units';
import { useRig, useSoundReport } from '../../store/use-rig';

/** What arrives where, in one line for each destination. */
export function Arrivals() {
  const report = useSoundReport();
  const units = useRig((s) => s.units);
  return (
    <div className="arrivals" role="group" aria-label="What arrives">
      {report?.destinations.map((d) => (
        <span key={d.device} data-destination={d.device}>
          <strong>{d.name}</strong>{' '}
          <span className="figures">
            {d.levelDbu
              ? showLevel(d.levelDbu.normal, units.level) +
                ', ' +
                (d.signalToNoiseDb === null ? 'no noise' : `${fixed(d.signalToNoiseDb)} dB S/N`) +
                ', ' +
                (d.thdPercent ? `${fixed(d.thdPercent.normal)} %` : '') +
                `, ${d.pairedWith ? `${d.side} of stereo` : d.channels}, ${fixed(d.latencyMs ?? 0)} ms`
              : 'silent'}
          </span>
        </span>
      ))}
    </div>
  );
}
