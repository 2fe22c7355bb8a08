import { analyse } from '../report';
import { DEMO_RIGS, flyRig, touringRig } from '../demo';
import { kindOf } from '../kinds';
import { applyEdits, type Rig } from '../rig';
import { device, lead, rigOf, sound } from '../testing/rigs';
import {
  billOf,
  budgetOf,
  checkCountries,
  colourCode,
  COUNTRIES,
  cutList,
  leadNeeds,
  mainsMisfit,
  misfitsAt,
  mainsOf,
  mainsSums,
  mountedIn,
  packingOf,
  panelPlan,
  plugWords,
  rackClashes,
  rackSums,
  unitsOf,
} from '.';

const rack = { id: 'r', name: 'Rack', units: 6, depth: 400, grams: 8000 };
const inRack = (id: string, kind: string, unit: number, rest: object = {}, more: object = {}) =>
  device(id, kind, id, { ...more, rack: { rack: 'r', unit, ...rest } });
const racked = (devices: Rig['devices'], leads: Rig['leads'] = [], r = rack): Rig => ({
  ...rigOf(devices, leads),
  racks: [r],
});
const found = (rig: Rig) =>
  rackClashes(rig, rig.racks![0]!).map(
    (c) => `${c.what} ${c.a.device.id}${c.b ? ` ${c.b.device.id}` : ''} ${Math.round(c.mm)}`,
  );

describe('the rack', () => {
  test('units by ears, by height on a shelf, or as said', () => {
    expect(unitsOf(device('x', 'modeler-rack', 'X'))).toEqual({ units: 2, shelf: false });
    expect(unitsOf(device('x', 'boost', 'X'))).toEqual({ units: 2, shelf: true });
    expect(unitsOf(device('x', 'playback', 'X'))).toEqual({ units: 1, shelf: true });
    expect(unitsOf(device('x', 'boost', 'X', { units: 3 }))).toMatchObject({ units: 3 });
    expect(
      unitsOf(device('x', 'boost', 'X', { size: { width: 70, depth: 100, height: 44.45 } })).units,
    ).toBe(1);
  });
  test('weight, centre of gravity and heat by hand', () => {
    // 5 kg in unit 1 (22 mm up), 6 kg in units 5 and 6 (222 mm), the case of 8 kg in its middle (133 mm).
    const rig = racked([inRack('amp', 'power-amp', 1), inRack('mod', 'modeler-rack', 5)]);
    const sums = rackSums(rig, rig.racks![0]!);
    expect(sums).toMatchObject({ grams: 19_000, used: 3, watts: 410, unweighed: 0 });
    expect(sums.centreMm).toBeCloseTo((5000 * 22.225 + 6000 * 222.25 + 8000 * 133.35) / 19_000, 6);
  });
  test(
    'over the top, on the same units, too deep with the plugs, front and rear together, ' +
      'heat, what is touched at the rear',
    () => {
      expect(found(racked([inRack('mod', 'modeler-rack', 6)]))).toEqual(['too-high mod 44']);
      expect(found(racked([inRack('a', 'modeler-rack', 2), inRack('b', 'panel', 3)]))).toEqual(
        ['overlap b a 0'].map((w) =>
          found(racked([inRack('a', 'modeler-rack', 2), inRack('b', 'panel', 3)]))[0] === w
            ? w
            : 'overlap a b 0',
        ),
      );
      const deep = racked(
        [inRack('mod', 'modeler-rack', 2), device('g', 'guitar-active', 'G')],
        [lead('1', 'g.out', 'mod.in', 3)],
        { ...rack, depth: 330 },
      );
      // 300 mm, a straight plug of 45 behind it, and the mains plug of 60 beside that.
      expect(found(deep)).toEqual(['too-deep mod 30']);
      expect(
        found(
          racked([inRack('mod', 'modeler-rack', 2), inRack('p', 'panel', 2, { rear: true })], [], {
            ...rack,
            depth: 370,
          }),
        ),
      ).toEqual(['overlap mod p 30']);
      expect(found(racked([inRack('amp', 'power-amp', 1), inRack('p', 'panel', 2)]))).toEqual([
        'heat amp p 0',
      ]);
      expect(found(racked([inRack('amp', 'power-amp', 1), inRack('p', 'panel', 3)]))).toEqual([]);
      expect(found(racked([inRack('mod', 'power-amp', 3, { rear: true })]))).toEqual([
        'access mod 0',
      ]);
      expect(
        found(
          racked([
            inRack('a', 'boost', 1, { x: 0 }),
            inRack('b', 'boost', 1, { x: 80 }),
            inRack('c', 'boost', 1, { x: 400 }),
          ]),
        ),
      ).toEqual(['too-wide c 20']);
    },
  );
  test('the demo rack holds what it should, and its findings are told with figures', () => {
    const list = mountedIn(touringRig, touringRig.racks![0]!);
    expect(list[0]!.to).toBeGreaterThanOrEqual(list.at(-1)!.to);
    expect(rackClashes(touringRig, touringRig.racks![0]!)).toEqual([]);
    const rules = analyse(touringRig).findings.filter((f) => f.rule.startsWith('rack-'));
    expect(rules.map((f) => f.rule).sort()).toEqual(['rack-lift', 'rack-pulled']);
    expect(rules.find((f) => f.rule === 'rack-lift')!.why).toContain(
      `${(rackSums(touringRig, touringRig.racks![0]!).grams / 1000).toFixed(1)} kg`,
    );
  });
  test('panel plan: each line with what is in it on either side', () => {
    const plan = panelPlan(touringRig);
    expect(plan).toHaveLength(6);
    expect(plan[0]).toMatchObject({
      outside: 'rear1',
      inside: 'front1',
      outsideLead: 'l34',
      insideLead: 'l27',
    });
    expect(plan[5]).not.toHaveProperty('insideLead');
  });
  test('sockets insulated from a panel keep two grounds apart; bare ones join them', () => {
    const loops = (insulated: boolean) =>
      analyse({
        ...touringRig,
        devices: touringRig.devices.map((d) =>
          d.id === 'hatch' ? { ...d, settings: { insulated } } : d,
        ),
      }).findings.filter((f) => f.rule === 'hum-loop' && f.subjects.includes('hatch'));
    expect(loops(true)).toEqual([]);
    expect(loops(false).length).toBeGreaterThan(0);
  });
});

