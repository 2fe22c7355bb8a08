import { analyse, FixTrial } from '../report';
import { applyEdits, type Address, type Device, type Rig } from '../rig';
import { device, lead, rigOf, sound } from '../testing/rigs';
import { addressProblem, midiDevices } from '.';

const rig = (kept: Address | undefined, rest: Partial<Device> = {}, sent?: Address): Rig =>
  rigOf(
    [device('pads', 'foot-controller', 'Pads'), device('d', 'delay', 'Echo', rest)],
    [lead('m', 'pads.midiOut', 'd.midiIn', 1, 'midi')],
    [
      {
        ...sound('a', 'A', [], { d: { program: kept } }),
        ...(sent && {
          sends: [{ from: 'pads', to: 'd', message: { type: 'program', channel: 1, ...sent } }],
        }),
      },
    ],
  );
const told = (r: Rig) => analyse(r).findings.filter((f) => f.rule === 'midi-range');
const problem = (kind: string, address: Address, midi: Device['midi'] = {}) =>
  addressProblem(midiDevices(rigOf([device('x', kind, 'X', { midi })], [])).get('x')!, address);

test.each<[string, Address, Device['midi'], string | undefined]>([
  ['delay', { number: 127 }, {}, undefined],
  ['delay', { number: 3, bank: 0 }, {}, undefined],
  ['delay', { number: 3, bank: 1 }, {}, 'X has no banks, so bank 1 calls nothing there'],
  ['delay', { number: 3 }, { programs: false }, 'X takes no programs'],
  ['loop-switcher', { bank: 127, number: 3 }, {}, undefined],
  [
    'loop-switcher',
    { bank: 128, number: 0 },
    {},
    'X has 512 programs, banks 0 to 127 of 4 on the wire',
  ],
  [
    'loop-switcher',
    { bank: 0, number: 4 },
    {},
    'X has 512 programs, banks 0 to 127 of 4 on the wire',
  ],
  ['loop-switcher', { number: 21 }, {}, undefined],
])('%s, %j, set up %j: %s', (kind, address, midi, why) =>
  expect(problem(kind, address, midi)).toBe(why),
);

test('a program kept in a bank that is not there is told, and its fix keeps it at one that is', () => {
  const planted = rig({ bank: 2, number: 7 });
  const trial = new FixTrial(planted);
  const [finding] = told(planted);
  expect(finding!.what).toBe('Echo is called at a program that it does not have.');
  expect(finding!.why).toContain('Echo has no banks, so bank 2 calls nothing there.');
  expect(trial.try(finding!, finding!.fix!).cures).toBe(true);
  const fixed = applyEdits(planted, finding!.fix!.edits);
  expect(fixed.ok && fixed.value.rig.sounds[0]!.states.d!.program).toEqual({ number: 7 });
});

test('so is one in a list that was written; what is there draws nothing', () => {
  expect(told(rig({ number: 7 }, {}, { number: 7, bank: 1 }))).toHaveLength(1);
  expect(told(rig({ number: 7 }, {}, { number: 7 }))).toEqual([]);
  expect(told(rig(undefined))).toEqual([]);
});
