import { analyse } from '../src/core/report';
import { brokenRig, touringRig } from '../src/core/demo';
import type { Rig } from '../src/core/rig';
import { chainOf, sound } from '../src/core/testing/rigs';
import { forEachFile, Person, stored } from './person';

let tech: Person;
forEachFile((person) => (tech = person));

/** Thirteen pedals in the wrong order: long enough to watch and to stop. */
const long: Rig = {
  ...chainOf(
    [
      'guitar-single-coil',
      'reverb',
      'delay',
      'phaser',
      'chorus',
      'drive-high',
      'wah',
      'drive-mid',
      'envelope-filter',
      'drive-low',
      'octave',
      'compressor',
      'tuner-buffered',
      'looper',
      'combo-tube-loop',
    ],
    0.3,
    [
      sound(
        'a',
        'All',
        Array.from({ length: 13 }, (_, i) => `d${i + 1}`).filter((d) => d !== 'd12'),
      ),
    ],
  ),
  name: 'Long board',
};
const reads = (part: string) => tech.reads('.mantine-Drawer-body', part);

test('an order is worked out with progress, can be stopped, and taken as one step', async () => {
  const id = await stored(tech, long);
  await tech.open(`/rigs/${id}/signal`);
  await tech.button('Proposals');
  await tech.button('Work it out for All');
  await reads('%: Asking the order rules');
  await tech.button('Cancel');
  await tech.page.waitForFunction(
    () => !document.querySelector('.mantine-Drawer-body [role="status"]'),
  );
  await tech.button('Work it out for All');
  await tech.see('[data-proposal="order"]');
  const said = await tech.text('[data-proposal="order"]');
  expect(said).toContain('(proven the fewest)');
  expect(said).toMatch(/Left where it is: \d+\.\d points more/);
  await tech.button('Take this order');
  await tech.saved();
  const rig = (await tech.api<{ rig: Rig }>(`/api/rigs/${id}`)).body.rig;
  const rules = (r: Rig) =>
    analyse(r).findings.filter((f) =>
      /early|before|after|low-to-high|tuner-place|looper/.test(f.rule),
    ).length;
  expect(rules(long)).toBeGreaterThan(8);
  expect(rules(rig)).toBeLessThan(3);
  await tech.press('Escape');
  await tech.control('z');
  await tech.saved();
  expect(
    (await tech.api<{ rig: Rig }>(`/api/rigs/${id}`)).body.rig.leads.map(
      (l) => `${l.from.device}>${l.to.device}`,
    ),
  ).toEqual(long.leads.map((l) => `${l.from.device}>${l.to.device}`));
});

test('hum loops: the cheapest cuts, done together', async () => {
  const id = await stored(tech, brokenRig);
  await tech.open(`/rigs/${id}/signal`);
  await tech.button('Proposals');
  await tech.page.locator('label ::-p-text(Isolate)').click();
  await tech.button('Work it out for Bare');
  await tech.see('[data-proposal="isolation"]');
  expect(await tech.text('[data-proposal="isolation"]')).toMatch(/1 hum loop now, 0 then/);
  await tech.reads('[data-tried-proposal="done"]', /^Tried: does what it says/);
  await tech.button('Do all of this');
  await tech.saved();
  const rig = (await tech.api<{ rig: Rig }>(`/api/rigs/${id}`)).body.rig;
  expect(analyse(rig).findings.map((f) => f.rule)).not.toContain('hum-loop');
});

test('buffers: decibels at 5 kHz for each, put in with one press; one that would bring a caution is told, not offered', async () => {
  const rig = chainOf(['guitar-single-coil', 'wah', 'phaser', 'tremolo', 'combo-tube'], 6);
  const id = await stored(tech, { ...rig, id: 'long-leads' });
  await tech.open(`/rigs/${id}/signal`);
  await tech.button('Proposals');
  await tech.page.locator('label ::-p-text(Buffers)').click();
  await tech.button('Work it out for One');
  await tech.reads('[data-gain="0"]', /\+\d+\.\d dB at 5 kHz/);
  await tech.button('Put in this one');
  await tech.saved();
  expect((await tech.savedRig(id)).devices.at(-1)!.kind).toBe('buffer');
  const other = await stored(tech, brokenRig);
  await tech.open(`/rigs/${other}/signal`);
  await tech.button('Proposals');
  await tech.page.locator('label ::-p-text(Buffers)').click();
  await tech.button('Work it out for Bare');
  await tech.reads('[data-spared]', /a buffer would bring caution: .*The lead behind Foot volume/);
});

test('what is in order is said to be', async () => {
  const id = await stored(tech, touringRig);
  await tech.open(`/rigs/${id}/signal`);
  await tech.sound('4');
  await tech.button('Proposals');
  await tech.button('Work it out for Kiln rhythm');
  await reads('It is in order already');
});
