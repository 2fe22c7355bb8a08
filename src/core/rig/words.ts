import { findKind } from '../kinds';
import { clockHour } from '../units';
import type { USUAL } from './build-schema';
import type { Edit } from './edit';
import { endWords, leadOf, nameOf, soundOf } from './find';
import { promiseWords } from './promise-words';
import type { Address, Rig, SettingValue } from './schema';

const USUAL_WORDS: Record<(typeof USUAL)[number], string> = {
  power: 'power',
  gives: 'outlets',
  size: 'size',
  units: 'rack units',
  jackSpots: 'jacks',
  mains: 'mains',
};

/** A setting's value as a person would say it: knobs of 0 to 10 by clock hour. */
export function settingWords(
  kindId: string | undefined,
  setting: string,
  value: SettingValue,
): string {
  const p = kindId ? findKind(kindId)?.parameters.find((x) => x.id === setting) : undefined;
  if (p?.type === 'knob' && typeof value === 'number')
    return p.unit ? `${p.label} ${value} ${p.unit}` : `${p.label} at ${clockHour(value)}`;
  if (p?.type === 'choice')
    return `${p.label}: ${p.options.find((o) => o.value === value)?.label ?? value}`;
  if (p?.type === 'text') return `${p.label}: ${value === '' ? 'none' : value}`;
  if (p?.type === 'switch') return `${p.label}: ${value ? 'on' : 'off'}`;
  return `${setting} ${value}`;
}

/** An address as on the wire: "5", or "bank 2 program 5". */
export const addressWords = (a: Address): string =>
  a.bank === undefined ? String(a.number) : `bank ${a.bank} program ${a.number}`;

/** Where a control stands, in words. */
export const positionWords = (at: number | boolean | null | undefined): string =>
  at === null || at === undefined
    ? 'is not set'
    : typeof at === 'number'
      ? `at ${Math.round(at)} %`
      : at
        ? 'on'
        : 'off';

