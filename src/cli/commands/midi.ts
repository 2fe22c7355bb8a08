import type { Scene } from '../../core/control/scene';
import {
  bytesOf,
  hex,
  keyName,
  keyWords,
  messageWords,
  oneLost,
  setStage,
  type Stage,
} from '../../core/midi';
import { nameOf, type Rig } from '../../core/rig';
import { allScenes } from '../../core/songs';
import { allOf, fixed, howMany } from '../../core/units';
import { type Answer, command, refuse } from '../command';
import { changeJson, findScene, midiJson } from '../midi-json';

function allPairsAnswer(stage: Stage, rig: Rig): Answer {
  const json = midiJson(stage, rig);
  const { good, byHand, count, slowest, faults } = json.pairs;
  const hands = byHand ? `, ${byHand} more once hands and feet have done their part` : '';
  const longest = slowest?.ms
    ? `; the slowest, ${slowest.from} to ${slowest.to}, takes ${fixed(slowest.ms)} ms`
    : '';
  const faultLine = (f: (typeof faults)[number]) => {
    const such = f.pairs.slice(0, 2).map((p) => `${p.from} to ${p.to}`);
    return (
      `${nameOf(rig, f.device)}: ${f.because}${f.because === 'by hand' ? '' : ` (${f.cure} cures it)`}, ` +
      `${f.settings.map((key) => keyName(rig, f.device, key)).join(', ')}, in ${howMany(f.count, 'change')}, ` +
      `such as ${allOf(such)}`
    );
  };
  return {
    json,
    lines: [
      `${rig.name}: ` +
        (count
          ? `${good} of ${howMany(count, 'change')} end as meant${hands}${longest}`
          : 'there are no two sounds to change between'),
      ...faults.map(faultLine),
    ],
  };
}

function changeAnswer(rig: Rig, json: ReturnType<typeof changeJson>): Answer {
  const name = (id: string) => nameOf(rig, id);
  const time = (ms: number, digits: number) => fixed(ms, digits).padStart(9);
  return {
    json,
    lines: [
      `${json.from} to ${json.to}: pressed on ${json.pressed.map(name).join(', ') || 'nothing'}, ` +
        `all in place after ${fixed(json.doneMs, 2)} ms`,
      ...json.messages.map(
        (m) =>
          `${time(m.startMs, 3)} to ${time(m.endMs, 3)} ms  ` +
          `${name(m.from)} > ${name(m.to)}  ${m.bytes}  ${m.words}`,
      ),
      ...json.order.map((o) => `${time(o.inPlaceMs, 2)} ms  ${name(o.device)} in place`),
      ...json.mismatches.map((m) => `NOT AS MEANT  ${m.words} (${m.because})`),
    ],
  };
}

function lostAnswer(stage: Stage, rig: Rig, from: Scene, to: Scene): Answer {
  const lost = oneLost(rig, stage, from, to).map((l) => ({
    sender: nameOf(rig, l.sender),
    message: messageWords(l.message),
    bytes: hex(bytesOf(l.message)),
    off: l.off.map((m) => keyWords(rig, m)),
    heard: l.heard,
    healedBy: l.next.healed,
    nextChanges: l.next.of,
    notHealedBy: l.next.not,
  }));
  return {
    json: { from: from.name, to: to.name, lost },
    lines: lost.map(
      (l) =>
        `${l.sender}, ${l.message}: ` +
        (l.off.length
          ? `${l.off.join('; ')}; ` +
            `${l.heard.map((h) => `${h.destination} ${h.what.join(', ')}`).join('; ') || 'nobody hears it'}; ` +
            `${l.healedBy} of ${l.nextChanges} next changes heal it`
          : 'all as meant'),
    ),
  };
}

export const midi = command<{ from?: string; to?: string; bpm?: string; lost?: boolean }>({
  name: 'midi',
  about:
    'what goes over the MIDI bus in a change of sound, when everything is in place, and how it ' +
    'stands then; without sounds, all ordered pairs',
  options: [
    { flags: '--from <sound>', about: 'the sound that is on, by name or id' },
    { flags: '--to <sound>', about: 'the sound that is called' },
    { flags: '--bpm <tempo>', about: 'with clock at this tempo' },
    {
      flags: '--lost',
      about: 'what comes of it when one message gets lost, for each message of the change',
    },
  ],
  run: (rig, options) => {
    const stage = setStage(rig, allScenes(rig));
    if ((options.from === undefined) !== (options.to === undefined))
      refuse('Give both --from and --to, or neither for all pairs.');
    if (options.from === undefined || options.to === undefined) return allPairsAnswer(stage, rig);
    const scene = (text: string) =>
      findScene(stage, rig, text) ??
      refuse(`There is no sound "${text}". It has: ${rig.sounds.map((s) => s.name).join(', ')}.`);
    const bpm = options.bpm === undefined ? undefined : Number(options.bpm);
    if (bpm !== undefined && !(bpm >= 20 && bpm <= 400))
      refuse(`"${options.bpm}" is no tempo; give 20 to 400 bpm.`);
    if (options.lost) return lostAnswer(stage, rig, scene(options.from), scene(options.to));
    return changeAnswer(rig, changeJson(stage, rig, scene(options.from), scene(options.to), bpm));
  },
});