describe('how long a lead has to be', () => {
  test('in a rack: to the nearer side, over the units, and back', () => {
    const rig = racked(
      [inRack('a', 'boost', 1, { x: 10 }), inRack('b', 'boost', 4, { x: 30 })],
      [lead('1', 'a.out', 'b.in', 1)],
    );
    // a.out is on the left edge (10 mm from the side), b.in on the right edge (100 mm); three units
    // of 44.45 mm between.
    expect(leadNeeds(rig).get('1')!.mm).toBeCloseTo(10 + 100 + 3 * 44.45, 6);
    expect(
      leadNeeds({
        ...rig,
        devices: rig.devices.map((d) =>
          d.id === 'b' ? { ...d, rack: { rack: 'r', unit: 1, x: 200 } } : d,
        ),
      }).get('1')!.mm,
    ).toBeCloseTo(260, 6);
  });
  test('along the stage: metres across plus metres up or down, with the parts on board and in rack', () => {
    const need = leadNeeds(touringRig).get('l04')!;
    // Rack at 6.2, 2.2 and board at 4, 4.5: 2.2 + 2.3 m.
    expect(need.how).toMatch(
      /^4\.50 m along the stage, 0\.\d\d m to the foot of the rack, 0\.\d\d m to the edge of the board$/,
    );
    const parts = [...need.how.matchAll(/([\d.]+) m/g)].reduce((s, m) => s + Number(m[1]), 0);
    expect(need.mm / 1000).toBeCloseTo(parts, 1);
  });
  test('an end that stands nowhere gives no way: the length that was entered holds', () => {
    expect(leadNeeds(touringRig).has('l18')).toBe(false);
    const c = cutList(touringRig).cuts.find((x) => x.lead.id === 'l18')!;
    expect(c).toMatchObject({ routed: null, short: 0, how: 'as it was entered', metres: 25 });
  });
  test('cut lengths follow the way, the slack, the loop and the step; too short says by how much', () => {
    const short: Rig = {
      ...touringRig,
      leads: touringRig.leads.map((l) => (l.id === 'l04' ? { ...l, metres: 4 } : l)),
      making: { slack: 0.1, step: 0.25, perJoint: 4, perLead: 6, loop: 0.5 },
    };
    const c = cutList(short).cuts.find((x) => x.lead.id === 'l04')!;
    expect(c.short).toBeCloseTo(c.routed! - 4, 9);
    expect(c.cut).toBeCloseTo(Math.ceil((c.routed! + 0.2 + 0.5) / 0.25 - 1e-9) * 0.25, 9);
    expect(analyse(short).findings.find((f) => f.rule === 'lead-short')!.what).toBe(
      `${c.code} from Instrument joiner, out to Tuner, in is too short by ${(c.short * 100).toFixed(0)} cm.`,
    );
  });
  test('codes as colours, digit by digit', () => {
    expect([1, 7, 27, 104].map(colourCode)).toEqual([
      'brown',
      'violet',
      'red-violet',
      'brown-black-yellow',
    ]);
    expect(
      cutList({
        ...touringRig,
        making: { slack: 0, step: 0.1, perJoint: 4, perLead: 6, codes: 'colours' },
      }).cuts[26]!.code,
    ).toBe('red-violet');
  });
});

