import type { Remark } from '../findings/finding';
import { resolveState, stateIn } from '../rig/device-state';
import { kindOf } from '../kinds';
import { leadFrom, leadInto } from '../rig/find';
import { freshId } from '../rig/fresh-id';
import type { Remarker } from './evidence';

/** Stereo pairs with only one side connected, and width that is lost on the way. */
export const stereoRemarks: Remarker = ({ ctx, stations, destinations }) => {
  const remarks: Remark[] = [];
  for (const s of stations) {
    const device = ctx.device(s.device);
    const { jacks } = kindOf(device.kind);
    for (const jack of jacks) {
      if (jack.pair?.side !== 'left' || jack.pair.loose) continue;
      const side = jack.direction === 'out' ? s.outs : s.ins;
      const left = side.includes(jack.id);
      const right = side.includes(jack.pair.with);
      if (left === right) continue;
      if (right) {
        remarks.push({
          rule: 'half-pair',
          severity: 'caution',
          subjects: [s.device],
          what: `Only the right ${jack.direction === 'out' ? 'output' : 'input'} of ${device.name} is connected.`,
          why: 'A mono lead belongs in the left jack: there it carries the whole signal.',
        });
        continue;
      }
      const lead = jack.direction === 'out' ? leadFrom(ctx.rig, s.device, jack.id) : undefined;
      const widens =
        jack.direction === 'out' &&
        kindOf(device.kind)
          .passes(
            resolveState(kindOf(device.kind), device, stateIn(ctx.sound, device.id)),
            () => true,
          )
          .some((p) => p.is === 'stage' && p.side);
      const next = lead && ctx.device(lead.to.device);
      const into = next && kindOf(next.kind).jacks.find((j) => j.id === lead.to.jack);
      const partner = into?.pair?.with;
      if (
        widens &&
        lead &&
        next &&
        into?.stereo &&
        s.state === 'engaged' &&
        !ctx.rig.leads.some((l) => l !== lead && l.to.device === next.id && l.to.jack === into.id)
      ) {
        const branch = { ...lead, type: 'insert' as const };
        remarks.push({
          rule: 'half-pair',
          severity: 'advice',
          subjects: [s.device, next.id],
          what: `${device.name} reaches ${next.name} with one side only.`,
          why:
            `${next.name} takes both sides on one TRS jack. An insert lead joins two TS outputs ` +
            'to it: tip left, ring right.',
          fix: {
            words: 'Use an insert lead for both sides',
            edits: [
              { edit: 'disconnect', lead: lead.id },
              { edit: 'connect', lead: { ...branch, conductor: 'tip' } },
              {
                edit: 'connect',
                lead: {
                  ...branch,
                  id: freshId(
                    `${lead.id}-right`,
                    ctx.rig.leads.map((l) => l.id),
                  ),
                  from: { device: s.device, jack: jack.pair.with },
                  conductor: 'ring',
                },
              },
            ],
          },
        });
        continue;
      }
      if (
        !widens ||
        !lead ||
        !next ||
        !partner ||
        s.state !== 'engaged' ||
        leadInto(ctx.rig, next.id, partner)
      )
        continue;
      remarks.push({
        rule: 'half-pair',
        severity: 'advice',
        subjects: [s.device, next.id],
        what: `${device.name} and ${next.name} are both stereo, but one lead joins them.`,
        why: 'What leaves is the mono sum; a second lead would carry the width on.',
        fix: {
          words: 'Add the right-hand lead',
          edits: [
            {
              edit: 'connect',
              lead: {
                ...lead,
                id: freshId(
                  `${lead.id}-right`,
                  ctx.rig.leads.map((l) => l.id),
                ),
                from: { device: s.device, jack: jack.pair.with },
                to: { device: next.id, jack: partner },
              },
            },
          ],
        },
      });
    }
  }
  for (const d of destinations) {
    if (d.side && d.widenedBy && !d.pairedWith) {
      remarks.push({
        rule: 'half-wide',
        severity: 'advice',
        subjects: [d.device, d.widenedBy],
        what: `${d.name} hears only the ${d.side} side of what ${ctx.device(d.widenedBy).name} makes wide.`,
        why:
          'The other side goes elsewhere or nowhere, so half of its echoes or movement is ' +
          `missing here. Feed both sides, or let ${ctx.device(d.widenedBy).name} run in mono.`,
      });
    }
    if (!d.collapsedAt || !d.widenedBy) continue;
    remarks.push({
      rule: 'collapse',
      severity: 'advice',
      subjects: [d.collapsedAt, d.widenedBy],
      what: `The width that ${ctx.device(d.widenedBy).name} makes is lost at ${ctx.device(d.collapsedAt).name}.`,
      why:
        `${d.name} hears mono. Put ${ctx.device(d.widenedBy).name} ` +
        `behind ${ctx.device(d.collapsedAt).name}, or run two lines.`,
    });
  }
  return remarks;
};
