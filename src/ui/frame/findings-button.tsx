'use client';
import { SEVERITIES } from '../../core/findings/finding';
import { SeverityMark } from '../look/severity';
import { useRig } from '../store/use-rig';

/** Counts by severity; opens the findings. */
export function FindingsButton() {
  const findings = useRig((s) => s.report.findings);
  const openFindings = useRig((s) => s.openFindings);
  const isBehind = useRig((s) => s.isBehind);
  const since = useRig((s) => s.sinceEdit);
  const open = findings.filter((f) => f.accepted === undefined);
  if (isBehind) return <span className="sound findings-button-box">judging the rig …</span>;
  return (
    <button
      type="button"
      className="sound findings-button-box"
      onClick={() => openFindings(true)}
      aria-label={
        'Findings: ' +
        SEVERITIES.map((s) => `${open.filter((f) => f.severity === s).length} ${s}`).join(', ')
      }
    >
      {open.length === 0 && 'no findings'}
      {SEVERITIES.map((s) => {
        const count = open.filter((f) => f.severity === s).length;
        return count > 0 && <SeverityMark key={s} severity={s} count={count} />;
      })}
      {since && (
        <span className="since-edit" title="by the last edit">
          {[
            since.fresh.length && `${since.fresh.length} new`,
            since.cured && `${since.cured} cured`,
          ]
            .filter(Boolean)
            .join(', ')}
        </span>
      )}
    </button>
  );
}
