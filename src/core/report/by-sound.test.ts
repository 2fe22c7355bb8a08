import { brokenRig } from '../demo';
import { applyEdits, type Edit, type Rig } from '../rig';
import { chainOf, device, lead, rigOf, sound } from '../testing/rigs';
import { valueOf } from '../testing/value-of';
import { analyse, bySound, type BySound } from '.';

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

test('what is lost one way is gained the other: leads and controls, findings, who is heard and how loud', () => {
  const there: Edit[] = [boost, { edit: 'disconnect', lead: 'b' }];
  const after = valueOf(applyEdits(rig, there)).rig;
  const way = made(rig, there);
  const back = made(after, [
    { edit: 'replaceDevice', device: 'echo', kind: 'delay', name: 'Echo' },
    { edit: 'connect', lead: rig.leads[1]! },
  ]);
  const only = (list: readonly string[]) =>
    list.filter((w) => !w.includes('stood with') && !w.startsWith('the lead from')).sort();
  expect(only(way.everywhere.lost)).toEqual(only(back.everywhere.gained));
  expect(only(way.everywhere.gained)).toEqual(only(back.everywhere.lost));
  for (const { id } of rig.sounds) {
    const [one, two] = [way, back].map((w) => w.sounds.find((s) => s.sound === id)!);
    const heard = (list: readonly string[]) =>
      only(list).map((w) => w.replace('no longer hears', 'hears'));
    expect(heard(one!.lost)).toEqual(heard(two!.gained));
    expect(one!.worse.sort()).toEqual(two!.better.sort());
    expect(one!.better.sort()).toEqual(two!.worse.sort());
  }
  expect(way.everywhere.lost).toContain(
    'the lead from Echo, out left (mono) to Recorder, in left (mono)',
  );
});

test('a promise that goes with what it is about, and the number of a unit, are told as lost', () => {
  const promised: Rig = {
    ...rig,
    promises: [
      { id: 'p', type: 'hears', destination: 'rec', source: 'g' },
      { id: 'q', type: 'survives', device: 'echo', destination: 'rec', actions: 1 },
    ],
  };
  const { everywhere } = made(promised, [
    { edit: 'removePromise', promise: 'q' },
    { edit: 'setDevice', device: 'echo', gear: {} },
  ]);
  expect(everywhere.lost).toEqual([
    'unit E-7 is used in it no longer',
    expect.stringMatching(/^the promise that .*Echo/),
  ]);
});

test('louder and softer are told from one decibel on, in the sound where it is so', () => {
  const far = { id: 'far', name: 'Far', states: { d1: { engaged: true, settings: { gain: 5 } } } };
  const plain = sound('plain', 'Plain', [], {});
  const boosted = chainOf(['guitar-humbucker', 'boost', 'recorder'], 3, [plain, far]);
  const told = (boost: number): string[] => {
    const edit: Edit = {
      edit: 'setSetting',
      device: 'd1',
      sound: 'far',
      setting: 'gain',
      value: boost,
    };
    const after = valueOf(applyEdits(boosted, [edit])).rig;
    const [was, is] = [boosted, after].map(
      (r) => analyse(r).sounds.find((x) => x.sound === 'far')!.destinations[0]!.levelDbu!.normal,
    );
    const words = made(boosted, [edit]).sounds.flatMap((x) =>
      x.otherwise.map((w) => `${x.sound}: ${w}`),
    );
    const by = is! - was!;
    expect(words).toEqual(
      Math.abs(by) < 1
        ? []
        : [`far: Device 2 is ${Math.abs(by).toFixed(1)} dB ${by > 0 ? 'louder' : 'softer'}`],
    );
    return words;
  };
  const all = [1, 4, 4.9, 5, 5.1, 6, 9].map(told);
  expect(all[0]![0]).toContain('softer');
  expect(all[3]).toEqual([]);
  expect(all[6]![0]).toContain('louder');
});
