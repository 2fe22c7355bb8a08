import { brokenRig, hybridRig, touringRig } from '../src/core/demo';
import { pressesBetween } from '../src/core/midi';
import {
  allPairs,
  bothNumbers,
  hex,
  messageWords,
  midiDevices,
  midiOf,
  oneLost,
  runChange,
  setStage,
} from '../src/core/midi';
import { applyEdit, type Rig } from '../src/core/rig';
import { allScenes } from '../src/core/songs';
import { fixed } from '../src/core/units';
import { forEachFile, Person, stored } from './person';

let tech: Person;
forEachFile((person) => (tech = person));

test(
  'presses from every sound to every other, which they are and in which order; a way ' +
    'to one press is taken and undone',
  async () => {
    const id = await stored(tech, touringRig);
    await tech.open(`/rigs/${id}/control?part=presses`);
    await tech.see('[data-table="presses"]');
    for (const a of touringRig.sounds) {
      for (const b of touringRig.sounds) {
        if (a === b) continue;
        const { presses, turns } = pressesBetween(touringRig, a, b);
        expect(await tech.text(`[data-presses="${a.id} ${b.id}"]`)).toBe(
          turns.length ? `${presses.length} + ${turns.length} to set` : `${presses.length}`,
        );
      }
    }
    await tech.click('[data-presses="crunch lead"] button');
    await tech.reads('[data-list="presses"]', 'Skeg calls Lead: Gangway Echo on');
    await tech.reads('[data-list="presses"]', /Every order of up to four presses was evaluated/);
    await tech.page.locator('button ::-p-text(How would it be one press?)').click();
    await tech.reads('[data-list="one-press"]', 'into loops of a loop switcher');
    await tech.page.locator('[data-list="one-press"] button ::-p-text(Do this)').click();
    await tech.reads('[data-presses="crunch lead"]', /^2$/);
    expect((await tech.savedRig(id)).devices.some((d) => d.kind === 'loop-switcher')).toBe(true);
    await tech.control('z');
    await tech.reads('[data-presses="crunch lead"]', /^4$/);
  },
);

test('a control is set up: one switch with opposite ends, and what it reaches is proved by evaluation', async () => {
  const id = await stored(tech, touringRig);
  await tech.open(`/rigs/${id}/control`);
  await tech.button('Add a pedal');
  await tech.see('[data-editor="control"]');
  await tech.page.locator('::-p-aria([name="Add a device that it moves"])').click();
  await tech.page.keyboard.type('Dome');
  await tech.pick('Dome Reverb');
  await tech.see('[data-assignment]');
  await tech.page.locator('::-p-aria([name="Setting"][role="combobox"])').click();
  await tech.pick('Mix');
  await tech.reads('[data-editor="control"]', "0 %: Dome Reverb Mix at 7 o'clock");
  await tech.page.locator('label ::-p-text(Reach and sweeps)').click();
  await tech.reads('[data-reached="pedal wide"]', /wet \d+ to \d+ %/);
  for (const d of ['cab', 'house', 'ears', 'tdesk', 'tech'])
    expect(await tech.text(`[data-reached="pedal ${d}"]`)).toBe('');
  // The swell pedal moves the stage side and nothing else, as is promised.
  await tech.sound('5');
  await tech.reads('[data-reached="swell-pedal cab"]', /far end|level/);
  expect(await tech.text('[data-reached="swell-pedal wide"]')).toBe('');
  await tech.click('[data-reach="swell-pedal"]');
  await tech.reads('[data-sweep="cab"]', /Stage cabinet silent .* dBu .* rises/);
  expect((await tech.savedRig(id)).controls![0]!.assigns[0]).toMatchObject({
    device: 'dome',
    setting: 'mix',
  });
});

