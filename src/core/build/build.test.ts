import fc from 'fast-check';
import { analyse } from '../report';
import { DEMO_RIGS, flyRig, touringRig } from '../demo';
import {
  billCsv,
  cutListCsv,
  gearFromCsv,
  gearToCsv,
  readCsv,
  wiringFromCsv,
  wiringToCsv,
} from '../formats';
import { applyEdits, problemLines, type Rig } from '../rig';
import { device, lead, rigOf } from '../testing/rigs';
import {
  checklist,
  cureEnds,
  cutLength,
  cutList,
  gearSums,
  gramsOf,
  inputList,
  USUAL_MAKING,
} from '.';
import { isHeld } from './lead-needs';

const cut = (id: string, rig = touringRig) => cutList(rig).cuts.find((c) => c.lead.id === id)!;

describe('cut list', () => {
  test.each([
    [0.8, 0.1, 0.05, 1],
    [0.31, 0.1, 0.05, 0.55],
    [6, 0, 0.5, 6],
    [6.01, 0, 0.5, 6.5],
  ])(
    '%d m with %d m at each end in steps of %d m is cut at %d m',
    (metres, slack, step, expected) =>
      expect(cutLength(metres, { ...USUAL_MAKING, slack, step })).toBeCloseTo(expected, 9),
  );
  test('never shorter than the way and its slack, never a step longer', () => {
    fc.assert(
      fc.property(
        fc.integer({ min: 0, max: 5000 }),
        fc.integer({ min: 0, max: 100 }),
        fc.integer({ min: 1, max: 100 }),
        (metres, slack, step) => {
          const [m, s, t] = [metres / 100, slack / 100, step / 100];
          const c = cutLength(m, { ...USUAL_MAKING, slack: s, step: t });
          return c >= m + 2 * s - 1e-6 && c < m + 2 * s + t + 1e-6;
        },
      ),
    );
  });
  test('what each lead ends in, its joints and its capacitance', () => {
    expect(cut('l01')).toMatchObject({ code: 'W01', plugs: ['TS', 'TS'], joints: 4, pF: 80 });
    expect(cut('l18')).toMatchObject({ plugs: ['XLR', 'XLR'], joints: 6 });
    expect(cut('l16')).toMatchObject({ plugs: ['speaker', 'speaker'], pF: null });
    expect(cut('m02')).toMatchObject({ plugs: ['DIN', 'DIN'], joints: 6 });
    expect(cut('m01')).toMatchObject({ plugs: ['USB', 'USB'], joints: 0, made: false, cut: 2 });
    // Two branches into one stereo jack share its plug: two joints for the first, one for the
    // second, two at each far end.
    expect([cut('f11', flyRig).joints, cut('f12', flyRig).joints]).toEqual([4, 3]);
    const trs = rigOf(
      [device('l', 'looper', 'L'), device('s', 'slicer', 'S')],
      [lead('1', 'l.midiThru', 's.midiIn', 1, 'midi')],
    );
    expect(cutList(trs).cuts[0]!.plugs).toEqual(['TRS', 'TRS']);
  });
  test('sums add up, and every wire has its own code', () => {
    const list = cutList(touringRig);
    expect(list.joints).toBe(list.cuts.reduce((s, c) => s + c.joints, 0));
    expect(list.stock.reduce((s, x) => s + x.metres, 0)).toBeCloseTo(
      list.cuts.reduce((s, c) => s + c.cut, 0),
      6,
    );
    expect(list.hours).toBeCloseTo(
      (list.joints * 4 + list.cuts.filter((c) => c.made).length * 6 + list.ties * 0.5) / 60,
      9,
    );
    expect(new Set(list.cuts.map((c) => c.code)).size).toBe(list.cuts.length);
    expect(
      cutList({ ...touringRig, making: { ...USUAL_MAKING, perJoint: 0, perLead: 3, perTie: 0 } })
        .hours,
    ).toBeCloseTo((list.cuts.filter((c) => c.made).length * 3) / 60, 9);
  });
});

