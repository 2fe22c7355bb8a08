import fc from 'fast-check';
import { COUNTRIES } from '../build';
import { DEMO_RIGS, touringRig } from '../demo';
import type { Rig } from '../rig';
import { anyMidiRig } from '../testing/any-midi-rig';
import { anyRig } from '../testing/any-rig';
import { cases } from '../testing/cases';
import { HAND_WIRED } from '../testing/hand-wired';
import { MISTAKES } from '../testing/mistakes';
import { analyse } from '.';

/** Each demo rig itself, and the first (or all) with the first mistake of each kind that can be made in it. */
const rigs = DEMO_RIGS.flatMap((rig, n) => [
  { name: rig.name, rig },
  ...Object.entries(MISTAKES).flatMap(([kind, { plant }]) =>
    (n < cases(1, DEMO_RIGS.length) ? plant(rig) : [])
      .slice(0, 1)
      .map((m) => ({ name: `${rig.name}, ${kind}`, rig: m.rig })),
  ),
]);

/** What no sentence says: what was not filled in, a hyphen for a minus, one of many, a country without its article. */
const BROKEN: Record<string, RegExp> = {
  'a hole': /undefined|NaN|Infinity|\bnull\b|\[object/,
  'a space too many': / {2}| [.,;:?!](\s|$)|\( | \)/,
  'a stop too many': /[^.]\.\.(\s|$)|,[,.]|:\./,
  'a hyphen for a minus': /(^|[\s(])-\d/,
  'one of many': /(^|[(,:;] |\b(and|at|by|for|has|in|of|takes|to|with) )1 \p{Ll}*[^s\P{Ll}]s\b/u,
  'a country without its article': /\b[Ii]n (United|Netherlands|Philippines|Faroe)/,
};

/** A sentence that tells somebody to do something. */
const ADVICE = new RegExp(
  '(^|[.;] )(use|put|take|turn|bring|select|set|choose|move|swap|exchange|connect|disconnect|plug|' +
    'pull|leave|keep|shorten|wire|buffer|tell|start|go|play|hang|lift|add|give|send|let|make|lower|' +
    'raise|reverse|replace|bypass|feed|run|remove|tie|write|read|change|look|check) (?!of )\\p{Ll}',
  'iu',
);
/** Words of care (mains, tubes, speaker lines), and what is to be decided about a promise itself. */
const CARE = new Set(['no-load', 'impedance', 'speaker-into-signal', 'promise']);
const isOfCare = (rule: string) => CARE.has(rule) || rule.startsWith('mains-');

/** Holds what findings say to how sentences are written. */
function areSentences(rig: Rig): void {
  for (const { rule, what, why, fix, others = [] } of analyse(rig).findings) {
    // What to do is a fix, which is tried; a "why" says what is.
    if (!isOfCare(rule)) expect([rule, why, ADVICE.test(why)]).toEqual([rule, why, false]);
    expect(what).toMatch(/^[\p{Lu}\d−“"].*[.!?]$/su);
    expect(why).toMatch(/^[\p{Lu}\d−“"].*[.!?)]$/su);
    const ways = [fix, ...others].flatMap((way) => way?.words ?? []);
    for (const words of ways) expect(words).toMatch(/^\p{Lu}.*[^.]$/su);
    for (const said of [what, why, ...ways])
      for (const [name, pattern] of Object.entries(BROKEN))
        expect([name, said, pattern.test(said)]).toEqual([name, said, false]);
  }
}

test.each([...rigs.map((r) => [r.name, r.rig] as const), ...Object.entries(HAND_WIRED)])(
  '%s: what is told are sentences, and what is offered says what it does',
  (_, rig) => areSentences(rig),
);

test('of any rig, and of any that messages go through, what is told are sentences', () => {
  fc.assert(fc.property(anyRig, areSentences), { numRuns: cases(20, 500) });
  fc.assert(fc.property(anyMidiRig, areSentences), { numRuns: cases(40, 1000) });
});

test('in every country, and where three of a thing are named', () => {
  for (const { code } of COUNTRIES) areSentences({ ...touringRig, tour: { countries: [code] } });
  const fed = touringRig.devices.filter((d) => d.supply && !d.name.includes(',')).slice(0, 3);
  const gets = (n: number) => {
    const off = fed.slice(0, n);
    const rig = {
      ...touringRig,
      devices: touringRig.devices.map((d) => (off.includes(d) ? { ...d, supply: undefined } : d)),
    };
    return analyse(rig).findings.find((f) => f.rule === 'power-none')?.why;
  };
  const [a, b, c] = fed.map((d) => d.name);
  expect([1, 2, 3].map((n) => gets(n)?.split(' plugged')[0])).toEqual([
    `${a} is`,
    `${a} and ${b} are`,
    `${a}, ${b} and ${c} are`,
  ]);
});
