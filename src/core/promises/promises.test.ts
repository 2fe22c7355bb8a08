import { analyse, Analyser } from '../report';
import { touringRig } from '../demo';
import { applyEdits, type Edit, promiseWords, type Rig, type RigPromise } from '../rig';
import type { PromiseOf } from '../rig/schema';
import { kindOf } from '../kinds';
import { sure } from '../outcome';
import { chainOf, device, lead, rigOf, sound } from '../testing/rigs';
import { rescue } from './survives';

const promising = (rig: Rig, ...promises: RigPromise[]): Rig => ({ ...rig, promises });
const check = (rig: Rig, promise: RigPromise) => analyse(promising(rig, promise)).promises[0]!;
const after = (rig: Rig, ...edits: Edit[]): Rig => {
  const r = applyEdits(rig, edits);
  if (!r.ok) throw new Error(r.problems[0]!.what);
  return r.value.rig;
};

/**
 * Two instruments into a mixer, an amplifier for one and a console for both, tracks with a click to
 * the ears.
 */
const stage = rigOf(
  [
    device('bari', 'guitar-baritone', 'Baritone'),
    device('steel', 'lap-steel', 'Steel', { engaged: false }),
    device('join', 'mixer-line', 'Joiner'),
    device('tuner', 'tuner-buffered', 'Tuner'),
    device('drive', 'drive-mid', 'Drive'),
    device('boost', 'boost', 'Boost'),
    device('fork', 'splitter-buffered', 'Fork'),
    device('amp', 'head-tube', 'Head'),
    device('cab', 'cabinet', 'Cabinet'),
    device('pedal', 'volume-active', 'Ear pedal'),
    device('echo', 'delay', 'Echo', { settings: { mix: 4 } }),
    device('ears', 'in-ear-mix', 'Ears'),
    device('tracks', 'playback', 'Tracks'),
    device('desk', 'console-input', 'House', { settings: { input: 'line' } }),
  ],
  [
    lead('1', 'bari.out', 'join.a', 3),
    lead('2', 'steel.out', 'join.b', 3),
    lead('3', 'join.out', 'tuner.in', 1),
    lead('4', 'tuner.out', 'drive.in', 0.3),
    lead('5', 'drive.out', 'boost.in', 0.3),
    lead('6', 'boost.out', 'fork.in', 0.3),
    lead('7', 'fork.a', 'amp.in', 5),
    lead('8', 'amp.speaker', 'cab.in', 1, 'speaker'),
    lead('9', 'fork.b', 'echo.in', 1),
    lead('10', 'echo.out', 'pedal.in', 1),
    lead('11', 'pedal.out', 'ears.in', 5),
    lead('12', 'tracks.out', 'desk.in', 10),
    lead('13', 'tracks.click', 'ears.inR', 5),
  ],
  [
    sound('clean', 'Clean', ['echo']),
    sound('lead', 'Lead', ['drive', 'boost', 'echo']),
    sound('tune', 'Tune', ['tuner']),
  ],
);

