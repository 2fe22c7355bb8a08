import { DEMO_RIGS } from '../demo';
import { allScenes } from '../control/scene';
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
