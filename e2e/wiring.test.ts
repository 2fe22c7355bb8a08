import { connectionOrder } from '../src/core/analysis';
import { brokenRig, hybridRig, touringRig } from '../src/core/demo';
import { analyse } from '../src/core/report';
import { jointsOf, leadsOfJoint, type Rig } from '../src/core/rig';
import { forEachFile, Person, stored } from './person';

let tech: Person;
forEachFile((person) => (tech = person));

test('the wiring list shows every lead, selects it, and connects free jacks', async () => {
  const id = await stored(tech, brokenRig);
  await tech.open(`/rigs/${id}/signal`);
  await tech.press('w');
  await tech.see('[data-wire="k21"]');
  expect(await tech.page.$$('[data-wire]')).toHaveLength(
    brokenRig.leads.filter((l) => l.type !== 'inside').length,
  );
  const from = await tech.page.locator('::-p-aria([name="From an output"])').waitHandle();
  await from.click();
  await tech.page.keyboard.type('Summing');
  await tech.press('ArrowDown', 'Enter');
  expect(await tech.page.$$('[data-wire]')).toHaveLength(
    brokenRig.leads.filter((l) => l.type !== 'inside').length,
  );
  await tech.click('[data-wire="k20"]');
  expect(await tech.page.$eval('[data-wire="k20"]', (e) => e.getAttribute('aria-current'))).toBe(
    'true',
  );
  await tech.click('[data-list="safe-order"] summary');
  const steps = connectionOrder(brokenRig, analyse(brokenRig).sounds);
  expect(await tech.texts('[data-list="safe-order"] li strong')).toEqual(steps.map((x) => x.what));
  const spoken = steps[1]!.leads.map((lead) => brokenRig.leads.find((l) => l.id === lead)!);
  expect(
    (await tech.texts('[data-list="safe-order"] li:nth-child(2) button')).map(
      (t) => t.split(',')[0],
    ),
  ).toEqual(spoken.map((l) => brokenRig.devices.find((d) => d.id === l.from.device)!.name));
});

test('in the wiring one jack and then another are joined: only what fits lights up, Escape leaves it, undo takes it back', async () => {
  const id = await stored(tech, touringRig);
  await tech.open(`/rigs/${id}/signal?pane=wiring`);
  const chosen = '.wiring .free-jack[data-from="true"]';
  await tech.click('[data-jack="swell.tuner"]');
  await tech.see(chosen);
  const fitting = jointsOf(touringRig, 'swell').flatMap((j) =>
    j.from.device === 'swell' && j.from.jack === 'tuner' ? [`${j.to.device}.${j.to.jack}`] : [],
  );
  const lit = () =>
    tech.page.$$eval('.free-jack[data-fits="true"]', (all) =>
      all.map((e) => e.getAttribute('data-jack')!).sort(),
    );
  expect(fitting.length).toBeGreaterThan(3);
  expect(await lit()).toEqual([...fitting].sort());
  expect(await tech.text('.joining')).toContain(`${fitting.length} jacks fit`);
  await tech.press('Escape');
  await tech.gone(chosen);
  expect(await lit()).toEqual([]);
  // Two presses, and the lead is there: of the type and length that its ends ask for, and chosen.
  await tech.click('[data-jack="swell.tuner"]');
  await tech.click(`[data-jack="${fitting[0]}"]`);
  await tech.gone(chosen);
  const joint = jointsOf(touringRig, 'swell').find(
    (j) => j.from.jack === 'tuner' && `${j.to.device}.${j.to.jack}` === fitting[0],
  )!;
  const [lead] = leadsOfJoint(touringRig, joint);
  await tech.see(`[data-way="${lead!.id}"][data-on="true"]`);
  expect(await tech.page.$eval('.waytag', (e) => e.textContent)).toContain(`${lead!.metres} m`);
  await tech.click('[aria-label="Undo"]');
  await tech.gone(`[data-way="${lead!.id}"]`);
  await tech.button('Only jacks in use');
  await tech.gone('.free-jack');
});

test('blocks of a modeler are joined in the wiring of its inside; what is chosen elsewhere leads out again', async () => {
  const id = await stored(tech, hybridRig);
  await tech.open(`/rigs/${id}/signal?pane=wiring`);
  expect(await tech.texts('.wiring .box .look-inside')).toEqual(['8 inside']);
  // A supply and a treadle are plugged in, though no signal walks through them.
  await tech.see('[data-chip]');
  expect(await tech.texts('.chips')).toEqual([
    'Beside the signal: Board supplyModeler supplyPiezo treadleEcho rocker',
  ]);
  await tech.click('.wiring .look-inside');
  await tech.see('[data-box="hall"]');
  expect(await tech.page.$$eval('.wiring .band', (all) => all.map((e) => e.textContent))).toEqual([
    'Inside Lode modeler',
  ]);
  await tech.page.waitForFunction(() => location.search.includes('inside=lode'));
  await tech.click('[data-jack="wood.out"]');
  await tech.see('.free-jack[data-from="true"]');
  await tech.click('[data-jack="hall.in"][data-fits="true"]');
  await tech.gone('.free-jack[data-from="true"]');
  await tech.saved();
  const { rig } = (await tech.api<{ rig: Rig }>(`/api/rigs/${id}`)).body;
  const made = rig.leads.find((l) => !hybridRig.leads.some((old) => old.id === l.id))!;
  expect(made).toMatchObject({
    type: 'inside',
    from: { device: 'wood', jack: 'out' },
    to: { device: 'hall', jack: 'in' },
  });
  await tech.see(`[data-way="${made.id}"][data-on="true"]`);
  await tech.click('[aria-label="Undo"]');
  await tech.gone(`[data-way="${made.id}"]`);
  await tech.press('w');
  const outside = hybridRig.leads.find((l) => l.type !== 'inside')!;
  await tech.click(`[data-wire="${outside.id}"]`);
  await tech.see(`[data-way="${outside.id}"][data-on="true"]`);
  await tech.gone('[data-box="hall"]');
});
