import type { Scene } from '../control/scene';
import { fixes, type Remark } from '../findings/finding';
import { at as entryAt, sure } from '../outcome';
import type { Edit } from '../rig/edits';
import type { Address } from '../rig/schema';
import { type Mismatch } from './mismatch';
import { runChange } from './change';
import { type Stage } from './stage';
import { addressIn } from './commands';
import { freeAddress } from './free-address';
import { reacts } from './listeners';
import { numbersOn } from './programs';
import type { MidiDevice } from './setup';

/** A remark about some scenes: the sounds in which it shows. */
export interface SceneRemark {
  sounds: string[];
  remark: Remark;
}

/** A call that went to the wrong number of a device. */
export interface WrongCall {
  scene: Scene;
  from: Scene;
  mismatch: Mismatch;
}

/** What several wrong calls of one device have in common. */
interface WrongNumbers {
  /** Where each sound is, and what was called instead, in words. */
  lines: Map<Scene, string>;
  /** By how much numbers were off; a bank counts as a thousand. */
  offs: Set<number>;
  repairs: Edit[];
  /** Some of the sounds are to be kept at one program. */
  isShared: boolean;
}

/**
 * A number that calls something else than it should: which was sent, what it calls, where the sound
 * really is, and by how much it is off.
 */
export function numberRemark(
  stage: Stage,
  list: WrongCall[],
  base: Pick<Remark, 'subjects' | 'about' | 'severity'>,
): SceneRemark {
  const { device } = entryAt(list, 0).mismatch;
  const m = sure(stage.orders.graph.devices.get(device));
  const sounds = [...new Set(list.map((w) => w.scene.sound.id))];
  const { lines, offs, repairs, isShared } = wrongNumbers(stage, m, list);
  const off = offs.size === 1 ? entryAt([...offs], 0) : undefined;
  const why =
    [...lines.values()].slice(0, 3).join('. ') +
    (lines.size > 3 ? `, and ${lines.size - 3} more` : '') +
    `.${steadyWords(off)}`;
  const fix = (words: string) => fixes(repairs.length ? [{ words, edits: repairs }] : []);
  const [them, their] = repairs.length === 1 ? ['it a program', 'its'] : ['them programs', 'their'];
  const remark: Remark =
    isShared && !offs.size
      ? {
          ...base,
          rule: 'midi-shared',
          what: `${m.device.name} keeps different sounds at one program.`,
          why,
          ...fix(`Give ${them} of ${their} own`),
        }
      : {
          ...base,
          rule: 'midi-number',
          what: `${m.device.name} is called at the wrong ${off !== undefined && off % 1000 === 0 ? 'bank' : 'number'}.`,
          why,
          ...fix('Send the numbers at which it keeps these sounds'),
        };
  return { sounds, remark };
}

/** What a constant distance between the number sent and the right one says. */
function steadyWords(off: number | undefined): string {
  if (off === undefined) return '';
  if (Math.abs(off) === 1) return ' All are off by one: one side counts from 0, the other from 1.';
  return Math.abs(off) === 1000
    ? ' All are one bank off: one side counts banks from 0, the other from 1.'
    : '';
}

/** Holds each call against where its sound is kept, and finds the repair of each. */
function wrongNumbers(stage: Stage, m: MidiDevice, list: WrongCall[]): WrongNumbers {
  const found: WrongNumbers = { lines: new Map(), offs: new Set(), repairs: [], isShared: false };
  const { lines, offs, repairs } = found;
  const device = m.device.id;
  for (const { scene, from } of list) {
    if (lines.has(scene)) continue;
    const wanted = addressIn(scene, device);
    const effect = runChange(stage, from, scene, { quiet: true })
      .landings.filter((l) => l.device === device)
      .flatMap(({ effect: e }) => (e.what === 'program' || e.what === 'unknown' ? [e] : []))
      .at(-1);
    if (!wanted || !effect) continue;
    const got: Address = { ...(m.bank !== 'none' && { bank: effect.bank }), number: effect.number };
    const holds = effect.what === 'program' ? effect.recalled.name : 'nothing';
    const bankOff = effect.bank - (wanted.bank ?? 0);
    const numberOff = effect.number - wanted.number;
    if (!bankOff && !numberOff) {
      found.isShared = true;
      lines.set(scene, `${numbersOn(m, wanted)} is to hold both ${holds} and ${scene.name}`);
      repairs.push(...ownProgram(stage, device, scene, repairs));
    } else {
      offs.add(bankOff * 1000 + numberOff);
      lines.set(
        scene,
        `${scene.name} is at ${numbersOn(m, wanted)}; what is sent ` +
          `calls ${numbersOn(m, got)}, which holds ${holds}`,
      );
      repairs.push(...rightNumber(stage, m, scene, wanted));
    }
  }
  return found;
}

/** Gives a sound a program of a device that holds no other, nor is given to one by these repairs. */
function ownProgram(stage: Stage, device: string, scene: Scene, repairs: readonly Edit[]): Edit[] {
  const given = repairs.flatMap((e) => (e.edit === 'setProgram' && e.program ? [e.program] : []));
  const program = freeAddress(stage, device, given);
  return program && stage.orders.rig.sounds.some((s) => s.id === scene.id)
    ? [{ edit: 'setProgram', device, sound: scene.id, program }]
    : [];
}

/** Mends the number in the written list of a sound. */
function rightNumber({ orders }: Stage, m: MidiDevice, scene: Scene, wanted: Address): Edit[] {
  const sound = orders.rig.sounds.find((s) => s.id === scene.sound.id);
  const sends = sound?.sends ?? [];
  const wrong = sends.find(
    (x) =>
      x.message.type === 'program' &&
      (x.to === m.device.id ||
        (x.to === undefined && reacts(m, { ...x.message, type: 'program' }))),
  );
  if (!sound || wrong?.message.type !== 'program') return [];
  const message = { type: 'program' as const, channel: wrong.message.channel, ...wanted };
  const right = sends
    .filter((x) => x.from === wrong.from)
    .map((x) => (x === wrong ? { ...x, message } : x));
  return [{ edit: 'setSends', sound: sound.id, from: wrong.from, sends: right }];
}
