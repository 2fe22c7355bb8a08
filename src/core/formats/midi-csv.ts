import {
  bytesOf,
  hex,
  messageWords,
  WHEN_WORDS,
  programName,
  setStage,
  shownOn,
  sortOf,
  midiDevices,
} from '../midi';
import { nameOf } from '../rig/find';
import type { Rig } from '../rig/schema';
import { programMap } from '../songs';
import { toCsv } from './csv';

/**
 * The MIDI chart: every message of every sound, who sends it for whom, as bytes, and what the
 * receiver shows.
 */
export function midiChartCsv(rig: Rig): string {
  const stage = setStage(rig);
  const devices = midiDevices(rig);
  const rows = stage.orders.scenes.flatMap((scene) =>
    [...stage.orders.commands(scene)].flatMap(([from, list]) =>
      list.map((c) => {
        const to = c.to === undefined ? undefined : devices.get(c.to);
        const m = c.message;
        const { channel, number, value } = sortOf(m).columns(m);
        const address =
          m.type === 'program' && to ? scene.sound.states[to.device.id]?.program : undefined;
        return [
          scene.name,
          nameOf(rig, from),
          to?.device.name ?? '',
          channel,
          messageWords(m),
          number,
          value,
          m.type === 'program' && to
            ? shownOn(to.shows, {
                number: m.number,
                ...(address?.bank !== undefined && { bank: address.bank }),
              })
            : '',
          m.type === 'program' && to
            ? programName(to, { number: m.number, bank: address?.bank })
            : '',
          hex(bytesOf(m)),
          c.written ? 'written' : 'derived',
          c.waitMs ?? '',
          WHEN_WORDS[c.when ?? 'press'],
        ];
      }),
    ),
  );
  return toCsv(
    [
      'sound',
      'sent by',
      'for',
      'channel',
      'message',
      'number on the wire',
      'value',
      'screen shows',
      'called',
      'bytes (hex)',
      'origin',
      'waits, ms',
      'sent on',
    ],
    rows,
  );
}

/**
 * The program map: every section of every song, then every sound, with bank and program on each
 * device, as on the wire and as shown.
 */
export function programMapCsv(rig: Rig): string {
  const map = programMap(rig);
  const head = map.devices.flatMap((m) => [
    `${m.device.name} bank`,
    `${m.device.name} program (wire)`,
    `${m.device.name} shows`,
  ]);
  const cells = (at: (typeof map.sounds)[number]['at']) =>
    at.flatMap((a) => [a.address?.bank, a.address?.number, a.shown]);
  return toCsv(
    ['song', 'section', 'sound', ...head],
    [
      ...map.songs.map((r) => [
        r.song!.title,
        r.sectionName,
        rig.sounds.find((s) => s.id === r.scene.sound.id)?.name,
        ...cells(r.at),
      ]),
      ...map.sounds.map((r) => ['', '', r.scene.name, ...cells(r.at)]),
    ],
  );
}
