import { controlRemarks } from '../report/checks';
import { analyse } from '../report';
import { pressesBetween, sequenceOf } from '../midi';
import { touringRig } from '../demo';
import { applyEdits, type Control, type Rig } from '../rig';
import { type Kind, kindOf } from '../kinds';
import { chainOf, device, fadeControl, fadedRig, lead, rigOf, sound } from '../testing/rigs';
import { valueOf } from '../testing/value-of';
import { allControls, endsOf, reachOf, reachOfControl, STEPS, stepsOf, sweepOf, valueAt } from '.';

const two = rigOf(
  [
    device('g', 'guitar-active', 'Mandolin'),
    device('v', 'volume-active', 'Swell'),
    device('s', 'splitter-buffered', 'Fork', { settings: { select: 'both' } }),
    device('d', 'drive-low', 'Brine'),
    device('a', 'combo-tube', 'Left'),
    device('b', 'combo-tube', 'Right'),
  ],
  [
    lead('1', 'g.out', 's.in', 1),
    lead('2', 's.a', 'v.in', 1),
    lead('3', 'v.out', 'a.in', 1),
    lead('4', 's.b', 'd.in', 1),
    lead('5', 'd.out', 'b.in', 1),
  ],
  [sound('clean', 'Clean', []), sound('dirty', 'Dirty', ['d'])],
);

describe('reach', () => {
  test('a pedal reaches the destinations behind it and no other', () => {
    const reached = reachOf(two, two.sounds[1]!, 'v', 'pedal');
    expect(reached.map((r) => r.destination)).toEqual(['a']);
    expect(reached[0]!.what.join()).toMatch(/level|far end/);
    expect(reachOf(two, two.sounds[1]!, 'd', 'drive').map((r) => r.destination)).toEqual(['b']);
  });
  const settings = (k: Kind) => k.parameters.filter((p) => p.type === 'knob');
  const EFFECTS = [
    ...[
      'wah',
      'envelope-filter',
      'eq',
      'octave',
      'pitch-shifter',
      'compressor',
      'chorus',
      'phaser',
    ],
    ...['rotary', 'slicer', 'tremolo', 'modulation-digital', 'delay', 'delay-analog', 'reverb'],
    ...['boost', 'drive-low', 'drive-mid', 'drive-high', 'fuzz', 'treble-booster', 'volume-active'],
    ...['volume-passive', 'amp-cab-simulator', 'looper'],
  ];
  const moves = EFFECTS.flatMap((id) => settings(kindOf(id)).map((p) => [id, p.id] as const));
  test.each(moves)(
    '%s: its %s is heard behind it, on this way and on no other',
    (kind, setting) => {
      const rig = rigOf(
        [
          device('g', 'guitar-single-coil', 'G'),
          device('b', 'splitter-buffered', 'Fork', { settings: { select: 'both' } }),
          device('x', kind, 'X', { engaged: true }),
          device('one', 'console-input', 'One'),
          device('other', 'console-input', 'Other'),
        ],
        [
          lead('1', 'g.out', 'b.in', 1),
          lead('2', `b.a`, `x.${kindOf(kind).through!.in}`, 1),
          lead('3', `x.${kindOf(kind).through!.out}`, 'one.in', 1),
          lead('4', 'b.b', 'other.in', 1),
        ],
        [sound('s', 'S', ['x'])],
      );
      expect(reachOf(rig, rig.sounds[0]!, 'x', setting).map((r) => r.destination)).toEqual(['one']);
      // Off, it moves nothing: not its effect either.
      const off = { ...rig.sounds[0]!, states: { x: { engaged: false } } };
      if (kind !== 'volume-active' && kind !== 'volume-passive' && kind !== 'looper')
        expect(reachOf(rig, off, 'x', setting)).toEqual([]);
    },
  );
  test('an effect that is mixed to nothing moves nothing; one that feeds a reverb does', () => {
    const chain = (mix: number) =>
      chainOf([
        'guitar-active',
        ['delay', { engaged: true, settings: { mix } }],
        ['reverb', { engaged: true }],
        'console-input',
      ]);
    const time = (mix: number) => reachOf(chain(mix), chain(mix).sounds[0]!, 'd1', 'time');
    expect(time(0)).toEqual([]);
    expect(time(5)).toEqual([{ destination: 'd3', what: [expect.stringMatching(/^time of /)] }]);
  });
  test('one source of two, and one side of two, are told', () => {
    const rig = rigOf(
      [
        device('g', 'guitar-active', 'Loud'),
        device('h', 'guitar-single-coil', 'Faint'),
        device('v', 'volume-active', 'V'),
        device('k', 'boost', 'K', { engaged: true, settings: { gain: 10 } }),
        device('m', 'mixer-line', 'Sum'),
        device('c', 'console-input', 'House', { settings: { input: 'line' } }),
      ],
      [
        lead('1', 'g.out', 'k.in', 1),
        lead('2', 'k.out', 'm.a', 1),
        lead('3', 'h.out', 'v.in', 1),
        lead('4', 'v.out', 'm.b', 1),
        lead('5', 'm.out', 'c.in', 1),
      ],
      [sound('s', 'S', ['k'])],
    );
    const half: Control = {
      id: 'c',
      name: 'C',
      type: 'pedal',
      assigns: [{ id: '1', device: 'v', setting: 'pedal', min: 8, max: 10 }],
    };
    expect(reachOfControl(rig, rig.sounds[0]!, half)).toEqual([
      { destination: 'c', what: ['level of Faint'] },
    ]);
    // A digital pedal in its way makes it late, and the louder one not.
    const digital: Control = {
      id: 'e',
      name: 'E',
      type: 'switch',
      assigns: [{ id: '1', device: 'e', setting: 'engaged' }],
    };
    const inserted = applyEdits(rig, [
      {
        edit: 'insertInLead',
        lead: '4',
        device: device('e', 'delay', 'Echo', { settings: { mix: 0 } }),
        newLeads: ['n1', 'n2'],
      },
    ]);
    const withEcho = valueOf(inserted).rig;
    expect(reachOfControl(withEcho, withEcho.sounds[0]!, digital)).toEqual([
      { destination: 'c', what: ['latency of Faint'] },
    ]);
  });
  test('the gain of a drive that is off reaches nothing', () =>
    expect(reachOf(two, two.sounds[0]!, 'd', 'drive')).toEqual([]));
  test('the ends of a knob are its two, of a choice all its options, of an unknown setting none', () => {
    expect(endsOf(two, 'd', 'drive')).toEqual([0, 10]);
    expect(endsOf(two, 's', 'select')).toEqual(['both', 'a', 'b']);
    expect(endsOf(two, 'd', 'nothing')).toEqual([]);
  });
  test('a control reaches whatever any of its assignments does, in the sounds they hold in', () => {
    const control: Control = {
      id: 'c',
      name: 'Both',
      type: 'pedal',
      assigns: [
        { id: '1', device: 'v', setting: 'pedal' },
        { id: '2', device: 'd', setting: 'level', sounds: ['dirty'] },
      ],
    };
    expect(reachOfControl(two, two.sounds[1]!, control).map((r) => r.destination)).toEqual([
      'a',
      'b',
    ]);
    expect(reachOfControl(two, two.sounds[0]!, control).map((r) => r.destination)).toEqual(['a']);
  });
  test('pedals in the signal are controls of their own, unless something else moves them', () => {
    expect(allControls(two).map((c) => c.id)).toEqual(['v-pedal']);
    expect(
      allControls({
        ...two,
        controls: [
          {
            id: 'c',
            name: 'C',
            type: 'pedal',
            assigns: [{ id: '1', device: 'v', setting: 'pedal' }],
          },
        ],
      }).map((c) => c.id),
    ).toEqual(['c']);
  });
});

