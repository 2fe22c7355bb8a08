import { at } from '../outcome';
import { passesOf, pluggedJacks } from '../circuit';
import type { Remark } from '../findings/finding';
import { kindOf, settingWith } from '../kinds';
import { readLoopOrder } from '../kinds/loop-order';
import { settingOf, stateIn } from '../rig/device-state';
import type { Remarker } from './evidence';

/**
 * Half-plugged loops and inserts, returns that cut off what is ahead of them, and loops in use with
 * nothing in them.
 */
export const loopRemarks: Remarker = ({ ctx }) => {
  const remarks: Remark[] = [];
  const plugged = pluggedJacks(ctx.rig);
  for (const device of ctx.rig.devices) {
    const kind = kindOf(device.kind);
    if (!kind.loops) continue;
    const jacks = plugged.get(device.id) ?? new Set<string>();
    const passes = passesOf(device, ctx.sound, plugged);
    const isFed = (point: string) =>
      passes.some(
        (p) =>
          (p.is === 'stage' && p.to === point && !p.muted) ||
          (p.is === 'wire' && (p.a === point || p.b === point)),
      );
    for (const loop of kind.loops) {
      const send = loop.send.some((j) => jacks.has(j));
      const back = loop.return.some((j) => jacks.has(j));
      const say = (severity: Remark['severity'], what: string, why: string) =>
        remarks.push({
          rule: 'half-loop',
          severity,
          subjects: [device.id],
          about: `${device.id}+${loop.id}`,
          what,
          why,
        });
      if (send && !back) {
        if (loop.opensAt === 'send')
          say(
            'fault',
            `The ${loop.label} of ${device.name} is sent out and does not come back.`,
            'A plug in the send opens the way inside, so the signal stops here. Plug the other ' +
              'end into the return, or pull both.',
          );
        else if (loop.opensAt === 'never' && !kind.hosts && isFed(at(loop.send, 0)))
          say(
            'fault',
            `${loop.label.charAt(0).toUpperCase()}${loop.label.slice(1)} of ${device.name} is ` +
              'sent out and does not come back.',
            'The loop is in this sound’s way, so the signal stops here. Plug the other end into ' +
              'its return, or leave the loop out.',
          );
      }
      if (back && !send && !kind.hosts) {
        const ahead = kind.jacks.some(
          (j) => j.direction === 'in' && !loop.return.includes(j.id) && jacks.has(j.id),
        );
        if (loop.opensAt === 'return' && ahead)
          say(
            'fault',
            `The ${loop.label} of ${device.name} comes back and is not sent out.`,
            'A plug in the return cuts off everything ahead of it, so what goes into the input ' +
              'is not heard. Plug the send, or pull the return.',
          );
        else if (loop.opensAt === 'send' && ahead)
          say(
            'fault',
            `The ${loop.label} of ${device.name} comes back and is not sent out.`,
            'A plug in the insert opens the way inside, so what goes into the input is not ' +
              'heard. Plug the send as well.',
          );
      }
    }
    const order = settingWith(kind, 'loop order');
    const empty = settingWith(kind, 'empty loop');
    const state = stateIn(ctx.sound, device.id);
    const read =
      order &&
      readLoopOrder(String(settingOf(kind, device, state, order.id) ?? ''), kind.loops.length);
    if (read?.ok) {
      for (const { loop } of read.value.flat()) {
        const own = kind.loops[loop - 1];
        if ([...(own?.send ?? []), ...(own?.return ?? [])].some((jack) => jacks.has(jack)))
          continue;
        const mutes = empty && settingOf(kind, device, state, empty.id) === 'mute';
        remarks.push({
          rule: 'empty-loop',
          severity: mutes ? 'fault' : 'advice',
          subjects: [device.id],
          about: `${device.id}+loop${loop}`,
          what: `Loop ${loop} of ${device.name} is in use and holds nothing.`,
          why: mutes
            ? 'On this switcher a loop with nothing in it mutes.'
            : 'On this switcher it passes, so nothing is lost; take it out of the order, or plug something in.',
        });
      }
    }
  }
  return remarks;
};
