import { at as entryAt, sure } from '../outcome';
import { type Fix, fixes } from '../findings/finding';
import type { Edit } from '../rig/edits';
import { nameOf } from '../rig/find';
import type { Address, Send } from '../rig/schema';
import { fixed } from '../units';
import type { Scene } from '../control/scene';
import { type Because, type Mismatch } from './mismatch';
import { keyWords } from './key-words';
import { record, type Recording, replay } from './replay';
import { runChange } from './change';
import { type Stage } from './stage';
import { addressIn, type Orders } from './commands';
import { reachIn } from './graph';
import { numberRemark, type SceneRemark, type WrongCall } from './number-remark';
import { freeAddress } from './free-address';
import { BANK, type Message, wireMessages } from './message';
import { sortOf } from './message-sorts';
import type { MidiDevice } from './setup';
import { reacts } from './listeners';

/** Scenes that between them hold every state that a device can start from, up to three of each setting. */
export function starts(stage: Stage): Scene[] {
  const { orders, memory } = stage;
  const chosen = new Set<Scene>();
  for (const id of orders.graph.devices.keys()) {
    const seen = new Map<string, Set<string>>();
    for (const scene of orders.scenes) {
      for (const [key, value] of memory.intent(scene, id)) {
        const values = seen.get(key) ?? new Set();
        seen.set(key, values);
        const text = String(value);
        if (values.size >= 3 || values.has(text)) continue;
        values.add(text);
        if (values.size > 1) chosen.add(scene);
      }
      const bank = `bank ${addressIn(scene, id)?.bank ?? 0}`;
      const banks = seen.get('bank') ?? new Set();
      seen.set('bank', banks);
      if (banks.size < 3 && !banks.has(bank)) {
        banks.add(bank);
        if (banks.size > 1) chosen.add(scene);
      }
    }
  }
  return [...new Set([...orders.scenes.slice(0, 1), ...chosen])];
}

/**
 * Everything that ends up wrong when scenes are called, by simulating each from states that between
 * them hold every difference.
 */
export function wrongEnds(stage: Stage): WrongCall[] {
  const froms = starts(stage);
  return stage.orders.scenes.flatMap((to) => {
    let recording: Recording | undefined;
    const ends = froms
      .filter((from) => from !== to)
      .map((from) => {
        let mismatches = recording && replay(stage, from, to, recording)?.mismatches;
        if (!mismatches) {
          const change = runChange(stage, from, to, { quiet: true });
          // What goes round is told as that; what it leaves behind means nothing.
          if (change.traffic.endless) return { from, mismatches: [] };
          recording = record(stage, change);
          mismatches = change.mismatches;
        }
        return { from, mismatches };
      });
    // Whoever is called at the wrong number tells others the wrong thing: that is one mistake, its own.
    const misled = new Set(
      ends
        .flatMap((e) => e.mismatches)
        .filter((m) => MISLEADS.has(m.because))
        .map((m) => m.device),
    );
    const found = new Map<string, { scene: Scene; from: Scene; mismatch: Mismatch }>();
    for (const { from, mismatches } of ends) {
      for (const mismatch of mismatches) {
        const key = `${mismatch.device} ${mismatch.key}`;
        if (!found.has(key) && !tellers(stage, mismatch.device).some((id) => misled.has(id)))
          found.set(key, { scene: to, from, mismatch });
      }
    }
    return [...found.values()];
  });
}

const MISLEADS = new Set<Because>(['wrong program', 'unknown program', 'no program']);

/** Who tells a device, who tells that one, and so on. */
function tellers({ orders }: Stage, device: string): string[] {
  const found: string[] = [];
  for (
    let at = orders.commanderOf.get(device);
    at !== undefined && at !== device && !found.includes(at);
    at = orders.commanderOf.get(at)
  )
    found.push(at);
  return found;
}

