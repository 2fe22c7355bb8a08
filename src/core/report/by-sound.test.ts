import { brokenRig } from '../demo';
import { applyEdits, type Edit } from '../rig';
import { device, lead, rigOf, sound } from '../testing/rigs';
import { valueOf } from '../testing/value-of';
import { bySound, type BySound } from '.';

/** What comes of a change that can be made. */
function made(...asked: Parameters<typeof bySound>): BySound {
  const found = bySound(...asked);
  if ('refused' in found) throw new Error(found.refused);
  return found;
}

const rig = rigOf(
  [
    device('g', 'guitar-humbucker', 'Guitar'),
    device('echo', 'delay', 'Echo', { gear: { serial: 'E-7' } }),
    device('rec', 'recorder', 'Recorder'),
  ],
  [lead('a', 'g.out', 'echo.in', 3), lead('b', 'echo.out', 'rec.in', 3)],
  [
    sound('plain', 'Plain', [], {}),
    { id: 'far', name: 'Far', states: { echo: { engaged: true, settings: { mix: 8 } } } },
  ],
);
const boost: Edit = { edit: 'replaceDevice', device: 'echo', kind: 'boost', name: 'Echo' };

test('a change that moves nothing loses and gains nothing', () => {
  const renamed = made(rig, [{ edit: 'setDevice', device: 'rec', name: 'Taker' }]);
  expect(renamed).toEqual({
    everywhere: { lost: [], gained: [], worse: [], better: [], otherwise: [] },
    sounds: [],
  });
});

test('what a device has no longer is told once, what a sound had of its own in that sound', () => {
  const { everywhere, sounds } = made(rig, [boost]);
  expect(everywhere.lost).toEqual(
    expect.arrayContaining([
      expect.stringMatching(/^Echo: the controls .*Mix/),
      expect.stringMatching(/^Echo: the jacks .*out right/),
    ]),
  );
  expect(everywhere.gained).toEqual(
    expect.arrayContaining([expect.stringMatching(/^Echo: the controls? .*Boost/)]),
  );
  const far = sounds.find((s) => s.sound === 'far')!;
  expect(far.lost).toContainEqual(expect.stringMatching(/^Echo stood with Mix at /));
  const plain = sounds.find((s) => s.sound === 'plain')!;
  expect(plain.lost.filter((w) => w.includes('stood with'))).toEqual([]);
  // The level moves only where it is engaged.
  expect(far.otherwise).toEqual([expect.stringMatching(/^Recorder is .* dB louder$/)]);
});

test('a lead that finds no jack, who hears no longer, and a unit that is free again are told', () => {
  const cut = made(rig, [{ edit: 'disconnect', lead: 'b' }]);
  expect(cut.everywhere.lost).toContainEqual(
    'the lead from Echo, out left (mono) to Recorder, in left (mono)',
  );
  for (const s of cut.sounds) expect(s.lost).toContain('Recorder no longer hears Guitar');
  expect(cut.sounds.map((s) => s.name)).toEqual(['Plain', 'Far']);
  const free = made(rig, [{ edit: 'setDevice', device: 'echo', gear: {} }]);
  expect(free.everywhere.lost).toEqual(['unit E-7 is used in it no longer']);
});

test('what becomes milder is better, and what becomes worse is worse: neither is passed over as the same', () => {
  // A hotter instrument into the recorder: from advice to what clips, and back.
  const hot = made(rig, [
    {
      edit: 'overrideFigure',
      device: 'g',
      figure: 'nominalDbu',
      override: { value: 12, from: 'measured' },
    },
  ]);
  const told = hot.sounds.flatMap((s) => [...s.worse, ...s.better]);
  expect(told.length).toBeGreaterThan(0);
  for (const s of hot.sounds) expect(s.worse.some((w) => s.better.includes(w))).toBe(false);
});

test('what cannot be made says why', () => {
  expect(bySound(rig, [{ edit: 'removeDevice', device: 'nobody' }])).toEqual({
    refused: expect.stringContaining('nobody'),
  });
});

test('there and back again: what a pulled lead loses, the plugged one gains, sound by sound', () => {
  for (const pulled of brokenRig.leads.filter((_, n) => n % 28 === 0)) {
    const cut = valueOf(applyEdits(brokenRig, [{ edit: 'disconnect', lead: pulled.id }])).rig;
    const there = made(brokenRig, [{ edit: 'disconnect', lead: pulled.id }]);
    const back = made(cut, [{ edit: 'connect', lead: pulled }]);
    const losses = (x: BySound) =>
      x.sounds.map((s) => [s.name, s.lost.filter(isHearing).sort(), s.worse.sort()]);
    const gains = (x: BySound) =>
      x.sounds.map((s) => [
        s.name,
        s.gained.map((w) => w.replace(/ hears /, ' no longer hears ')).sort(),
        s.better.sort(),
      ]);
    expect([pulled.id, losses(there)]).toEqual([pulled.id, gains(back)]);
  }
});

const isHearing = (words: string) => words.includes(' no longer hears ');
