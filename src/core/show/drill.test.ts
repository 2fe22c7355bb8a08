import fc from 'fast-check';
import loadHighs from 'highs';
import { touringRig } from '../demo';
import { exactly, type MipSolver } from '../optimum';
import { device, lead, rigOf, sound } from '../testing/rigs';
import { showRig } from '../testing/show-rigs';
import { sizeOf } from '../build';
import { analyse } from '../report';
import { applyEdits } from '../rig';
import type { Rig } from '../rig/schema';
import { type Drill, drillOf } from './drill';
import { Listener } from './effects';
import { faultsOf, type Spare } from './faults';
import { lineCheckOf } from './line-check';
import { usesOf } from './played';
import { rescues, spareKey } from './rescue';
import { rewire } from './rewire';
import { roomLeft, smallestSpares } from './spares';
import { survivals } from './survival';
import { bitOf } from './symptoms';
import { cases } from '../testing/cases';

let solver: MipSolver;
beforeAll(async () => {
  solver = exactly(await loadHighs({}));
});

const SECONDS = 60;
/** Whether one spare does for another, said anew. */
const does = (have: Spare, need: Spare) =>
  have.is === 'lead' && need.is === 'lead'
    ? have.type === need.type && have.metres >= need.metres
    : spareKey(have) === spareKey(need);

/** The fewest spares by trying every set of up to so many. */
function tried(drill: Drill, most: number): number | undefined {
  const needs = drill.losses.flatMap((l) =>
    l.hits.flatMap((h) => {
      return h.bySound.flatMap((x) => {
        const ways = x.ways.filter((w) => w.seconds <= SECONDS);
        return !ways.length || ways.some((w) => !w.spare) ? [] : [ways.map((w) => w.spare!)];
      });
    }),
  );
  const all = [...new Map(needs.flat().map((s) => [spareKey(s), s])).values()];
  const covers = (set: Spare[]) => needs.every((n) => n.some((s) => set.some((h) => does(h, s))));
  const choose = (size: number, from: number, set: Spare[]): boolean =>
    size === 0
      ? covers(set)
      : all.some((s, i) => i >= from && choose(size - 1, i + 1, [...set, s]));
  for (let size = 0; size <= most; size++) if (choose(size, 0, [])) return size;
  return undefined;
}

/** The touring rig with the first song of its set: the same faults, in less time. */
const shortSet: Rig = {
  ...touringRig,
  sets: touringRig.sets!.map((set) => ({ ...set, entries: set.entries.slice(0, 1) })),
};

