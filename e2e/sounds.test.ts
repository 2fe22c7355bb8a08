import { analyse, gainLadder } from '../src/core/report';
import { touringRig } from '../src/core/demo';
import type { Rig } from '../src/core/rig';
import { fixed } from '../src/core/units';
import { forEachFile, Person, stored } from './person';

let tech: Person;
forEachFile((person) => (tech = person));

test('a press in the matrix engages a device in that sound, and the figures follow', async () => {
  const id = await stored(tech, touringRig);
  await tech.open(`/rigs/${id}/sounds`);
  await tech.reads('[data-cell="kiln flat"]', 'off');
  await tech.click('[data-cell="kiln flat"] button');
  await tech.reads('[data-cell="kiln flat"]', 'on');
  await tech.page.locator('nav ::-p-text(Signal)').click();
  await tech.page.waitForFunction(
    () => document.querySelector('[data-station="kiln"]')?.getAttribute('data-state') === 'engaged',
  );
  await tech.saved();
  expect((await tech.api<{ rig: Rig }>(`/api/rigs/${id}`)).body.rig.sounds[0]!.states.kiln).toEqual(
    { engaged: true },
  );
});

test('the gain ladder: level, saturation at three touches, noise and presses of each step', async () => {
  await tech.open('/rigs/salt-and-ferry/sounds');
  await tech.page.locator('label ::-p-text(Gain ladder)').click();
  const rungs = gainLadder(
    touringRig,
    analyse(touringRig),
    ['flat', 'edge', 'crunch', 'rhythm', 'lead'],
    'cab',
  );
  for (const r of rungs) {
    const row = await (await tech.see(`[data-rung="${r.sound}"]`))!.evaluate((e) =>
      (e as HTMLElement).innerText.replace(/\s+/g, ' '),
    );
    expect(row).toContain(`${fixed(r.levelDbu!)} dBu`);
    expect(row).toContain(
      `${fixed(r.thdPercent!.soft)} / ${fixed(r.thdPercent!.normal)} / ${fixed(r.thdPercent!.hard)} %`,
    );
    if (r.presses) expect(row).toContain(`${r.presses}:`);
  }
  await tech.sound('5');
  await tech.reads('[data-table="boosts"]', 'Flare Boost');
});

test('two sounds compared in words and figures', async () => {
  await tech.open('/rigs/salt-and-ferry/sounds');
  await tech.page.locator('label ::-p-text(Compare two)').click();
  await tech.reads('[data-list="differences"]', 'Brine Drive engaged in Edge');
  expect(await tech.text('[data-list="differences"]')).toContain('Drift Chorus bypassed in Edge');
});

test('sounds are added, copied, renamed, ordered and removed', async () => {
  const id = await stored(tech, touringRig);
  await tech.open(`/rigs/${id}/sounds`);
  await tech.page.locator('label ::-p-text(Names and order)').click();
  await tech.button('Copy Edge');
  await tech.see('[aria-label="Remove Edge copy"]');
  await tech.button('Move Edge copy up');
  await tech.button('Remove Silent tuning');
  await tech.button('Add a sound');
  await tech.page.waitForFunction(
    () => document.querySelectorAll('.sounds-bar .sound').length === 9,
  );
  expect((await tech.texts('.sounds-bar .sound')).map((t) => t.replace(/^\d ?/, ''))).toEqual([
    'Tide flat',
    'Edge copy',
    'Edge',
    'Crunch',
    'Kiln rhythm',
    'Lead',
    'Observatory organ',
    'Steel swells',
    'Sound 9',
  ]);
});

test('a new rig from nothing: three answers and a first figure, then it is open for editing', async () => {
  await tech.open('/rigs/new');
  await tech.page
    .locator('::-p-aria([name="What is it called?"])')
    .fill('Salt warehouse quick board');
  const choose = async (label: string, ...kinds: string[]) => {
    const field = await tech.page
      .locator(`::-p-aria([name="${label}"][role="combobox"])`)
      .waitHandle()
      .catch(() => tech.page.locator(`::-p-aria([name="${label}"])`).waitHandle());
    await field.click();
    for (const kind of kinds) {
      await tech.page.keyboard.type(kind);
      await tech.press('ArrowDown', 'Enter');
    }
    await tech.press('Escape');
  };
  await choose('What comes in?', 'Lap steel');
  await tech.page.locator('label::-p-text(Tube combo on stage)').click();
  await choose('Which pedals are on hand?', 'Reverb', 'Drive, low', 'Compressor');
  await tech.reads(
    '[data-list="proposal"]',
    /Lap steel Compressor Drive, low gain Combo, by its in(put)? Reverb Combo, by its loop return/,
  );
  await tech.button('Make this rig');
  await tech.see('[data-station="lap-steel"]');
  expect(await tech.text('[data-destination="combo"]')).toMatch(/Combo \d+\.\d dBu/);
});

test(
  'what arrives at one destination: every sound with its sources, level, width and ' +
    'the place it began, latency',
  async () => {
    await tech.open('/rigs/salt-and-ferry/sounds');
    await tech.page.locator('label ::-p-text(What arrives)').click();
    await tech.click('[aria-label="Heard at"], [role="combobox"]');
    await tech.pick('House, wide pair');
    const figures = analyse(touringRig).sounds.map((s) => ({
      sound: s.sound,
      at: s.destinations.find((d) => d.name === 'House, wide pair')!,
    }));
    for (const { sound, at } of figures) {
      const row = await (await tech.see(`[data-arrival="${sound}"]`))!.evaluate((e) =>
        (e as HTMLElement).innerText.replace(/\s+/g, ' '),
      );
      if (!at.levelDbu) expect(row).toContain('silent');
      else {
        expect(row).toContain(`${fixed(at.levelDbu.normal)} dBu`);
        expect(row).toContain(`${fixed(at.latencyMs!)} ms`);
        expect(row).toContain(at.channels);
      }
      if (at.widenedBy && at.channels === 'stereo')
        expect(row).toContain(
          `wide from ${touringRig.devices.find((d) => d.id === at.widenedBy)!.name}`,
        );
    }
    await tech.click('[data-arrival="lead"]');
    await tech.reads('.sound[aria-pressed="true"]', 'Lead');
  },
);
