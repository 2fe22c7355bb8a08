import { analyse } from '../report';
import type { Severity } from '../findings/finding';
import { DEMO_RIGS, touringRig } from '../demo';
import { applyEdits, type Board, type Device, type Rig } from '../rig';
import { device, lead, rigOf } from '../testing/rigs';
import { type Clash } from './board-rules';
import { boardModel, placesNow } from './board-model';
import { clashWords } from './board-words';
import { buildRemarks } from './build-remarks';
import { checklist, cureEnds } from './checklist';
import { COUNTRIES } from './countries';
import { checkCountries, countryOf, mainsMisfit } from './mains';
import { packingOf } from './packing';
import { pressedDevices } from './pressed';

const board: Board = { id: 'b', name: 'Deck', width: 600, depth: 320, rails: [], under: 40 };
const pair: Rig = {
  ...rigOf(
    [
      device('k', 'drive-mid', 'Kiln', { at: { board: 'b', x: 300, y: 200 } }),
      device('s', 'supply-isolated', 'Supply', { at: { board: 'b', x: 0, y: 0, under: true } }),
    ],
    [],
  ),
  boards: [board],
};
const model = boardModel(pair, board, new Map());

describe('every judgement of a board has its words, its figure and its severity', () => {
  test.each<[Clash, Severity, string, string]>([
    [
      { what: 'overlap', a: 0, b: 1, mm: 12.2 },
      'fault',
      'Kiln and Supply stand on the same place.',
      'They overlap by 13 mm.',
    ],
    [
      { what: 'outside', a: 0, b: -1, mm: 30 },
      'fault',
      'Kiln stands over the edge of Deck.',
      'It sticks out by 30 mm.',
    ],
    [
      { what: 'plug', a: 0, b: 1, mm: 5 },
      'fault',
      'The plug in Kiln has no room.',
      'It needs 5 mm more before Supply begins.',
    ],
    [
      { what: 'plugs', a: 0, b: 1, mm: 7.9 },
      'fault',
      'The plugs of Kiln and Supply hit each other.',
      'They overlap by 8 mm.',
    ],
    [
      { what: 'too-high', a: 1, b: -1, mm: 5 },
      'fault',
      'Supply does not fit under Deck.',
      'It is 45 mm high, and there are 40 mm.',
    ],
    [
      { what: 'half', a: 0, b: -1, mm: 0 },
      'fault',
      'Kiln stands half on the raised strip.',
      'One edge is in the air',
    ],
    [
      { what: 'reach', a: 0, b: 1, mm: 0 },
      'caution',
      'Kiln is reached over Supply.',
      'neither in the front row nor raised',
    ],
    [
      { what: 'reach', a: 0, b: -1, mm: 0 },
      'caution',
      'Kiln is stepped on and lies under the deck.',
      'Its switch is used between sounds',
    ],
    [
      { what: 'switches', a: 0, b: 1, mm: 21 },
      'caution',
      'The switches of Kiln and Supply are close.',
      'A foot wants 60 mm between centres; 21 mm are missing.',
    ],
    [
      { what: 'radio', a: 1, b: 0, mm: 55 },
      'advice',
      'Supply stands close to Kiln.',
      '100 mm apart is better, 55 mm are missing.',
    ],
  ])('%j', (clash, severity, what, why) => {
    const told = clashWords(model, clash);
    expect(told.severity).toBe(severity);
    expect(told.what).toBe(what);
    expect(told.why).toContain(why);
  });
});