describe('sweeps', () => {
  const house = (same: boolean, curve: 'linear' | 'equal-power') =>
    sweepOf(fadedRig(same), fadedRig(same).sounds[0]!, fadeControl(curve)).destinations[0]!;
  test('a linear crossfade between equal unrelated signals dips 3.01 dB half way', () => {
    const d = house(false, 'linear');
    expect(d.dipDb).toBeCloseTo(3.01, 1);
    expect(d.verdict).toMatch(/^dips 3\.0\d dB at 50 %$/);
  });
  test('of one and the same signal it does not', () =>
    expect(house(true, 'linear').verdict).toBe('stays level'));
  test('equal-power curves do the opposite: level for unrelated signals, a bump of 3.01 dB for the same', () => {
    expect(house(false, 'equal-power').verdict).toBe('stays level');
    expect(house(true, 'equal-power').bumpDb).toBeCloseTo(3.01, 1);
    expect(house(true, 'equal-power').verdict).toMatch(/^bump of 3\.0\d dB at 50 %$/);
  });
  test('the part of its travel that counts, and opposite ends, mirror one another', () => {
    const c: Control = {
      id: 'c',
      name: 'C',
      type: 'pedal',
      travel: { from: 20, to: 80 },
      assigns: [],
    };
    const a = { id: '1', device: 'v', setting: 'pedal' };
    expect([0, 20, 50, 80, 100].map((at) => valueAt(two, c, a, at))).toEqual([0, 0, 5, 10, 10]);
    for (const at of [30, 50, 71])
      expect(Number(valueAt(two, c, { ...a, curve: 'audio' }, at))).toBeCloseTo(
        Number(valueAt(two, c, { ...a, curve: 'audio', min: 10, max: 0 }, 100 - at)),
        9,
      );
  });
});

