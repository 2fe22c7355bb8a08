import fc from 'fast-check';
import loadHighs from 'highs';
import { exactly, type MipSolver } from '../optimum';
import { applyEdits, type Rig } from '../rig';
import { cases } from '../testing/cases';
import { device, rigOf } from '../testing/rigs';
import { valueOf } from '../testing/value-of';
import { betterWords, loadsOf, placesOf, planPower, takersOf } from '.';
import { PowerProgram } from './power-program';
import { isBetter } from './power-state';

let solver: MipSolver;
beforeAll(async () => {
  solver = exactly(await loadHighs({}));
});

const plan = (rig: Rig) => valueOf(planPower(rig, solver));

test('going on from a plan never makes it worse, also where room is made in vain for those that go without', () => {
  const at = fc.array(fc.nat({ max: 8 }), { minLength: 24, maxLength: 24 });
  fc.assert(
    fc.property(
      at,
      fc.array(fc.integer({ min: 20, max: 260 }), { minLength: 24, maxLength: 24 }),
      (now, mA) => {
        // Eight outlets of 300 mA for two dozen: some always go without.
        const outlets = Array.from({ length: 8 }, (_, i) => ({
          id: `o${i}`,
          volts: 9,
          milliamps: 300,
          isolated: true,
        }));
        const devices = mA.map((milliamps, i) =>
          device(`d${i}`, 'phaser', `D${i}`, {
            power: { volts: 9, milliamps },
            ...(now[i]! < 8 && { supply: { device: 's', outlet: `o${now[i]!}` } }),
          }),
        );
        const rig = rigOf(
          [...devices, device('s', 'supply-isolated', 'S', { gives: { outlets } })],
          [],
        );
        const program = new PowerProgram(takersOf(rig), placesOf(rig), 0.2);
        const first = program.bestFor('moved', program.givenOut(), solver).found;
        expect(isBetter(first, program.givenOut(first.chosen))).toBe(false);
      },
    ),
    { numRuns: cases(15, 60) },
  );
}, 60_000);

test('devices that are alike are counted, not named: who stays is still told one by one', () => {
  // Six that take the same on three outlets for two each; two stand right, one on an outlet that a pin fills.
  const outlets = ['a', 'b', 'c'].map((id) => ({ id, volts: 9, milliamps: 240, isolated: true }));
  const pedal = (id: string, outlet?: string, pinned = false) =>
    device(id, 'phaser', id.toUpperCase(), {
      power: { volts: 9, milliamps: 100 },
      ...(outlet && { supply: { device: 's', outlet, pinned } }),
    });
  const big = device('big', 'phaser', 'Big', {
    power: { volts: 9, milliamps: 200 },
    supply: { device: 's', outlet: 'c', pinned: true },
  });
  const devices = [pedal('p'), pedal('q', 'a'), pedal('r', 'c'), pedal('t', 'b'), big];
  const rig = rigOf([...devices, device('s', 'supply-isolated', 'S', { gives: { outlets } })], []);
  const p = valueOf(planPower(rig, solver));
  const where = Object.fromEntries(p.fed.map((f) => [f.device, f.outlet]));
  expect(where).toMatchObject({ q: 'a', t: 'b', big: 'c' });
  expect([p.fed.length, p.moved, p.isProven]).toEqual([5, 2, true]);
});

test('a hundred devices on outlets that hardly suffice: what is not shown to be the best says what none can better', () => {
  // As many of 250 mA as of 100 on outlets of 500 mA: with headroom one of either and one of the other, or four.
  const outlets = Array.from({ length: 30 }, (_, i) => ({
    id: `o${i}`,
    volts: 9,
    milliamps: 500,
    isolated: true,
  }));
  const devices = Array.from({ length: 100 }, (_, i) =>
    device(`d${i}`, 'phaser', `D${i}`, {
      power: { volts: 9, milliamps: 90 + ((i * 37) % 173) },
      ...(i % 2 && { supply: { device: 's', outlet: `o${(i * 7) % 30}` } }),
    }),
  );
  const rig = rigOf([...devices, device('s', 'supply-isolated', 'S', { gives: { outlets } })], []);
  const p = valueOf(planPower(rig, solver, 0.2, 0.3));
  expect(p.atBest.fed).toBeGreaterThanOrEqual(p.fed.length);
  expect(p.atBest.shared).toBeLessThanOrEqual(p.shared);
  expect(p.atBest.moved).toBeLessThanOrEqual(p.moved);
  // Of the smallest as many as all outlets together could give: no plan feeds more.
  const least = devices.map((d) => 1.2 * (d.power?.milliamps ?? 0)).sort((a, b) => a - b);
  let [room, most] = [30 * 500, 0];
  for (const mA of least) if ((room -= mA) >= 0) most++;
  expect(p.atBest.fed).toBeLessThanOrEqual(most);
  expect(most - p.fed.length).toBeLessThanOrEqual(2);
  const { rig: made } = valueOf(applyEdits(rig, p.edits));
  expect(loadsOf(made).filter((l) => l.room < -1e-6)).toEqual([]);
}, 60_000);

test('where the solver gives up, what was found is told as that, and keeps every rule', () => {
  const tired: MipSolver = () => ({ Status: 'Time limit reached', ObjectiveValue: 0, Columns: {} });
  const gives = (milliamps: number) => ({
    outlets: [{ id: 'o', volts: 9, milliamps, isolated: true }],
  });
  const pedal = (id: string, milliamps: number, more = {}) =>
    device(id, 'phaser', id.toUpperCase(), { power: { volts: 9, milliamps, ...more } });
  const two = [pedal('a', 100, { noisy: true }), pedal('b', 100, { sensitive: true })];
  const rig = rigOf([...two, device('s', 'supply-isolated', 'S', { gives: gives(500) })], []);
  const found = valueOf(planPower(rig, tired));
  expect([found.fed.length, found.isProven, found.atBest.fed]).toEqual([1, false, 2]);
  expect(betterWords(found)).toContain('a better one may exist: at most 2 could be fed');
  // The cure was found without the solver: made so, both are fed.
  const [starved] = found.starved;
  expect(starved!.cure).toContain('on another supply');
  expect(plan(valueOf(applyEdits(rig, starved!.edits)).rig).fed).toHaveLength(2);
  expect(plan(rig).isProven).toBe(true);
  // Where nothing could be better whatever the solver says, it is not asked.
  const one = rigOf([two[0]!, device('s', 'supply-isolated', 'S', { gives: gives(500) })], []);
  expect(valueOf(planPower(one, tired)).isProven).toBe(true);
});