describe('the failure drill', () => {
  let drill: Drill;
  beforeAll(async () => {
    drill = await drillOf(shortSet, shortSet.sets![0]);
  }, 120_000);

  test('every fault is tried; what nobody notices in the set is counted; the worst is first', () => {
    expect(drill.tried).toBe(faultsOf(new Listener(shortSet).whole).length);
    expect(drill.losses.length + drill.unheard).toBe(drill.tried);
    const weights = drill.losses.map((l) => l.weight);
    expect(weights).toEqual([...weights].sort((a, b) => b - a));
    for (const l of drill.losses) {
      expect(l.hits.length).toBeGreaterThan(0);
      expect(l.songs.length).toBeGreaterThan(0);
      expect(l.secondsHit).toBeGreaterThan(0);
    }
  });

  test('a lead at the head of the rig hits every song that is played on it', () => {
    const first = drill.losses.find((l) => l.fault.id === 'lead open l01')!;
    const songs = shortSet
      .sets![0]!.entries.map((e) => shortSet.songs!.find((s) => s.id === e.song)!)
      .filter((s) =>
        s.sections.some((x) => first.hits[0]!.sounds.some((h) => h.sound === x.sound)),
      );
    expect(first.songs.length).toBe(songs.length);
    expect(first.hits.some((h) => h.silent)).toBe(true);
  });

  test('the smallest set of spares is the smallest, as trying every set finds it', () => {
    const plan = smallestSpares(shortSet, drill, SECONDS, solver);
    expect(plan.take.length).toBe(tried(drill, plan.take.length));
    for (const item of plan.take) expect(item.cures.length).toBeGreaterThan(0);
    expect(plan.grams).toBe(plan.take.reduce((s, i) => s + (i.grams ?? 0), 0));
    const silent = drill.losses.filter((l) => l.hits.some((h) => h.silent)).length;
    // Each fault that silences somebody is one of the three: by hands, by a spare everywhere, or not.
    expect(plan.proven).toBe(true);
    expect(plan.without + plan.never.length + plan.cured).toBe(silent);
  });

  test('a way is told for each silent sound, and the quickest is never quicker than the sound it helps least', () => {
    for (const l of drill.losses)
      for (const h of l.hits) {
        const silent = h.sounds.filter((s) => s.bits & bitOf('silent')).map((s) => s.sound);
        expect(h.bySound.map((x) => x.sound).sort()).toEqual([...silent].sort());
        for (const { ways } of h.bySound)
          for (const w of ways) expect(w.left & bitOf('silent')).toBe(0);
      }
    const slowest = drill.losses.flatMap((l) =>
      l.withSpares === undefined
        ? []
        : [
            [
              l.withSpares,
              Math.max(0, ...l.hits.flatMap((h) => h.bySound.map((x) => x.ways[0]!.seconds))),
            ],
          ],
    );
    for (const [told, worst] of slowest) expect(told).toBe(worst);
  });

  test('spares take room, against what the cases have left where these have measures', () => {
    const plan = smallestSpares(shortSet, drill, SECONDS, solver);
    const litres = plan.take.reduce((sum, i) => sum + (i.litres ?? 0), 0);
    expect(plan.litres).toBeCloseTo(litres, 9);
    const lead3 = plan.take.find((i) => i.spare.is === 'lead')!;
    if (lead3.spare.is === 'lead')
      expect(lead3.litres).toBeCloseTo(0.3 + 0.15 * lead3.spare.metres, 9);
    const one = { id: 'c', name: 'C', width: 500, depth: 400, height: 300 };
    const holding = (holds: string[]) => roomLeft({ ...shortSet, cases: [{ ...one, holds }] });
    // 60 litres, of which 60 % can be filled.
    expect(holding([])).toBeCloseTo(36, 9);
    const box = shortSet.devices.find((d) => sizeOf(d))!;
    const { width, depth, height } = sizeOf(box)!;
    expect(holding([box.id])).toBeCloseTo(36 - (width * depth * height) / 1e6, 9);
    expect(roomLeft({ ...shortSet, cases: [{ id: 'c', name: 'C', holds: [] }] })).toBeNull();
  });

  test('a promise to come back is held against the seconds of the drill', () => {
    const promises = shortSet.devices
      .filter((d) => drill.losses.some((l) => l.fault.id === `dead ${d.id}`))
      .map((d) => ({
        id: `p-${d.id}`,
        type: 'survives' as const,
        device: d.id,
        actions: 2,
        destination: drill.losses.find((l) => l.fault.id === `dead ${d.id}`)!.hits[0]!.ear,
      }));
    const promised: Rig = { ...shortSet, promises };
    const none = { ...smallestSpares(shortSet, drill, SECONDS, solver), take: [] };
    const all = smallestSpares(shortSet, drill, 3600, solver);
    const [bare, equipped] = [none, all].map((plan) => survivals(promised, drill, plan, SECONDS));
    expect(bare!.length).toBe(promises.length);
    expect(bare!.length).toBeGreaterThan(3);
    bare!.forEach((b, i) => {
      const e = equipped![i]!;
      // Spares never make it slower, and it is kept exactly when it is in time.
      expect(e.seconds ?? Infinity).toBeLessThanOrEqual(b.seconds ?? Infinity);
      for (const s of [b, e]) expect(s.kept).toBe(s.seconds !== null && s.seconds <= SECONDS);
      const p = promises[i]!;
      const loss = drill.losses.find((l) => l.fault.id === `dead ${p.device}`)!;
      const hands = loss.hits
        .filter((h) => h.ear === p.destination)
        .flatMap((h) => h.bySound.map((x) => x.ways.find((w) => !w.spare)?.seconds ?? Infinity));
      expect(b.seconds ?? Infinity).toBe(Math.max(0, ...hands));
    });
    expect(survivals(shortSet, drill, all, SECONDS).every((s) => s.words.includes('dies'))).toBe(
      true,
    );
  });

  test('more time asks for no more spares, and each further spare saves something', () => {
    const sizes = [30, 60, 120, 300].map(
      (s) => smallestSpares(shortSet, drill, s, solver).never.length,
    );
    expect(sizes).toEqual([...sizes].sort((a, b) => b - a));
    for (const f of smallestSpares(shortSet, drill, SECONDS, solver).further)
      expect(f.saves).toBeGreaterThan(0);
  });
});

