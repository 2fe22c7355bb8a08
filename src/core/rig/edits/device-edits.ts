import * as z from 'zod';
import { findKind } from '../../kinds';
import { defineEdit } from './define';
import { USUAL } from '../build-schema';
import { expectsSchema, midiSchema, tempoSchema } from '../midi-schema';
import { deviceSchema, endSchema, figureOverrideSchema, idSchema } from '../schema';
import { deviceOf, insideOf, leadTypeFor, endWords } from '../find';
import { addDevice, moveDevice, putDeviceInLead, removeDevice } from '../chain-edits';
import { replaceDevice } from '../replace-device';
import { refusedOutlet, unplugLost } from '../power-edits';
import { moveFromLoop, moveToLoop } from '../loop-edits';
import { exchange, loopWords, putInLoop } from '../loop-holding';
import { clipSchema } from '../read-clip';
import { usualMetres } from '../joining';
import { USUAL_WORDS } from '../words';
import { onDevice, given } from './parts';
import { allOf } from '../../units';

export const deviceEdits = {
  addDevice: defineEdit(
    'addDevice',
    { device: deviceSchema },
    {
      apply: (rig, e) => addDevice(rig, e.device),
      words: (e) => `added ${e.device.name}`,
    },
  ),
  paste: defineEdit('paste', clipSchema.omit({ format: true, version: true }).shape, {
    apply: (rig, e) => {
      if (e.sheets?.length) rig.sheets = [...(rig.sheets ?? []), ...e.sheets];
      rig.devices.push(...e.devices.map((d) => ({ ...d })));
      rig.leads.push(...e.leads.map((l) => ({ ...l })));
      for (const sound of rig.sounds)
        if (Object.hasOwn(e.states, sound.name))
          Object.assign(sound.states, structuredClone(e.states[sound.name]));
    },
    words: (e) =>
      `put in ${e.devices.map((d) => d.name).join(', ')}` + (e.from ? `, from ${e.from}` : ''),
  }),
  insertInLead: defineEdit(
    'insertInLead',
    {
      lead: idSchema,
      device: deviceSchema,
      newLeads: z.array(idSchema).length(2),
    },
    {
      apply: (rig, e) => putDeviceInLead(rig, e.device, e.lead, e.newLeads),
      words: (e, { into }) => `put ${e.device.name} ${into(e.lead)}`,
    },
  ),
  append: defineEdit(
    'append',
    { after: endSchema, device: deviceSchema, newLead: idSchema },
    {
      apply: (rig, e) => {
        const kind = findKind(e.device.kind);
        if (!kind) return `There is no kind "${e.device.kind}".`;
        const jack =
          kind.through?.in ?? kind.jacks.find((j) => j.direction !== 'out' && !j.inside)?.id;
        if (!jack) return `${kind.name} has no input to connect.`;
        const host = insideOf(rig, e.after);
        if (host !== undefined && !kind.block && !kind.hosts)
          return `${kind.name} cannot live inside ${deviceOf(rig, host)?.name ?? host}: it has no block form.`;
        addDevice(rig, host === undefined ? e.device : { ...e.device, host });
        const to = { device: e.device.id, jack };
        const type = leadTypeFor(rig, e.after, to);
        rig.leads.push({
          id: e.newLead,
          from: e.after,
          to,
          type,
          metres: usualMetres(rig, e.after, to),
        });
      },
      words: (e, { rig }) => `put ${e.device.name} after ${endWords(rig, e.after)}`,
    },
  ),
  removeDevice: defineEdit(
    'removeDevice',
    { device: idSchema },
    {
      apply: (rig, e) => removeDevice(rig, e.device),
      words: (e, { d }) => `removed ${d(e.device)}`,
    },
  ),
  moveDevice: defineEdit(
    'moveDevice',
    { device: idSchema, lead: idSchema, newLeads: z.array(idSchema).length(2) },
    {
      apply: (rig, e) => moveDevice(rig, e.device, e.lead, e.newLeads),
      words: (e, { d, into }) => `moved ${d(e.device)} ${into(e.lead)}`,
    },
  ),
  replaceDevice: defineEdit(
    'replaceDevice',
    { device: idSchema, kind: z.string(), name: z.string().optional() },
    {
      apply: (rig, e) => replaceDevice(rig, e.device, e.kind, e.name),
      words: (e, { d }) =>
        `replaced ${d(e.device)} by ${e.name ?? findKind(e.kind)?.name ?? e.kind}`,
    },
  ),
  putInLoop: defineEdit(
    'putInLoop',
    { device: deviceSchema, host: idSchema, loop: z.string().max(40) },
    {
      apply: (rig, e) => putInLoop(rig, deviceOf(rig, e.device.id) ?? e.device, e.host, e.loop),
      words: (e, { rig }) => `put ${e.device.name} into ${loopWords(rig, e.host, e.loop)}`,
    },
  ),
  exchange: defineEdit(
    'exchange',
    { device: idSchema, with: idSchema },
    {
      apply: (rig, e) => exchange(rig, e.device, e.with),
      words: (e, { d }) => `exchanged ${d(e.device)} and ${d(e.with)}`,
    },
  ),
  moveToLoop: defineEdit(
    'moveToLoop',
    {
      device: idSchema,
      loops: z.array(z.string().max(40)).min(1).max(2),
      newLeads: z.array(idSchema).min(2).max(4),
    },
    {
      apply: (rig, e) => moveToLoop(rig, e.device, e.loops, e.newLeads),
      words: (e, { d }) => `moved ${d(e.device)} out, onto ${allOf(e.loops)}`,
    },
  ),
  moveFromLoop: defineEdit(
    'moveFromLoop',
    { device: idSchema },
    {
      apply: (rig, e) => moveFromLoop(rig, e.device),
      words: (e, { d }) => `moved ${d(e.device)} in, where its loop stood`,
    },
  ),
  setDevice: defineEdit(
    'setDevice',
    {
      device: idSchema,
      name: z.string().optional(),
      maker: z.string().optional(),
      model: z.string().optional(),
      notes: z.string().optional(),
      place: deviceSchema.shape.place,
      supply: deviceSchema.shape.supply,
      power: deviceSchema.shape.power,
      gives: deviceSchema.shape.gives,
      gear: deviceSchema.shape.gear,
      size: deviceSchema.shape.size,
      units: deviceSchema.shape.units,
      jackSpots: deviceSchema.shape.jackSpots,
      mains: deviceSchema.shape.mains,
      pinned: z.boolean().optional(),
    },
    {
      apply: (rig, e) =>
        (e.supply && refusedOutlet(rig, e.device, e.supply)) ??
        onDevice(rig, e.device, (d) => {
          const { edit: _edit, device: _device, ...changes } = e;
          Object.assign(d, given(changes));
          if (e.gives) unplugLost(rig, d);
        }),
      words: (e, { d }) =>
        e.name !== undefined
          ? `renamed ${d(e.device)} to ${e.name}`
          : e.supply
            ? `plugged ${d(e.device)} into ${d(e.supply.device)}`
            : e.gives
              ? `wrote in the outlets of ${d(e.device)}`
              : e.power
                ? `changed what ${d(e.device)} takes of power`
                : e.jackSpots || e.size || e.units !== undefined
                  ? `changed the measures of ${d(e.device)}`
                  : `changed the record of ${d(e.device)}`,
    },
  ),
  asUsual: defineEdit(
    'asUsual',
    { device: idSchema, what: z.array(z.enum(USUAL)).min(1) },
    {
      apply: (rig, e) =>
        onDevice(rig, e.device, (d) => {
          for (const what of e.what) delete d[what];
          if (e.what.includes('gives')) unplugLost(rig, d);
        }),
      words: (e, { d }) =>
        `gave ${d(e.device)} what is usual for its kind (${e.what.map((x) => USUAL_WORDS[x]).join(', ')})`,
    },
  ),
  overrideFigure: defineEdit(
    'overrideFigure',
    { device: idSchema, figure: idSchema, override: figureOverrideSchema },
    {
      apply: (rig, e) =>
        onDevice(rig, e.device, (d) => void ((d.figures ??= {})[e.figure] = e.override)),
      words: (e, { d }) => `gave ${d(e.device)} a ${e.override.from} figure`,
    },
  ),
  clearFigure: defineEdit(
    'clearFigure',
    { device: idSchema, figure: idSchema },
    {
      apply: (rig, e) =>
        onDevice(rig, e.device, (d) => void (d.figures && delete d.figures[e.figure])),
      words: (e, { d }) => `${d(e.device)} goes back to a typical figure`,
    },
  ),
  unplugPower: defineEdit(
    'unplugPower',
    { device: idSchema },
    {
      apply: (rig, e) => onDevice(rig, e.device, (d) => void delete d.supply),
      words: (e, { d }) => `took ${d(e.device)} off its supply`,
    },
  ),
  setExpects: defineEdit(
    'setExpects',
    { device: idSchema, jack: z.string().max(40), expects: expectsSchema },
    {
      apply: (rig, e) =>
        onDevice(rig, e.device, (d) => {
          if (!findKind(d.kind)?.jacks.some((j) => j.id === e.jack && j.reads))
            return `${d.name} has no jack "${e.jack}" that reads a pedal or switch.`;
          (d.expects ??= {})[e.jack] = e.expects;
        }),
      words: (e, { rig }) =>
        `changed what ${endWords(rig, { device: e.device, jack: e.jack })} expects`,
    },
  ),
  setMidi: defineEdit(
    'setMidi',
    { device: idSchema, midi: midiSchema },
    {
      apply: (rig, e) => onDevice(rig, e.device, (d) => void (d.midi = e.midi)),
      words: (e, { d }) => `changed how ${d(e.device)} is set up for MIDI`,
    },
  ),
  setTempo: defineEdit(
    'setTempo',
    { device: idSchema, tempo: tempoSchema },
    {
      apply: (rig, e) => onDevice(rig, e.device, (d) => void (d.tempo = e.tempo)),
      words: (e, { d }) =>
        `${d(e.device)} takes its time by ${e.tempo.way}${e.tempo.division ? `, ${e.tempo.division}` : ''}`,
    },
  ),
};