test('MIDI wiring: a synth without thru cuts off the clock; the finding says so and one press cures it', async () => {
  const id = await stored(tech, brokenRig);
  await tech.open(`/rigs/${id}/control?part=wiring`);
  await tech.see('[data-way="k43"][data-broken="true"]');
  expect(await tech.text('[data-midi="chop"]')).not.toContain('Deck pads');
  await tech.press('f');
  const card = '[data-finding="midi-clock:chop"]';
  await tech.reads(card, 'Gull synth, in front of Chop slicer, passes nothing on');
  await tech.page
    .locator(`${card} button ::-p-text(Put a thru box in front of Gull synth)`)
    // Every fix of what is worse is tried before it.
    .setTimeout(150_000)
    .click();
  await tech.gone(card);
  await tech.press('Escape');
  await tech.reads('[data-midi="chop"]', 'Deck pads');
  const rig = await tech.savedRig(id);
  expect(rig.devices.filter((d) => d.kind === 'midi-thru-box')).toHaveLength(2);
  expect(rig.devices.find((d) => d.id === 'pads')!.midi!.clock).toBe('send');
});

test(
  'numbers: the wire and every screen side by side; a screen is typed and the wire ' +
    'follows; an offset told from app to switcher',
  async () => {
    const id = await stored(tech, hybridRig);
    await tech.open(`/rigs/${id}/control?part=numbers`);
    for (const m of midiDevices(hybridRig).values()) {
      if (!m.programs) continue;
      for (const s of hybridRig.sounds) {
        const address = s.states[m.device.id]?.program;
        expect(await tech.text(`[data-number="${m.device.id} ${s.id}"]`)).toBe(
          address ? bothNumbers(m.shows, address) : 'no program',
        );
      }
    }
    await tech.click('[data-number="loops wheel"] button');
    await tech.typeOver('::-p-aria([name="As its screen shows"])', '3-2');
    await tech.reads('[data-number="loops wheel"]', 'wire bank 2 program 1, screen 3-2');
    await tech.typeOver('::-p-aria([name="Called on the device"])', 'Bellows in');
    await tech.reads('[data-number="loops wheel"]', 'screen 3-2 “Bellows in”');
    await tech.press('Escape');
    expect(
      (await tech.savedRig(id)).sounds.find((s) => s.id === 'wheel')!.states.loops!.program,
    ).toEqual({ bank: 2, number: 1 });
    // Bank 2 and program 1, counted from 0 by the app, are what the switcher shows as 3-2.
    await tech.typeOver('::-p-aria([name="sends bank"])', '2');
    await tech.typeOver('::-p-aria([name="and program"])', '1');
    await tech.reads(
      '[data-offset]',
      'wire bank 2 program 1, screen 3-2 “Bellows in” on Switchyard, which keeps Wheel first there',
    );
  },
);

test('what a device takes in is written down as its manual has it, and the messages follow', async () => {
  const id = await stored(tech, touringRig);
  await tech.open(`/rigs/${id}/control?part=wiring`);
  await tech.button('What Gangway Echo takes in');
  const before = midiOf(touringRig.devices.find((d) => d.id === 'echo')!)!;
  expect(await tech.texts('[data-reception="echo"] [data-takes]')).toHaveLength(
    before.mapped.length,
  );
  await tech.page.locator('::-p-aria([name="Add what a control change moves"])').click();
  await tech.pick('Repeats');
  await tech.page.waitForFunction(
    (n) => document.querySelectorAll('[data-reception="echo"] [data-takes]').length === n,
    {},
    before.mapped.length + 1,
  );
  await tech.typeOver(`[aria-label="Number of control change ${before.mapped.length + 1}"]`, '77');
  await tech.page.locator('[aria-label="How control change 77 acts"]').click();
  await tech.pick('turns over each time');
  await tech.page.locator('::-p-aria([name="tells back what is changed on it"])').click();
  await tech.typeOver(
    '[data-reception="echo"] ::-p-aria([name="In place after a program, ms"])',
    '90',
  );
  await tech.done();
  await tech.reads('[data-midi="echo"]', '90 ms program');
  await tech.reads('[data-midi="echo"]', 'reports back');
  const echo = (await tech.savedRig(id)).devices.find((d) => d.id === 'echo')!;
  expect(midiOf(echo)!.mapped.at(-1)).toMatchObject({ setting: 'repeats', cc: 77, way: 'toggle' });
  expect(echo.figures!.programMs).toMatchObject({ value: 90, from: 'sheet' });
});

