import { applyEdits, type Device, type Rig } from '../rig';
import { chainOf, device, lead, rigOf, sound } from '../testing/rigs';
import { analyse } from '../report/report';

const own = (values: Record<string, number>): Partial<Device> => ({
  figures: Object.fromEntries(
    Object.entries(values).map(([id, value]) => [id, { value, from: 'sheet' as const }]),
  ),
});
const LINE: [string, Partial<Device>] = ['console-input', { settings: { input: 'line' } }];
const found = (rig: Rig, rule: string) => analyse(rig).findings.find((f) => f.rule === rule);
const cured = (rig: Rig, rule: string): Rig => {
  const r = applyEdits(rig, found(rig, rule)!.fix!.edits);
  if (!r.ok) throw new Error(r.problems[0]!.what);
  return r.value.rig;
};

describe('loading', () => {
  const rig = chainOf(
    [['guitar-active', own({ outputOhms: 50_000 })], ['buffer', own({ inputOhms: 50_000 })], LINE],
    0,
  );
  test('half the level lost is said with both impedances, and a buffer cures it', () => {
    const f = found(rig, 'loading')!;
    expect(f.why).toContain('50 kΩ feeds 50 kΩ in all, which costs 6.0 dB at 1 kHz');
    expect(f.fix!.words).toBe('Put a buffer in front of Device 1');
  });
  test('ten times the source impedance is nothing to speak of', () => {
    expect(
      found(
        chainOf(
          [
            ['guitar-active', own({ outputOhms: 5000 })],
            ['buffer', own({ inputOhms: 50_000 })],
            LINE,
          ],
          0,
        ),
        'loading',
      ),
    ).toBeUndefined();
  });
  test('a fuzz that wants to load the pickup may', () => {
    expect(
      found(
        chainOf(
          [
            'guitar-humbucker',
            ['fuzz-low-impedance', { engaged: true }],
            ['buffer', own({ inputOhms: 1e6 })],
            LINE,
          ],
          1,
        ),
        'loading',
      ),
    ).toBeUndefined();
  });
  test('a volume pedal’s own track is no loading fault', () => {
    expect(
      found(
        chainOf(
          [
            'guitar-active',
            'buffer',
            ['volume-passive', { settings: { pedal: 3 } }],
            'buffer',
            LINE,
          ],
          0.3,
        ),
        'loading',
      ),
    ).toBeUndefined();
  });
});

describe('treble', () => {
  const long = chainOf(['guitar-single-coil', 'drive-low', 'drive-mid', 'wah', 'buffer', LINE], 4);
  test('what leads take is told against the reference, and the buffer’s gain is what it then is', () => {
    const f = found(long, 'buffer-place')!;
    expect(f.severity).toBe('advice');
    const before = analyse(long).sounds[0]!.tones.find((t) => t.bare)!.at5kHzDb;
    const after = analyse(cured(long, 'buffer-place')).sounds[0]!.tones.find(
      (t) => t.bare,
    )!.at5kHzDb;
    expect(f.why).toContain(`gives back ${(after - before).toFixed(1)} dB at 5 kHz`);
    expect(found(cured(long, 'buffer-place'), 'buffer-place')).toBeUndefined();
  });
  test('a reference lead of the user’s own moves the line', () => {
    expect(
      found({ ...long, reference: { metres: 16, pfPerMetre: 100, ohms: 1e6 } }, 'buffer-place'),
    ).toBeUndefined();
  });
  test('who wants no buffers is not told of them', () => {
    expect(
      found(
        { ...long, order: { stances: { 'buffer-place': { stance: 'other' } } } },
        'buffer-place',
      ),
    ).toBeUndefined();
  });
  test('a long lead behind a high output impedance is dull, and says at which frequency', () => {
    const rig = chainOf(
      [['guitar-active', own({ outputOhms: 50_000 })], ['buffer', own({ inputOhms: 1e7 })], LINE],
      10,
    );
    const f = found(rig, 'dull-lead')!;
    expect(f.subjects).toEqual(['d0', 'l0']);
    expect(f.why).toMatch(/1000 pF of lead on that output is 3 dB down at 3\.\d+ kHz/);
  });
});

describe('levels at destinations', () => {
  test('a microphone input fed at line level is offered its other setting', () => {
    const rig = chainOf(['line-instrument', 'buffer', ['console-input', {}]]);
    const f = found(rig, 'input-level')!;
    expect(f.what).toBe('Device 2 gets more level than its input is made for.');
    expect(f.fix!.words).toBe('Set the input to line');
    expect(found(cured(rig, 'input-level'), 'input-level')).toBeUndefined();
  });
  test('a passive direct box takes 21.6 dB, breaks the ground, and its thru carries on', () => {
    const rig = rigOf(
      [
        device('g', 'line-instrument', 'G'),
        device('d', 'direct-box', 'D'),
        device('e', 'console-input', 'E'),
        device('a', 'combo-tube', 'A'),
      ],
      [
        lead('1', 'g.out', 'd.in', 1),
        lead('2', 'd.out', 'e.in', 10, 'balanced'),
        lead('3', 'd.thru', 'a.in', 3),
      ],
    );
    const [house, amp] = ['e', 'a'].map((id) =>
      analyse(rig).sounds[0]!.destinations.find((x) => x.device === id)!,
    );
    expect(house!.levelDbu!.normal).toBeCloseTo(-10 - 21.6 - 0.63, 1);
    expect(amp!.levelDbu).not.toBeNull();
  });
  test('a level turned all the way down is a fault, a mute is not', () => {
    expect(
      found(
        chainOf(['guitar-active', ['volume-active', { settings: { pedal: 0 } }], LINE]),
        'silent',
      )!.severity,
    ).toBe('fault');
  });
});

describe('findings over sounds', () => {
  const rig = chainOf(['guitar-active', 'boost', 'boost', LINE], 0.3, [
    sound('a', 'A', []),
    sound('b', 'B', ['d1', 'd2']),
    sound('c', 'C', ['d1', 'd2'], { d1: { engaged: true, settings: { gain: 9 } } }),
  ]);
  test('one finding names all its sounds and is worded by the worst', () => {
    const clip = analyse(rig).findings.filter(
      (f) => f.rule === 'headroom' && f.subjects[0] === 'd2',
    );
    expect(clip).toHaveLength(1);
    expect(clip[0]!.sounds).toEqual(['b', 'c']);
    expect(clip[0]!.severity).toBe('fault');
  });
  test('worst first; an accepted one keeps its place and its reason', () => {
    const severities = analyse(rig).findings.map((f) =>
      ['danger', 'fault', 'caution', 'advice'].indexOf(f.severity),
    );
    expect([...severities].sort()).toEqual(severities);
    const key = analyse(rig).findings[0]!.key;
    expect(
      analyse({ ...rig, accepted: [{ finding: key, reason: 'on purpose' }] }).findings[0]!.accepted,
    ).toBe('on purpose');
  });
  test('every fix can be applied', () => {
    for (const f of analyse(rig).findings)
      if (f.fix) expect(applyEdits(rig, f.fix.edits).ok).toBe(true);
  });
});
