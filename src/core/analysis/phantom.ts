import type { Remark } from '../findings/finding';
import { kindOf, settingWith } from '../kinds';
import { jackOf } from '../rig/find';
import { CONTROL_LEADS } from '../rig/lead-types';
import type { Remarker } from './evidence';
import { phantomFeeds } from '../circuit/phantom-feeds';

/**
 * Condenser microphones and active boxes that no input feeds: phantom power comes back over the lead
 * from a microphone input, and from nothing else that Yantrel knows.
 */
export const phantomRemarks: Remarker = ({ ctx }) => {
  const feeds = phantomFeeds(ctx.rig, ctx.flowing.circuit, ctx.sound);
  return ctx.rig.leads.flatMap((lead): Remark[] => {
    const device = ctx.device(lead.from.device);
    if (!kindOf(device.kind).phantom || CONTROL_LEADS.includes(lead.type)) return [];
    if (jackOf(device, lead.from.jack)?.connector !== 'XLR') return [];
    if (feeds.find((f) => f.device.id === device.id)?.inputs.length) return [];
    const into = ctx.device(lead.to.device);
    const input = settingWith(kindOf(into.kind), 'microphone or line')?.id;
    return [
      {
        rule: 'not-fed',
        severity: 'fault',
        subjects: [device.id, into.id],
        what: `Nothing feeds ${device.name}.`,
        why:
          `It lives on phantom power, and ${into.name} ` +
          (input
            ? 'is set to line level, where an input gives none.'
            : 'has no microphone input that gives it.'),
        ...(input && {
          fix: {
            words: `Set ${into.name} to microphone level, with phantom power on`,
            edits: [{ edit: 'setSetting' as const, device: into.id, setting: input, value: 'mic' }],
          },
        }),
      },
    ];
  });
};
