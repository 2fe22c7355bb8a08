import fc from 'fast-check';
import { DEMO_RIGS } from '../demo';
import { allScenes } from '../control/scene';
import { rigSchema } from '../rig/schema';
import { anyMidiRig } from '../testing/any-midi-rig';
import { digest } from '../testing/digest';
import { variants } from '../testing/variants';
import * as midi from '.';

test('remarks on messages are what they were', () => {
  const now: Record<string, string> = {};
  for (const { name, rig } of variants(3, 6)) {
    const stage = midi.setStage(rig);
    const reached = midi.messageReachRemarks(stage.orders);
    now[name] = [
      midi.wireRemarks(rig),
      midi.brokenAssignments(rig),
      midi.unreachedAssignments(rig),
      reached,
      midi.deadLeadRemarks(stage.orders, reached),
      midi.listenerRemarks(stage.orders),
      midi.changeRemarks(stage),
      midi.unheardRemarks(stage),
    ]
      .map(digest)
      .join(' ');
  }
  expect(now).toMatchSnapshot();
}, 120_000);

test('changes run as they ran: bytes, times, landings, presses, sequences', () => {
  const now: Record<string, string> = {};
  for (const rig of DEMO_RIGS) {
    const stage = midi.setStage(rig, allScenes(rig));
    const scenes = stage.orders.scenes.slice(0, 6);
    for (const from of scenes)
      for (const to of scenes) {
        if (from === to) continue;
        const { traffic, landings, mismatches, order, end, jitter } = midi.runChange(
          stage,
          from,
          to,
          { bpm: 96 },
        );
        now[`${rig.id} ${from.id} ${to.id}`] = digest([
          traffic.sent,
          landings.map(({ device, at, effect }) => [device, at, effect.what]),
          mismatches,
          order,
          [...end].map(([id, s]) => [id, s.bank, s.program, [...s.values]]),
          jitter,
        ]);
      }
    const [a, b] = rig.sounds;
    if (a && b)
      now[`${rig.id} by foot`] = digest([
        midi.pressesBetween(rig, a, b),
        midi.sequenceOf(rig, a, b),
      ]);
    now[`${rig.id} pairs`] = digest(midi.allPairs(stage));
  }
  expect(now).toMatchSnapshot();
}, 120_000);

test('whatever is wired, set up and written, messages and what is said of them are what they were', () => {
  const now: Record<string, string> = {};
  const rigs = fc.sample(anyMidiRig, { numRuns: 100, seed: 17 });
  const words = new Set<string>();
  rigs.forEach((rig, i) => {
    expect(rigSchema.safeParse(rig).success).toBe(true);
    const stage = midi.setStage(rig, allScenes(rig));
    const reached = midi.messageReachRemarks(stage.orders);
    const remarks = [
      ...midi.wireRemarks(rig),
      ...midi.brokenAssignments(rig),
      ...midi.unreachedAssignments(rig),
      ...reached,
      ...midi.deadLeadRemarks(stage.orders, reached),
      ...midi.listenerRemarks(stage.orders),
      ...midi.changeRemarks(stage),
      ...midi.unheardRemarks(stage),
      ...midi.rangeRemarks(stage),
    ];
    for (const r of remarks) words.add('remark' in r ? r.remark.rule : r.rule);
    const [from, to] = stage.orders.scenes;
    const change = from && to && midi.runChange(stage, from, to, { bpm: 110 });
    const [a, b] = rig.sounds;
    now[i] = [
      remarks,
      change && [
        ...[change.traffic.sent, change.mismatches, change.order, change.jitter],
        change.landings.map(({ device, at, effect }) => [device, at, effect]),
        [...change.end].map(([id, s]) => [id, s.bank, s.program, [...s.values], s.sixteenths]),
      ],
      a && b && [midi.pressesBetween(rig, a, b), midi.pressesBetween(rig, b, a)],
      midi.allPairs(stage),
    ]
      .map(digest)
      .join(' ');
  });
  // Enough of them say enough to be worth holding.
  expect(words.size).toBeGreaterThan(10);
  expect(now).toMatchSnapshot();
}, 120_000);
