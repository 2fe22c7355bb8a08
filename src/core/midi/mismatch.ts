import { sure } from '../outcome';
import { kindOf } from '../kinds';
import type { Rig, SettingValue } from '../rig/schema';
import { type Scene } from '../control/scene';
import { addressIn, mappedValue, type Orders } from './commands';
import { type Machine, type Standing } from './stand-in';
import type { MidiDevice } from './setup';
import { type Stage, underMidi } from './stage';

/**
 * Why something is not as the scene wants it: nothing told the device, a flip went the wrong way, it
 * was called at a number that is another's or nobody's, it keeps the scene nowhere, a message for
 * another device moved it, a program that loaded meanwhile went over it, no message moves this of it,
 * no message reaches it at all, or messages go round without end.
 */
export type Because =
  | 'missed'
  | 'toggled'
  | 'wrong program'
  | 'no program'
  | 'unknown program'
  | 'meant for another'
  | 'overwritten'
  | 'not sent'
  | 'by hand'
  | 'endless';

/** The key of the program that a device stands on, beside those of its settings. */
export const programKey = (device: string): string => `${device} program`;

/** A setting, or the program that a device stands on, that is not what the scene wants, and why. */
export interface Mismatch {
  device: string;
  key: string;
  wanted: SettingValue;
  got: SettingValue | undefined;
  because: Because;
}

/** Values that a 7-bit control change cannot tell apart are the same. */
export function agree(
  rig: Rig,
  key: string,
  wanted: SettingValue,
  got: SettingValue | undefined,
): boolean {
  if (wanted === got) return true;
  if (typeof wanted !== 'number' || typeof got !== 'number') return false;
  const [id, setting] = key.split(' ');
  const device = rig.devices.find((d) => d.id === id);
  const p = device && kindOf(device.kind).parameters.find((x) => x.id === setting);
  return p?.type === 'knob' && Math.abs(wanted - got) <= (p.max - p.min) / 127 / 1.9;
}

/** What of the devices under MIDI is not as the scene wants it. */
export function mismatchesOf(
  stage: Stage,
  to: Scene,
  machine: Machine,
  touched: ReadonlyMap<string, ReadonlySet<string>>,
  because: ReadonlyMap<string, Because>,
): Mismatch[] {
  const { orders, memory } = stage;
  const found: Mismatch[] = [];
  for (const id of underMidi(stage, to)) {
    const m = sure(orders.graph.devices.get(id));
    const standing = sure(machine.get(id));
    const intent = memory.intent(to, id);
    found.push(...programMismatch(to, m, standing, touched, because));
    if (intent === standing.values && addressIn(to, id)) continue;
    const keepsPrograms = m.programs && orders.scenes.some((s) => addressIn(s, id) !== undefined);
    if (keepsPrograms && !addressIn(to, id)) {
      const differing = [...intent].filter(
        ([key, wanted]) => !agree(orders.rig, key, wanted, standing.values.get(key)),
      );
      found.push(
        ...differing.map(([key, wanted]): Mismatch => ({
          device: id,
          key,
          wanted,
          got: standing.values.get(key),
          because: 'no program',
        })),
      );
      continue;
    }
    const keys = keepsPrograms
      ? [...intent.keys()]
      : (orders.needed.get(id) ?? []).map((c) => `${c.device} ${c.setting}`);
    for (const key of keys) {
      const wanted =
        intent.get(key) ??
        mappedValue(orders.rig, to, sure(m.mapped.find((c) => `${c.device} ${c.setting}` === key)));
      const got = standing.values.get(key);
      if (wanted === undefined || agree(orders.rig, key, wanted, got)) continue;
      const told = touched.get(id);
      const why =
        because.get(key) ??
        (keepsPrograms ? because.get(`${id} program`) : undefined) ??
        (keepsPrograms && told?.has('program')
          ? 'wrong program'
          : orders.commanderOf.has(id) && !told?.has(key) && toggles(m, key)
            ? 'toggled'
            : 'missed');
      found.push({ device: id, key, wanted, got, because: why });
    }
  }
  return [...found, ...meddled(stage, to, machine, touched, found)];
}

/** The program that a device stands on, where it is not the one at which it keeps the scene. */
export function programMismatch(
  to: Scene,
  m: MidiDevice,
  { program }: Standing,
  touched?: ReadonlyMap<string, ReadonlySet<string>>,
  because?: ReadonlyMap<string, Because>,
): Mismatch[] {
  const { id } = m.device;
  const wanted = addressIn(to, id);
  const bank = (a: { bank?: number }) => (m.bank === 'none' ? 0 : (a.bank ?? 0));
  if (!m.programs || !wanted) return [];
  if (program && program.number === wanted.number && bank(program) === bank(wanted)) return [];
  const words = (a: { bank?: number; number: number }) =>
    m.bank === 'none' ? `${a.number}` : `${bank(a)}/${a.number}`;
  return [
    {
      device: id,
      key: programKey(id),
      wanted: words(wanted),
      got: program && words(program),
      because:
        because?.get(programKey(id)) ??
        (touched?.get(id)?.has('program') ? 'wrong program' : 'missed'),
    },
  ];
}

/** What a message that was for another device has moved away from what the scene wants. */
function meddled(
  { orders, memory }: Stage,
  to: Scene,
  machine: Machine,
  touched: ReadonlyMap<string, ReadonlySet<string>>,
  known: readonly Mismatch[],
): Mismatch[] {
  return [...touched].flatMap(([id, keys]) => {
    const intent = memory.intent(to, id);
    const standing = machine.get(id);
    return [...keys].flatMap((key): Mismatch[] => {
      const wanted = intent.get(key);
      const got = standing?.values.get(key);
      const isKnown = known.some((k) => k.device === id && k.key === key);
      return isKnown || wanted === undefined || agree(orders.rig, key, wanted, got)
        ? []
        : [{ device: id, key, wanted, got, because: 'meant for another' }];
    });
  });
}

const toggles = (
  m: NonNullable<ReturnType<Orders['graph']['devices']['get']>>,
  key: string,
): boolean => m.mapped.some((c) => `${c.device} ${c.setting}` === key && c.way === 'toggle');
