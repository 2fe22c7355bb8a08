import type { Kind } from '../../kinds';
import type { SettingValue, State } from '../schema';
import type { Check } from './checking';

export function checkSettings(
  kind: Kind,
  settings: Record<string, SettingValue> | undefined,
  where: string,
  say: (where: string, what: string) => void,
) {
  for (const [id, value] of Object.entries(settings ?? {})) {
    const wrong = settingProblem(kind, id, value);
    if (wrong) say(`${where}.${id}`, wrong);
  }
}

/**
 * What is wrong with a setting's value for this kind; nothing for settings that the kind does not
 * have, which are kept.
 */
export function settingProblem(kind: Kind, id: string, value: SettingValue): string | undefined {
  const parameter = kind.parameters.find((p) => p.id === id);
  if (!parameter) return undefined;
  if (parameter.type === 'knob') {
    return typeof value === 'number' && value >= parameter.min && value <= parameter.max
      ? undefined
      : `${parameter.label} takes a number from ${parameter.min} to ${parameter.max}, not ${JSON.stringify(value)}`;
  }
  if (parameter.type === 'text') {
    const wrong =
      typeof value === 'string' ? parameter.problem(value) : `a text, not ${JSON.stringify(value)}`;
    return wrong && `${parameter.label}: ${wrong}`;
  }
  if (parameter.type === 'switch')
    return typeof value === 'boolean'
      ? undefined
      : `${parameter.label} is true or false, not ${JSON.stringify(value)}`;
  return parameter.options.some((o) => o.value === value)
    ? undefined
    : `${parameter.label} is one ` +
        `of ${parameter.options.map((o) => `"${o.value}"`).join(', ')}, ` +
        `not ${JSON.stringify(value)}`;
}

/** Whether a kind has a setting that can hold a value. */
export const isSettingOf = (kind: Kind, id: string, value: SettingValue): boolean =>
  kind.parameters.some((p) => p.id === id) && settingProblem(kind, id, value) === undefined;

/** Settings out of range: of devices, in sounds, and in songs and their sections. */
export const checkStates: Check = (rig, devices, say) => {
  rig.devices.forEach((d, row) => {
    const kind = devices.get(d.id)?.kind;
    if (kind) checkSettings(kind, d.settings, `devices[${row}].settings`, say);
  });
  rig.sounds.forEach((sound, row) => {
    for (const [id, state] of Object.entries(sound.states)) {
      const where = `sounds[${row}].states.${id}`;
      const found = devices.get(id);
      if (found) checkSettings(found.kind, state.settings, `${where}.settings`, say);
      else if (!rig.devices.some((d) => d.id === id))
        say(where, `there is no device "${id}" in this rig`);
    }
  });
  const inSong = (where: string, states: Record<string, State> | undefined) => {
    for (const [id, state] of Object.entries(states ?? {})) {
      const found = devices.get(id);
      if (found) checkSettings(found.kind, state.settings, `${where}.states.${id}.settings`, say);
    }
  };
  rig.songs?.forEach((song, row) => {
    inSong(`songs[${row}]`, song.states);
    song.sections.forEach((s, i) => inSong(`songs[${row}].sections[${i}]`, s.states));
  });
};