describe('what a step of the line check says', () => {
  test('where it was done, all was fine at the ears at which nothing else is heard in its sound', () => {
    for (const rig of [touringRig, ...fc.sample(showRig, { numRuns: 4, seed: 11 })]) {
      const { steps } = lineCheckOf(rig, rig.sets?.[0], solver);
      const report = analyse(rig);
      for (const step of steps.filter((s) => s.part === 'plays')) {
        const heard = report.sounds.find((s) => s.sound === step.sound);
        for (const ear of step.alone ?? []) {
          const sources = heard?.destinations.find((d) => d.device === ear)?.sources ?? [];
          const instruments = new Set(sources.map((s) => s.split('/')[0]));
          expect([step.words, ear, instruments.size]).toEqual([step.words, ear, 1]);
        }
      }
      const others = steps.filter((s) => s.part !== 'plays');
      expect(others.every((s) => s.alone === undefined)).toBe(true);
    }
  });
});

describe('sound back', () => {
  test('every way that is offered brings sound: figured anew on the broken rig, in random rigs', () => {
    let offered = 0;
    for (const rig of fc.sample(showRig, { numRuns: cases(5, 12), seed: 7 })) {
      const listener = new Listener(rig);
      const faults = faultsOf(listener.whole).filter((_, i) => i % 6 === 0);
      for (const fault of faults)
        for (const sound of listener.sounds)
          listener.ears.forEach((_, e) => {
            const bits = listener.noticed(fault.change(listener.whole), sound)[e]!;
            if (!(bits & bitOf('silent'))) return;
            const [ways = []] = rescues(listener, fault, sound, [e]);
            for (const w of ways) {
              offered++;
              expect(w.left & bitOf('silent')).toBe(0);
              expect(w.seconds).toBeGreaterThan(0);
            }
            const seconds = ways.map((w) => w.seconds);
            expect(seconds).toEqual([...seconds].sort((a, b) => a - b));
            // None is slower than one with the same spare, or than one without.
            const spares = ways.map((w) => (w.spare ? spareKey(w.spare) : 'hands'));
            expect(new Set(spares).size).toBe(spares.length);
            expect(spares.slice(0, -1)).not.toContain('hands');
          });
    }
    expect(offered).toBeGreaterThan(20);
  });

  test('an emergency input counts: the instrument goes straight into the amplifier', () => {
    const rig: Rig = rigOf(
      [
        device('g', 'guitar-humbucker', 'Guitar'),
        device('b', 'buffer', 'Buffer'),
        device('a', 'combo-tube', 'Combo'),
      ],
      [lead('l1', 'g.out', 'b.in', 2, 'instrument'), lead('l2', 'b.out', 'a.in', 3, 'instrument')],
      [sound('one', 'One', [])],
    );
    const listener = new Listener(rig);
    const fault = faultsOf(listener.whole).find((f) => f.id === 'dead b')!;
    const [ways = []] = rescues(listener, fault, listener.sounds[0]!, [0]);
    expect(ways.map((w) => w.words)).toContain(
      'plug Guitar straight into Combo with the emergency lead',
    );
    expect(ways.some((w) => w.words.startsWith('go around Buffer'))).toBe(true);
  });
});

describe('no way to sound brings a danger', () => {
  /** Two heads on a switcher for amplifiers, each with a cabinet; those not chosen have a load or none. */
  const heads = (unselected: 'load' | 'open'): Rig =>
    rigOf(
      [
        device('g', 'guitar-humbucker', 'Guitar'),
        device('w', 'amp-switcher', 'Switcher', { settings: { amp: '1', cab: '1', unselected } }),
        device('h1', 'head-tube', 'One'),
        device('h2', 'head-tube', 'Two'),
        device('c', 'cabinet', 'Cabinet'),
      ],
      [
        lead('l1', 'g.out', 'w.in', 3, 'instrument'),
        lead('l2', 'w.amp1', 'h1.in', 1, 'instrument'),
        lead('l3', 'w.amp2', 'h2.in', 1, 'instrument'),
        lead('l4', 'h1.speaker', 'w.speaker1', 1, 'speaker'),
        lead('l5', 'h2.speaker', 'w.speaker2', 1, 'speaker'),
        lead('l6', 'w.cab1', 'c.in', 1, 'speaker'),
      ],
      [sound('one', 'One', [])],
    );
  const waysIn = (rig: Rig) => {
    const listener = new Listener(rig);
    const fault = faultsOf(listener.whole).find((f) => f.id === 'dead h1')!;
    return rescues(listener, fault, listener.sounds[0]!, [0])[0]!.map((w) => w.words);
  };

  test('the other head is chosen where the first keeps a load, and is not where it would have none', () => {
    expect(waysIn(heads('load'))).toContain('set Switcher, Amplifier: 2');
    expect(waysIn(heads('open')).filter((w) => w.includes('Switcher'))).toEqual([]);
    // What was left out would have left the first head, still warm, without its load.
    const chosen = heads('open').devices.map((d) =>
      d.id === 'w' ? { ...d, settings: { ...d.settings, amp: '2' } } : d,
    );
    const dangers = analyse({ ...heads('open'), devices: chosen }).findings.filter(
      (f) => f.severity === 'danger',
    );
    expect(dangers.flatMap((f) => f.subjects)).toContain('h1');
  });
});