test(
  'the bus: bytes and times of a change, landings in order, and all pairs worked out ' +
    'beside the page',
  async () => {
    await tech.open('/rigs/observatory-hybrid/control?part=bus');
    const stage = setStage(hybridRig, allScenes(hybridRig));
    const change = runChange(stage, stage.scene('ash')!, stage.scene('bare')!);
    await tech.reads('[data-done]', `All in place after ${fixed(change.doneMs, 2)} ms`);
    const rows = await tech.texts('[data-table="messages"] tbody tr');
    expect(rows).toHaveLength(change.traffic.sent.length);
    change.traffic.sent.forEach((s, i) => {
      expect(rows[i]).toContain(hex(s.bytes));
      expect(rows[i]).toContain(`${fixed(s.start, 2)} ms ${fixed(s.end, 2)} ms`);
    });
    expect(
      await tech.page.$$eval('[data-lands]', (all) => all.map((e) => e.getAttribute('data-lands'))),
    ).toEqual(change.order.map((o) => o.device));
    await tech.reads('[data-spike]', /Nothing gets louder|dB above the louder/);
    await tech.button('Lose each message once');
    const lost = oneLost(hybridRig, stage, stage.scene('ash')!, stage.scene('bare')!);
    await tech.see('[data-table="lost"]');
    const told = await tech.texts('[data-lost]');
    expect(told).toHaveLength(lost.length);
    lost.forEach((l, i) => expect(told[i]).toContain(messageWords(l.message)));
    await tech.page.locator('[data-list="pairs"] button').click();
    const pairs = allPairs(stage);
    await tech.reads('[data-list="pairs"]', `${pairs.good} of ${pairs.pairs} changes end as meant`);
  },
);

test('what is sent is written out by hand: a wrong number is told at once, and undone', async () => {
  const id = await stored(tech, hybridRig);
  await tech.open(`/rigs/${id}/control?part=bus`);
  await tech.button('Write it out by hand');
  await tech.typeOver('[data-table="written"] input[aria-label="Program on the wire"]', '3');
  await tech.reads('[data-list="mismatches"]', 'Not as Bare wants it');
  await tech.page.waitForFunction(() =>
    document.querySelector('button[aria-label^="Findings: 0 dangers, 1 fault"]'),
  );
  // A message can wait; a program that the device does not have is told where it is typed.
  await tech.typeOver('[aria-label="Waits so many ms behind the one before"]', '40');
  expect((await tech.savedRig(id)).sounds[0]!.sends![0]).toMatchObject({ waitMs: 40 });
  // It goes out three times, or only when the foot stays: then a plain press sends nothing.
  await tech.typeOver('[aria-label="Goes out so often"]', '3');
  await tech.page.locator('::-p-aria([name="What the foot does that sends it"])').click();
  await tech.pick('on long press');
  await tech.gone('[data-table="messages"] tbody tr');
  expect((await tech.savedRig(id)).sounds[0]!.sends![0]).toMatchObject({ times: 3, when: 'long' });
  await tech.page.locator('::-p-aria([name="What the foot does that sends it"])').click();
  await tech.pick('on press');
  await tech.reads('[data-table="messages"]', 'channel 2, program 3');
  await tech.typeOver('[aria-label="Goes out so often"]', '1');
  await tech.typeOver('[data-table="written"] input[aria-label="Bank"]', '9000');
  await tech.reads('[data-table="written"] [role="alert"]', /has \d+ programs/);
  // Any other message: bytes that are none are told where they are typed, and not taken.
  await tech.page.locator('::-p-aria([name="Add another message"])').click();
  await tech.pick('system exclusive');
  await tech.typeOver('[aria-label="Bytes between F0 and F7"]', '7D 80');
  await tech.reads('[data-table="written"]', 'write bytes of 00 to 7F');
  await tech.typeOver('[aria-label="Bytes between F0 and F7"]', '7D 10 01');
  await tech.reads('[data-table="messages"]', 'F0 7D 10 01 F7');
  expect((await tech.savedRig(id)).sounds[0]!.sends!.at(-1)!.message).toEqual({
    type: 'exclusive',
    data: '7D 10 01',
  });
  await tech.button('Let it follow from the programs again');
  await tech.reads(
    '[data-list="mismatches"]',
    'Everything that messages reach ends as Bare wants it',
  );
});

