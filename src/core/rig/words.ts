import { findKind } from '../kinds';
import { clockHour } from '../units';
import type { Edit } from './edit';
import { endWords, leadOf, nameOf, soundOf } from './find';
import { promiseWords } from './promise-words';
import type { Rig, SettingValue } from './schema';

/** A setting's value as a person would say it: knobs of 0 to 10 by clock hour. */
export function settingWords(kindId: string | undefined, setting: string, value: SettingValue): string {
  const p = kindId ? findKind(kindId)?.parameters.find((x) => x.id === setting) : undefined;
  if (p?.type === 'knob' && typeof value === 'number') return p.unit ? `${p.label} ${value} ${p.unit}` : `${p.label} at ${clockHour(value)}`;
  if (p?.type === 'choice') return `${p.label}: ${p.options.find((o) => o.value === value)?.label ?? value}`;
  if (p?.type === 'text') return `${p.label}: ${value === '' ? 'none' : value}`;
  if (p?.type === 'switch') return `${p.label}: ${value ? 'on' : 'off'}`;
  return `${setting} ${value}`;
}

/** What an edit does, in a few words, told of the rig before it: "moved Wah before Amber Drive". */
export function editWords(rig: Rig, e: Edit): string {
  const d = (id: string) => nameOf(rig, id);
  const s = (id: string | undefined) => (id === undefined ? 'in every sound' : `in ${soundOf(rig, id)?.name ?? id}`);
  const into = (lead: string) => {
    const l = leadOf(rig, lead);
    return l ? `between ${d(l.from.device)} and ${d(l.to.device)}` : '';
  };
  const kindOfDevice = (id: string) => rig.devices.find((x) => x.id === id)?.kind;
  switch (e.edit) {
    case 'renameRig': return `renamed the rig to ${e.name}`;
    case 'setRigNotes': return 'changed the notes of the rig';
    case 'addDevice': return `added ${e.device.name}`;
    case 'insertInLead': return `put ${e.device.name} ${into(e.lead)}`;
    case 'append': return `put ${e.device.name} after ${endWords(rig, e.after)}`;
    case 'removeDevice': return `removed ${d(e.device)}`;
    case 'moveDevice': return `moved ${d(e.device)} ${into(e.lead)}`;
    case 'replaceDevice': return `replaced ${d(e.device)} by ${e.name ?? findKind(e.kind)?.name ?? e.kind}`;
    case 'connect': return `connected ${endWords(rig, e.lead.from)} to ${endWords(rig, e.lead.to)}`;
    case 'disconnect': {
      const l = leadOf(rig, e.lead);
      return l ? `disconnected ${endWords(rig, l.from)} from ${endWords(rig, l.to)}` : 'disconnected a lead';
    }
    case 'setLead': return `changed the lead ${into(e.lead)}`;
    case 'swapEnds': return `exchanged where the leads from ${e.leads.map((id) => { const l = leadOf(rig, id); return l ? endWords(rig, l.from) : id; }).join(' and ')} go`;
    case 'setDevice': return e.name !== undefined ? `renamed ${d(e.device)} to ${e.name}` : `changed the record of ${d(e.device)}`;
    case 'setEngaged': return `${e.engaged ? 'engaged' : 'bypassed'} ${d(e.device)} ${s(e.sound)}`;
    case 'setSetting': return `set ${d(e.device)}, ${settingWords(kindOfDevice(e.device), e.setting, e.value)}, ${s(e.sound)}`;
    case 'clearState': return `${d(e.device)} follows its own setting ${s(e.sound)}`;
    case 'overrideFigure': return `gave ${d(e.device)} a ${e.override.from} figure`;
    case 'clearFigure': return `${d(e.device)} goes back to a typical figure`;
    case 'addSound': return `added the sound ${e.sound.name}`;
    case 'copySound': return `copied the sound ${soundOf(rig, e.sound)?.name ?? ''} to ${e.name}`;
    case 'renameSound': return `renamed the sound ${soundOf(rig, e.sound)?.name ?? ''} to ${e.name}`;
    case 'setSoundNotes': return `changed the notes of ${soundOf(rig, e.sound)?.name ?? 'a sound'}`;
    case 'moveSound': return `moved the sound ${soundOf(rig, e.sound)?.name ?? ''} to place ${e.to + 1}`;
    case 'removeSound': return `removed the sound ${soundOf(rig, e.sound)?.name ?? ''}`;
    case 'setStance': return `chose "${e.stance.stance}" for an order rule`;
    case 'acceptFinding': return 'accepted a finding';
    case 'reopenFinding': return 'took a finding up again';
    case 'setReference': return 'changed the reference lead';
    case 'setBrief': return 'changed the brief';
    case 'addPromise': return `promised: ${promiseWords(rig, e.promise)}`;
    case 'setPromise': return `changed a promise to: ${promiseWords(rig, e.promise)}`;
    case 'removePromise': {
      const gone = rig.promises?.find((p) => p.id === e.promise);
      return gone ? `took back the promise: ${promiseWords(rig, gone)}` : 'took back a promise';
    }
    case 'moveToLoop': return `moved ${d(e.device)} out, onto ${e.loops.join(' and ')}`;
    case 'moveFromLoop': return `moved ${d(e.device)} in, where its loop stood`;
    case 'replaceRig': return 'went back to another revision';
  }
}
