import fc from 'fast-check';
import { applyEdits, type Device, type Rig } from '../rig';
import { chainOf, device, lead, rigOf, sound } from '../testing/rigs';
import { Analyser, analyse } from '../report/report';

const own = (values: Record<string, number>): Partial<Device> => ({
  figures: Object.fromEntries(
    Object.entries(values).map(([id, value]) => [id, { value, from: 'sheet' as const }]),
  ),
});
const LINE: [string, Partial<Device>] = ['console-input', { settings: { input: 'line' } }];
const found = (rig: Rig, rule: string) =>
  Analyser.withWaysOut()
    .analyse(rig)
    .findings.find((f) => f.rule === rule);
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
  test.each(['in', 'inR'])(
    'whichever input of a pair it is, with the buffer in front of that: %s',
    (jack) => {
      const rig = chainOf(['guitar-humbucker', 'recorder']);
      const at = { ...rig, leads: rig.leads.map((l) => ({ ...l, to: { ...l.to, jack } })) };
      const f = found(at, 'loading')!;
      expect(f.what).toBe('Device 1 loads Device 0.');
      expect(f.fix!.edits).toMatchObject([{ edit: 'insertInLead', lead: 'l0' }]);
      expect(found(cured(at, 'loading'), 'loading')).toBeUndefined();
    },
  );
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
  test('a dB from an active output is no load; a quarter of the level is advice, a third a caution', () => {
    const severity = (inputOhms: number) =>
      found(
        chainOf(
          [['guitar-active', own({ outputOhms: 10_000 })], ['buffer', own({ inputOhms })], LINE],
          0,
        ),
        'loading',
      )?.severity;
    expect([90_000, 60_000, 40_000, 20_000].map(severity)).toEqual([
      undefined,
      undefined,
      'advice',
      'caution',
    ]);
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
  test.each(['a', 'b'])(
    'at a box with several inputs, that which it comes in by counts: %s',
    (jack) => {
      const other = jack === 'a' ? 'b' : 'a';
      const joined = (metres: number) =>
        rigOf(
          [
            device('g', 'guitar-humbucker', 'Far'),
            device('h', 'guitar-humbucker', 'Near'),
            device('j', 'mixer-line', 'Joiner'),
            device('amp', 'combo-tube', 'Combo'),
          ],
          [
            lead('1', 'g.out', `j.${jack}`, metres),
            lead('2', 'h.out', `j.${other}`, 3),
            lead('3', 'j.out', 'amp.in', 5),
          ],
        );
      expect(found(joined(3), 'dull-lead')).toBeUndefined();
      const told = found(joined(25), 'dull-lead')!;
      expect(told.what).toBe('The lead behind Far dulls the sound.');
      expect(found(cured(joined(25), 'dull-lead'), 'dull-lead')).toBeUndefined();
    },
  );
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

describe('room', () => {
  test('what clips is turned down as little as leaves 3 dB, and so are those before it', () => {
    const rig = chainOf([
      'line-instrument',
      ['boost', { engaged: true, settings: { gain: 5 } }],
      ['boost', { engaged: true, settings: { gain: 5 } }],
      LINE,
    ]);
    const f = found(rig, 'headroom')!;
    expect(f.severity).toBe('fault');
    // Peaks of +6 dBu meet a ceiling of +10 dBu: the first may add 1 dB and keep 3.
    expect(f.subjects).toEqual(['d1']);
    expect(f.fix!.edits).toEqual([
      { edit: 'setSetting', device: 'd1', sound: undefined, setting: 'gain', value: 0.5 },
    ]);
    expect(found(cured(rig, 'headroom'), 'headroom')?.subjects).toEqual(['d2']);
  });
  test('the knob that is turned may stand many boxes in front', () => {
    const quiet = ['feedback', 'octave', 'tuner-buffered', 'buffer'];
    const rig = chainOf([
      'guitar-active',
      ['treble-booster', { engaged: true, settings: { level: 10 } }],
      ...quiet,
      'volume-active',
      LINE,
    ]);
    const f = found(rig, 'headroom')!;
    expect(f.fix!.edits).toMatchObject([{ device: 'd1', setting: 'level' }]);
    expect(found(cured(rig, 'headroom'), 'headroom')).toBeUndefined();
  });
  test('a knob that a sound sets is turned in that sound', () => {
    const rig = chainOf(['line-instrument', ['boost', { engaged: true }], LINE]);
    const [one] = rig.sounds;
    const own = { ...one!, states: { ...one!.states, d1: { settings: { gain: 8 } } } };
    const fix = found({ ...rig, sounds: [own] }, 'headroom')!.fix!;
    expect(fix.edits).toMatchObject([{ device: 'd1', sound: one!.id, setting: 'gain' }]);
  });
});

describe('what is heard between notes', () => {
  /** Coils far from any transformer: what is heard of them is their hiss. */
  const still = own({ humDbu: -120 });
  const chain = (
    guitar: [string, Partial<Device>] | string,
    ...gates: [before: number | null, behind: number | null]
  ) => {
    const [before, behind] = gates.map((threshold): [string, Partial<Device>] => [
      'gate',
      threshold === null ? {} : { engaged: true, settings: { threshold } },
    ]);
    return chainOf([
      guitar,
      ['drive-mid', { engaged: true }],
      before!,
      ['drive-high', { engaged: true }],
      behind!,
      LINE,
    ]);
  };
  test('much gain hisses, and a gate behind it, tried, leaves it quiet', () => {
    const rig = chain(['guitar-humbucker', still], null, null);
    const f = found(rig, 'noise')!;
    expect(f.what).toMatch(/ and the gain behind it hiss at /);
    expect(f.fix!.words).toMatch(/^Put a gate behind Device \d, set to −\d\d\.0 dBu$/);
    expect(found(cured(rig, 'noise'), 'noise')).toBeUndefined();
  });
  test('with a gate there nothing is said: what is left between notes counts, not what plays along', () =>
    expect(found(chain(['guitar-humbucker', still], null, -30), 'noise')).toBeUndefined());
  test('coils hum, a single coil 20 dB more than a humbucker, and gain brings it up', () => {
    const rig = chain('guitar-single-coil', null, null);
    expect(found(rig, 'noise')!.what).toBe(
      'The coils of Device 0 pick up hum, which the gain behind them makes heard at Device 5.',
    );
    const humAt = (kind: string) =>
      analyse(
        chainOf([[kind, own({ humDbu: kind === 'guitar-humbucker' ? -65 : -45 })], 'buffer', LINE]),
      ).sounds[0]!.stations.find((s) => s.device === 'd0')!.output.idleNoiseDbu!;
    // It loads and turns down as the playing does: stated, as that is, into 1 MΩ.
    expect(humAt('guitar-humbucker')).toBeCloseTo(-65, 0);
    expect(humAt('guitar-single-coil')).toBeCloseTo(-45, 0);
  });
  test('a gate that the hum keeps open is set over it, and under soft playing', () => {
    const rig = chain('guitar-single-coil', -70, null);
    const f = found(rig, 'noise')!;
    expect(f.fix!.words).toMatch(/^Set the threshold of Device 2 to −\d\d\.0 dBu$/);
    const there = analyse(rig).sounds[0]!.stations.find((s) => s.device === 'd2')!.input!;
    const edit = f.fix!.edits[0]!;
    const over = edit.edit === 'setSetting' ? Number(edit.value) : NaN;
    expect(over).toBeGreaterThanOrEqual(there.idleNoiseDbu! + 6);
    expect(over).toBeLessThanOrEqual(there.levelDbu!.soft - 10);
    expect(found(cured(rig, 'noise'), 'noise')).toBeUndefined();
  });
});

test('a gate that is offered, whatever stands ahead of it, shuts on what idles there and opens on soft playing', () => {
  const boxes = fc.record({
    hum: fc.integer({ min: -100, max: -60 }),
    drive: fc.integer({ min: 0, max: 10 }),
    kind: fc.constantFrom('drive-low', 'drive-mid', 'drive-high', 'boost'),
  });
  fc.assert(
    fc.property(boxes, ({ hum, drive, kind }) => {
      const knob = kind === 'boost' ? 'gain' : 'drive';
      const rig = chainOf([
        ['guitar-single-coil', own({ humDbu: hum })],
        [kind, { engaged: true, settings: { [knob]: drive } }],
        ['drive-high', { engaged: true }],
        LINE,
      ]);
      const edit = found(rig, 'noise')?.fix?.edits[0];
      if (edit?.edit !== 'insertInLead') return;
      const over = Number(edit.device.settings!.threshold);
      const from = rig.leads.find((l) => l.id === edit.lead)!.from;
      const there = analyse(rig).sounds[0]!.stations.find((s) => s.device === from.device)!.output;
      expect(over).toBeGreaterThanOrEqual(there.idleNoiseDbu! + 6 - 1e-9);
      expect(over).toBeLessThanOrEqual(there.levelDbu!.soft - 10 + 1e-9);
      expect(found(cured(rig, 'noise'), 'noise')).toBeUndefined();
    }),
    { numRuns: 25 },
  );
});

describe('levels at destinations', () => {
  test('a line input that gets a little less than it likes is advice: a turn of its gain', () => {
    const severity = (gain: number) =>
      found(
        chainOf([
          ['line-instrument', own({ nominalDbu: -40 + gain, peakDbu: -30 + gain })],
          'buffer',
          ['console-input', { settings: { input: 'line' } }],
        ]),
        'input-level',
      )?.severity;
    expect([0, 10, 20].map(severity)).toEqual(['caution', 'advice', undefined]);
  });
  test('a microphone input fed at line level is offered its other setting', () => {
    const rig = chainOf(['line-instrument', 'buffer', ['console-input', {}]]);
    const f = found(rig, 'input-level')!;
    expect(f.what).toBe('Device 2 gets more level than its input is made for.');
    expect(f.fix!.words).toBe('Set the input to line');
    expect(found(cured(rig, 'input-level'), 'input-level')).toBeUndefined();
  });
  test('one that clips there, too, in the sound that set it so; a loud loudspeaker asks for the pad', () => {
    const hot = chainOf(['line-instrument', 'buffer', ['console-input', {}]], 1, [
      sound('a', 'A', []),
      { id: 'b', name: 'B', states: { d2: { settings: { input: 'mic' } } } },
    ]);
    hot.devices[2] = device('d2', 'console-input', 'Desk', { settings: { input: 'line' } });
    const clips = found(hot, 'headroom')!;
    expect(clips.sounds).toEqual(['b']);
    expect(clips.fix!.edits).toEqual([
      { edit: 'setSetting', device: 'd2', sound: 'b', setting: 'input', value: 'line' },
    ]);
    const loud = rigOf(
      [
        device('g', 'guitar-humbucker', 'G'),
        device('a', 'head-tube', 'A'),
        device('c', 'cabinet', 'C'),
        device('m', 'microphone-condenser', 'M'),
        device('h', 'console-input', 'H'),
      ],
      [
        lead('1', 'g.out', 'a.in', 3),
        lead('2', 'a.speaker', 'c.in', 1, 'speaker'),
        lead('3', 'c.air', 'm.air', 0.1, 'air'),
        lead('4', 'm.out', 'h.in', 15, 'balanced'),
      ],
      [sound('a', 'A', ['a'])],
    );
    const f = found(loud, 'input-level')!;
    expect(f.fix!.words).toBe('Set M, Pad: on (10 dB less)');
    expect(found(cured(loud, 'input-level'), 'input-level')).toBeUndefined();
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
  test('a level turned all the way down is on purpose, as a mute is', () => {
    const down = chainOf(['guitar-active', ['volume-active', { settings: { pedal: 0 } }], LINE]);
    expect(analyse(down).sounds[0]!.destinations[0]).toMatchObject({ levelDbu: null });
    expect(found(down, 'silent')).toBeUndefined();
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