test('forty songs with two hundred changes: all pairs are simulated while the page goes on answering', async () => {
  const many = Array.from({ length: 40 }, (_, n) => ({
    id: `song-${n}`,
    title: `Song ${n}`,
    bpm: 80 + n,
    sections: Array.from({ length: 5 }, (_, i) => ({
      id: `s${i}`,
      name: `Part ${i}`,
      bars: 8,
      sound: hybridRig.sounds[i]!.id,
      states: {
        loops: { program: { bank: 10 + n, number: i % 4 } },
        lode: { program: { bank: 1, number: (n * 5 + i) % 128 } },
        hall: { settings: { mix: 1 + ((n + i) % 8) } },
      },
    })),
  }));
  const songs = many.reduce<Rig>((rig, song) => {
    const r = applyEdit(rig, { edit: 'addSong', song });
    if (!r.ok) throw new Error(r.problems[0]!.what);
    return r.value.rig;
  }, hybridRig);
  const id = await stored(tech, songs);
  await tech.open(`/rigs/${id}/control?part=bus`);
  await tech.reads('[data-list="pairs"]', `Simulate all ${205 * 204} changes`);
  await tech.page.locator('[data-list="pairs"] button').click();
  // While it works, the page paints and answers keys.
  await tech.page.evaluate(
    () => new Promise((r) => requestAnimationFrame(() => requestAnimationFrame(r))),
  );
  await tech.sound('3');
  await tech.reads('.sound[aria-pressed="true"]', 'Slag');
  await tech.reads('[data-list="pairs"]', /\d+ of 41820 changes end as meant/);
}, 120_000);

test(
  'a set is rehearsed: the right pad, the wrong one, a pedal stepped on by mistake, ' +
    'and the way back',
  async () => {
    await tech.open('/rigs/salt-and-ferry/control?part=rehearse');
    await tech.reads('[data-cue]', 'Intro wants Tide flat');
    await tech.reads('[data-off]', 'As it should be.');
    await tech.press('ArrowRight', 'ArrowRight');
    await tech.reads('[data-cue]', 'Chorus wants Crunch');
    // Crunch differs by pedals only; the drive and the gate have to be stepped on, the chorus off.
    await tech.reads('[data-list="recovery"]', 'Step on Brine Drive');
    for (const pedal of ['brine', 'vesk', 'drift']) await tech.click(`[data-step="${pedal}"]`);
    await tech.reads('[data-off]', 'As it should be.');
    // The wrong pad: the rack goes to Lead.
    await tech.click('[data-pad="lead"]');
    await tech.reads('[data-log]', 'Lead called on Skeg');
    await tech.reads('.wirelog', 'C0 01 Skeg to Gangway Echo: channel 1, program 1');
    expect(await tech.text('[data-standin="echo"]')).toContain('wire 1');
    await tech.reads('[data-list="recovery"]', 'Call Crunch again on Skeg');
    await tech.click('[data-pad="crunch"]');
    await tech.reads('[data-off]', 'As it should be.');
    await tech.click('[data-step="kiln"]');
    await tech.reads(
      '[data-list="recovery"]',
      'Step on Kiln Drive: Kiln Drive should be bypassed and is engaged.',
    );
    await tech.click('[data-step="kiln"]');
    await tech.reads('[data-off]', 'As it should be.');
    await tech.reads('[data-table="heard"]', /Stage cabinet \d+\.\d dBu Baritone/);
    await tech.button('Send from Purser tablet');
    await tech.reads('[data-log]', /Purser tablet/);
  },
);

