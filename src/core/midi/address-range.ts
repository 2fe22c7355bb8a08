import { type Fix, fixes } from '../findings/finding';
import type { Edit } from '../rig/edits';
import type { Address, Send } from '../rig/schema';
import { addressIn, type Orders } from './commands';
import { freeAddress } from './free-address';
import { reacts } from './listeners';
import { type SceneRemark } from './number-remark';
import { numbersOn } from './programs';
import type { MidiDevice } from './setup';
import type { Stage } from './stage';
import { howMany } from '../units';

/** Numbers that a program change can carry. */
const WIRE = 128;

/**
 * Why a device has no such program, in words; undefined where it has one. A bank of 0 sent to a
 * device without banks does nothing and is let pass.
 */
export function addressProblem(m: MidiDevice, address: Address): string | undefined {
  const { bank = 0, number } = address;
  const { name } = m.device;
  if (!m.programs) return `${name} takes no programs`;
  const isBanked = m.bank !== 'none';
  if (!isBanked && bank > 0) return `${name} has no banks, so bank ${bank} calls nothing there`;
  const size = (isBanked && m.shows.size) || WIRE;
  const count = m.kind.midi?.programs?.count ?? WIRE;
  const isSlot = number < size || address.bank === undefined;
  if (isSlot && bank * size + number < count) return undefined;
  const banks = Math.ceil(count / size);
  return (
    `${name} has ${howMany(count, 'program')}` +
    (isBanked && banks > 1
      ? `, banks 0 to ${banks - 1} of ${size} on the wire`
      : `, 0 to ${Math.min(count, size) - 1} on the wire`)
  );
}

/** Programs, slots and banks that a device does not have: of sounds, and in lists that were written. */
export function rangeRemarks(stage: Stage): SceneRemark[] {
  const { orders } = stage;
  return [...orders.graph.devices.values()].flatMap((m): SceneRemark[] => {
    const kept = orders.rig.sounds.flatMap((sound) => {
      const address = sound.states[m.device.id]?.program;
      const why = address && addressProblem(m, address);
      return address && why ? [{ sound, address, why }] : [];
    });
    const sent = orders.rig.sounds.flatMap((sound) =>
      (sound.sends ?? []).flatMap((send) => {
        const why = sentProblem(orders, m, send);
        return why ? [{ sound, address: send.message as Address, why }] : [];
      }),
    );
    const wrong = [...kept, ...sent];
    const first = wrong[0];
    if (!first) return [];
    const others = wrong.length > 1 ? `, and ${wrong.length - 1} more` : '';
    return [
      {
        sounds: [...new Set(wrong.map((w) => w.sound.id))],
        remark: {
          rule: 'midi-range',
          severity: 'fault',
          subjects: [m.device.id],
          about: `${m.device.id} range`,
          what: `${m.device.name} is called at a program that it does not have.`,
          why: `${first.sound.name}: ${numbersOn(m, first.address)}${others}. ${first.why}.`,
          ...fixes(kept.length ? inRange(stage, m, kept) : []),
        },
      },
    ];
  });
}

/** What is wrong with a written program change that a device takes, or is meant to take. */
function sentProblem(orders: Orders, m: MidiDevice, { to, message }: Send): string | undefined {
  if (message.type !== 'program') return undefined;
  const isMeant = to === m.device.id || (to === undefined && m.programs && reacts(m, message));
  return isMeant && orders.graph.devices.has(m.device.id) ? addressProblem(m, message) : undefined;
}

/** Each sound at a program that there is: without its bank where there are none, else at the next free one. */
function inRange(
  stage: Stage,
  m: MidiDevice,
  kept: readonly { sound: { id: string }; address: Address }[],
): Fix[] {
  const taken = stage.orders.scenes.flatMap((s) => addressIn(s, m.device.id) ?? []);
  const edits: Edit[] = [];
  for (const { sound, address } of kept) {
    const plain = { number: address.number };
    const isFree = !taken.some((t) => t.number === plain.number && !t.bank);
    const program =
      m.bank === 'none' && isFree && !addressProblem(m, plain)
        ? plain
        : freeAddress(stage, m.device.id, taken);
    if (!program) return [];
    taken.push(program);
    edits.push({ edit: 'setProgram', device: m.device.id, sound: sound.id, program });
  }
  return [
    { words: `Keep ${edits.length === 1 ? 'it' : 'them'} at a program that there is`, edits },
  ];
}