/** Changes that do not end as meant, device by device, with what would cure them. */
export function changeRemarks(stage: Stage): SceneRemark[] {
  const { orders } = stage;
  const { rig } = orders;
  const wrong = wrongEnds(stage);
  const groups = new Map<string, typeof wrong>();
  // Who moves what is another's is told as two that listen on one channel.
  for (const w of wrong.filter((x) => x.mismatch.because !== 'meant for another')) {
    const { device, because } = w.mismatch;
    const key = `${device} ${because === 'unknown program' ? 'wrong program' : because}`;
    groups.set(key, [...(groups.get(key) ?? []), w]);
  }
  return [...groups.values()].map((list): SceneRemark => {
    const { scene, from, mismatch } = entryAt(list, 0);
    const name = nameOf(rig, mismatch.device);
    const scenes = [...new Set(list.map((w) => w.scene))];
    const told = keyWords(rig, mismatch);
    const example = `From ${from.name} to ${scene.name}: ${told}`;
    const base = {
      subjects: [mismatch.device],
      about: `${mismatch.device} ${mismatch.because === 'unknown program' ? 'wrong program' : mismatch.because}`,
      severity: 'fault' as const,
    };
    const sounds = [...new Set(scenes.map((s) => s.sound.id))];
    if (mismatch.because === 'toggled') {
      return {
        sounds,
        remark: {
          ...base,
          rule: 'midi-drift',
          what: `${name} drifts: it is switched by messages that flip it.`,
          why:
            `${example}. A flip depends on how it stood before; after a change from elsewhere, ` +
            'or one lost message, it is the wrong way round.',
          ...fixes(absoluteFix(stage, mismatch)),
        },
      };
    }
    if (mismatch.because === 'overwritten')
      return {
        sounds,
        remark: {
          ...base,
          rule: 'midi-overwritten',
          what: `${name} loads a program over what it is told.`,
          why:
            `${example}. The control change has done its work before the program is there, ` +
            `${fixed(sure(orders.graph.devices.get(mismatch.device)).programMs, 0)} ms after its call.`,
          ...fixes(waitFix(stage, mismatch.device, scenes)),
        },
      };
    if (mismatch.because === 'no program')
      return {
        sounds,
        remark: {
          ...base,
          rule: 'midi-unset',
          what: `${name} keeps ${scenes.map((s) => s.name).join(', ')} nowhere.`,
          why:
            'It has programs for other sounds and none ' +
            `for ${scenes.length === 1 ? 'this one' : 'these'}, so it stays as it ` +
            `was. ${example}.`,
          ...fixes(freeProgramFix(stage, mismatch.device, scenes)),
        },
      };
    if (mismatch.because === 'wrong program' || mismatch.because === 'unknown program')
      return numberRemark(stage, list, base);
    return {
      sounds,
      remark: {
        ...base,
        rule: 'midi-missed',
        what: `${name} is not told what ${entryAt(scenes, 0).name} needs.`,
        why: `${example}. What is sent for it leaves this out, so it depends on what was played before.`,
        ...fixes(deriveFix(stage, scenes)),
      },
    };
  });
}

/** A device that can take absolute values is set to do so. */
function absoluteFix({ orders }: Stage, { device, key }: Mismatch): Fix[] {
  const m = sure(orders.graph.devices.get(device));
  const c = m.mapped.find((x) => `${x.device} ${x.setting}` === key);
  if (!c?.canBeAbsolute) return [];
  const controls = m.mapped.map((x) => ({
    setting: x.setting,
    ...(x.device !== device && { device: x.device }),
    cc: x.cc,
    ...(x.as !== 'control' && { as: x.as }),
    way: x === c ? ('absolute' as const) : x.way,
  }));
  return [
    {
      words: `Let ${m.device.name} take on and off as values`,
      edits: [{ edit: 'setMidi', device, midi: { ...m.device.midi, controls } }],
    },
  ];
}

/** Control changes for a device behind its program, and so much later that it has loaded. */
function waitFix({ orders }: Stage, device: string, scenes: readonly Scene[]): Fix[] {
  const m = sure(orders.graph.devices.get(device));
  const isFor = (x: Send) =>
    x.to === device ||
    (x.to === undefined && wireMessages(x.message, 'none').some((sent) => reacts(m, sent)));
  const edits = scenes.flatMap(({ sound }): Edit[] => {
    const sends = orders.rig.sounds.find((s) => s.id === sound.id)?.sends ?? [];
    const call = sends.findLast((x) => isFor(x) && x.message.type === 'program');
    if (!call) return [];
    const own = sends.filter((x) => x.from === call.from);
    const late = own.filter((x) => isFor(x) && x.message.type !== 'program');
    const rest = own.filter((x) => !late.includes(x));
    const at = rest.indexOf(call) + 1;
    const waiting = late.map((x, i) => ({ ...x, waitMs: i ? x.waitMs : Math.ceil(m.programMs) }));
    const list = [...rest.slice(0, at), ...waiting, ...rest.slice(at)];
    return [{ edit: 'setSends', sound: sound.id, from: call.from, sends: list }];
  });
  const once = [...new Map(edits.map((e) => [JSON.stringify(e), e])).values()];
  return once.length
    ? [{ words: `Send it ${Math.ceil(m.programMs)} ms behind the program`, edits: once }]
    : [];
}

/** Gives each sound that has none the next free program. */
function freeProgramFix(stage: Stage, device: string, scenes: readonly Scene[]): Fix[] {
  const taken: Address[] = [];
  const edits: Edit[] = [];
  for (const s of scenes) {
    const program = freeAddress(stage, device, taken);
    if (!program || !stage.orders.rig.sounds.some((x) => x.id === s.id)) continue;
    taken.push(program);
    edits.push({ edit: 'setProgram', device, sound: s.id, program });
  }
  return edits.length
    ? [
        {
          words: `Give ${edits.length === 1 ? 'it' : 'each'} a free program on ${nameOf(stage.orders.rig, device)}`,
          edits,
        },
      ]
    : [];
}