describe('looms', () => {
  const loomed = (kinds: [string, string], rest: object) => ({
    ...rigOf(
      [
        device('g', kinds[0], 'G'),
        device('b', kinds[1], 'B'),
        device('e', 'console-input', 'E', { settings: { input: 'line' } }),
        device('c', 'foot-controller', 'C'),
        device('d', 'delay', 'D'),
      ],
      [
        lead('1', 'g.out', 'b.in', 3),
        lead('2', 'b.out', 'e.in', 3),
        lead('3', 'c.midiOut', 'd.midiIn', 3, 'midi'),
      ],
      [sound('s', 'S', ['b'])],
    ),
    looms: [{ id: 'l', name: 'Loom', leads: [], ...rest }],
  });
  const told = (rig: Rig) =>
    analyse(rig)
      .findings.filter((f) => f.rule === 'loom-mixed')
      .map((f) => [f.severity, f.subjects[0]]);
  test('a bare pickup beside mains or data is a caution; buffered audio, and audio alone, are not', () => {
    expect(
      told(loomed(['guitar-single-coil', 'buffer'], { leads: ['1', '2'], mains: true })),
    ).toEqual([['caution', '1']]);
    expect(told(loomed(['guitar-single-coil', 'buffer'], { leads: ['1', '3'] }))).toEqual([
      ['caution', '1'],
    ]);
    expect(
      told(loomed(['guitar-single-coil', 'buffer'], { leads: ['2', '3'], mains: true })),
    ).toEqual([]);
    expect(told(loomed(['guitar-single-coil', 'buffer'], { leads: ['1', '2'] }))).toEqual([]);
    expect(told(loomed(['guitar-active', 'buffer'], { leads: ['1', '3'] }))).toEqual([]);
  });
});