describe('where things stand', () => {
  test('what is on the board stands where it was put, what is not yet is out of the way', () => {
    const more: Rig = { ...pair, devices: [...pair.devices, device('n', 'boost', 'New')] };
    const withNew = boardModel(more, board, new Map(), ['n']);
    const at = placesNow(withNew);
    const indexOf = (name: string) => withNew.items.findIndex((i) => i.device.name === name);
    expect(at[indexOf('Kiln')]).toEqual({ x: 300, y: 200 });
    const fresh = indexOf('New');
    expect(at[fresh]!.y).toBeLessThan(-withNew.items[fresh]!.depth);
  });
  test('a supply goes under the deck by itself where it fits there', () => {
    const more: Rig = {
      ...pair,
      devices: [
        ...pair.devices,
        device('n', 'supply-shared', 'Flat', { size: { width: 60, depth: 60, height: 39 } }),
        device('o', 'supply-shared', 'Tall'),
      ],
    };
    const { items } = boardModel(more, board, new Map(), ['n', 'o']);
    expect(Object.fromEntries(items.map((i) => [i.device.name, i.under]))).toEqual({
      Kiln: false,
      Supply: true,
      Flat: true,
      Tall: false,
    });
  });
  test('which pedals feet go to follows from the sounds, as a share of the changes', () => {
    const pressed = pressedDevices(touringRig);
    for (const share of pressed.values()) {
      expect(share).toBeGreaterThan(0);
      expect(share).toBeLessThanOrEqual(1);
    }
    // The controller calls the sounds, so it is pressed most.
    expect([...pressed].sort((a, b) => b[1] - a[1])[0]![0]).toBe('skeg');
    expect(pressed.has('supply')).toBe(false);
    const one = pressedDevices({ ...touringRig, sounds: touringRig.sounds.slice(0, 1) });
    expect(one.size).toBe(0);
  });
  test('moving things about does not change what is pressed', () => {
    const moved = {
      ...touringRig,
      devices: touringRig.devices.map((d): Device =>
        d.at ? { ...d, at: { ...d.at, x: d.at.x + 3 } } : d,
      ),
    };
    expect(pressedDevices(moved)).toEqual(pressedDevices(touringRig));
  });
  test('what is pressed is kept only while all that it hangs on is the same', () => {
    let different = 0;
    for (const rig of DEMO_RIGS) {
      const midi = rig.leads.find((l) => l.type === 'midi');
      const changed: Rig[] = [
        { ...rig, controls: [] },
        { ...rig, leads: rig.leads.filter((l) => l !== midi) },
        { ...rig, leads: rig.leads.map((l) => ({ ...l })) },
        { ...rig, devices: rig.devices.map((d): Device => ({ ...d, engaged: !d.engaged })) },
        { ...rig, sounds: rig.sounds.map((s, n) => (n ? s : { ...s, states: {} })) },
      ];
      for (const other of changed) {
        // Of a copy nothing is known, since its sounds are other objects.
        const anew = pressedDevices(structuredClone(other));
        const whole = pressedDevices(rig);
        expect(pressedDevices(other)).toEqual(anew);
        if (JSON.stringify([...anew]) !== JSON.stringify([...whole])) different++;
      }
    }
    expect(different).toBeGreaterThan(2);
  });
});

/** Nominal mains, from tables that travellers print: volts and hertz. */
const MAINS: [
  code: string,
  volts: number,
  hz: number[],
  world: boolean,
  high: boolean,
  low: boolean,
][] = [
  ['NO', 230, [50], true, true, false],
  ['FO', 230, [50], true, true, false],
  ['GB', 230, [50], true, true, false],
  ['DE', 230, [50], true, true, false],
  ['FR', 230, [50], true, true, false],
  ['IT', 230, [50], true, true, false],
  ['CH', 230, [50], true, true, false],
  ['AU', 230, [50], true, true, false],
  ['NZ', 230, [50], true, true, false],
  ['KR', 220, [60], true, true, false],
  ['CL', 220, [50], true, true, false],
  ['US', 120, [60], true, false, true],
  ['CA', 120, [60], true, false, true],
  ['MX', 127, [60], true, false, true],
  ['CO', 110, [60], true, false, true],
  ['TW', 110, [60], true, false, true],
  ['JP', 100, [50, 60], true, false, false],
];

test.each(MAINS)(
  '%s has %d V, %j Hz: a world supply bears it %s, one for 220 to 240 V %s, one for 110 to 120 V %s',
  (code, volts, hz, world, high, low) => {
    const country = countryOf(code)!;
    expect(country.volts).toBe(volts);
    expect(country.hz).toEqual(hz);
    const bears = (range: [number, number]) =>
      mainsMisfit({ volts: [range], hz: [50, 60], watts: 1 }, country.volts, country.hz) ===
      undefined;
    expect([bears([100, 240]), bears([220, 240]), bears([110, 120])]).toEqual([world, high, low]);
  },
);