/** What an edit does, in a few words, told of the rig before it: "moved Wah before Amber Drive". */
export function editWords(rig: Rig, e: Edit): string {
  const d = (id: string) => nameOf(rig, id);
  const s = (id: string | undefined) =>
    id === undefined ? 'in every sound' : `in ${soundOf(rig, id)?.name ?? id}`;
  const into = (lead: string) => {
    const l = leadOf(rig, lead);
    return l ? `between ${d(l.from.device)} and ${d(l.to.device)}` : '';
  };
  const kindOfDevice = (id: string) => rig.devices.find((x) => x.id === id)?.kind;
  switch (e.edit) {
    case 'renameRig':
      return `renamed the rig to ${e.name}`;
    case 'setRigNotes':
      return 'changed the notes of the rig';
    case 'addDevice':
      return `added ${e.device.name}`;
    case 'insertInLead':
      return `put ${e.device.name} ${into(e.lead)}`;
    case 'append':
      return `put ${e.device.name} after ${endWords(rig, e.after)}`;
    case 'removeDevice':
      return `removed ${d(e.device)}`;
    case 'moveDevice':
      return `moved ${d(e.device)} ${into(e.lead)}`;
    case 'replaceDevice':
      return `replaced ${d(e.device)} by ${e.name ?? findKind(e.kind)?.name ?? e.kind}`;
    case 'connect':
      return `connected ${endWords(rig, e.lead.from)} to ${endWords(rig, e.lead.to)}`;
    case 'disconnect': {
      const l = leadOf(rig, e.lead);
      return l
        ? `disconnected ${endWords(rig, l.from)} from ${endWords(rig, l.to)}`
        : 'disconnected a lead';
    }
    case 'setLead':
      return `changed the lead ${into(e.lead)}`;
    case 'swapEnds':
      return `exchanged where the leads from ${e.leads
        .map((id) => {
          const l = leadOf(rig, id);
          return l ? endWords(rig, l.from) : id;
        })
        .join(' and ')} go`;
    case 'setDevice':
      return e.name !== undefined
        ? `renamed ${d(e.device)} to ${e.name}`
        : e.supply
          ? `plugged ${d(e.device)} into ${d(e.supply.device)}`
          : e.gives
            ? `wrote in the outlets of ${d(e.device)}`
            : e.power
              ? `changed what ${d(e.device)} takes of power`
              : e.jackSpots || e.size || e.units !== undefined
                ? `changed the measures of ${d(e.device)}`
                : `changed the record of ${d(e.device)}`;
    case 'asUsual':
      return `gave ${d(e.device)} what is usual for its kind (${e.what.map((x) => USUAL_WORDS[x]).join(', ')})`;
    case 'setEngaged':
      return `${e.engaged ? 'engaged' : 'bypassed'} ${d(e.device)} ${s(e.sound)}`;
    case 'setSetting':
      return `set ${d(e.device)}, ${settingWords(kindOfDevice(e.device), e.setting, e.value)}, ${s(e.sound)}`;
    case 'clearState':
      return `${d(e.device)} follows its own setting ${s(e.sound)}`;
    case 'overrideFigure':
      return `gave ${d(e.device)} a ${e.override.from} figure`;
    case 'clearFigure':
      return `${d(e.device)} goes back to a typical figure`;
    case 'addSound':
      return `added the sound ${e.sound.name}`;
    case 'copySound':
      return `copied the sound ${soundOf(rig, e.sound)?.name ?? ''} to ${e.name}`;
    case 'renameSound':
      return `renamed the sound ${soundOf(rig, e.sound)?.name ?? ''} to ${e.name}`;
    case 'setSoundNotes':
      return `changed the notes of ${soundOf(rig, e.sound)?.name ?? 'a sound'}`;
    case 'moveSound':
      return `moved the sound ${soundOf(rig, e.sound)?.name ?? ''} to place ${e.to + 1}`;
    case 'removeSound':
      return `removed the sound ${soundOf(rig, e.sound)?.name ?? ''}`;
    case 'setStance':
      return `chose "${e.stance.stance}" for an order rule`;
    case 'acceptFinding':
      return 'accepted a finding';
    case 'reopenFinding':
      return 'took a finding up again';
    case 'setReference':
      return 'changed the reference lead';
    case 'tick':
      return `ticked a step of the checklist, ${e.by}`;
    case 'untick':
      return 'took a tick back';
    case 'setCure':
      return e.from ? `adhesive sets for ${e.hours} h` : 'the adhesive has no timer';
    case 'setMaking':
      return 'changed how leads are made';
    case 'setBrief':
      return 'changed the brief';
    case 'addPromise':
      return `promised: ${promiseWords(rig, e.promise)}`;
    case 'setPromise':
      return `changed a promise to: ${promiseWords(rig, e.promise)}`;
    case 'removePromise': {
      const gone = rig.promises?.find((p) => p.id === e.promise);
      return gone ? `took back the promise: ${promiseWords(rig, gone)}` : 'took back a promise';
    }
    case 'moveToLoop':
      return `moved ${d(e.device)} out, onto ${e.loops.join(' and ')}`;
    case 'moveFromLoop':
      return `moved ${d(e.device)} in, where its loop stood`;
    case 'setMidi':
      return `changed how ${d(e.device)} is set up for MIDI`;
    case 'setTempo':
      return `${d(e.device)} takes its time by ${e.tempo.way}${e.tempo.division ? `, ${e.tempo.division}` : ''}`;
    case 'unplugPower':
      return `took ${d(e.device)} off its supply`;
    case 'setExpects':
      return `changed what ${endWords(rig, { device: e.device, jack: e.jack })} expects`;
    case 'setProgram':
      return e.program
        ? `${d(e.device)} keeps ${soundOf(rig, e.sound)?.name ?? e.sound} at wire ${addressWords(e.program)}`
        : `took ${soundOf(rig, e.sound)?.name ?? e.sound} off the programs of ${d(e.device)}`;
    case 'setSends':
      return e.sends
        ? `wrote out what ${d(e.from)} sends ${s(e.sound)}`
        : `${d(e.from)} sends what follows from the programs ${s(e.sound)}`;
    case 'addControl':
      return `added the control ${e.control.name}`;
    case 'setControl':
      return `changed the control ${e.control.name}`;
    case 'removeControl':
      return `removed the control ${rig.controls?.find((c) => c.id === e.control)?.name ?? e.control}`;
    case 'setPosition':
      return `${rig.controls?.find((c) => c.id === e.control)?.name ?? e.control} ${positionWords(e.at)} ${s(e.sound)}`;
    case 'addSong':
      return `added the song ${e.song.title}`;
    case 'setSong':
      return `changed the song ${e.song.title}`;
    case 'removeSong':
      return `removed the song ${rig.songs?.find((x) => x.id === e.song)?.title ?? e.song}`;
    case 'addSet':
      return `added the set ${e.set.name}`;
    case 'setSet':
      return `changed the set ${e.set.name}`;
    case 'removeSet':
      return `removed the set ${rig.sets?.find((x) => x.id === e.set)?.name ?? e.set}`;
    case 'setCandidates':
      return 'changed which controllers are compared';
    case 'placeOnBoard':
      return e.at
        ? `placed ${d(e.device)} on ${rig.boards?.find((b) => b.id === e.at!.board)?.name ?? e.at.board}`
        : `took ${d(e.device)} off its board`;
    case 'placeInRack':
      return e.rack
        ? `mounted ${d(e.device)} ` +
            `in ${rig.racks?.find((r) => r.id === e.rack!.rack)?.name ?? e.rack.rack}, ` +
            `unit ${e.rack.unit}`
        : `took ${d(e.device)} out of its rack`;
    case 'addBoard':
      return `added the board ${e.board.name}`;
    case 'setBoard':
      return `changed the board ${e.board.name}`;
    case 'removeBoard':
      return `removed the board ${rig.boards?.find((x) => x.id === e.board)?.name ?? e.board}`;
    case 'addRack':
      return `added the rack ${e.rack.name}`;
    case 'setRack':
      return `changed the rack ${e.rack.name}`;
    case 'removeRack':
      return `removed the rack ${rig.racks?.find((x) => x.id === e.rack)?.name ?? e.rack}`;
    case 'setCases':
      return 'changed the cases';
    case 'addLoom':
      return `added the loom ${e.loom.name}`;
    case 'setLoom':
      return `changed the loom ${e.loom.name}`;
    case 'removeLoom':
      return `removed the loom ${rig.looms?.find((x) => x.id === e.loom)?.name ?? e.loom}`;
    case 'setStage':
      return 'changed the stage plot';
    case 'setTour':
      return 'changed where the rig plays';
    case 'setLimits':
      return 'changed the limits';
    case 'replaceRig':
      return 'went back to another revision';
  }
}