describe('a second way', () => {
  const rig: Rig = rigOf(
    [
      device('g', 'guitar-humbucker', 'Guitar'),
      device('y', 'splitter-buffered', 'Fork', { settings: { select: 'both' } }),
      device('b', 'buffer', 'Buffer'),
      device('s', 'input-selector', 'Selector', { settings: { select: 'a' } }),
      device('a', 'combo-tube', 'Combo'),
    ],
    [
      lead('l1', 'g.out', 'y.in', 2, 'instrument'),
      lead('l2', 'y.a', 'b.in', 1, 'instrument'),
      lead('l3', 'b.out', 's.a', 1, 'instrument'),
      lead('l4', 's.out', 'a.in', 3, 'instrument'),
    ],
    [sound('one', 'One', [])],
  );

  test('a lead between free jacks and one press, with which nothing else is heard otherwise', () => {
    const listener = new Listener(rig);
    const fault = faultsOf(listener.whole).find((f) => f.id === 'dead b')!;
    const found = rewire(listener, fault, 'one', 0)!;
    expect(found.words).toMatch(/^A lead from .* of Fork to .* of Selector: then set Selector/);
    const made = applyEdits(rig, found.edits);
    expect(made.ok).toBe(true);
    if (!made.ok) return;
    const after = new Listener(made.value.rig);
    expect(after.means(after.sounds[0]!)[0]!.dbu).toBeCloseTo(
      listener.means(listener.sounds[0]!)[0]!.dbu!,
      1,
    );
  });

  test('where no jack is free there is none', () => {
    const bare = { ...rig, devices: rig.devices.filter((d) => d.id !== 's') };
    const joined = {
      ...bare,
      leads: [rig.leads[0]!, rig.leads[1]!, lead('l3', 'b.out', 'a.in', 3, 'instrument')],
    };
    const listener = new Listener(joined);
    const fault = faultsOf(listener.whole).find((f) => f.id === 'dead a')!;
    expect(rewire(listener, fault, 'one', 0)).toBeUndefined();
  });
});

describe('the line check', () => {
  /** The fewest plays by trying every set of sounds with one instrument. */
  test('covers every lead that any sound uses, in fewer plays than sounds times instruments', () => {
    const check = lineCheckOf(touringRig, touringRig.sets![0], solver);
    const plays = check.steps.filter((s) => s.part === 'plays');
    const used = usesOf(touringRig, touringRig.sets![0]).filter((u) => u.seconds > 0).length;
    expect(plays.length).toBeGreaterThan(0);
    expect(plays.length).toBeLessThan(used * 3);
    expect(check.steps.at(-1)!.sound).toBe(touringRig.songs![0]!.sections[0]!.sound);
    expect(check.steps[0]!.part).toBe('ears');
    expect(new Set(check.steps.map((s) => s.id)).size).toBe(check.steps.length);
  });

  test('no play can be left out, and none of fewer plays covers as much, in random rigs', () => {
    for (const rig of fc.sample(showRig, { numRuns: cases(12, 25), seed: 3 })) {
      const all = lineCheckOf(rig, undefined, solver);
      const plays = all.steps.filter((s) => s.part === 'plays').length;
      // One sound fewer: either it covers less, or as many plays are needed.
      const one = { ...rig, sounds: rig.sounds.slice(0, 1) };
      const less = lineCheckOf(one, undefined, solver);
      if (plays === 2) expect(less.covered).toBeLessThan(all.covered);
      expect(plays).toBeLessThanOrEqual(2);
    }
  });

  test('programs of the set that no play calls are called by themselves', () => {
    const check = lineCheckOf(touringRig, touringRig.sets![0], solver);
    const called = new Set(
      check.steps.filter((s) => ['plays', 'programs'].includes(s.part)).map((s) => s.sound),
    );
    for (const u of usesOf(touringRig, touringRig.sets![0]))
      if (u.seconds > 0) expect(called.has(u.sound)).toBe(true);
  });
});
