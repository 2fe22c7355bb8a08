import { howMany } from '../units/display';

/**
 * danger: can hurt someone or destroy gear · fault: will not work as meant · caution: may
 * disappoint · advice. Worst first.
 */
export const SEVERITIES = ['danger', 'fault', 'caution', 'advice'] as const;
export type Severity = (typeof SEVERITIES)[number];

/** So many of a severity, as it is said: "1 fault", "3 dangers", "5 advice". */
export const countOf = (count: number, severity: Severity): string =>
  howMany(count, severity, severity === 'advice' ? 'advice' : undefined);

/** How many findings of each severity are open: "0 dangers, 1 fault, 3 cautions, 5 advice". */
export function openCounts(
  findings: readonly { severity: Severity; accepted?: string | undefined }[],
): string {
  const open = (s: Severity) =>
    findings.filter((f) => f.severity === s && f.accepted === undefined).length;
  return SEVERITIES.map((s) => countOf(open(s), s)).join(', ');
}

export const isWorse = (a: Severity, b: Severity): boolean =>
  SEVERITIES.indexOf(a) < SEVERITIES.indexOf(b);
