import * as z from 'zod';
import { defineEdit } from './define';
import { sendSchema } from '../midi-schema';
import { addressSchema } from '../setting-value';
import { idSchema } from '../schema';
import { soundOf } from '../find';
import { settingWords, addressWords, positionWords } from '../words';
import { onDevice, onSound, onState } from './parts';

const setting = z.union([z.number(), z.string().max(200), z.boolean()]);

export const stateEdits = {
  setEngaged: defineEdit(
    'setEngaged',
    { device: idSchema, sound: idSchema.optional(), engaged: z.boolean() },
    {
      apply: (rig, e) => onState(rig, e.device, e.sound, (s) => (s.engaged = e.engaged)),
      words: (e, { d, s }) => `${e.engaged ? 'engaged' : 'bypassed'} ${d(e.device)} ${s(e.sound)}`,
    },
  ),
  setSetting: defineEdit(
    'setSetting',
    {
      device: idSchema,
      sound: idSchema.optional(),
      setting: idSchema,
      value: setting,
    },
    {
      apply: (rig, e) =>
        onState(rig, e.device, e.sound, (s) => ((s.settings ??= {})[e.setting] = e.value)),
      words: (e, { d, s, kindOfDevice }) =>
        `set ${d(e.device)}, ${settingWords(kindOfDevice(e.device), e.setting, e.value)}, ${s(e.sound)}`,
    },
  ),
  holdEverywhere: defineEdit(
    'holdEverywhere',
    { device: idSchema, setting: idSchema.optional(), value: setting },
    {
      apply: (rig, e) => {
        const held = e.setting;
        if (held === undefined && typeof e.value !== 'boolean')
          return 'A device is engaged or bypassed, nothing else.';
        const refusal = onState(rig, e.device, undefined, (s) => {
          if (held === undefined) s.engaged = e.value === true;
          else (s.settings ??= {})[held] = e.value;
        });
        if (refusal) return refusal;
        for (const { states } of rig.sounds) {
          const own = Object.hasOwn(states, e.device) ? states[e.device] : undefined;
          if (!own) continue;
          if (held === undefined) delete own.engaged;
          else if (own.settings) delete own.settings[held];
          if (own.settings && !Object.keys(own.settings).length) delete own.settings;
          if (!Object.keys(own).length) delete states[e.device];
        }
      },
      words: (e, { d, kindOfDevice }) =>
        e.setting === undefined
          ? `${e.value === true ? 'engaged' : 'bypassed'} ${d(e.device)} in every sound`
          : `set ${d(e.device)}, ${settingWords(kindOfDevice(e.device), e.setting, e.value)}, in every sound`,
    },
  ),
  clearState: defineEdit(
    'clearState',
    { device: idSchema, sound: idSchema },
    {
      apply: (rig, e) => onSound(rig, e.sound, (s) => void delete s.states[e.device]),
      words: (e, { d, s }) => `${d(e.device)} follows its own setting ${s(e.sound)}`,
    },
  ),
  setProgram: defineEdit(
    'setProgram',
    { device: idSchema, sound: idSchema, program: addressSchema.nullable() },
    {
      apply: (rig, e) =>
        onDevice(rig, e.device, () =>
          onSound(rig, e.sound, (s) => {
            if (e.program) (s.states[e.device] ??= {}).program = e.program;
            else delete s.states[e.device]?.program;
          }),
        ),
      words: (e, { d, rig }) =>
        e.program
          ? `${d(e.device)} keeps ${soundOf(rig, e.sound)?.name ?? e.sound} at wire ${addressWords(e.program)}`
          : `took ${soundOf(rig, e.sound)?.name ?? e.sound} off the programs of ${d(e.device)}`,
    },
  ),
  setSends: defineEdit(
    'setSends',
    {
      sound: idSchema,
      from: idSchema,
      sends: z.array(sendSchema).max(500).nullable(),
    },
    {
      apply: (rig, e) =>
        onSound(rig, e.sound, (s) => {
          const rest = (s.sends ?? []).filter((x) => x.from !== e.from);
          s.sends = [...rest, ...(e.sends ?? [])];
          if (!s.sends.length) delete s.sends;
        }),
      words: (e, { d, s }) =>
        e.sends
          ? `wrote out what ${d(e.from)} sends ${s(e.sound)}`
          : `${d(e.from)} sends what follows from the programs ${s(e.sound)}`,
    },
  ),
  setPosition: defineEdit(
    'setPosition',
    {
      sound: idSchema,
      control: idSchema,
      at: z.union([z.number().min(0).max(100), z.boolean()]).nullable(),
    },
    {
      apply: (rig, e) =>
        onSound(rig, e.sound, (s) => {
          if (!rig.controls?.some((c) => c.id === e.control))
            return 'That control is not there any more.';
          if (e.at === null) delete s.controls?.[e.control];
          else (s.controls ??= {})[e.control] = e.at;
        }),
      words: (e, { s, rig }) =>
        `${rig.controls?.find((c) => c.id === e.control)?.name ?? e.control} ${positionWords(e.at)} ${s(e.sound)}`,
    },
  ),
};
