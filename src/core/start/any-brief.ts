import fc from 'fast-check';
import { kindOf } from '../kinds';
import { type Brief, CALLERS, freeName, SWITCHINGS, VOICES, type Way, WAYS } from '../rig';
import { isDigital, isFeed, START_INSTRUMENTS, START_PEDALS } from '.';

/** Sources, of which one is played at least, and one at most has a digital output alone. */
const anySources = fc
  .record({
    first: fc.constantFrom(
      ...START_INSTRUMENTS.filter((k) => !isFeed({ kind: k.id })).map((k) => k.id),
    ),
    more: fc.array(fc.constantFrom(...START_INSTRUMENTS.map((k) => k.id)), { maxLength: 2 }),
    wireless: fc.array(fc.boolean(), { minLength: 3, maxLength: 3 }),
  })
  .map(({ first, more, wireless }) =>
    [first, ...more]
      .filter((kind, n, all) => !isDigital({ kind }) || all.indexOf(kind) === n)
      .map((kind, n) => ({ kind, wireless: wireless[n] === true && !isDigital({ kind }) })),
  );

/** Answers to a start, whatever a person may give: for laws. */
export const anyBrief: fc.Arbitrary<Brief> = fc
  .record({
    sources: anySources,
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
    // All hear what a modeler sends, and a digital line goes to nothing else.
    const areBarred = !sources.some(isDigital);
    const hasAmps = means.voice === 'amplifiers' || means.voice === 'modeler' || !areBarred;
    const isAmp = (way: Way) => way === 'head' || way === 'combo';
    return {
      sources: sources.map((s, n) => ({ id: `s${n}`, ...s, name: named(kindOf(s.kind).name) })),
      destinations: ends
        .filter(({ way }) => hasAmps || !isAmp(way))
        .map(({ way, not }, n) => ({
          id: `d${n}`,
          way,
          name: named(way),
          ...(not &&
            areBarred &&
            !isAmp(way) &&
            sources.some((_, i) => `s${i}` === not) && { not: [not] }),
        })),
      gear: pedals.map((kind, n) => ({ id: `g${n}`, kind, name: named(kindOf(kind).name) })),
      sounds: Array.from({ length: sounds }, (_, n) => ({ id: `n${n}`, name: `Sound ${n + 1}` })),
      means,
    } satisfies Brief;
  });