describe('a switch with assignments', () => {
  const swap: Control = {
    id: 'swap',
    name: 'Swap',
    type: 'switch',
    action: 'latching',
    assigns: [
      { id: '1', device: 'u', setting: 'pedal', off: 10, on: 0 },
      { id: '2', device: 'w', setting: 'pedal', off: 0, on: 10 },
    ],
  };
  const base = rigOf(
    [
      device('g', 'guitar-active', 'G'),
      device('s', 'splitter-buffered', 'Fork', { settings: { select: 'both' } }),
      device('u', 'volume-active', 'One'),
      device('w', 'volume-active', 'Two'),
      device('a', 'combo-tube', 'Left'),
      device('b', 'combo-tube', 'Right'),
    ],
    [
      lead('1', 'g.out', 's.in', 1),
      lead('2', 's.a', 'u.in', 1),
      lead('3', 's.b', 'w.in', 1),
      lead('4', 'u.out', 'a.in', 1),
      lead('5', 'w.out', 'b.in', 1),
    ],
    [
      { ...sound('x', 'X', []), controls: { swap: false } },
      { ...sound('y', 'Y', []), controls: { swap: true } },
    ],
    { controls: [swap] },
  );
  test('sends both levels at once: what is heard swaps, by one press', () => {
    const heard = analyse(base).sounds.map((s) => s.destinations.map((d) => d.levelDbu !== null));
    expect(heard).toEqual([
      [true, false],
      [false, true],
    ]);
    expect(pressesBetween(base, base.sounds[0]!, base.sounds[1]!)).toMatchObject({
      presses: [{ control: 'swap' }],
      turns: [],
    });
  });
  test('a control that moves what is gone is found', () => {
    const done = applyEdits(base, [
      {
        edit: 'setControl',
        control: {
          ...swap,
          assigns: [...swap.assigns, { id: '3', device: 'a', setting: 'nothing' }],
        },
      },
    ]);
    expect(done.ok && controlRemarks(done.value.rig).map((r) => r.remark.rule)).toContain(
      'control-nothing',
    );
  });
});

describe('presses', () => {
  test('a press for each switch, a turn for each knob; one press where a switcher has programs', () => {
    const [a, b] = [two.sounds[0]!, sound('b', 'B', ['d'], { a: { settings: { gain: 8 } } })];
    expect(pressesBetween(two, a, b)).toMatchObject({
      presses: [{ device: 'd', changes: ['on'] }],
      turns: [{ device: 'a' }],
    });
    expect(pressesBetween(two, a, a)).toEqual({ presses: [], turns: [] });
    const board = rigOf(
      [device('s', 'loop-switcher', 'S')],
      [],
      [sound('x', 'X', []), sound('y', 'Y', [], { s: { settings: { order: '1 2' } } })],
    );
    expect(pressesBetween(board, board.sounds[0]!, board.sounds[1]!).presses).toHaveLength(1);
  });
  test('a sound that is called is one press for everything that its messages leave right, and no more', () => {
    const [crunch, leadSound] = ['crunch', 'lead'].map((id) =>
      touringRig.sounds.find((s) => s.id === id)!,
    );
    const { presses, turns } = pressesBetween(touringRig, crunch!, leadSound!);
    expect(presses.map((p) => p.device).sort()).toEqual(['flare', 'heads', 'kiln', 'skeg']);
    expect(presses.find((p) => p.device === 'skeg')).toMatchObject({
      calls: true,
      changes: ['Gangway Echo on', 'Dome Reverb Mix at half past 11'],
    });
    expect(turns).toEqual([]);
  });
  test('the order of presses that gets least loud on the way', () => {
    const chain = rigOf(
      [
        device('g', 'guitar-active', 'G'),
        device('p', 'boost', 'Boost', { settings: { gain: 10 } }),
        device('c', 'volume-active', 'Cut'),
        device('d', 'console-input', 'House', { settings: { input: 'line' } }),
      ],
      [lead('1', 'g.out', 'p.in', 1), lead('2', 'p.out', 'c.in', 1), lead('3', 'c.out', 'd.in', 1)],
      [
        { ...sound('x', 'X', []), controls: { down: false } },
        { ...sound('y', 'Y', ['p']), controls: { down: true } },
      ],
      {
        controls: [
          {
            id: 'down',
            name: 'Down',
            type: 'switch',
            assigns: [{ id: '1', device: 'c', setting: 'pedal', off: 10, on: 1 }],
          },
        ],
      },
    );
    const s = sequenceOf(chain, chain.sounds[0]!, chain.sounds[1]!);
    expect(s.steps.map((x) => x.press.control ?? x.press.device)).toEqual(['down', 'p']);
    expect(s.overshootDb).toBe(0);
    const back = sequenceOf(chain, chain.sounds[1]!, chain.sounds[0]!);
    expect(back.steps.map((x) => x.press.control ?? x.press.device)).toEqual(['p', 'down']);
  });
});

