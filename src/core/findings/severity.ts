/**
 * danger: can hurt someone or destroy gear · fault: will not work as meant · caution: may
 * disappoint · advice. Worst first.
 */
export const SEVERITIES = ['danger', 'fault', 'caution', 'advice'] as const;
export type Severity = (typeof SEVERITIES)[number];

export const isWorse = (a: Severity, b: Severity): boolean =>
  SEVERITIES.indexOf(a) < SEVERITIES.indexOf(b);
