import { device, lead, rigOf, sound } from '../testing/rigs';
import { controlRemarks } from '../report/checks';
import type { Device, Rig } from '../rig';

const told = (rig: Rig) => controlRemarks(rig).map(({ remark }) => remark);

/** A box and a controller that both lead with clock, one through the other, to a delay. */
const twoClocks = (rest: Partial<Device>): Rig =>
  rigOf(
    [
      device('box', 'clock-box', 'Box'),
      device('pads', 'foot-controller', 'Pads', { midi: { clock: 'send' } }),
      device('echo', 'delay', 'Echo', rest),
    ],
    [
      lead('1', 'pads.midiOut', 'box.midiIn', 1, 'midi'),
      lead('2', 'box.midiOut', 'echo.midiIn', 1, 'midi'),
    ],
    [sound('a', 'A', ['echo'])],
  );

test('a delay that follows clock is told of two that lead; one that is tapped or keeps its time is not', () => {
  const clocks = (rest: Partial<Device>) =>
    told(twoClocks(rest)).filter((r) => /both lead/.test(r.what)).length;
  expect(clocks({ midi: { clock: 'follow' } })).toBe(1);
  expect(clocks({ tempo: { way: 'clock' } })).toBe(1);
  expect(clocks({ tempo: { way: 'tap' } })).toBe(0);
  expect(clocks({ tempo: { way: 'program' } })).toBe(0);
  expect(clocks({ midi: { clock: 'ignore' } })).toBe(0);
});

/** A tablet that calls a switcher's programs, each kept in a bank, with banks as they are sent or none. */
const called = (kept: number[], sent: (number | undefined)[]): Rig =>
  rigOf(
    [device('app', 'set-list-app', 'Tablet'), device('yard', 'loop-switcher', 'Yard')],
    [lead('u', 'app.usb', 'yard.usb', 1, 'usb')],
    kept.map((bank, i) => ({
      ...sound(`s${i}`, `S${i}`, [], {
        yard: { settings: { order: String(i + 1) }, program: { number: 0, bank } },
      }),
      sends: [
        {
          from: 'app',
          to: 'yard',
          message: {
            type: 'program' as const,
            channel: 1,
            number: 0,
            ...(sent[i] !== undefined && { bank: sent[i] }),
          },
        },
      ],
    })),
  );

test('counting banks from 0 is said where banks were sent, and not where one was left out', () => {
  const said = (kept: number[], sent: (number | undefined)[]) =>
    told(called(kept, sent))
      .filter((r) => r.rule === 'midi-number')
      .map((r) => `${r.what} ${r.why}`);
  expect(said([0, 1, 2], [0, 1, 2])).toEqual([]);
  expect(said([0, 1, 2], [1, 2, 3])[0]).toContain('counts banks from 0');
  // Where no bank goes along the last one stays: the first sound's number is looked for in the second's bank.
  const left = said([0, 1], [undefined, undefined]);
  expect(left).toHaveLength(1);
  expect(left[0]).not.toContain('counts banks from 0');
});
