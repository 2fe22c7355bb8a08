import { touringRig } from '../demo';
import type { Sound } from '../rig';
import { device, lead, rigOf, sound } from '../testing/rigs';
import { allScenes } from '../songs';
import { oneLost, runChange, setStage } from '.';

const control = (cc: number, value: number) => ({
  from: 'pads',
  to: 'echo',
  message: { type: 'control' as const, channel: 1, cc, value },
});

/** A guitar into an echo on its way to the desk; a controller that says what the lists of its sounds say. */
const rig = (sounds: Sound[]) =>
  rigOf(
    [
      device('guitar', 'guitar-active', 'Guitar'),
      device('echo', 'delay', 'Echo', {
        midi: {
          programs: false,
          controls: [
            { setting: 'engaged', cc: 102, way: 'absolute' },
            { setting: 'mix', cc: 15, way: 'absolute' },
          ],
        },
      }),
      device('desk', 'console-input', 'House'),
      device('pads', 'foot-controller', 'Pads'),
    ],
    [
      lead('a', 'guitar.out', 'echo.in', 1),
      lead('b', 'echo.out', 'desk.in', 1),
      lead('m', 'pads.midiOut', 'echo.midiIn', 1, 'midi'),
    ],
    sounds,
  );
const states = (engaged: boolean, mix: number) => ({ echo: { engaged, settings: { mix } } });

test('what then is off, what is heard of it, and whether the next change heals it', () => {
  const r = rig([
    { ...sound('dry', 'Dry', [], states(false, 5)), sends: [control(102, 0)] },
    { ...sound('wet', 'Wet', [], states(true, 10)), sends: [control(102, 127), control(15, 127)] },
    { ...sound('half', 'Half', [], states(true, 5)), sends: [control(15, 64)] },
  ]);
  const stage = setStage(r);
  const [first, second] = oneLost(r, stage, stage.scene('dry')!, stage.scene('wet')!);
  // Half says nothing of whether the echo is on: it stays off there.
  expect(first).toMatchObject({
    sender: 'pads',
    off: [{ key: 'echo engaged', wanted: true, got: false }],
    next: { healed: 1, of: 2, not: ['Half'] },
  });
  expect(first!.heard.map((h) => h.destination)).toEqual(['House']);
  expect(second).toMatchObject({
    off: [{ key: 'echo mix', wanted: 10, got: 5 }],
    next: { healed: 2, of: 2, not: [] },
  });
});

test('a message that repeats what is so already is missed by nobody', () => {
  const r = rig([
    { ...sound('a', 'A', [], states(true, 10)), sends: [control(102, 127), control(15, 127)] },
    { ...sound('b', 'B', [], states(true, 0)), sends: [control(102, 127), control(15, 0)] },
  ]);
  const stage = setStage(r);
  expect(
    oneLost(r, stage, stage.scene('a')!, stage.scene('b')!).map((l) => [
      l.off.length,
      l.heard.length,
    ]),
  ).toEqual([
    [0, 0],
    [1, 1],
  ]);
});

test('each is the change without that message, and what is heard is only of what is off', () => {
  const stage = setStage(touringRig, allScenes(touringRig));
  const [from, to] = [stage.scene('crunch')!, stage.scene('lead')!];
  const whole = runChange(stage, from, to);
  const lost = oneLost(touringRig, stage, from, to);
  expect(lost.map((l) => l.message)).toEqual(whole.given.map((g) => g.message));
  expect(lost.some((l) => l.off.length > 0)).toBe(true);
  for (const [i, l] of lost.entries()) {
    const without = runChange(stage, from, to, { lost: i });
    for (const m of l.off) expect(without.mismatches).toContainEqual(m);
    if (!l.off.length) expect(l.heard).toEqual([]);
    expect(without.traffic.sent.length).toBeLessThan(whole.traffic.sent.length);
  }
});
