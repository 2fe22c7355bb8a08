import { kindOf } from '../kinds';
import { analyse } from '../report';
import type { Brief, Rig, Way } from '../rig';
import { finished, proposeRig } from '.';

/** What decisions of a start say of themselves, done on a copy. */

const named = (kinds: readonly string[], prefix: string) =>
  kinds.map((kind, n) => ({ id: `${prefix}${n}`, kind, name: `${kindOf(kind).name} ${n + 1}` }));
const made = (plays: string[], ways: Way[], pedals: string[], means: Brief['means']): Rig => {
  const brief: Brief = {
    sources: named(plays, 's'),
    destinations: ways.map((way, n) => ({ id: `d${n}`, way, name: way })),
    gear: named(pedals, 'g'),
    sounds: [{ id: 'clean', name: 'Clean' }],
    means,
  };
  return finished(proposeRig(brief, { id: 'new', name: 'New', otherSchool: [] })).rig;
};
const heard = (rig: Rig, name: string) =>
  analyse(rig).sounds[0]!.destinations.find((d) => d.name === name)!;

test('two alike that a pedal crosses are in the middle as loud as one, two that differ are not louder', () => {
  const rig = made(['guitar-humbucker'], ['house'], [], {
    voice: 'modeler',
    changed: { pan: 'pedal' },
  });
  const at = (levelA: number, levelB: number, gain = 2) => ({
    ...rig,
    sounds: rig.sounds.map((s) => ({
      ...s,
      states: {
        ...s.states,
        'amps-mixed': { settings: { levelA, levelB } },
        'amp-second': { settings: { gain } },
      },
    })),
  });
  const level = (r: Rig) => heard(r, 'house').levelDbu!.normal;
  expect(level(at(5, 5))).toBeCloseTo(level(at(10, 0)), 0);
  const [first, second] = [level(at(10, 0, 8)), level(at(0, 10, 8))];
  expect(level(at(5, 5, 8))).toBeLessThan(Math.max(first, second));
});

test('who unplugs the loudspeaker takes the house with it; by a splitter nobody does', () => {
  const by = (way: 'split' | 'speaker') => {
    const rig = made(['guitar-humbucker'], ['stage', 'house', 'in-ears'], [], {
      voice: 'modeler',
      changed: { outputs: 'ears', 'house-from': way },
    });
    const speaker = rig.devices.find((d) => d.name === 'stage')!.id;
    const pulled = { ...rig, leads: rig.leads.filter((l) => l.to.device !== speaker) };
    return [heard(rig, 'house'), heard(pulled, 'house')].map((d) => d.sources.length);
  };
  expect([by('speaker'), by('split')]).toEqual([
    [1, 0],
    [1, 1],
  ]);
});

test('instruments that sound at once come to the pedals no higher than those take', () => {
  const rig = made(['instrument-piezo', 'guitar-active'], ['combo'], ['boost'], { together: true });
  const joiner = analyse(rig).sounds[0]!.stations.find((s) =>
    rig.devices.some((d) => d.id === s.device && d.kind === 'mixer-line'),
  )!;
  expect(joiner.output.levelDbu!.normal).toBeLessThanOrEqual(0);
  expect(analyse(rig).findings.filter((f) => f.rule === 'headroom')).toEqual([]);
});
