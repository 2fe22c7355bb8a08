import loadHighs from 'highs';
import { brokenRig, DEMO_RIGS } from '../demo';
import { kindOf } from '../kinds';
import { FixTrial } from '../report';
import type { Sound } from '../rig';
import { digest } from '../testing/digest';
import { oddRigs } from '../testing/odd-rigs';
import {
  exactly,
  type MipSolver,
  proposeBuffers,
  proposeInside,
  proposeIsolation,
  proposeOnePress,
  proposeOrder,
} from '.';
import { harmOf } from './harm';

let solver: MipSolver;
beforeAll(async () => {
  const highs = await loadHighs({});
  solver = exactly(highs);
});

/** Of the rig in which much is wrong one sound: each move is tried in every sound there is. */
const rigs = DEMO_RIGS.map((r) => (r === brokenRig ? { ...r, sounds: r.sounds.slice(0, 1) } : r));
const each = [...rigs, ...oddRigs()].map((r) => [r.id, r] as const);
/** Some sounds of a rig, not all: proposals are dear. */
const some = (sounds: readonly Sound[]) =>
  sounds.filter((_, i) => i % 8 === 0 || sounds.length < 3);

test.each(each)(
  'proposals for %s are what they were',
  async (_, rig) => {
    const orders = [];
    for (const sound of some(rig.sounds)) orders.push(await proposeOrder(rig, sound));
    const [first] = rig.sounds;
    const buffers = first && (await proposeBuffers(rig, first));
    const isolation = some(rig.sounds).map((s) => proposeIsolation(rig, s));
    // Nothing that is proposed breaks a promise, silences anybody or brings a caution.
    const trial = new FixTrial(rig);
    for (const edits of [
      ...orders.map((o) => (o.ok ? o.value.edits : [])),
      (buffers?.gains ?? []).flatMap((g) => g.edits),
      ...isolation.map((i) => i.edits),
    ])
      expect(harmOf(trial, edits)).toEqual([]);
    // Every move has its reason; what stays has been moved on a copy.
    for (const o of orders)
      if (o.ok) expect(o.value.moves.every((m) => m.reasons.some((r) => r !== ''))).toBe(true);
    expect({
      orders: orders.map(digest),
      buffers: buffers && digest(buffers),
      isolation: isolation.map(digest),
      inside: rig.devices
        .filter((d) => kindOf(d.kind).hosts)
        .map((d) => digest(proposeInside(rig, d.id, solver))),
    }).toMatchSnapshot();
  },
  120_000,
);

test.each(each)('ways to one press in %s are what they were', (_, rig) =>
  expect(
    some(rig.sounds).flatMap((a) =>
      some(rig.sounds)
        .filter((b) => b !== a)
        .map((b) => digest(proposeOnePress(rig, a.id, b.id))),
    ),
  ).toMatchSnapshot(),
);