describe('control leads', () => {
  const wired = (
    pedal: Parameters<typeof device>[3],
    to: string,
    jack: string,
    kind = 'expression-pedal',
  ) =>
    rigOf(
      [device('p', kind, 'Pedal', pedal), device('t', to, 'Target')],
      [lead('1', 'p.out', `t.${jack}`, 1, 'control')],
      [sound('s', 'S', [])],
    );
  const rules = (rig: Rig) =>
    controlRemarks(rig)
      .map((r) => r.remark.rule)
      .filter((r) => r.startsWith('control'));
  test('a wiper on the wrong conductor works backward; one edit cures it', () => {
    const rig = wired({ settings: { wiper: 'ring' } }, 'modeler-floor', 'exp1');
    const found = controlRemarks(rig).find((r) => r.remark.rule === 'control-wiper')!.remark;
    expect(found.what).toContain('works backward, or only at one end');
    const done = applyEdits(rig, found.fix!.edits);
    expect(done.ok && rules(done.value.rig)).toEqual([]);
    expect(rules(wired({}, 'modeler-floor', 'exp1'))).toEqual([]);
  });
  test('a pot far from what the jack expects, a pedal where a switch belongs, a latching switch on a tap', () => {
    expect(
      rules(
        wired({ figures: { potOhms: { value: 250_000, from: 'sheet' } } }, 'modeler-floor', 'exp1'),
      ),
    ).toEqual(['control-ohms']);
    expect(rules(wired({}, 'delay', 'tap'))).toEqual(['control-kind']);
    expect(
      rules(wired({ settings: { action: 'latching' } }, 'delay', 'tap', 'foot-switch')),
    ).toEqual(['control-action']);
    expect(
      rules(wired({ settings: { contact: 'closed' } }, 'delay', 'tap', 'foot-switch')),
    ).toEqual(['control-contact']);
  });
  test('the second of two switches needs a jack that reads two contacts; with a control on it, it is a fault', () => {
    const double = (to: string, jack: string, rest: Partial<Rig> = {}) => ({
      ...wired({}, to, jack, 'foot-switch-double'),
      ...rest,
    });
    const on = (id: string): Control => ({
      id,
      name: id,
      type: 'switch',
      device: 'p',
      assigns: [],
    });
    const found = (rig: Rig) =>
      controlRemarks(rig)
        .filter((r) => r.remark.rule === 'control-second')
        .map((r) => r.remark.severity);
    expect(found(double('delay', 'tap'))).toEqual(['advice']);
    expect(found(double('delay', 'tap', { controls: [on('1'), on('2')] }))).toEqual(['fault']);
    expect(found(double('loop-switcher', 'ctl', { controls: [on('1'), on('2')] }))).toEqual([]);
    expect(rules(wired({}, 'delay', 'tap', 'foot-switch'))).toEqual([]);
    const said = applyEdits(double('delay', 'tap'), [
      { edit: 'setExpects', device: 't', jack: 'tap', expects: { contacts: 2 } },
    ]);
    expect(said.ok && found(said.value.rig)).toEqual([]);
  });
  test(
    'one tap switch on a branching lead: fine where all expect the same, a fault where ' +
      'not; their grounds are joined',
    () => {
      const three = rigOf(
        [
          device('p', 'foot-switch', 'Tap'),
          device('a', 'delay', 'A'),
          device('b', 'tremolo', 'B'),
          device('c', 'delay-analog', 'C'),
        ],
        ['a', 'b', 'c'].map((d) => lead(`l${d}`, 'p.out', `${d}.tap`, 1, 'control')),
        [sound('s', 'S', [])],
      );
      expect(rules(three)).toEqual(['control-branch-ground']);
      const done = applyEdits(three, [
        { edit: 'setExpects', device: 'b', jack: 'tap', expects: { contact: 'closed' } },
      ]);
      expect(done.ok && rules(done.value.rig)).toContain('control-branch');
    },
  );
  test('a device that reads a pedal itself has fine steps, a control change has 128', () => {
    const rig = wired({}, 'modeler-floor', 'exp1');
    const control: Control = {
      id: 'c',
      name: 'C',
      type: 'pedal',
      device: 'p',
      assigns: [{ id: '1', device: 't', setting: 'x' }],
    };
    expect(stepsOf(rig, control, 't')).toBe(STEPS.direct);
    expect(stepsOf(rig, control, 'other')).toBe(STEPS.controlChange);
  });
});