describe('lists as CSV', () => {
  test('gear out and in again changes nothing but what was written', () => {
    const read = gearFromCsv(touringRig, gearToCsv(touringRig));
    if (!read.ok) throw new Error(problemLines(read.problems).join());
    const done = applyEdits(touringRig, read.value);
    expect(
      done.ok &&
        done.value.rig.devices.map((d) => [d.id, d.name, d.kind, d.maker, d.place, d.notes]),
    ).toEqual(touringRig.devices.map((d) => [d.id, d.name, d.kind, d.maker, d.place, d.notes]));
  });
  test.each(DEMO_RIGS.map((r) => [r.id, r] as const))(
    'gear and wiring of %s, read into an empty rig, are what the tables said: hosts, conductors, plugs',
    (_, demo) => {
      const rig: Rig = {
        ...demo,
        leads: demo.leads.map((l, i) =>
          i % 3 || l.type === 'inside' ? l : { ...l, plugs: { to: 'flat' }, pF: 100 + i },
        ),
      };
      // Blocks before the host that they live in, as a sorted sheet may have them.
      const [head, ...rows] = gearToCsv(rig).trimEnd().split('\r\n');
      const gear = gearFromCsv(rigOf([], []), [head, ...rows.toReversed()].join('\r\n'));
      if (!gear.ok) throw new Error(problemLines(gear.problems).join());
      const made = applyEdits(rigOf([], []), gear.value);
      if (!made.ok) throw new Error(problemLines(made.problems).join());
      const wiring = wiringFromCsv(made.value.rig, wiringToCsv(rig));
      if (!wiring.ok) throw new Error(problemLines(wiring.problems).join());
      const done = applyEdits(made.value.rig, wiring.value);
      if (!done.ok) throw new Error(problemLines(done.problems).join());
      expect(done.value.rig.leads).toEqual(rig.leads);
      const sorted = (r: Rig) => gearToCsv(r).split('\r\n').toSorted();
      expect(sorted(done.value.rig)).toEqual(sorted(rig));
    },
  );
  test('a new row is a new device; every row with something wrong is told and nothing is taken', () => {
    const read = gearFromCsv(
      touringRig,
      'name,kind,serial,owned,weight g,value\nKiln ' +
        'Drive,drive-mid,K-77,yes,410,180\nSpare Kiln,"Drive, mid gain",,no,,\n',
    );
    const done = read.ok ? applyEdits(touringRig, read.value) : undefined;
    expect(done?.ok && done.value.rig.devices.find((d) => d.id === 'kiln')!.gear).toEqual({
      serial: 'K-77',
      owner: 'Iseult Brannoch',
      owned: true,
      grams: 410,
      value: 180,
    });
    expect(done?.ok && done.value.rig.devices.at(-1)).toMatchObject({
      id: 'spare-kiln',
      kind: 'drive-mid',
      gear: { owned: false },
    });
    const bad = gearFromCsv(
      touringRig,
      'name,kind,place,owned,weight g\nKiln Drive,boost,,,\n,drive-mid,,,\nX,nothing,moon,maybe,-3\n',
    );
    expect(bad.ok ? [] : problemLines(bad.problems)).toEqual([
      'row 2: Kiln Drive is a Drive, mid gain in this rig, not a Boost; replace it there first',
      'row 3: the device has no name',
      'row 4: there is no kind "nothing"; the kinds are listed in docs/kinds.md, and own gear in the rig',
      'row 4: "moon" is no place; choose player, floor, rack, amps, house',
      'row 4: "maybe" under owned: write yes or no',
      'row 4: "-3" is no weight in grams',
    ]);
  });
  test(
    'wiring out and in again changes nothing; a length, a lead plugged elsewhere and a ' +
      'new one are taken; what does not fit is told',
    () => {
      const same = wiringFromCsv(touringRig, wiringToCsv(touringRig));
      expect(same).toEqual({ ok: true, value: [] });
      const head = 'id,from device,from jack,to device,to jack,type,length m\n';
      const read = wiringFromCsv(
        touringRig,
        `${head}l08,brine,out,flare,in,instrument,0.4\nl09,kiln,out,Brine ` +
          `Drive,in,,0.2\nl07,sub,out,kiln,in,,0.2\nl10,flare,out,vesk,in,instrument,0.9\n,fork,tuner,tuner,in,,1\n`,
      );
      expect(read.ok ? [] : problemLines(read.problems)).toEqual([
        expect.stringContaining('row 6: Fork has no jack "tuner"'),
      ]);
      const good = wiringFromCsv(
        touringRig,
        `${head}l08,brine,out,flare,in,instrument,0.4\nl09,kiln,out,Brine ` +
          `Drive,in,,0.2\nl07,sub,out,kiln,in,,0.2\nl10,flare,out,vesk,in,instrument,0.9\n`,
      );
      const done = good.ok ? applyEdits(touringRig, good.value) : undefined;
      expect(
        done?.ok &&
          done.value.rig.leads
            .filter((l) => ['l07', 'l08', 'l09', 'l10'].includes(l.id))
            .map((l) => `${l.id} ${l.from.device}>${l.to.device} ${l.metres}`)
            .sort(),
      ).toEqual([
        'l07 sub>kiln 0.2',
        'l08 brine>flare 0.4',
        'l09 kiln>brine 0.2',
        'l10 flare>vesk 0.9',
      ]);
      const bad = wiringFromCsv(
        touringRig,
        `${head},kiln,out,echo,in,,99999\n,tuner,out,head,in,,2\n`,
      );
      expect(bad.ok ? [] : problemLines(bad.problems)).toEqual([
        'row 2: "99999" is no length; give 0 to 500 m',
      ]);
      const taken = wiringFromCsv(touringRig, `${head},tuner,out,head,in,,2\n`);
      expect(taken.ok ? [] : problemLines(taken.problems)[0]).toContain('a jack takes one lead');
    },
  );
  test('hostile names are harmless in every list', () => {
    const rig = {
      ...touringRig,
      devices: touringRig.devices.map((d) =>
        d.id === 'kiln' ? { ...d, name: '=HYPERLINK("x")', maker: '+cmd', notes: '@a,"b"\nc' } : d,
      ),
    };
    for (const text of [gearToCsv(rig), cutListCsv(rig), wiringToCsv(rig), billCsv(rig)])
      for (const cell of text.split(/\r\n/).flatMap((l) => l.split(',')))
        expect(cell).not.toMatch(/^"?[=+@]/);
    const read = readCsv(gearToCsv(rig), ['name']);
    expect(read.ok && read.value.rows.find((r) => r.cells.id === 'kiln')!.cells).toMatchObject({
      name: '=HYPERLINK("x")',
      maker: '+cmd',
      notes: '@a,"b"\nc',
    });
  });
});

test('weights: the unit’s own before its kind’s; what takes two persons is named', () => {
  const rig = rigOf(
    [
      device('a', 'head-tube-two', 'Head', { gear: { grams: 25_000 } }),
      device('b', 'boost', 'Boost'),
      device('c', 'playback', 'Tracks', { gear: { value: 500, owned: false } }),
    ],
    [],
  );
  expect(gramsOf(rig.devices[0]!)).toBe(25_000);
  expect(gearSums(rig)).toMatchObject({
    devices: 3,
    grams: 25_000 + 350 + 700,
    value: 500,
    toBuy: [{ id: 'c' }],
    heavy: [{ id: 'a' }],
  });
});

test(
  'the input list: what each console input and ear gets, from where, how loud over ' +
    'all sounds, and which are a pair',
  () => {
    const list = inputList(touringRig, analyse(touringRig).sounds);
    const of = (name: string) => list.find((l) => l.name === name)!;
    expect(list.map((l) => l.hears)).not.toContain('stage');
    expect(of('House, cabinet mic')).toMatchObject({
      from: 'Cabinet mic',
      feed: 'balanced, microphone level',
      stereo: 'mono',
      phantom: 'off',
    });
    expect(of('House, wide pair, left')).toMatchObject({
      from: 'Dome Reverb',
      feed: 'balanced, line level',
      stereo: 'left of a pair',
    });
    expect(of('Odd’s in-ears, left').sources).toEqual(['Tide tracks, click']);
    const levels = analyse(touringRig).sounds.flatMap(
      (s) => s.destinations.find((d) => d.device === 'house')!.levelDbu?.normal ?? [],
    );
    expect([of('House, cabinet mic').quietDbu, of('House, cabinet mic').loudDbu]).toEqual([
      Math.min(...levels),
      Math.max(...levels),
    ]);
    expect(of('Iseult’s in-ears, right')).toMatchObject({
      from: 'not connected',
      quietDbu: null,
      peakDbu: null,
    });
  },
);

describe('checklist', () => {
  const parts = checklist(touringRig);
  test('follows the working order; audio from the shortest lead; every lead is run, tested and labelled', () => {
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
    const metres = parts
      .find((p) => p.id === 'audio')!
      .steps.map((s) => touringRig.leads.find((l) => `run ${l.id}` === s.id)!.metres);
    expect(metres).toEqual([...metres].sort((a, b) => a - b));
    const real = touringRig.leads.filter((l) => l.type !== 'air' && l.type !== 'inside');
    for (const l of real)
      expect(parts.flatMap((p) => p.steps).filter((s) => s.id.endsWith(` ${l.id}`)).length).toBe(
        l.type === 'usb' ? 2 : 3,
      );
    expect(parts.find((p) => p.id === 'paths')!.steps.map((s) => s.words)).toEqual(
      touringRig.sounds.map((s) => `${s.name}: listen at all 7 destinations`),
    );
  });
  test('dial-in: amplifiers, reverb, delay, then drives as the signal meets them', () => {
    expect(parts.find((p) => p.id === 'dial')!.steps.map((s) => s.id.split(' ')[1])).toEqual(
      ['head', 'deck', 'sim', 'dome', 'echo', 'brine', 'kiln', 'flare', 'levels'].sort((a, b) =>
        ['head', 'sim', 'deck'].includes(a) && ['head', 'sim', 'deck'].includes(b)
          ? parts.find((p) => p.id === 'dial')!.steps.findIndex((s) => s.id === `dial ${a}`) -
            parts.find((p) => p.id === 'dial')!.steps.findIndex((s) => s.id === `dial ${b}`)
          : 0,
      ),
    );
  });
  test('ticks keep person and time; nobody ticks for nobody; the timer has its end', () => {
    const ticked = applyEdits(touringRig, [
      { edit: 'tick', step: 'tie', by: ' OF ', at: '2026-11-25T10:00:00Z' },
      { edit: 'setCure', from: '2026-11-25T10:00:00Z', hours: 6 },
    ]);
    expect(ticked.ok && ticked.value.rig.done).toEqual({
      ticks: [{ id: 'tie', by: 'OF', at: '2026-11-25T10:00:00Z' }],
      cureFrom: '2026-11-25T10:00:00Z',
      cureHours: 6,
    });
    expect(ticked.ok && new Date(cureEnds(ticked.value.rig)!).toISOString()).toBe(
      '2026-11-25T16:00:00.000Z',
    );
    const nobody = applyEdits(touringRig, [
      { edit: 'tick', step: 'tie', by: ' ', at: '2026-11-25T10:00:00Z' },
    ]);
    expect(nobody.ok ? '' : nobody.problems[0]!.what).toContain('who did it');
  });
});

test('a lead that a player holds is as long as was entered, whatever the way along the stage', () => {
  const held = touringRig.leads.filter((l) => isHeld(touringRig, l) && l.type !== 'air');
  expect(held.map((l) => l.from.device)).toEqual(expect.arrayContaining(['bari', 'steel']));
  const list = cutList(touringRig);
  for (const l of held) {
    const c = list.cuts.find((x) => x.lead === l)!;
    expect([c.routed, c.cut, c.short, c.how]).toEqual([null, l.metres, 0, 'as the player moves']);
  }
  // The others have their ways as before.
  expect(list.cuts.some((c) => c.routed !== null)).toBe(true);
});
