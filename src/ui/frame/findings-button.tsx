'use client';
import { openCounts, type Severity, SEVERITIES } from '../../core/findings/finding';
import { SeverityMark } from '../look/severity';
import { useRig } from '../store/use-rig';

/** Counts by severity; opens the findings. */
export function FindingsButton() {
  const findings = useRig((s) => s.report.findings);
  const openFindings = useRig((s) => s.openFindings);
  const isBehind = useRig((s) => s.isBehind);
  const since = useRig((s) => s.sinceEdit);
  const open = findings.filter((f) => f.accepted === undefined);
  const countOf = (s: Severity) => open.filter((f) => f.severity === s).length;
  const shown = SEVERITIES.filter((s) => countOf(s) > 0);
  if (isBehind) return <span className="sound findings-button-box">judging the rig …</span>;
  return (
    <button
      type="button"
      className="sound findings-button-box"
      onClick={() => openFindings(true)}
      aria-label={`Findings: ${openCounts(findings)}`}
    >
      {open.length === 0 && 'no findings'}
      {/* With the words of all of them the head of the page would be too wide. */}
      {shown.map((s, i) => (
        <SeverityMark key={s} severity={s} count={countOf(s)} isShort={shown.length > 2 && i > 0} />
      ))}
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