describe('who hears what', () => {
  test('always hears: kept, and broken with the place where the signal stops', () => {
    expect(
      check(stage, {
        id: 'p',
        type: 'hears',
        destination: 'cab',
        source: 'bari',
        sounds: ['clean', 'lead'],
      }),
    ).toMatchObject({
      kept: true,
      sounds: 2,
      words: 'Cabinet always hears Baritone, in Clean and Lead',
    });
    const broken = check(stage, { id: 'p', type: 'hears', destination: 'cab', source: 'bari' });
    expect(broken.breaches).toHaveLength(1);
    expect(broken.breaches[0]).toMatchObject({
      sound: 'tune',
      why: expect.stringContaining('Tuner mutes it'),
    });
    const turnedDown = after(stage, {
      edit: 'setSetting',
      device: 'pedal',
      sound: 'lead',
      setting: 'pedal',
      value: 0,
    });
    expect(
      check(turnedDown, {
        id: 'p',
        type: 'hears',
        destination: 'ears',
        source: 'bari',
        sounds: ['lead'],
      }).breaches[0]!.why,
    ).toContain('Its signal reaches Ear pedal and goes no further');
    const cut = after(stage, { edit: 'disconnect', lead: '6' });
    expect(
      check(cut, { id: 'p', type: 'hears', destination: 'cab', source: 'bari', sounds: ['lead'] })
        .breaches[0]!.why,
    ).toContain('No way of leads and devices leads from Baritone to Cabinet');
  });
  test('an instrument that is not played in a sound breaks nothing there', () => {
    const promise: RigPromise = { id: 'p', type: 'hears', destination: 'cab', source: 'steel' };
    const played = after(stage, {
      edit: 'setEngaged',
      device: 'steel',
      engaged: true,
      sound: stage.sounds[0]!.id,
    });
    expect(check(played, promise)).toMatchObject({ kept: true, breaches: [] });
  });
  test('one that no sound plays is played for it: a promise is not kept unheard', () => {
    const promise: RigPromise = { id: 'p', type: 'hears', destination: 'cab', source: 'steel' };
    // The tuner mutes what comes, whoever plays.
    expect(check(stage, promise).breaches).toMatchObject([{ sound: 'tune' }]);
  });
  test('an instrument that is plugged into nothing is heard by nobody', () => {
    const loose = after(
      stage,
      ...stage.leads
        .filter((l) => l.from.device === 'bari')
        .map((l): Edit => ({ edit: 'disconnect', lead: l.id })),
    );
    for (const promise of [
      { id: 'p', type: 'hears', destination: 'cab', source: 'bari' },
      { id: 'p', type: 'tuner-hears', source: 'bari' },
    ] as const)
      expect(check(loose, promise).breaches[0]!.why).toBe('Baritone is plugged into nothing.');
  });
  test('never hears', () => {
    expect(
      check(stage, { id: 'p', type: 'never-hears', destination: 'desk', source: 'bari' }).kept,
    ).toBe(true);
  });
  test('the click at the house is told with its way', () => {
    const wrong: Rig = {
      ...stage,
      leads: stage.leads
        .map((l) => (l.id === '12' ? { ...l, to: { device: 'join', jack: 'b' } } : l))
        .filter((l) => l.id !== '2'),
    };
    const broken = check(wrong, {
      id: 'p',
      type: 'never-hears',
      destination: 'cab',
      source: 'tracks',
    });
    expect(broken.breaches[0]).toMatchObject({
      sound: 'clean',
      why: 'Tracks reaches it by way of Tracks, Joiner, Tuner, …, Fork, Head, Cabinet.',
      route: expect.arrayContaining(['join', 'fork']),
    });
  });
  test('the tuner always hears the guitar, even while it mutes', () => {
    expect(check(stage, { id: 'p', type: 'tuner-hears', source: 'bari' }).kept).toBe(true);
    expect(
      check(after(stage, { edit: 'removeDevice', device: 'tuner' }), {
        id: 'p',
        type: 'tuner-hears',
        source: 'bari',
      }).breaches[0]!.why,
    ).toBe('There is no tuner in this rig.');
  });
  test('muted means silent', () => {
    expect(
      check(stage, { id: 'p', type: 'muted-silent', sounds: ['tune'] }).breaches.map((b) => b.why),
    ).toEqual([
      expect.stringContaining('Ears hears Tracks'),
      expect.stringContaining('House hears Tracks'),
    ]);
    const stopped = after(stage, {
      edit: 'setEngaged',
      device: 'tracks',
      sound: 'tune',
      engaged: false,
    });
    expect(check(stopped, { id: 'p', type: 'muted-silent', sounds: ['tune'] }).kept).toBe(true);
  });
});

