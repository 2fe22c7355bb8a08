import { believable, kindOf } from '../kinds';
import { applyEdits, type Rig } from '../rig';
import { chainOf } from '../testing/rigs';
import { analyse, countTurned, type ToMeasure, whatToMeasure } from '.';

const withFigure = (rig: Rig, m: ToMeasure, value: number): Rig => {
  const set = applyEdits(rig, [
    {
      edit: 'overrideFigure',
      device: m.device,
      figure: m.figure,
      override: { value, from: 'measured' },
    },
  ]);
  if (!set.ok) throw new Error('the figure cannot be set');
  return set.value.rig;
};
const told = (rig: Rig) => analyse(rig).findings.map((f) => f.key);

/** A pedal that clips at what the pickup gives, or just does not. */
const near = chainOf([['guitar-humbucker', {}], ['eq', { engaged: true }], 'console-input']);

test('a verdict that turns within what is believable of a typical figure is named with that figure', async () => {
  const found = await whatToMeasure(near);
  expect(found.length).toBeGreaterThan(0);
  for (const m of found) {
    const figure = kindOf(near.devices.find((d) => d.id === m.device)!.kind).figures.find(
      (f) => f.id === m.figure,
    )!;
    expect([m.low, m.high]).toEqual(believable(figure));
    // Each is true: with the figure there, the verdict is another.
    for (const t of m.turns) {
      expect(told(withFigure(near, m, t.at)).includes(t.id)).toBe(t.appears);
      expect(told(near).includes(t.id)).toBe(!t.appears);
    }
    expect(m.tool).not.toBe('');
    expect(m.steps).not.toBe('');
  }
  expect(found.map(countTurned)).toEqual(found.map(countTurned).sort((a, b) => b - a));
});

test('a figure that was measured is asked for no more, and what is left hangs on the reading', async () => {
  const [first] = await whatToMeasure(near);
  const measured = withFigure(near, first!, first!.typical);
  const again = await whatToMeasure(measured);
  expect(again.map((m) => `${m.device} ${m.figure}`)).not.toContain(
    `${first!.device} ${first!.figure}`,
  );
  expect(told(measured)).toEqual(told(near));
});

test('it says how far it is, figure by figure', async () => {
  const said: number[] = [];
  await whatToMeasure(near, (share) => {
    said.push(share);
    return Promise.resolve();
  });
  expect(said[0]).toBe(0);
  expect(said).toEqual([...said].sort((a, b) => a - b));
  expect(said.at(-1)).toBeLessThan(1);
});