test(
  'a device for the wrong half of the world is told as too little or as too much, ' +
    'never the other way round',
  () => {
    for (const c of COUNTRIES) {
      const european = mainsMisfit({ volts: [[220, 240]], hz: [50, 60], watts: 1 }, c.volts, c.hz);
      const american = mainsMisfit({ volts: [[110, 120]], hz: [50, 60], watts: 1 }, c.volts, c.hz);
      expect(european === undefined || european === 'under').toBe(true);
      expect(
        american === undefined || american === 'over' || (american === 'under' && c.volts < 110),
      ).toBe(true);
      // What is made for both halves has trouble only where the voltage lies outside both.
      expect(
        mainsMisfit(
          {
            volts: [
              [100, 127],
              [220, 240],
            ],
            hz: [50, 60],
            watts: 1,
          },
          c.volts,
          c.hz,
        ),
      ).toBeUndefined();
    }
  },
);

describe('the checklist follows the working order', () => {
  const parts = checklist(touringRig);
  const of = (id: string) => parts.find((p) => p.id === id)!.steps;
  test('lay out, power, audio, control, tie down, test, listen, dial in, label, pack', () => {
    expect(parts.map((p) => p.id)).toEqual([
      'layout',
      'power',
      'audio',
      'control',
      'tie',
      'test',
      'paths',
      'dial',
      'label',
      'pack',
    ]);
  });
  test('audio leads come shortest first', () => {
    const metres = of('audio').map(
      (s) => touringRig.leads.find((l) => s.id === `run ${l.id}`)!.metres,
    );
    expect(metres).toEqual([...metres].sort((a, b) => a - b));
  });
  test('dialling in: the amplifiers, then reverb, then delay, then the drives with the wet effects on', () => {
    const names = of('dial').map((s) => s.words);
    const first = (text: string) => names.findIndex((n) => n.startsWith(text));
    expect(first('Stage head')).toBeLessThan(first('Dome Reverb'));
    expect(first('Dome Reverb')).toBeLessThan(first('Gangway Echo'));
    expect(first('Gangway Echo')).toBeLessThan(first('Brine Drive'));
    expect(names[first('Brine Drive')]).toContain('with reverb and delay on');
  });
  test('everything that is carried is packed once, into its case', () => {
    const steps = of('pack');
    expect(new Set(steps.map((s) => s.id)).size).toBe(steps.length);
    expect(steps.find((s) => s.id === 'pack head')!.words).toBe(
      'Stage head, OA-5512: into Head trunk',
    );
    expect(steps.find((s) => s.id === 'pack kiln')!.words).toContain('into Board case');
    expect(steps.some((s) => s.id === 'pack house')).toBe(false);
  });
  test('a timer ends after its hours', () => {
    const rig: Rig = {
      ...touringRig,
      done: { ticks: [], cureFrom: '2026-11-25T10:00:00Z', cureHours: 8 },
    };
    expect(new Date(cureEnds(rig)!).toISOString()).toBe('2026-11-25T18:00:00.000Z');
    expect(cureEnds(touringRig)).toBeUndefined();
  });
});

describe('fixes of what was found in the build', () => {
  test.each(DEMO_RIGS.map((r) => [r.name, r] as const))(
    '%s: each applies, and its finding is gone',
    (_, rig) => {
      const found = analyse(rig).findings.filter((f) => /^(lead-|power-)/.test(f.rule) && f.fix);
      for (const f of found) {
        const done = applyEdits(rig, f.fix!.edits);
        expect(done.ok).toBe(true);
        if (done.ok)
          expect(analyse(done.value.rig).findings.some((x) => x.key === f.key)).toBe(false);
      }
    },
  );
  test('a lead that does not reach is told in centimetres, and cured by the length that the cut list gives', () => {
    const rig: Rig = {
      ...rigOf(
        [device('a', 'head-tube', 'Head'), device('c', 'cabinet', 'Cabinet')],
        [lead('1', 'a.speaker', 'c.in', 1, 'speaker')],
      ),
      stage: {
        width: 8,
        depth: 6,
        spots: [
          { id: 'a', x: 1, y: 1 },
          { id: 'c', x: 2, y: 1.5 },
        ],
        marks: [],
      },
    };
    const short = analyse(rig).findings.find((f) => f.rule === 'lead-short')!;
    expect(short.what).toBe('W01 from Head, speaker to Cabinet, speaker in is too short by 50 cm.');
    expect(short.why).toBe('It is 1.00 m long, and its way is 1.50 m (1.50 m along the stage).');
    const done = applyEdits(rig, short.fix!.edits);
    expect(done.ok && done.value.rig.leads[0]!.metres).toBeCloseTo(1.6, 9);
  });
});