/** Lets the sender of a device send what follows from the programs again. */
function deriveFix({ orders }: Stage, scenes: readonly Scene[]): Fix[] {
  const edits = scenes.flatMap((s): Edit[] =>
    [
      ...new Set(
        (orders.rig.sounds.find((x) => x.id === s.sound.id)?.sends ?? []).map((x) => x.from),
      ),
    ].map((from) => ({ edit: 'setSends', sound: s.sound.id, from, sends: null })),
  );
  const once = [...new Map(edits.map((e) => [JSON.stringify(e), e])).values()];
  return once.length
    ? [{ words: `Send what follows from the programs, instead of the written list`, edits: once }]
    : [];
}

/** Why the device that a message is meant for does nothing, as the end of a sentence. */
function whyUnheard(
  orders: Orders,
  sender: string,
  meant: MidiDevice,
  message: Message & { channel: number },
): string {
  const start = ` is meant for ${meant.device.name}, which`;
  if (!stageReaches(orders, sender, meant.device.id)) return `${start} it does not reach`;
  const channels = meant.channel === 'all' ? 'all channels' : `channel ${meant.channel}`;
  const channel = meant.channel === 'all' ? 1 : meant.channel;
  const taken = reacts(meant, { ...message, channel } as Message) ? '' : ' and does not take it';
  return `${start} listens on ${channels}${taken}`;
}

/** Messages that a person wrote and nobody hears. */
export function unheardRemarks({ orders }: Stage): SceneRemark[] {
  const { rig, graph, scenes } = orders;
  const found = new Map<string, SceneRemark>();
  for (const sound of rig.sounds) {
    for (const from of new Set((sound.sends ?? []).map((x) => x.from))) {
      if ((graph.devices.get(from)?.commands || graph.devices.get(from)?.recalls) && scenes.length)
        continue;
      const known = found.get(`ghost ${from}`);
      if (known) known.sounds.push(sound.id);
      else
        found.set(`ghost ${from}`, {
          sounds: [sound.id],
          remark: {
            rule: 'midi-nobody',
            severity: 'fault',
            subjects: rig.devices.some((d) => d.id === from) ? [from] : [],
            about: `ghost ${from}`,
            what: `Messages are written for ${nameOf(rig, from)}, which sends nothing.`,
            why: rig.devices.some((d) => d.id === from)
              ? 'It calls no sounds, so nothing of its list ever goes out.'
              : 'It is not in this rig.',
            fix: {
              words: 'Take the list out',
              edits: [{ edit: 'setSends', sound: sound.id, from, sends: null }],
            },
          },
        });
    }
  }
  for (const scene of scenes) {
    for (const [sender, list] of orders.commands(scene)) {
      for (const c of list) {
        const { message } = c;
        if (
          !c.written ||
          !('channel' in message) ||
          (message.type === 'control' && (message.cc === BANK.msb || message.cc === BANK.lsb))
        )
          continue;
        const behind = [...graph.devices.values()].filter((m) => m.device.id !== sender);
        if (behind.some((m) => reacts(m, message) && stageReaches(orders, sender, m.device.id)))
          continue;
        const number =
          message.type === 'program' ? '' : (sortOf(message).columns(message).number ?? '');
        const key = `${sender} ${message.type} ${message.channel} ${number} ${c.to ?? ''}`;
        const known = found.get(key);
        if (known) {
          if (!known.sounds.includes(scene.sound.id)) known.sounds.push(scene.sound.id);
          continue;
        }
        const meant = c.to === undefined ? undefined : graph.devices.get(c.to);
        found.set(key, {
          sounds: [scene.sound.id],
          remark: {
            rule: 'midi-nobody',
            severity: 'fault',
            subjects: [sender, ...(c.to ? [c.to] : [])],
            about: key,
            what: `Nobody hears what ${nameOf(rig, sender)} sends on channel ${message.channel}.`,
            why:
              `${sortOf(message).title(message)} ` +
              `in ${scene.name}` +
              (meant
                ? whyUnheard(orders, sender, meant, message)
                : ' reaches no device that takes it') +
              '.',
            ...(meant &&
            meant.channel !== 'all' &&
            meant.channel !== message.channel &&
            stageReaches(orders, sender, meant.device.id)
              ? {
                  fix: {
                    words: `Move ${meant.device.name} to channel ${message.channel}`,
                    edits: [
                      {
                        edit: 'setMidi',
                        device: meant.device.id,
                        midi: { ...meant.device.midi, channel: message.channel },
                      },
                    ],
                  },
                }
              : {}),
          },
        });
      }
    }
  }
  return [...found.values()];
}

const stageReaches = (orders: Stage['orders'], sender: string, device: string): boolean =>
  reachIn(orders.graph, sender).has(device);
