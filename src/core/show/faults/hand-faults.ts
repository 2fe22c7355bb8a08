import { kindOf, type Knob } from '../../kinds';
import { isEngaged } from '../../rig/device-state';
import { nameOf } from '../../rig/find';
import type { Device, Rig, SettingValue } from '../../rig/schema';
import { placeOf } from '../../rig/stands-where';
import { settingWords } from '../../rig/words';
import { standing, withLeads } from './changes';
import { type Fault, REACH_SECONDS, type Sort, type Whole } from './fault';
import { boxes, jackAt, soundLeads } from './look';

/** Knobs that say how loud, in the order in which one would be looked for. */
const LOUDNESS = ['level', 'master', 'volume', 'loopLevel', 'mix', 'gain', 'drive'];

/** The hand: a tuner left muting, a pedal at the heel, a knob, a switch, the wrong input. */
export const handFaults: Sort = {
  id: 'hand',
  words: 'Something set wrong by hand',
  odds: 'Each is found in 1 to 6 of 1000 shows, more than all else in the first minute.',
  expand: (whole) => [
    ...boxes(whole.rig).flatMap((d) => ofDevice(whole.rig, d)),
    ...wrongInputs(whole),
  ],
};

function ofDevice(rig: Rig, device: Device): Fault[] {
  const kind = kindOf(device.kind);
  const where = placeOf(device);
  const faults: Fault[] = [];
  const add = (
    id: string,
    words: string,
    perThousand: number,
    mend: string,
    state: { engaged?: boolean; settings?: Record<string, SettingValue> },
  ) =>
    faults.push({
      id: `hand ${id} ${device.id}`,
      sort: 'hand',
      words,
      subjects: [device.id],
      perThousand,
      dark: [],
      where,
      seenAt: device.id,
      mend: { words: mend, seconds: where === 'player' ? 4 : REACH_SECONDS[where] / 2 },
      change: (w) => standing(w, device.id, state),
    });
  if (kind.job === 'tuner' && !kind.destination && !kind.alwaysOn)
    add('tuner', `${device.name} was left muting`, 6, `press ${device.name}`, { engaged: true });
  for (const p of kind.parameters) {
    if (p.type !== 'knob' || !p.foot) continue;
    add(`heel ${p.id}`, `${device.name} stands at the heel`, 5, `put ${device.name} forward`, {
      settings: { [p.id]: p.min },
    });
  }
  if (kind.job === 'instrument' && kind.parameters.some((p) => p.id === 'volume'))
    add('volume', `the volume of ${device.name} is down`, 6, `turn up ${device.name}`, {
      settings: { volume: 0 },
    });
  const knob = LOUDNESS.map((id) => kind.parameters.find((p) => p.id === id)).find(
    (p): p is Knob => p?.type === 'knob',
  );
  if (knob && kind.job !== 'instrument')
    add(
      `knob ${knob.id}`,
      `${knob.label} of ${device.name} was knocked down`,
      1,
      `set ${knob.label} of ${device.name} to its mark`,
      { settings: { [knob.id]: knob.min } },
    );
  if (!kind.programs)
    for (const p of kind.parameters) {
      if (p.type !== 'choice' || (kind.job !== 'splitter' && kind.job !== 'switcher')) continue;
      const usual = device.settings?.[p.id] ?? p.initial;
      for (const { value, label } of p.options)
        if (value !== usual && p.id !== 'unselected')
          add(
            `choice ${p.id} ${value}`,
            `${device.name} was left at ${settingWords(device.kind, p.id, value)}`,
            0.6,
            `set ${p.label} of ${device.name} as the sound wants it, not to ${label}`,
            { settings: { [p.id]: value } },
          );
    }
  if (isToggled(rig, device))
    add('left off', `${device.name} was left off`, 1.5, `press ${device.name}`, { engaged: false });
  return faults;
}

/** Whether a foot switches a device, and it is engaged in some sound. */
function isToggled(rig: Rig, device: Device): boolean {
  const kind = kindOf(device.kind);
  return (
    kind.through !== undefined &&
    !kind.alwaysOn &&
    !kind.stateWords &&
    !kind.mains &&
    placeOf(device) === 'floor' &&
    rig.sounds.some((s) => isEngaged(kind, device, s.states[device.id]))
  );
}

/** A lead of an instrument or into an amplifier in another free input of the same box. */
function wrongInputs({ rig, plugged }: Whole): Fault[] {
  return soundLeads(rig).flatMap((lead): Fault[] => {
    const jack = jackAt(rig, lead.to);
    if (!jack || jack.pair) return [];
    const kind = rig.devices.find((d) => d.id === lead.to.device);
    if (!kind || !['amp', 'splitter', 'modeler'].includes(kindOf(kind.kind).job)) return [];
    const other = kindOf(kind.kind).jacks.find(
      (j) =>
        j.id !== jack.id &&
        j.direction === 'in' &&
        !j.inside &&
        j.connector === jack.connector &&
        j.signal === jack.signal &&
        !plugged.get(kind.id)?.has(j.id),
    );
    if (!other) return [];
    const where = placeOf(kind);
    return [
      {
        id: `wrong input ${lead.id}`,
        sort: 'hand',
        words: `${nameOf(rig, lead.from.device)} is plugged into ${other.label} of ${kind.name}`,
        subjects: [kind.id, lead.id],
        perThousand: 1,
        dark: [],
        where,
        seenAt: kind.id,
        mend: { words: `plug it into ${jack.label}`, seconds: REACH_SECONDS[where] },
        change: (w) =>
          withLeads(w, (l) =>
            l.id === lead.id ? { ...l, to: { device: kind.id, jack: other.id } } : l,
          ),
      },
    ];
  });
}
