import { DEMO_RIGS, touringRig } from '../../demo';
import { chainOf, device, lead, rigOf, sound as soundOf } from '../../testing/rigs';
import type { Rig } from '../../rig/schema';
import { Listener } from '../effects';
import { bitOf, symptomWords } from '../symptoms';
import { type Fault, faultsOf, SORT_IDS, SORTS, wholeOf } from '.';
import { freeOutletFor } from './power-faults';

const faultIn = (rig: Rig, id: string): Fault => {
  const found = faultsOf(wholeOf(rig)).find((f) => f.id === id);
  if (!found) throw new Error(`no fault ${id}`);
  return found;
};
/** What is noticed at each ear of a rig with a fault, in one of its sounds. */
const noticedIn = (rig: Rig, id: string, on?: string): Record<string, string> => {
  const listener = new Listener(rig);
  const sound = listener.sounds.find((s) => s.id === on) ?? listener.sounds[0]!;
  const bits = listener.noticed(faultIn(rig, id).change(listener.whole), sound);
  return Object.fromEntries(listener.ears.map((e, i) => [e.device, symptomWords(bits[i]!)]));
};

/** A guitar, a true-bypass drive, a buffer, into an amplifier with a loop, a cabinet and a microphone. */
const rig: Rig = rigOf(
  [
    device('g', 'guitar-humbucker', 'Guitar'),
    device('t', 'tuner-true-bypass', 'Tuner', { supply: { device: 's', outlet: '1' } }),
    device('b', 'buffer', 'Buffer', { supply: { device: 's', outlet: '2' } }),
    device('d', 'drive-mid', 'Drive', { supply: { device: 's', outlet: '1' } }),
    device('a', 'combo-tube-loop', 'Combo'),
    device('m', 'microphone', 'Mic'),
    device('h', 'console-input', 'House'),
    device('s', 'supply-isolated', 'Supply'),
  ],
  [
    lead('l1', 'g.out', 't.in', 2, 'instrument'),
    lead('l2', 't.out', 'b.in', 2, 'instrument'),
    lead('l3', 'b.out', 'd.in', 2, 'instrument'),
    lead('l4', 'd.out', 'a.in', 2, 'instrument'),
    lead('l5', 'a.air', 'm.air', 0.05, 'air'),
    lead('l6', 'm.out', 'h.in', 10, 'balanced'),
  ],
  [soundOf('clean', 'Clean', []), soundOf('dirty', 'Dirty', ['d'])],
);

describe('what breaks and what comes of it', () => {
  test('a lead that is open or short is silence; loose, it crackles; an open shield hums and dulls', () => {
    for (const l of ['l1', 'l2', 'l3', 'l4', 'l6']) {
      expect(noticedIn(rig, `lead open ${l}`).h).toBe('silent');
      expect(noticedIn(rig, `lead short ${l}`).h).toBe('silent');
      expect(noticedIn(rig, `lead loose ${l}`).h).toContain('crackle');
    }
    expect(noticedIn(rig, 'lead shield l1').h).toContain('hum');
    expect(noticedIn(rig, 'lead shield l1').h).toContain('thin or dull');
  });

  test('without power a true bypass still passes, a buffer does not', () => {
    expect(noticedIn(rig, 'dead t').h).toBe('all fine');
    expect(noticedIn(rig, 'dead b').h).toBe('silent');
    expect(noticedIn(rig, 'dead d', 'clean').h).toBe('all fine');
    expect(noticedIn(rig, 'dead d', 'dirty').h).toContain('wrong effect');
  });

  test('an outlet takes all that hangs on it, a supply all its outlets', () => {
    expect(faultIn(rig, 'outlet dead s 1').dark.sort()).toEqual(['d', 't']);
    expect(faultIn(rig, 'supply dead s').dark.sort()).toEqual(['b', 'd', 's', 't']);
    expect(noticedIn(rig, 'outlet dead s 1', 'clean').h).toBe('all fine');
    expect(noticedIn(rig, 'supply dead s', 'clean').h).toBe('silent');
  });

  test('stuck through, stuck engaged, noisy, weak', () => {
    expect(noticedIn(rig, 'stuck through d', 'dirty').h).toContain('wrong effect');
    expect(noticedIn(rig, 'stuck through d', 'clean').h).toBe('all fine');
    expect(noticedIn(rig, 'stuck engaged d', 'clean').h).toContain('wrong effect');
    expect(noticedIn(rig, 'noisy b').h).toContain('hiss');
    expect(noticedIn(rig, 'weak b').h).toContain('weaker');
  });

  test('the hand: tuner, volume, standby; and a plug left in the loop of the amplifier', () => {
    expect(noticedIn(rig, 'hand tuner t').h).toBe('silent');
    expect(noticedIn(rig, 'hand volume g').h).toBe('silent');
    expect(noticedIn(rig, 'standby a').h).toBe('silent');
    expect(faultIn(rig, 'standby a').dark).toEqual([]);
    const left = faultsOf(wholeOf(rig)).find((f) => f.id.startsWith('plug left a'))!;
    expect(noticedIn(rig, left.id).h).toBe('silent');
    expect(noticedIn(rig, left.id.replace('plug left', 'contact stuck')).h).toBe('silent');
  });

  test('a normalled jack stays broken while the plug of an open lead is in it', () => {
    const looped = rigOf(
      [...rig.devices, device('e', 'delay', 'Echo')],
      [
        ...rig.leads,
        lead('l7', 'a.send', 'e.in', 2, 'instrument'),
        lead('l8', 'e.out', 'a.return', 2, 'instrument'),
      ],
      rig.sounds,
    );
    expect(noticedIn(looped, 'lead open l8').h).toBe('silent');
  });

  test('MIDI: what is not reached stays as it was; a wrong channel and an overwritten program likewise', () => {
    const faults = faultsOf(wholeOf(touringRig));
    const midi = faults.filter((f) => f.sort === 'midi');
    expect(midi.some((f) => f.id.startsWith('midi lead'))).toBe(true);
    const listener = new Listener(touringRig);
    const heard = (f: Fault) =>
      listener.sounds.some((s) =>
        listener.noticed(f.change(listener.whole), s).some((bits) => bits & bitOf('effect')),
      );
    expect(midi.filter((f) => f.id.startsWith('channel')).some(heard)).toBe(true);
    expect(faults.filter((f) => f.sort === 'program').some(heard)).toBe(true);
  });
});

