import fc from 'fast-check';
import { kindOf } from '../kinds';
import { type Brief, CALLERS, freeName, SWITCHINGS, VOICES, type Way, WAYS } from '../rig';
import { START_INSTRUMENTS, START_PEDALS } from '.';

/** Answers to a start, whatever a person may give: for laws. */
export const anyBrief: fc.Arbitrary<Brief> = fc
  .record({
    sources: fc.array(
      fc.record({
        kind: fc.constantFrom(...START_INSTRUMENTS.map((k) => k.id)),
        wireless: fc.boolean(),
      }),
      { minLength: 1, maxLength: 3 },
    ),
    ends: fc.array(
      fc.record({
        way: fc.constantFrom<Way>(...WAYS),
        not: fc.constantFrom<(string | undefined)[]>(undefined, undefined, undefined, 's0', 's1'),
      }),
      { minLength: 1, maxLength: 5 },
    ),
    pedals: fc.array(fc.constantFrom(...START_PEDALS.map((k) => k.id)), { maxLength: 10 }),
    sounds: fc.integer({ min: 1, max: 5 }),
    means: fc.record({
      together: fc.boolean(),
      voice: fc.constantFrom(...VOICES),
      amps: fc.constantFrom('together', 'one'),
      house: fc.constantFrom('mono', 'stereo'),
      switching: fc.constantFrom(...SWITCHINGS),
      calls: fc.constantFrom(...CALLERS),
    }),
  })
  .map(({ sources, ends, pedals, sounds, means }) => {
    const names: string[] = [];
    const named = (base: string) => {
      const name = freeName(base, names);
      names.push(name);
      return name;
    };
    const hasAmps = means.voice === 'amplifiers' || means.voice === 'modeler';
    const isAmp = (way: Way) => way === 'head' || way === 'combo';
    return {
      sources: sources.map((s, n) => ({ id: `s${n}`, ...s, name: named(kindOf(s.kind).name) })),
      destinations: ends
        .filter(({ way }) => hasAmps || !isAmp(way))
        .map(({ way, not }, n) => ({
          id: `d${n}`,
          way,
          name: named(way),
          ...(not && !isAmp(way) && sources.some((_, i) => `s${i}` === not) && { not: [not] }),
        })),
      gear: pedals.map((kind, n) => ({ id: `g${n}`, kind, name: named(kindOf(kind).name) })),
      sounds: Array.from({ length: sounds }, (_, n) => ({ id: `n${n}`, name: `Sound ${n + 1}` })),
      means,
    } satisfies Brief;
  });