describe('mains', () => {
  test('what was measured is held against every device as its selector stands', () => {
    const takers = (rig: Rig, volts: number) => misfitsAt(rig, volts, [50]).map((w) => w.what);
    expect(takers(touringRig, 230)).toEqual([]);
    const [high, low] = [280, 90].map((volts) => misfitsAt(touringRig, volts, [50]));
    expect(high!.length).toBeGreaterThan(0);
    expect(new Set(high!.map((w) => w.what))).toEqual(new Set(['over']));
    // What is over at 280 V is over at all above; what is under at 90 V is under at all below.
    const names = (list: typeof high) => list!.map((w) => w.device.id);
    expect(names(misfitsAt(touringRig, 300, [50]))).toEqual(expect.arrayContaining(names(high)));
    expect(names(misfitsAt(touringRig, 70, [50]))).toEqual(expect.arrayContaining(names(low)));
  });
  test('voltages and frequencies against what a device takes', () => {
    const one = {
      volts: [[220, 240]] as [number, number][],
      hz: [50, 60] as (50 | 60)[],
      watts: 100,
    };
    expect([120, 100, 230, 220, 240].map((v) => mainsMisfit(one, v, [50]))).toEqual([
      'under',
      'under',
      undefined,
      undefined,
      undefined,
    ]);
    expect(mainsMisfit({ ...one, volts: [[110, 120]] }, 230, [50])).toBe('over');
    expect(
      mainsMisfit(
        {
          ...one,
          volts: [
            [110, 120],
            [220, 240],
          ],
        },
        230,
        [50],
      ),
    ).toBeUndefined();
    expect(mainsMisfit({ ...one, hz: [50] }, 230, [60])).toBe('hz');
    // A country with both: it has to bear both.
    expect(mainsMisfit({ ...one, hz: [50] }, 230, [50, 60])).toBe('hz');
    expect(mainsMisfit(one, 230, [50, 60])).toBeUndefined();
  });
  test(
    'sums at a voltage, strip by strip; too many plugs and too much current are faults, ' +
      'too much voltage a danger',
    () => {
      const amps = Array.from({ length: 9 }, (_, i) =>
        device(`a${i}`, 'power-amp', `A${i}`, { mains: { from: 'c', watts: 300 } }),
      );
      const rig: Rig = {
        ...rigOf([device('c', 'power-conditioner', 'C'), ...amps], []),
        tour: { countries: ['US'] },
      };
      const sums = mainsSums(rig, 120);
      expect(sums.watts).toBe(2703);
      expect(sums.amps).toBeCloseTo(2703 / 120, 9);
      expect(sums.strips[0]).toMatchObject({ outlets: 8, watts: 2700, gives: 10, inrushAmps: 270 });
      expect(sums.wall.map((d) => d.id)).toEqual(['c']);
      const rules = analyse(rig).findings.filter((f) => f.rule.startsWith('mains-'));
      expect(rules.map((f) => [f.rule, f.severity]).filter(([r]) => r !== 'mains-under')).toEqual(
        expect.arrayContaining([
          ['mains-sockets', 'fault'],
          ['mains-amps', 'fault'],
        ]),
      );
      expect(rules.find((f) => f.rule === 'mains-amps')!.why).toBe(
        '2700 W are 22.5 A at 120 V; its sockets give 10 A together.',
      );
      const low: Rig = {
        ...rigOf([device('h', 'head-tube', 'H', { mains: { volts: [[110, 120]] } })], []),
        tour: { countries: ['NO'] },
      };
      expect(analyse(low).findings.find((f) => f.rule === 'mains-over')).toMatchObject({
        severity: 'danger',
        subjects: ['h'],
      });
    },
  );
  test('strips in a circle are summed once and never hang', () => {
    const rig = rigOf(
      [
        device('a', 'power-conditioner', 'A', { mains: { from: 'b' } }),
        device('b', 'power-conditioner', 'B', { mains: { from: 'a' } }),
      ],
      [],
    );
    expect(mainsSums(rig, 230).strips.map((s) => s.watts)).toEqual([3, 3]);
  });
  test(
    'every country has a code of its own and a mains that exists; a strip is asked for ' +
      'by its sockets, not its kind',
    () => {
      expect(new Set(COUNTRIES.map((c) => c.code)).size).toBe(COUNTRIES.length);
      for (const c of COUNTRIES)
        expect([
          c.volts >= 100 && c.volts <= 240,
          c.hz.length > 0,
          /^[A-O](, [A-O])*$/.test(c.plugs),
        ]).toEqual([true, true, true]);
      expect(checkCountries(flyRig).map((c) => c.wrong.length)).toEqual([0, 0, 0]);
      expect(mainsOf(device('x', 'supply-isolated', 'X'))!.watts).toBe(
        kindOf('supply-isolated').mains!.watts,
      );
      const wrong = applyEdits(touringRig, [
        { edit: 'setDevice', device: 'ears', mains: { from: 'kiln' } },
      ]);
      expect(wrong.ok ? '' : wrong.problems[0]!.what).toBe(
        '"kiln" has no mains outlets in this rig',
      );
    },
  );
});

