import { analyse, Analyser } from '../report';
import { applyEdits, checkRig, freshId, type Rig } from '../rig';
import { brokenRig, DEMO_RIGS, flyRig, hybridRig, touringRig } from '.';

test.each(DEMO_RIGS.map((r) => [r.name, r] as const))(
  '%s is a sound document whose fixes all apply',
  (_, rig) => {
    expect(checkRig(rig).ok).toBe(true);
    for (const f of analyse(rig).findings) {
      if (!f.fix) continue;
      const r = applyEdits(rig, f.fix.edits);
      expect(r.ok).toBe(true);
    }
  },
);

test(
  'the touring rig works: what should be heard is, in every sound but silent tuning, ' +
    'every promise is kept, and nothing is worse than caution',
  () => {
    const { sounds, findings, promises } = analyse(touringRig);
    const heard = (s: (typeof sounds)[number]) =>
      s.destinations.filter((d) => d.levelDbu).map((d) => d.device);
    for (const s of sounds)
      expect(heard(s)).toEqual(
        s.sound === 'tune'
          ? []
          : [
              'cab',
              'house',
              'ears',
              'wide',
              ...(['lead', 'organ'].includes(s.sound) ? ['deckcab'] : []),
              'tdesk',
              'tech',
            ],
      );
    expect(findings.filter((f) => f.severity === 'danger' || f.severity === 'fault')).toEqual([]);
    expect(promises.every((p) => p.kept)).toBe(true);
    expect(sounds.find((s) => s.sound === 'flat')!.destinations.map((d) => d.channels)).toEqual([
      'mono',
      'mono',
      'mono',
      'stereo',
      'silent',
      'mono',
      'dual mono',
    ]);
  },
);

test.each([flyRig, hybridRig])(
  '$name works: its promises are kept, nothing is worse than caution',
  (rig) => {
    const { sounds, findings, promises } = analyse(rig);
    expect(findings.filter((f) => f.severity === 'danger' || f.severity === 'fault')).toEqual([]);
    expect(promises.filter((p) => !p.kept)).toEqual([]);
    for (const s of sounds)
      if (s.sound !== 'tune') expect(s.destinations.every((d) => d.levelDbu)).toBe(true);
  },
);

test('the practice rig holds the mistakes it is for', () => {
  const rules = new Set(analyse(brokenRig).findings.map((f) => f.rule));
  for (const rule of [
    'no-load',
    'speaker-lead',
    'impedance',
    'no-route',
    'comb',
    'polarity',
    'headroom',
    'noise',
    'latency',
    'input-level',
    'bare-pickup',
    'pitch-early',
    'gain-low-to-high',
    'time-after-dirt',
    'half-wide',
    'buffer-place',
    'dull-lead',
    'howl',
    'half-loop',
    'host-budget',
    'hum-loop',
    'promise',
  ])
    expect(rules).toContain(rule);
});

/** What is silent is said by itself, or by what makes it so. */
const SAYS = ['no-route', 'no-load', 'open-end', 'half-loop', 'priority', 'swapped', 'wrong-way'];

test('every lead removed in turn: no crash, and whatever it silenced is said', () => {
  for (const demo of DEMO_RIGS) {
    // The first sound alone: what a lead silences is said of it, and the others say the same.
    const rig = { ...demo, sounds: demo.sounds.slice(0, 1), promises: [] };
    const whole = new Analyser();
    const before = whole
      .analyse(rig)
      .sounds[0]!.destinations.filter((d) => d.connected)
      .map((d) => d.device);
    for (const l of rig.leads) {
      const cut: Rig = { ...rig, leads: rig.leads.filter((x) => x !== l) };
      const { sounds, findings } = whole.forCopies().analyse(cut);
      const lost = before.filter(
        (id) => !sounds[0]!.destinations.find((d) => d.device === id)!.connected,
      );
      for (const id of lost)
        expect([
          l.id,
          findings.some((f) => SAYS.includes(f.rule) && f.subjects.includes(id)),
        ]).toEqual([l.id, true]);
    }
  }
});

test('fresh ids are words that are free', () => {
  expect(freshId('Amber Drive', [])).toBe('amber-drive');
  expect(freshId('Amber Drive', ['amber-drive', 'amber-drive-2'])).toBe('amber-drive-3');
  expect(freshId('…', [])).toBe('item');
  expect(freshId('constructor', [])).toBe('constructor-2');
});
