import { useMemo } from 'react';
import { type Finding, isWorse, type Severity } from '../../core/findings/finding';
import { useRig } from '../store/use-rig';

/** The worst open finding of each device in a sound, or in the rig whatever the sound; advice aside. */
export function worstIn(findings: readonly Finding[], sound: string): Map<string, Severity> {
  const worst = new Map<string, Severity>();
  for (const f of findings) {
    if (f.accepted !== undefined || f.severity === 'advice') continue;
    if (f.sounds.length > 0 && !f.sounds.includes(sound)) continue;
    // What is about the whole rig, such as its weight, marks no device.
    const [at] = f.subjects;
    if (at === undefined) continue;
    const known = worst.get(at);
    if (!known || isWorse(f.severity, known)) worst.set(at, f.severity);
  }
  return worst;
}

/** The same of the sound that is on screen. */
export function useWorst(): Map<string, Severity> {
  const findings = useRig((s) => s.report.findings);
  const sound = useRig((s) => s.sound);
  return useMemo(() => worstIn(findings, sound), [findings, sound]);
}