test.each(DEMO_RIGS.map((r) => [r.name, r] as const))(
  '%s: what is in the cases weighs what its parts weigh together',
  (_, rig) => {
    const { pieces, loose } = packingOf(rig);
    const packed = pieces.flatMap((p) => p.devices.map((d) => d.id));
    expect(new Set(packed).size).toBe(packed.length);
    expect(loose.some((d) => packed.includes(d.id))).toBe(false);
    pieces.forEach((p, i) => {
      expect(p.order).toBe(i + 1);
      expect(p.lift).toBe(p.grams > 23_000);
    });
  },
);

describe('where a rig plays', () => {
  /** A head at a strip, that at the wall, on a tour; what is said of the head and the strip. */
  const told = (countries: string[], head: Device['mains'], strip: Device['mains'] = {}) => {
    const rig = {
      ...rigOf(
        [
          device('head', 'head-tube-two', 'Head', { mains: { ...head, from: 'strip' } }),
          device('strip', 'power-conditioner', 'Strip', { mains: { ...strip } }),
        ],
        [],
      ),
      tour: { countries },
    };
    return buildRemarks(rig)
      .filter((r) => r.rule.startsWith('mains-'))
      .map((r) => `${r.severity} ${r.rule} ${r.subjects.join()}`);
  };
  const WORLD: [number, number][] = [[100, 240]];
  const SWITCHED: [number, number][] = [
    [110, 120],
    [220, 240],
  ];
  const strip = { volts: WORLD };
  test('a country with two voltages is asked at both', () => {
    expect(countryOf('BR')!.also).toEqual([220]);
    expect(told(['BR'], { volts: WORLD }, strip)).toEqual([]);
    expect(told(['BR'], { volts: [[110, 127]] }, strip)).toEqual(['danger mains-over head']);
    expect(told(['BR'], { volts: [[220, 240]] }, strip)).toEqual(['fault mains-under head']);
  });
  test('a voltage selector counts as it is set; one of which nobody said it is asked after', () => {
    expect(told(['DE'], { volts: SWITCHED, setTo: 230 }, strip)).toEqual([]);
    expect(told(['DE'], { volts: SWITCHED, setTo: 115 }, strip)).toEqual([
      'danger mains-over head',
    ]);
    expect(told(['US'], { volts: SWITCHED, setTo: 230 }, strip)).toEqual([
      'fault mains-under head',
    ]);
    expect(told(['DE'], { volts: SWITCHED }, strip)).toEqual(['caution mains-selector head']);
  });
  test.each([
    ['C', 'DE', true],
    ['F', 'FR', true],
    ['E', 'DE', true],
    ['C', 'GB', false],
    ['F', 'CH', false],
    ['A', 'US', true],
    ['G', 'SG', true],
    ['B', 'JP', true],
    ['I', 'US', false],
  ] as const)('a plug %s at the wall in %s goes in: %s', (plug, country, goes) => {
    expect(told([country], { volts: WORLD, plug }, { ...strip, plug })).toEqual(
      goes ? [] : ['advice mains-plug strip'],
    );
  });
  test('a country that nobody knows is said, and the others are checked', () => {
    expect(told(['XX', 'US'], { volts: [[220, 240]] }, strip)).toEqual([
      'fault mains-under head',
      'advice mains-unknown ',
    ]);
    const rig = { ...rigOf([], []), tour: { countries: ['XX', 'BR'] } };
    expect(checkCountries(rig).map((c) => c.country.code)).toEqual(['BR']);
  });
});
