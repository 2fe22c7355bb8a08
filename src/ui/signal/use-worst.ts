import { useMemo } from 'react';
import { isWorse, type Severity } from '../../core/findings/finding';
import { useRig } from '../store/use-rig';

/** The worst open finding of each device in any sound, advice aside. */
export function useWorst(): Map<string, Severity> {
  const findings = useRig((s) => s.report.findings);
  return useMemo(() => {
    const worst = new Map<string, Severity>();
    for (const f of findings) {
      if (f.accepted !== undefined || f.severity === 'advice') continue;
      // What is about the whole rig, such as its weight, marks no device.
      const [at] = f.subjects;
      if (at === undefined) continue;
      const known = worst.get(at);
      if (!known || isWorse(f.severity, known)) worst.set(at, f.severity);
    }
    return worst;
  }, [findings]);
}
