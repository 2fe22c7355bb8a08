import { mkdtempSync, readFileSync, writeFileSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import type { ElementHandle } from 'puppeteer-core';
import { touringRig } from '../src/core/demo';
import { songsToCsv, songToSmf } from '../src/core/formats';
import type { Rig } from '../src/core/rig';
import {
  clockTime,
  controllerNeeds,
  delayTimes,
  programMap,
  runningOrder,
  timelineOf,
} from '../src/core/songs';
import { chainOf } from '../src/core/testing/rigs';
import { fixed } from '../src/core/units';
import { forEachFile, Person, stored } from './person';

let tech: Person;
forEachFile((person) => (tech = person));
const folder = mkdtempSync(join(tmpdir(), 'yantrel-songs-'));

const give = async (name: string, content: string | Uint8Array) => {
  const path = join(folder, name);
  writeFileSync(path, content);
  const input = (await tech.page.waitForSelector(
    'input[data-read]',
  )) as ElementHandle<HTMLInputElement>;
  await input.uploadFile(path);
};

test(
  'a song: tempo changed, a section’s sound and bars, a knob by the clock that ' +
    'differs in this song only; undone step by step',
  async () => {
    const id = await stored(tech, touringRig);
    await tech.open(`/rigs/${id}/songs`);
    for (const s of touringRig.songs!)
      await tech.reads(
        `[data-song="${s.id}"]`,
        `${s.bpm} bpm · ${clockTime(timelineOf(s).lengthMs)}`,
      );
    await tech.click('[data-song="winch"]');
    await tech.reads('[data-section="s3"]', /17 1:04|17 1:04/);
    await tech.typeOver('[data-section="s1"] input[aria-label="Bars of Haul"]', '10');
    await tech.reads('[data-section="s2"]', /^11 0:40/);
    await tech.page.locator('::-p-aria([name="Add a device that differs"])').click();
    await tech.page.keyboard.type('Kiln');
    await tech.pick('Kiln Drive');
    const knob = await tech.page.locator('[data-differs="kiln"] [aria-label="Drive"]').waitHandle();
    await knob.focus();
    await tech.press('ArrowUp');
    await tech.reads('[data-differs="kiln"]', "12 o'clock");
    const rig = await tech.savedRig(id);
    const winch = rig.songs!.find((s) => s.id === 'winch')!;
    expect(winch.sections[0]!.bars).toBe(10);
    expect(winch.states!.kiln!.settings!.drive).toBe(5);
    expect(rig.devices.find((d) => d.id === 'kiln')!.settings!.drive).toBe(4.5);
    await tech.page.evaluate(
      () => document.activeElement instanceof HTMLElement && document.activeElement.blur(),
    );
    for (let i = 0; i < 3; i++) await tech.control('z');
    expect((await tech.savedRig(id)).songs).toEqual(touringRig.songs);
  },
);

test('a set: songs are moved by keyboard, changeovers and clock times follow', async () => {
  const id = await stored(tech, touringRig);
  await tech.open(`/rigs/${id}/songs?part=sets`);
  const order = runningOrder(touringRig, touringRig.sets![0]!);
  await tech.reads('[data-times]', `12 songs, ${clockTime(order.seconds * 1000)} in all`);
  for (const l of order.lines) await tech.reads(`[data-entry="${l.entry.song}"]`, l.clock!);
  await tech.reads('[data-entry="waltz"]', 'change to Lap steel');
  const handle = await tech.page.locator('[aria-label="Move Brackish Waltz"]').waitHandle();
  await handle.focus();
  const beat = () => new Promise((r) => setTimeout(r, 250));
  await tech.press(' ');
  await beat();
  await tech.press('ArrowUp');
  await beat();
  await tech.press(' ');
  await tech.page.waitForFunction(
    () =>
      [...document.querySelectorAll('[data-entry]')]
        .map((e) => e.getAttribute('data-entry'))
        .indexOf('waltz') === 2,
  );
  const rig = await tech.savedRig(id);
  expect(rig.sets![0]!.entries.map((e) => e.song).slice(0, 4)).toEqual([
    'ledger',
    'lantern',
    'waltz',
    'meridian',
  ]);
  // Between the waltz and the hymn another song on the baritone: two changes more.
  await tech.reads('[data-times]', '4 changes of instrument');
});

test('songs come in from CSV with row errors, from ChordPro and from a MIDI file, as one step each', async () => {
  const id = await stored(tech, { ...touringRig, sets: [] });
  await tech.open(`/rigs/${id}/songs`);
  await tech.see('[data-song="ledger"]');
  await give(
    'bad.csv',
    'song,bpm,section,bars,sound\nKelp Two,900,Verse,8,Edge\nKelp Two,90,Chorus,8,=HYPERLINK()\n',
  );
  await tech.reads('[data-list="problems"]', 'row 2: "900" is no tempo; give 20 to 400 bpm');
  await tech.reads('[data-list="problems"]', 'row 3: there is no sound "=HYPERLINK()"');
  await tech.press('Escape');
  await tech.gone('[data-list="problems"]');
  expect((await tech.savedRig(id)).songs).toHaveLength(touringRig.songs!.length);
  await give(
    'good.csv',
    songsToCsv(touringRig)
      .replace('Salt Ledger,96', 'Salt Ledger,99')
      .replace(/Salt Ledger,96/g, 'Salt Ledger,99'),
  );
  await tech.reads('[data-song="ledger"]', '99 bpm');
  await give(
    'sheet.cho',
    '{title: Harbour Light}\n{tempo: 77}\n{start_of_chorus}\n{end_of_chorus}\n',
  );
  await tech.reads('[data-song="harbour-light"]', '77 bpm');
  const bells = touringRig.songs!.find((s) => s.id === 'bells')!;
  await give('bells.mid', songToSmf(touringRig, { ...bells, title: 'Ten Bells' }));
  await tech.reads('[data-song="ten-bells"]', `152 bpm · ${clockTime(timelineOf(bells).lengthMs)}`);
  await give('torn.mid', songToSmf(touringRig, bells).slice(0, 50));
  await tech.reads('[data-list="problems"]', 'no Standard MIDI File, or it is torn');
  const rig = await tech.savedRig(id);
  expect(rig.songs!.find((s) => s.id === 'ten-bells')!.sections.map((s) => s.bars)).toEqual(
    bells.sections.map((s) => s.bars),
  );
  expect(readFileSync(join(folder, 'bells.mid')).subarray(0, 4).toString()).toBe('MThd');
});

test(
  'delay times: every song as its tempo wants it; a device set to programs shows by ' +
    'which repeat it is heard, and keeping it cures that; a tap tells its spread',
  async () => {
    const id = await stored(tech, {
      ...touringRig,
      devices: touringRig.devices.map((d) =>
        d.id === 'echo' ? { ...d, tempo: { way: 'program', division: 'dotted eighth' } } : d,
      ),
    });
    await tech.open(`/rigs/${id}/songs?part=delays`);
    const { rig } = (await tech.api<{ rig: Rig }>(`/api/rigs/${id}`)).body;
    const echo = rig.devices.find((d) => d.id === 'echo')!;
    const ledger = rig.songs!.find((s) => s.id === 'ledger')!;
    const [t] = delayTimes(rig, ledger, echo);
    // A row stands where the device is first heard.
    const [gangway] = delayTimes(
      rig,
      rig.songs!.find((s) => s.id === 'gangway')!,
      echo,
    );
    const [ofLedger, ofGangway] = [`ledger echo ${t!.bar}`, `gangway echo ${gangway!.bar}`];
    await tech.reads(`[data-time="${ofLedger}"]`, `468.75 ms 2 o'clock`);
    await tech.reads(`[data-time="${ofLedger}"]`, `${fixed(t!.gets, 2)} ms`);
    await tech.page
      .locator(`[data-time="${ofGangway}"] button ::-p-text(Keep it for this song)`)
      .click();
    await tech.reads(`[data-time="${ofGangway}"]`, 'stored for this song, in steps of 1 ms');
    await tech.reads(`[data-time="${ofGangway}"]`, '341.00 ms');
    await tech.reads('[data-division="quarter triplet"]', '416.67 ms');
    for (let i = 0; i < 4; i++) {
      await tech.press('t');
      await new Promise((r) => setTimeout(r, 300));
    }
    await tech.reads(
      '[data-tap]',
      /Presses 4 Mean interval \d+\.\d ms, \d+\.\d bpm Spread ± \d+\.\d ms/,
    );
  },
);

test('a box with two delays: each side has its note value and keeps its own time', async () => {
  const chain = chainOf(['guitar-active', 'delay-dual', 'console-input']);
  const sounds = chain.sounds.map((s) => ({ ...s, states: { d1: { engaged: true } } }));
  const section = { id: 'a', name: 'A', bars: 8, sound: sounds[0]!.id };
  const id = await stored(tech, {
    ...chain,
    sounds,
    devices: chain.devices.map((d) =>
      d.id === 'd1' ? { ...d, tempo: { way: 'program' as const, division: 'quarter' } } : d,
    ),
    songs: [{ id: 'song', title: 'Song', bpm: 120, sections: [section] }],
  });
  await tech.open(`/rigs/${id}/songs?part=delays`);
  await tech.reads('[data-time="song d1 1"]', /Time, left.*500.00 ms/);
  await tech.page.locator('::-p-aria([name="Time, right"])').click();
  await tech.pick('dotted eighth');
  const right = '[data-time="song d1 1 timeRight"]';
  await tech.reads(right, /Time, right.*dotted eighth.*375.00 ms/);
  await tech.click(`${right} button`);
  await tech.reads(right, 'stored for this song');
  await tech.reads('[data-time="song d1 1"]', 'no time is kept for this song');
  const rig = await tech.savedRig(id);
  const times = delayTimes(
    rig,
    rig.songs![0]!,
    rig.devices.find((d) => d.id === 'd1')!,
  );
  expect(times[1]).toMatchObject({ setting: 'timeRight', wanted: 375, gets: 375 });
});

test('program map, cue sheet and displays; sounds that no song calls', async () => {
  await tech.open('/rigs/salt-and-ferry/songs?part=map');
  const map = programMap(touringRig);
  expect(await tech.texts('[data-table="program-map"] tbody tr')).toHaveLength(
    map.songs.length + map.sounds.length,
  );
  await tech.reads(
    '[data-table="program-map"]',
    /Dome Unlit Dark Tide flat wire 0, screen 0 wire 3, screen 3/,
  );
  await tech.reads('[data-table="cues"]', /37 1:30 Solo 8 96 Lead Gangway Echo 1, Dome Reverb 1/);
  await tech.reads('[data-unused]', 'No song calls Silent tuning.');
});

test('choosing a controller: needs from the songs, reasons for every miss, strips at true size', async () => {
  const id = await stored(tech, touringRig);
  await tech.open(`/rigs/${id}/songs?part=controller`);
  const needs = controllerNeeds(touringRig);
  await tech.reads(
    '[data-list="needs"]',
    `${needs.switches.count} switches at once: ${needs.switches.sounds} sounds in ${needs.switches.song}`,
  );
  await tech.reads(
    '[data-need="sends clock"]',
    /can cannot, and Gangway Echo follows clock and nothing else leads can/,
  );
  await tech.reads('[data-judged="c2"]', 'misses 3');
  await tech.typeOver('[aria-label="Switches of Four and a treadle"]', '9');
  await tech.reads('[data-judged="c2"]', 'misses 2');
  // A strip of eight switches 52 mm apart is 416 mm long, as 96 dots an inch has it.
  const width = await tech.page.$eval(
    '[data-strip] .strip',
    (e) => e.getBoundingClientRect().width,
  );
  expect(Math.abs(width - (416 / 25.4) * 96)).toBeLessThan(14);
  expect((await tech.savedRig(id)).candidates![1]!.switches).toBe(9);
});

test('a stand-in for a delay: what is lost and what changes, and it can be put in', async () => {
  const id = await stored(tech, touringRig);
  await tech.open(`/rigs/${id}/songs?part=instead`);
  await tech.sound('5');
  await tech.page.locator('[role="combobox"], input[aria-haspopup="listbox"]').click();
  await tech.pick('Gangway Echo');
  await tech.reads(
    '[data-substitute="delay-analog"]',
    /stereo outputs.*programs over MIDI.*times over 600 ms/,
  );
  await tech.click('[data-substitute="delay-analog"] button');
  expect((await tech.savedRig(id)).devices.find((d) => d.id === 'echo')!.kind).toBe('delay-analog');
});