describe('what a control moves', () => {
  const only: RigPromise = {
    id: 'p',
    type: 'moves-only',
    device: 'pedal',
    setting: 'pedal',
    destinations: ['ears'],
    sounds: ['clean', 'lead'],
  };
  test('this pedal moves the ears and nothing else', () =>
    expect(check(stage, only)).toMatchObject({ kept: true, sounds: 2 }));
  test('put before the split it moves the amplifier too, by which way', () => {
    const moved = after(stage, {
      edit: 'moveDevice',
      device: 'pedal',
      lead: '6',
      newLeads: ['n1', 'n2'],
    });
    const broken = check(moved, only);
    expect(broken.breaches.map((b) => b.sound)).toEqual(['clean', 'lead']);
    expect(broken.breaches[0]!.why).toContain('It moves Cabinet too');
    expect(broken.breaches[0]!.why).toContain('Fork, Head, Cabinet');
  });
  test('a control that also turns the EQ and the drive of the amplifier’s way moves that too', () => {
    const pedal = { id: '1', device: 'pedal', setting: 'pedal' };
    const treadle = (...more: { id: string; device: string; setting: string }[]): Rig => ({
      ...stage,
      devices: [...stage.devices.filter((d) => d.id !== 'x'), device('x', 'eq', 'Tone')],
      controls: [{ id: 'tread', name: 'Treadle', type: 'pedal', assigns: [pedal, ...more] }],
    });
    const inTheWay = (rig: Rig) =>
      after(rig, {
        edit: 'moveDevice',
        device: 'x',
        lead: stage.leads.find((l) => l.to.device === 'amp')!.id,
        newLeads: ['n1', 'n2'],
      });
    const p: RigPromise = {
      id: 'p',
      type: 'control-moves-only',
      control: 'tread',
      destinations: ['ears'],
      sounds: ['lead'],
    };
    expect(check(inTheWay(treadle()), p).kept).toBe(true);
    const eq = kindOf('eq').parameters.find((k) => k.type === 'knob')!.id;
    const both = treadle({ id: '2', device: 'x', setting: eq });
    const engaged = after(inTheWay(both), { edit: 'setEngaged', device: 'x', engaged: true });
    const [breach] = check(engaged, p).breaches;
    expect(breach!.why).toMatch(
      /^It moves Cabinet too \((level|tone).*by way of Tone, Head, Cabinet\.$/,
    );
    expect(breach!.subjects).toEqual(['x', 'cab']);
  });
  test('a control that moves nothing breaks it as well', () => {
    expect(check(after(stage, { edit: 'disconnect', lead: '11' }), only).breaches[0]!.why).toBe(
      'It does not move Ears.',
    );
    expect(check(stage, { ...only, destinations: ['ears', 'cab'] }).breaches[0]!.why).toBe(
      'It does not move Cabinet.',
    );
  });
});

describe('figures', () => {
  test('signal-to-noise and latency over and under a figure', () => {
    const ears = analyse(stage).sounds[1]!.destinations.find((d) => d.device === 'ears')!;
    expect(
      check(stage, {
        id: 'p',
        type: 'noise-under',
        destination: 'ears',
        db: ears.signalToNoiseDb! - 0.1,
        sounds: ['lead'],
      }).kept,
    ).toBe(true);
    expect(
      check(stage, {
        id: 'p',
        type: 'noise-under',
        destination: 'ears',
        db: ears.signalToNoiseDb! + 0.1,
        sounds: ['lead'],
      }).kept,
    ).toBe(false);
    expect(
      check(stage, { id: 'p', type: 'latency-under', destination: 'cab', ms: 1, sounds: ['lead'] })
        .kept,
    ).toBe(true);
    const late = check(
      { ...stage, leads: stage.leads.filter((l) => l.id !== '13') },
      { id: 'p', type: 'latency-under', destination: 'ears', ms: 1, sounds: ['lead'] },
    );
    expect(late.breaches[0]!.why).toContain('Echo 1.5 ms');
  });
  describe('each side and each source, whatever is louder', () => {
    /** Tracks ten decibels over the guitar in the ears: what they hide is judged all the same. */
    const loudTracks = (mix = 4): Rig => ({
      ...stage,
      devices: stage.devices.map((d) =>
        d.id === 'echo'
          ? {
              ...d,
              settings: { mix },
              figures: { latencyMs: { value: 12, from: 'measured', on: '2026-03-04' } },
            }
          : d,
      ),
    });
    const ears = { id: 'p', destination: 'ears' } as const;
    test('latency is that of every source that arrives', () => {
      const p: RigPromise = { ...ears, type: 'latency-under', ms: 10, sounds: ['lead'] };
      const [breach] = check(loudTracks(), p).breaches;
      expect(breach!.why).toBe('Baritone is 12.0 ms late: Echo 12.0 ms.');
      expect(check(loudTracks(), { ...p, source: 'tracks' }).kept).toBe(true);
      expect(check(loudTracks(), { ...p, side: 'right' }).kept).toBe(true);
      expect(check(loudTracks(), { ...p, side: 'left' }).kept).toBe(false);
    });
    test('levels lie together for each source and side', () => {
      const p: RigPromise = { ...ears, type: 'levels-within', db: 3, sounds: ['clean', 'lead'] };
      const hidden = {
        ...stage,
        devices: stage.devices.map((d) =>
          d.id === 'pedal' ? { ...d, settings: { pedal: 2 } } : d,
        ),
      };
      const [breach] = check(hidden, p).breaches;
      expect(breach!.why).toMatch(/^Baritone on the left side: Lead stands at .* dB apart\.$/);
      expect(check(stage, { ...p, side: 'right' }).kept).toBe(true);
      expect(check(stage, { ...p, source: 'bari' }).kept).toBe(false);
      expect(check(stage, { ...p, source: 'tracks' }).kept).toBe(true);
    });
    test('a source is heard, or never, on the side that was named', () => {
      const hears: PromiseOf<'hears'> = {
        ...ears,
        type: 'hears',
        source: 'bari',
        sounds: ['lead'],
      };
      expect(check(stage, { ...hears, side: 'left' }).kept).toBe(true);
      expect(check(stage, { ...hears, side: 'right' }).kept).toBe(false);
      const never: PromiseOf<'never-hears'> = {
        ...ears,
        type: 'never-hears',
        source: 'tracks/click',
        sounds: ['lead'],
      };
      expect(check(stage, { ...never, side: 'left' }).kept).toBe(true);
      expect(check(stage, { ...never, side: 'right' }).kept).toBe(false);
      expect(check(stage, { ...never, destination: 'cab', side: 'left' }).breaches[0]!.why).toBe(
        'Cabinet has one input, and so no left side.',
      );
    });
    test('hiss is judged on the side that hisses more', () => {
      const figures = analyse(stage).sounds.find((s) => s.sound === 'lead')!;
      const { sides } = figures.destinations.find((d) => d.device === 'ears')!;
      const [left, right] = sides.map((s) => s.levelDbu!.normal - s.noiseDbu!);
      expect(right! - left!).toBeGreaterThan(3);
      const p: RigPromise = {
        ...ears,
        type: 'noise-under',
        db: (left! + right!) / 2,
        sounds: ['lead'],
      };
      expect(check(stage, p).breaches[0]!.why).toMatch(/^The left side is /);
      expect(check(stage, { ...p, side: 'right' }).kept).toBe(true);
    });
    test('a solo that tracks hide is a solo still', () => {
      const own = analyse(stage).sounds.map((s) =>
        s.destinations.find((d) => d.device === 'ears')!.each.find((x) => x.source === 'bari'),
      );
      const soloDb = own[1]!.levelDbu - own[0]!.levelDbu;
      const p: RigPromise = {
        ...ears,
        type: 'levels-within',
        db: 1,
        sounds: ['clean', 'lead'],
        solos: ['lead'],
        soloDb,
      };
      expect(check(stage, p).kept).toBe(true);
      expect(check(stage, { ...p, soloDb: soloDb + 3 }).kept).toBe(false);
    });
    test('the words name the side and the source', () => {
      expect(
        promiseWords(stage, {
          ...ears,
          type: 'latency-under',
          ms: 5,
          side: 'left',
          source: 'bari',
        }),
      ).toBe('latency of Baritone to the left side of Ears is under 5 ms, in every sound');
    });
  });
  test('levels of sounds lie together, a solo over them', () => {
    const at = (id: string) =>
      analyse(stage)
        .sounds.find((s) => s.sound === id)!
        .destinations.find((d) => d.device === 'cab')!.levelDbu!.normal;
    const apart = at('lead') - at('clean');
    expect(
      check(stage, {
        id: 'p',
        type: 'levels-within',
        destination: 'cab',
        db: apart + 0.1,
        sounds: ['clean', 'lead'],
      }).kept,
    ).toBe(true);
    expect(
      check(stage, {
        id: 'p',
        type: 'levels-within',
        destination: 'cab',
        db: apart - 0.1,
        sounds: ['clean', 'lead'],
      }).breaches[0]!.why,
    ).toContain('dB apart');
    expect(
      check(stage, {
        id: 'p',
        type: 'levels-within',
        destination: 'cab',
        db: 0.2,
        sounds: ['clean', 'lead'],
        solos: ['lead'],
        soloDb: apart,
      }).kept,
    ).toBe(true);
  });
  test('stereo, or half of a pair', () => {
    expect(
      check(stage, { id: 'p', type: 'stereo', destination: 'ears', sounds: ['clean'] }).breaches[0]!
        .why,
    ).toContain('It is dual mono');
    expect(
      check(touringRig, { id: 'p', type: 'stereo', destination: 'wide', sounds: ['flat', 'lead'] })
        .kept,
    ).toBe(true);
  });
  test('no tube amplifier without a load', () => {
    expect(check(stage, { id: 'p', type: 'no-tube-unloaded' }).kept).toBe(true);
    expect(
      check(after(stage, { edit: 'disconnect', lead: '8' }), { id: 'p', type: 'no-tube-unloaded' })
        .breaches,
    ).toHaveLength(3);
  });
});

describe('changes', () => {
  test('one press, or the tap dance told', () => {
    expect(
      check(stage, { id: 'p', type: 'one-press', from: 'clean', to: 'lead' }).breaches[0]!.why,
    ).toBe('It takes 2 presses: Drive (on); Boost (on).');
    expect(
      check(after(stage, { edit: 'setEngaged', device: 'boost', sound: 'lead', engaged: false }), {
        id: 'p',
        type: 'one-press',
        from: 'clean',
        to: 'lead',
      }).kept,
    ).toBe(true);
  });
  test(
    'tails: an echo that stays on, one that is switched off, one with tails in bypass, ' +
      'one cut by a gate behind it',
    () => {
      const tails = (rig: Rig) =>
        check(rig, { id: 'p', type: 'tails-survive', from: 'lead', to: 'clean' });
      expect(tails(stage).kept).toBe(true);
      const off = after(stage, {
        edit: 'setEngaged',
        device: 'echo',
        sound: 'clean',
        engaged: false,
      });
      expect(tails(off).breaches[0]!.why).toContain('Echo stops when it is switched off');
      expect(
        tails(after(off, { edit: 'setSetting', device: 'echo', setting: 'tails', value: true }))
          .kept,
      ).toBe(true);
      const gated = after(stage, {
        edit: 'insertInLead',
        lead: '10',
        device: device('gate', 'gate', 'Gate', { engaged: true }),
        newLeads: ['n1', 'n2'],
      });
      expect(tails(gated).breaches[0]!.why).toBe('Gate stands behind Echo and shuts on its tail.');
    },
  );
  test('if a device dies, how many actions bring sound back', () => {
    const s = stage.sounds[1]!;
    expect(rescue(stage, s, 'drive', 'cab')).toEqual({
      actions: 1,
      words: 'plug Baritone straight into Head',
    });
    // The instrument itself cannot be plugged in elsewhere once it is dead.
    expect(rescue(stage, s, 'bari', 'cab')).toBeUndefined();
    expect(rescue(stage, s, 'echo', 'cab')).toEqual({
      actions: 0,
      words: 'it is heard all the same',
    });
    expect(rescue(stage, s, 'amp', 'cab')).toBeUndefined();
    expect(
      check(stage, {
        id: 'p',
        type: 'survives',
        device: 'drive',
        destination: 'cab',
        actions: 1,
        sounds: ['lead'],
      }).kept,
    ).toBe(true);
    expect(
      check(stage, {
        id: 'p',
        type: 'survives',
        device: 'drive',
        destination: 'cab',
        actions: 0,
        sounds: ['lead'],
      }).breaches[0]!.why,
    ).toContain('It takes one action');
  });
});

describe('promises in a document', () => {
  const p: RigPromise = { id: 'p', type: 'never-hears', destination: 'desk', source: 'bari' };
  test('they are findings when broken, whatever is edited, and what names something gone says so', () => {
    const kept = promising(stage, {
      id: 'q',
      type: 'hears',
      destination: 'cab',
      source: 'bari',
      sounds: ['lead'],
    });
    expect(analyse(kept).findings.filter((f) => f.rule === 'promise')).toEqual([]);
    const broken = analyse(
      after(kept, { edit: 'setEngaged', device: 'tuner', sound: 'lead', engaged: true }),
    ).findings.find((f) => f.rule === 'promise')!;
    expect(broken).toMatchObject({
      severity: 'fault',
      sounds: ['lead'],
      what: 'Broken promise: Cabinet always hears Baritone, in Lead.',
    });
    const gone = analyse(after(kept, { edit: 'removeDevice', device: 'cab' })).promises[0]!;
    expect(gone.breaches[0]!.why).toBe(
      '"cab" is no longer in this rig. Change the promise or take it back.',
    );
  });
  test('an edit in one sound checks that sound again, and says the same as a fresh look', () => {
    const analyser = new Analyser();
    const rig = promising(
      stage,
      p,
      { id: 'q', type: 'moves-only', device: 'pedal', setting: 'pedal', destinations: ['ears'] },
      { id: 'r', type: 'one-press', from: 'clean', to: 'lead' },
    );
    analyser.analyse(rig);
    const next = after(rig, { edit: 'setEngaged', device: 'boost', sound: 'clean', engaged: true });
    expect(analyser.analyse(next).promises).toEqual(analyse(next).promises);
  });
  test('every kind of promise has words and is checked without a stumble', () => {
    const all: RigPromise[] = [
      { id: 'a', type: 'hears', destination: 'cab', source: 'bari' },
      p,
      { id: 'c', type: 'moves-only', device: 'pedal', setting: 'pedal', destinations: ['ears'] },
      { id: 'd', type: 'stereo', destination: 'ears' },
      { id: 'e', type: 'levels-within', destination: 'cab', db: 3, solos: ['lead'], soloDb: 3 },
      { id: 'f', type: 'tuner-hears', source: 'bari' },
      { id: 'g', type: 'muted-silent', sounds: ['tune'] },
      { id: 'h', type: 'tails-survive', from: 'lead', to: 'clean' },
      { id: 'i', type: 'one-press', from: 'clean', to: 'lead' },
      { id: 'j', type: 'no-tube-unloaded' },
      { id: 'k', type: 'noise-under', destination: 'cab', db: 40 },
      { id: 'l', type: 'latency-under', destination: 'cab', ms: 10 },
      { id: 'm', type: 'survives', device: 'drive', destination: 'cab', actions: 2 },
    ];
    const results = analyse(promising(stage, ...all)).promises;
    expect(results.map((r) => r.id)).toEqual(all.map((x) => x.id));
    for (const r of results) expect(r.words.length).toBeGreaterThan(20);
    expect(promiseWords(stage, all[4]!)).toBe(
      'levels at Cabinet lie within 3 dB of one another, in every sound; Lead 3 dB over them',
    );
  });
});

describe('where a signal stops is said', () => {
  const chain = (changes: Partial<Record<number, object>>, leads = [0, 1, 2]): Rig => {
    const rig = chainOf(['guitar-humbucker', 'boost', 'volume-active', 'console-input']);
    return {
      ...rig,
      devices: rig.devices.map((d, i) => ({ ...d, ...changes[i] })),
      leads: rig.leads.filter((_, i) => leads.includes(i)),
      promises: [{ id: 'p', type: 'hears', destination: 'd3', source: 'd0' }],
    };
  };
  const why = (rig: Rig) =>
    sure(analyse(rig).promises[0])
      .breaches.map((b) => b.why)
      .join(' ');

  test('no way at all', () => {
    expect(why(chain({}, [0, 2]))).toMatch(
      /^No way of leads and devices leads from Device 0 to Device 3\.$/,
    );
  });
  test('a tuner that mutes', () => {
    const words = why(chain({ 2: { kind: 'tuner-true-bypass', engaged: true } }));
    expect(words).toMatch(/^Device 2 mutes it\. The way would be .*Device 1.*Device 2.*Device 3/);
  });
});

test('what is named and cannot be judged is not kept: no destination, no source, no such signal', () => {
  const why = (p: object) => {
    const promises = [{ id: 'p', ...p }] as unknown as NonNullable<Rig['promises']>;
    const [result] = analyse({ ...touringRig, promises }).promises;
    return result!.kept ? 'kept' : result!.breaches[0]!.why;
  };
  const never = (destination: string, source: string) =>
    why({ type: 'never-hears', destination, source });
  expect(never('kiln', 'bari')).toBe('Kiln Drive is no destination.');
  expect(never('house', 'kiln')).toBe('Kiln Drive sends no signal of its own.');
  expect(never('house', 'tracks/nobody')).toMatch(/^Tide tracks sends no signal of that name/);
  expect(why({ type: 'latency-under', destination: 'kiln', ms: 5 })).toContain('no destination');
  // A device that sends several signals stands for any of them.
  expect(never('tdesk', 'tracks')).not.toBe('kept');
});