describe('laws', () => {
  test('every sort is in the demo rigs, ids are different, odds are positive, words say what and how to mend', () => {
    const all = DEMO_RIGS.flatMap((r) => faultsOf(wholeOf(r)));
    expect(new Set(all.map((f) => f.sort))).toEqual(new Set(SORT_IDS));
    for (const r of DEMO_RIGS) {
      const faults = faultsOf(wholeOf(r));
      expect(new Set(faults.map((f) => f.id)).size).toBe(faults.length);
      const ids = new Set([...r.devices, ...r.leads].map((x) => x.id));
      for (const f of faults) {
        expect(f.perThousand).toBeGreaterThan(0);
        expect(f.words && f.mend.words && SORTS[f.sort].odds).toBeTruthy();
        expect(f.subjects.filter((s) => !ids.has(s))).toEqual([]);
        expect(f.dark.filter((s) => !ids.has(s))).toEqual([]);
        expect(f.mend.seconds).toBeGreaterThan(0);
      }
    }
  });

  test('a whole rig without a fault is all fine, and making a fault leaves the whole as it was', () => {
    for (const r of DEMO_RIGS) {
      const listener = new Listener(r);
      const before = JSON.stringify(listener.whole.rig);
      for (const f of faultsOf(listener.whole)) f.change(listener.whole);
      expect(JSON.stringify(listener.whole.rig)).toBe(before);
      for (const s of listener.sounds)
        expect(listener.noticed({ ...listener.whole }, s).every((b) => b === 0)).toBe(true);
    }
  });

  test('what is taken over of the whole rig changes nothing: figured anew, the same is heard', () => {
    for (const r of DEMO_RIGS) {
      const listener = new Listener(r);
      const faults = faultsOf(listener.whole).filter((_, i) => i % 9 === 0);
      for (const f of faults) {
        const broken = f.change(listener.whole);
        for (const s of listener.sounds.slice(0, 3)) {
          const [near, anew] = [listener.hears(broken, s), listener.hearsAnew(broken, s)];
          near.forEach((h, i) => {
            expect(h.dbu === null).toBe(anew[i]!.dbu === null);
            expect(h.dbu ?? 0).toBeCloseTo(anew[i]!.dbu ?? 0, 9);
            expect(h.made).toBe(anew[i]!.made);
            expect(h.noises).toEqual(anew[i]!.noises);
          });
        }
      }
    }
  });

  test('a good lead in place of the broken one takes its fault with it, and of no other fault', () => {
    for (const r of DEMO_RIGS.slice(0, 3)) {
      const listener = new Listener(r);
      for (const f of faultsOf(listener.whole).filter((x) => x.sort === 'lead')) {
        if (f.swap === undefined) {
          expect(f.id).toMatch(/^leads exchanged/);
          continue;
        }
        // Another lead at the same place: the fault, which is that of the first, finds nothing to break.
        const renamed = {
          ...r,
          leads: r.leads.map((l) => (l.id === f.swap ? { ...l, id: 'good-one' } : l)),
        };
        expect(faultsOf(wholeOf(renamed)).some((x) => x.id === f.id)).toBe(false);
      }
    }
  });

  test('on another outlet what hung on the dead one is well again: figured with it plugged there', () => {
    let tried = 0;
    for (const r of DEMO_RIGS) {
      for (const f of faultsOf(wholeOf(r)).filter((x) => x.id.startsWith('outlet dead')))
        for (const id of f.otherOutlet!) {
          const moved = {
            ...r,
            devices: r.devices.map((d) => {
              if (d.id !== id) return d;
              const { supply: _, ...rest } = d;
              return rest;
            }),
          };
          const after = faultsOf(wholeOf(moved)).find((x) => x.id === f.id);
          expect(after?.dark ?? []).not.toContain(id);
          tried++;
        }
    }
    expect(tried).toBeGreaterThan(5);
  });

  test('an outlet is named only where it is free and fits by voltage, polarity and current', () => {
    const fed = rig.devices.filter((d) => d.supply?.outlet === '1');
    expect(freeOutletFor(rig, fed)).toMatch(/^outlet .* of Supply$/);
    const hungry = fed.map((d) => ({ ...d, power: { volts: 48, milliamps: 10 } }));
    expect(freeOutletFor(rig, hungry)).toBeUndefined();
    const greedy = fed.map((d) => ({ ...d, power: { volts: 9, milliamps: 19_000 } }));
    expect(freeOutletFor(rig, greedy)).toBeUndefined();
    const bare = { ...rig, devices: rig.devices.filter((d) => d.id !== 's') };
    expect(freeOutletFor(bare, fed)).toBeUndefined();
  });

  test('a chain of two hundred has a fault or more for each lead, worked out without trouble', () => {
    const long = chainOf([
      'guitar-single-coil',
      ...Array.from({ length: 198 }, () => 'boost'),
      'console-input',
    ]);
    const faults = faultsOf(wholeOf(long));
    for (const l of long.leads) expect(faults.some((f) => f.subjects.includes(l.id))).toBe(true);
  });

  test('an instrument with a preamplifier is silent without its battery; one of bare pickups has none', () => {
    const active = chainOf(['guitar-active', 'buffer', 'recorder']);
    expect(noticedIn(active, 'battery d0').d2).toBe('silent');
    expect(faultIn(active, 'battery d0').mend.spare).toEqual({ is: 'part', words: 'battery' });
    const bare = faultsOf(wholeOf(chainOf(['guitar-humbucker', 'buffer', 'recorder'])));
    expect(bare.filter((f) => f.id.startsWith('battery'))).toEqual([]);
  });

  test('a plug in the thru in the place of the out, or in an input, calls nothing', () => {
    const midi: Rig = rigOf(
      [
        device('c', 'foot-controller', 'Caller'),
        device('e', 'delay', 'Echo'),
        device('r', 'reverb', 'Room'),
      ],
      [
        lead('m1', 'c.midiOut', 'e.midiIn', 2, 'midi'),
        lead('m2', 'e.midiThru', 'r.midiIn', 1, 'midi'),
      ],
      [soundOf('one', 'One', ['e'])],
    );
    const sockets = faultsOf(wholeOf(midi)).filter((f) => f.id.startsWith('midi socket'));
    expect(sockets.length).toBeGreaterThan(0);
    for (const f of sockets) {
      expect(f.words).toMatch(
        / is in .+, not in .+: (\S+ stays as it was|.+ and .+ stay as they were)$/,
      );
      expect(f.mend.spare).toBeUndefined();
    }
    // What hangs behind the first hangs on its lead, too.
    const first = sockets.find((f) => f.subjects[0] === 'm1')!;
    expect(first.words).toMatch(/: Echo and Room stay as they were$/);
    const second = sockets.find((f) => f.subjects[0] === 'm2')!;
    expect(second.words).toMatch(/: Room stays as it was$/);
  });
});

test('no fault of any demo rig says a word twice in a row', () => {
  for (const rig of DEMO_RIGS) {
    const words = faultsOf(wholeOf(rig)).map((f) => f.words);
    expect(words.length).toBeGreaterThan(50);
    expect(words.filter((w) => /\b(\p{L}{2,}) \1\b/u.test(w))).toEqual([]);
  }
});