describe('bill, limits and cases', () => {
  test('everything is on the bill once: devices, carriers, stock, plugs, fixings; prices are sums', () => {
    const bill = billOf(touringRig);
    const list = cutList(touringRig);
    expect(bill.filter((l) => l.what === 'device' || l.what === 'supply')).toHaveLength(
      touringRig.devices.filter((d) => d.host === undefined && d.place !== 'house').length,
    );
    expect(bill.find((l) => l.what === 'lead stock' && l.item === 'instrument')!.count).toBeCloseTo(
      list.stock.find((s) => s.type === 'instrument')!.metres,
      6,
    );
    expect(bill.find((l) => l.what === 'plug' && l.item === 'TS')).toMatchObject({
      count: list.plugs.find((p) => p.plug === 'TS')!.count,
      each: 4,
    });
    expect(bill.find((l) => l.item === 'rack screws')!.count).toBe(4 * 4);
    expect(bill.filter((l) => l.state === 'to buy').map((l) => l.item)).toEqual([
      'Dry-dock Simulator',
    ]);
    for (const l of bill) expect(l.price).toBeCloseTo((l.each ?? 0) * l.count, 9);
  });
  test('figures against limits: over says by how much', () => {
    const line = (rig: Rig, id: string) => budgetOf(rig).find((b) => b.id === id)!;
    const grams = line(touringRig, 'grams').value;
    expect(line({ ...touringRig, limits: { grams: grams - 500 } }, 'grams').over).toBeCloseTo(
      500,
      6,
    );
    expect(line({ ...touringRig, limits: { grams } }, 'grams').over).toBe(0);
    expect(
      analyse({ ...touringRig, limits: { grams: 100_000 } }).findings.find(
        (f) => f.rule === 'limit',
      ),
    ).toMatchObject({
      severity: 'caution',
      what: `Weight: over the limit by ${((grams - 100_000) / 1000).toFixed(1)} kg.`,
    });
    expect(line(touringRig, 'boardWidth')).toMatchObject({ value: 1000, limit: 1050, over: 0 });
    expect(line({ ...touringRig, limits: undefined }, 'watts')).not.toHaveProperty('limit');
    expect(line(touringRig, 'hours').value).toBeCloseTo(cutList(touringRig).hours, 9);
    const dear = { ...touringRig, making: { ...touringRig.making!, hourPrice: 50 } };
    expect(line(dear, 'price').value - line(touringRig, 'price').value).toBeCloseTo(
      50 * cutList(touringRig).hours,
      6,
    );
  });
  test('cases: weight with what is in them, order of loading, what is in none, what is in two', () => {
    const { pieces, loose } = packingOf(touringRig);
    expect(pieces.map((p) => p.name)).toEqual([
      'Board case',
      'Head trunk',
      'Deck trunk',
      'Stage cabinet, cover',
      'Deck cabinet, cover',
      'Instrument trunk',
      'Lead trunk',
      'Tide rack',
    ]);
    const head = pieces.find((p) => p.id === 'head-trunk')!;
    expect(head).toMatchObject({ grams: 11_000 + 20_000, lift: true, order: 2 });
    // What it carries, with the leads that stay in it.
    const rack = pieces.at(-1)!;
    const within = (id: string) => rack.devices.some((d) => d.id === id);
    expect(rack.leads.map((c) => c.lead.id)).toEqual(
      touringRig.leads
        .filter((l) => l.type !== 'inside' && within(l.from.device) && within(l.to.device))
        .map((l) => l.id),
    );
    const bare = rackSums(touringRig, touringRig.racks![0]!).grams;
    expect(rack.grams).toBeGreaterThan(bare);
    expect(rack.grams).toBeLessThan(bare + 3000);
    expect(loose).toEqual([]);
    const twice = {
      ...touringRig,
      cases: [...touringRig.cases!, { id: 'x', name: 'X', holds: ['head'] }],
    };
    expect(packingOf(twice).twice.map((d) => d.id)).toEqual(['head']);
    const gone = applyEdits(touringRig, [{ edit: 'removeRack', rack: 'tide-rack' }]);
    expect(gone.ok && packingOf(gone.value.rig).loose.length).toBeGreaterThan(10);
  });
  test.each(DEMO_RIGS.map((r) => [r.name, r] as const))(
    '%s weighs the same on every screen: all that is carried, its leads, mains leads and a spare of each type',
    (_, rig) => {
      const packing = packingOf(rig);
      expect(budgetOf(rig).find((b) => b.id === 'grams')!.value).toBe(packing.grams);
      // Every lead that can be carried is in one piece or coiled, once.
      const staying = packing.pieces.flatMap((p) => p.leads);
      const coiled = packing.coiled.filter((c) => c.what === 'lead');
      expect(staying.length + coiled.length).toBe(cutList(rig).cuts.length);
      const types = new Set(
        cutList(rig)
          .cuts.filter((c) => !staying.some((s) => s.lead.id === c.lead.id))
          .map((c) => c.lead.type),
      );
      const spares = packing.coiled.filter((c) => c.what === 'spare').map((c) => c.words);
      for (const type of types) expect(spares.some((w) => w.startsWith(`${type} lead`))).toBe(true);
      // In two cases it still weighs once.
      const [inside] = packing.pieces.flatMap((p) => (p.carriers.length ? [] : p.devices));
      if (!inside) return;
      const both = [...(rig.cases ?? []), { id: 'again', name: 'Again', holds: [inside.id] }];
      expect(packingOf({ ...rig, cases: both }).grams).toBeCloseTo(packing.grams, 6);
    },
  );
  test('plugs are counted by shape and sex: a balanced lead has a socket where it takes and pins where it gives', () => {
    const rig = rigOf(
      [device('m', 'microphone', 'Mic'), device('c', 'console-input', 'Desk')],
      [lead('1', 'm.out', 'c.in', 8, 'balanced')],
    );
    expect(cutList(rig).plugs.map((p) => [plugWords(p), p.count])).toEqual([
      ['XLR female', 1],
      ['XLR male', 1],
    ]);
    // What is counted is what is cut, plug by plug.
    for (const r of DEMO_RIGS) {
      const list = cutList(r);
      const sum = list.plugs.reduce((n, p) => n + p.count, 0);
      const shared = list.cuts.filter((c) => c.lead.type === 'insert').length;
      expect(sum).toBeLessThanOrEqual(2 * list.cuts.length);
      expect(sum).toBeGreaterThanOrEqual(2 * list.cuts.length - shared);
    }
  });
  test('what goes with a device, a board or a rack when it is taken out', () => {
    const done = applyEdits(touringRig, [
      { edit: 'removeDevice', device: 'head' },
      { edit: 'removeDevice', device: 'mast' },
      { edit: 'removeBoard', board: 'deck-board' },
    ]);
    if (!done.ok) throw new Error(done.problems[0]!.what);
    const { rig } = done.value;
    expect(rig.cases!.find((c) => c.id === 'head-trunk')!.holds).toEqual([]);
    expect(rig.cases!.find((c) => c.id === 'board-case')!.holds).toEqual([]);
    expect(rig.stage!.spots.some((s) => s.id === 'head' || s.id === 'deck-board')).toBe(false);
    expect(rig.devices.some((d) => d.at || d.mains?.from)).toBe(false);
  });
  test.each(DEMO_RIGS.map((r) => [r.name, r] as const))(
    '%s has places, power or a reason, and nothing in two places',
    (_, rig) => {
      expect(rig.boards!.length).toBeGreaterThan(0);
      expect(packingOf(rig).twice).toEqual([]);
      expect(rig.devices.filter((d) => d.at && d.rack)).toEqual([]);
    },
  );
  test('places that do not exist are refused in words', () => {
    const no = (edits: Parameters<typeof applyEdits>[1]) => {
      const r = applyEdits(touringRig, edits);
      return r.ok ? 'done' : r.problems[0]!.what;
    };
    expect(no([{ edit: 'placeOnBoard', device: 'kiln', at: { board: 'gone', x: 0, y: 0 } }])).toBe(
      'That board is not there any more.',
    );
    expect(no([{ edit: 'placeInRack', device: 'kiln', rack: { rack: 'gone', unit: 1 } }])).toBe(
      'That rack is not there any more.',
    );
    expect(no([{ edit: 'setCases', cases: [{ id: 'c', name: 'C', holds: ['gone'] }] }])).toBe(
      'there is no device, board or rack "gone" in this rig',
    );
    expect(
      no([
        { edit: 'addBoard', board: { id: 'kiln', name: 'B', width: 300, depth: 200, rails: [] } },
      ]),
    ).toBe('the id "kiln" is used twice; give one of the two another');
  });
});