test('a switch that is held down in rehearsal sends what waits for a long press', async () => {
  const program = { type: 'program' as const, channel: 1, number: 1 };
  const held = { type: 'control' as const, channel: 1, cc: 15, value: 127 };
  const sends = [
    { from: 'skeg', to: 'echo', message: program },
    { from: 'skeg', to: 'echo', message: held, when: 'long' as const },
  ];
  const id = await stored(tech, {
    ...touringRig,
    sounds: touringRig.sounds.map((s) => (s.id === 'lead' ? { ...s, sends } : s)),
  });
  await tech.open(`/rigs/${id}/control?part=rehearse`);
  await tech.click('[data-pad="lead"]');
  await tech.reads('[data-log]', 'Lead called on Skeg');
  expect(await tech.text('.wirelog')).not.toContain('B0 0F 7F');
  await tech.page.locator('label ::-p-text(The foot stays down: a long press)').click();
  await tech.click('[data-pad="lead"]');
  await tech.reads('[data-log]', 'Lead called with a long press on Skeg');
  await tech.reads('.wirelog', 'B0 0F 7F Skeg to Gangway Echo');
});

test(
  'changes practised in time are scored by the song’s tempo: on time, early or late ' +
    'in milliseconds, missed',
  async () => {
    const id = await stored(tech, {
      ...touringRig,
      sets: [],
      songs: [
        {
          id: 'quick',
          title: 'Quick',
          bpm: 300,
          sections: [
            { id: 'a', name: 'One', bars: 1, sound: 'flat' },
            { id: 'b', name: 'Two', bars: 2, sound: 'lead' },
            { id: 'c', name: 'Three', bars: 2, sound: 'flat' },
          ],
        },
      ],
    });
    await tech.open(`/rigs/${id}/control?part=rehearse`);
    await tech.page.locator('label ::-p-text(Practise the changes)').click();
    await tech.reads('[data-table="due"]', /2 Two Lead 0:01 4 Three Tide flat 0:02/);
    await tech.page.evaluate(
      () => document.activeElement instanceof HTMLElement && document.activeElement.blur(),
    );
    await tech.button('Start (space)');
    await tech.reads('[data-count]', /bar 2/);
    await tech.press('w');
    await tech.reads('[data-said]', /^Lead: \d+ ms (early|late) for Two$/);
    await tech.see('[data-score]');
    const hits = await tech.texts('[data-table="score"] tbody tr');
    expect(hits[0]).toMatch(/^2 Two Lead −?\d+ ms (on time|early|late)$/);
    expect(hits[1]).toMatch(/^4 Three Tide flat – missed$/);
    expect(await tech.text('[data-score]')).toMatch(/^[01] of 2 on time\./);
  },
);

test('with very many sounds one row of presses is worked out at a time', async () => {
  const sounds = Array.from({ length: 20 }, (_, i) => ({
    ...touringRig.sounds[i % 8]!,
    id: `s${i}`,
    name: `Sound ${i}`,
  }));
  const id = await stored(tech, { ...touringRig, sounds, promises: [], songs: [], sets: [] });
  await tech.open(`/rigs/${id}/control?part=presses`);
  const { presses, turns } = pressesBetween({ ...touringRig, sounds }, sounds[0]!, sounds[4]!);
  await tech.reads(
    '[data-presses="s0 s4"]',
    turns.length ? `${presses.length} + ${turns.length} to set` : `${presses.length}`,
  );
  expect(await tech.page.$('[data-presses="s1 s4"]')).toBeNull();
  await tech.click('[data-presses="s0 s4"] button');
  await tech.reads('[data-list="presses"]', 'Sound 0 to Sound 4');
});
