import { analyse } from '../analysis';
import { applyEdits, checkRig, freshId, type Rig } from '../rig';
import { brokenRig, DEMO_RIGS, touringRig } from '.';

test.each(DEMO_RIGS.map((r) => [r.name, r] as const))('%s is a sound document whose fixes all apply', (_, rig) => {
  expect(checkRig(rig).ok).toBe(true);
  for (const f of analyse(rig).findings) {
    if (!f.fix) continue;
    const r = applyEdits(rig, f.fix.edits);
    expect(r.ok).toBe(true);
  }
});

test('the touring rig works: every destination is heard in every sound but silent tuning, and nothing is worse than caution', () => {
  const { sounds, findings } = analyse(touringRig);
  for (const s of sounds) expect(s.destinations.every((d) => (d.levelDbu === null) === (s.sound === 'tune'))).toBe(true);
  expect(findings.filter((f) => f.severity === 'danger' || f.severity === 'fault')).toEqual([]);
  expect(sounds.find((s) => s.sound === 'flat')!.destinations.map((d) => d.channels)).toEqual(['mono', 'mono', 'mono', 'stereo']);
});

test('the practice rig holds the mistakes it is for', () => {
  const rules = new Set(analyse(brokenRig).findings.map((f) => f.rule));
  for (const rule of ['no-load', 'speaker-lead', 'no-route', 'comb', 'polarity', 'headroom', 'noise', 'latency', 'input-level', 'bare-pickup', 'pitch-early', 'gain-low-to-high', 'time-after-dirt', 'half-pair', 'buffer-place', 'dull-lead']) expect(rules).toContain(rule);
});

test('every lead removed in turn: no crash, and whatever it silenced is said', () => {
  for (const rig of DEMO_RIGS) {
    for (const l of rig.leads) {
      const cut: Rig = { ...rig, leads: rig.leads.filter((x) => x !== l) };
      const before = analyse(rig).sounds[0]!.destinations.filter((d) => d.connected).map((d) => d.device);
      const { sounds, findings } = analyse(cut);
      const lost = before.filter((id) => !sounds[0]!.destinations.find((d) => d.device === id)!.connected);
      for (const id of lost) expect(findings.some((f) => f.rule === 'no-route' && f.subjects.includes(id))).toBe(true);
    }
  }
});

test('fresh ids are words that are free', () => {
  expect(freshId('Amber Drive', [])).toBe('amber-drive');
  expect(freshId('Amber Drive', ['amber-drive', 'amber-drive-2'])).toBe('amber-drive-3');
  expect(freshId('…', [])).toBe('item');
  expect(freshId('constructor', [])).toBe('constructor-2');
});
