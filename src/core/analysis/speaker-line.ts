import type { Remark } from '../findings/finding';
import { kindOf } from '../kinds';
import { jackOf, leadFrom } from '../rig/find';
import type { Remarker } from './remarks';

/** Amplifiers that run without a load, and leads of the wrong type in speaker and signal lines. */
export const speakerLineRemarks: Remarker = ({ ctx }) => {
  const remarks: Remark[] = [];
  for (const device of ctx.rig.devices) {
    for (const jack of kindOf(device.kind).jacks) {
      if (jack.signal !== 'speaker' || jack.direction !== 'out' || leadFrom(ctx.rig, device.id, jack.id)) continue;
      remarks.push({
        rule: 'no-load', severity: 'danger', subjects: [device.id],
        what: `${device.name} has no load on its speaker output.`,
        why: 'A tube amplifier driven without a load can destroy its output transformer. Connect a cabinet of the right impedance, with a speaker lead, before it is switched on.',
      });
    }
  }
  for (const lead of ctx.rig.leads) {
    const from = jackOf(ctx.device(lead.from.device), lead.from.jack)?.signal;
    const to = jackOf(ctx.device(lead.to.device), lead.to.jack)?.signal;
    if (from === 'speaker' && lead.type !== 'speaker') {
      remarks.push({
        rule: 'speaker-lead', severity: 'danger', subjects: [lead.id, lead.from.device],
        what: `The lead from ${ctx.device(lead.from.device).name} to ${ctx.device(lead.to.device).name} is no speaker lead.`,
        why: 'An instrument lead in a speaker line overheats and can take the output stage with it.',
        fix: { words: 'Make it a speaker lead', edits: [{ edit: 'setLead', lead: lead.id, type: 'speaker' }] },
      });
    } else if (lead.type === 'speaker' && from !== 'speaker') {
      remarks.push({
        rule: 'speaker-lead', severity: 'caution', subjects: [lead.id, lead.from.device],
        what: `A speaker lead carries signal from ${ctx.device(lead.from.device).name}.`, why: 'It has no screen, so it picks up hum.',
        fix: { words: 'Make it an instrument lead', edits: [{ edit: 'setLead', lead: lead.id, type: 'instrument' }] },
      });
    }
    if (from === 'speaker' && to !== 'speaker') {
      remarks.push({ rule: 'speaker-into-signal', severity: 'danger', subjects: [lead.id, lead.to.device], what: `The speaker output of ${ctx.device(lead.from.device).name} runs into ${ctx.device(lead.to.device).name}.`, why: 'Speaker level destroys a signal input, and the amplifier has no load. Disconnect it.' });
    }
    if (from !== 'speaker' && to === 'speaker') {
      remarks.push({ rule: 'signal-into-speaker', severity: 'fault', subjects: [lead.id, lead.to.device], what: `${ctx.device(lead.from.device).name} cannot drive ${ctx.device(lead.to.device).name}.`, why: 'A cabinet has no amplifier of its own; only a speaker output drives it.' });
    }
  }
  return remarks;
};
