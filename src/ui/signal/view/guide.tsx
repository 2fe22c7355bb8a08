import { nameOf } from '../../../core/rig/find';
import { showLevel } from '../../../core/units';
import { SeverityMark } from '../../look/severity';
import { useDocument, useRig, useSoundReport } from '../../store/use-rig';
import { TakeFrom } from './take-from';

/** So many findings are shown here; the rest are where all of them are. */
const MOST = 4;

/** Where nothing is chosen: what the sound is about, what is broken, and what to do next. */
export function Guide() {
  const rig = useDocument();
  const report = useSoundReport();
  const sound = useRig((s) => rig.sounds.find((x) => x.id === s.sound));
  return (
    <div className="guide-text">
      <h2>{sound?.name ?? 'No sound yet'}</h2>
      {sound?.notes && <p>{sound.notes}</p>}
      {report && report.destinations.length > 0 && <Heard />}
      <Broken />
      <Next />
      <TakeFrom />
      <details>
        <summary className="small-print">Letters on leads, and the bars</summary>
        <p className="faint">
          TS instrument, BL balanced, ST stereo, IN insert, SP speaker, DG digital, AR air, LK a
          link inside a modeler. The bar under a strip runs from noise to level; the thin tick is
          the peak, the dashed one the clip point. Levels are figured at 1 kHz while playing
          normally.
        </p>
      </details>
    </div>
  );
}

/** What arrives where in this sound; pressed, it is chosen. */
function Heard() {
  const rig = useDocument();
  const report = useSoundReport();
  const units = useRig((s) => s.units);
  const select = useRig((s) => s.select);
  return (
    <>
      <h3>Heard at</h3>
      <ul className="guide-list">
        {report?.destinations.map((d) => (
          <li key={d.device}>
            <button
              type="button"
              className="lead-line"
              onClick={() => select({ kind: 'device', id: d.device })}
            >
              {nameOf(rig, d.device)}
            </button>{' '}
            <span className="figures">
              {d.levelDbu ? showLevel(d.levelDbu.normal, units.level) : 'silent'}
            </span>
          </li>
        ))}
      </ul>
    </>
  );
}

/** Promises that are not kept, in words. */
function Broken() {
  const promises = useRig((s) => s.report.promises);
  const broken = promises.filter((p) => !p.kept);
  if (!promises.length) return null;
  return (
    <>
      <h3>Promises</h3>
      {broken.length === 0 && <p>All {promises.length} are kept.</p>}
      <ul className="guide-list">
        {broken.map((p) => (
          <li key={p.id}>
            {p.failed ? 'Cannot be told' : 'Broken'}: {p.words}
          </li>
        ))}
      </ul>
    </>
  );
}

/** What to do next: the worst of what is found in this sound, else what is usual with a rig as far as this one. */
function Next() {
  const rig = useDocument();
  const sound = useRig((s) => s.sound);
  const findings = useRig((s) => s.report.findings);
  const openFindings = useRig((s) => s.openFindings);
  const filterFindings = useRig((s) => s.filterFindings);
  const here = findings.filter((f) => f.accepted === undefined && f.sounds.includes(sound));
  const show = (text?: string) => {
    filterFindings(text === undefined ? { sound } : { text });
    openFindings(true);
  };
  return (
    <>
      <h3>Next</h3>
      {here.length === 0 && (
        <p className="faint">
          {rig.leads.length === 0
            ? 'Find and do anything (Ctrl K) adds devices; C connects the chosen one.'
            : 'Nothing is to be said against this sound. Choose a strip to see what it does here, ' +
              'or the letters on a lead to probe it.'}
        </p>
      )}
      <ul className="guide-list">
        {here.slice(0, MOST).map((f) => (
          <li key={f.key}>
            <SeverityMark severity={f.severity} />{' '}
            <button type="button" className="lead-line" onClick={() => show(f.what)}>
              {f.what}
            </button>
          </li>
        ))}
      </ul>
      {here.length > MOST && (
        <button type="button" className="linklike" onClick={() => show()}>
          and {here.length - MOST} more in this sound
        </button>
      )}
    </>
  );
}
