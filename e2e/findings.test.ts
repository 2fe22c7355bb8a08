import {
  analyse,
  countTurned,
  FixTrial,
  isSafe,
  type TriedFix,
  whatToMeasure,
} from '../src/core/report';
import type { Rig } from '../src/core/rig';
import { brokenRig, touringRig } from '../src/core/demo';
import { chainOf } from '../src/core/testing/rigs';
import { wired } from '../src/core/testing/wired';
import { type Finding, openCounts } from '../src/core/findings/finding';
import { forEachFile, Person, stored } from './person';

let tech: Person;
forEachFile((person) => (tech = person));

test('counts by severity; a fix cures its finding; accepting needs a reason, and a reason is kept', async () => {
  const id = await stored(tech, brokenRig);
  await tech.open(`/rigs/${id}/signal`);
  const { findings } = analyse(brokenRig);
  const label = `Findings: ${openCounts(findings)}`;
  await tech.see(`[aria-label="${label}"]`);
  await tech.press('f');
  const lead = findings.find((f) => f.rule === 'speaker-lead')!;
  await tech.reads(
    `[data-finding="${lead.key}"]`,
    'An instrument lead in a speaker line overheats',
  );
  await tech.button('Make it a speaker lead');
  await tech.gone(`[data-finding="${lead.key}"]`);
  const head = findings.find((f) => f.rule === 'no-load')!;
  await tech.page.locator(`[data-finding="${head.key}"] ::-p-text(Accept …)`).click();
  await tech.see(`[data-finding="${head.key}"] form button[disabled]`);
  await tech.page
    .locator(`[data-finding="${head.key}"] input`)
    .fill('It is unplugged from the mains.');
  await tech.press('Enter');
  await tech.gone(`[data-finding="${head.key}"]`);
  await tech.page.locator('::-p-text(Accepted (1))').click();
  await tech.reads(`[data-finding="${head.key}"]`, 'Accepted: It is unplugged from the mains.');
  await tech.page.locator(`[data-finding="${head.key}"] ::-p-text(Take up again)`).click();
  await tech.page.locator('::-p-text(Accepted (0))').wait();
});

test('fixes are tried on a copy: what breaks something says so, what does not cure is not offered; all safe ones in one step', async () => {
  const id = await stored(tech, brokenRig);
  await tech.open(`/rigs/${id}/signal`);
  const trial = new FixTrial(brokenRig);
  // Each is tried when one is looked for: the page tries them all, and at its own time.
  const known = new Map<Finding, TriedFix[]>();
  const waysOf = (f: Finding) => known.get(f) ?? known.set(f, trial.waysOut(f)).get(f)!;
  const first = (is: (f: Finding, ways: TriedFix[]) => boolean) => {
    const f = trial.report.findings.find((x) => is(x, waysOf(x)))!;
    return { f, ways: waysOf(f) };
  };
  const worst = first((_, ways) => ways.length > 0);
  const breaking = first((_, [best]) => best !== undefined && best.tried.breaks.length > 0);
  const hopeless = first((f, ways) => f.fix !== undefined && !f.others && !ways.length);
  await tech.press('f');
  // What cures the worst is there before all is tried.
  await tech.see(`[data-finding="${worst.f.key}"] [data-way]`);
  expect(await tech.text('[data-cure-all]')).toContain('Trying fixes on a copy');
  await tech.reads(
    `[data-finding="${breaking.f.key}"] [data-way="breaks"]`,
    `Tried: cures this; breaks: ${breaking.ways[0]!.tried.breaks[0]!.replace(/\.$/, '')}`,
  );
  await tech.reads(`[data-finding="${hopeless.f.key}"] [data-no-way]`, 'does not cure it here');
  expect(await tech.text(`[data-finding="${hopeless.f.key}"]`)).not.toContain(
    hopeless.f.fix!.words,
  );
  // As many as are shown as safe, and what was tried here is shown as it came out here.
  const safe = await tech.page.waitForFunction(() => {
    const all = [...document.querySelectorAll('[data-finding]')];
    const count = all.filter((f) => f.querySelector('[data-way="safe"]')).length;
    const button = [...document.querySelectorAll('button')].find((b) =>
      b.innerText.includes(`Fix all that is safe (${count})`),
    );
    return button
      ? all.flatMap((f) =>
          f.querySelector('[data-way="safe"]') ? [f.getAttribute('data-finding')] : [],
        )
      : null;
  });
  const shown = (await safe.jsonValue()) as unknown as string[];
  for (const [f, [best]] of known)
    expect([f.key, shown.includes(f.key)]).toEqual([
      f.key,
      best !== undefined && isSafe(best.tried),
    ]);
  await tech.button(`Fix all that is safe (${shown.length})`);
  await tech.reads('[data-cured]', 'Make it a speaker lead');
  await tech.gone('[data-finding^="speaker-lead"]');
  await tech.press('Escape');
  await tech.control('z');
  await tech.saved();
  const { rig } = (await tech.api<{ rig: Rig }>(`/api/rigs/${id}`)).body;
  expect({ ...rig, id: '' }).toEqual(JSON.parse(JSON.stringify({ ...brokenRig, id: '' })));
});

test('what is about the whole rig marks no device, and every place opens with it', async () => {
  const gone = { id: 'gone', type: 'hears', destination: 'nobody', source: 'steel' } as const;
  const id = await stored(tech, { ...touringRig, promises: [gone] });
  await tech.open(`/rigs/${id}/signal`);
  await tech.see('[data-station="kiln"]');
  const broken = analyse({ ...touringRig, promises: [gone] }).findings.find(
    (f) => f.rule === 'promise' && !f.subjects.length,
  )!;
  await tech.press('f');
  // The list moves while fixes are being tried: the button itself is pressed, wherever it is by then.
  const show = await tech.see(`[data-finding="${broken.key}"] ::-p-text(Show)`);
  await show!.evaluate((e) => (e.closest('button') ?? (e as HTMLElement)).click());
  await tech.gone(`[data-finding="${broken.key}"]`);
  await tech.see('[data-station="kiln"]');
});

test('a broken promise offers what keeps it; one of a missing cabinet is told once, with its desk', async () => {
  const rig = wired(
    {
      g: 'guitar-humbucker',
      s: 'amp-cab-simulator',
      e: 'delay',
      r: 'reverb',
      f: ['console-input-stereo', { settings: { input: 'line' } }],
      j: 'guitar-humbucker',
      h: 'head-tube',
      c: 'cabinet',
      m: 'microphone',
      k: 'console-input',
    },
    'g.out>s.in s.out>e.in e.out>r.in r.out>f.in j.out>h.in c.air>m.air m.out>k.in',
    { One: 's e r h c m' },
    { promises: [{ id: 'wide', type: 'stereo', destination: 'f' }] },
  );
  const id = await stored(tech, rig);
  await tech.open(`/rigs/${id}/signal`);
  await tech.press('f');
  await tech.reads('[data-finding="no-load:h"]', 'there is sound again at');
  await tech.reads('[data-finding="promise:wide"]', 'Broken promise: F is stereo');
  const way = '[data-finding="promise:wide"] [data-way="safe"]';
  await tech.reads(way, 'Add the right-hand lead, and those behind R');
  await tech.page.locator(`${way} button`).click();
  await tech.gone('[data-finding="promise:wide"]');
  await tech.gone('[data-finding^="half-pair"]');
});

test('choosing the other school ends its advice', async () => {
  const id = await stored(tech, brokenRig);
  await tech.open(`/rigs/${id}/signal`);
  await tech.press('f');
  await tech.reads('.mantine-Drawer-body', 'Ember Drive has less gain than Gale Drive before it');
  await tech.page.locator('::-p-text(Order rules)').click();
  await (await tech.see('[data-rule="gain-low-to-high"] input'))!.click();
  await tech.page.locator('::-p-text(other school: high to low)').click();
  await tech.page.locator('label ::-p-text(Open)').click();
  await tech.page.waitForFunction(
    () =>
      !(document.querySelector('.mantine-Drawer-body') as HTMLElement).innerText.includes(
        'has less gain than',
      ),
  );
});

test('what to measure: the figures that verdicts hang on, with tool and steps; a reading is taken where it is shown', async () => {
  const rig: Rig = {
    ...chainOf(['guitar-humbucker', ['eq', { engaged: true }], 'console-input']),
    id: 'measured',
  };
  const id = await stored(tech, rig);
  const found = await whatToMeasure(rig);
  const [first] = found;
  const turning = found.flatMap((m) => m.turns).find((t) => !t.appears)!;
  await tech.open(`/rigs/${id}/signal`);
  await tech.press('f');
  await tech.page.locator('::-p-text(Measure)').click();
  await tech.button('Find what to measure');
  const card = `[data-to-measure="${first!.device} ${first!.figure}"]`;
  await tech.reads(card, first!.tool);
  await tech.reads(card, `it turns ${countTurned(first!)}`);
  expect((await tech.page.$$('[data-to-measure]')).length).toBe(found.length);
  await tech.page.locator(`::-p-text(Open ()`).click();
  await tech.reads(`[data-finding="${turning.id}"] [data-hangs-on]`, 'measure that first');
  await tech.page.locator('::-p-text(Measure)').click();
  await tech.page.locator(`${card} input`).fill(String(first!.typical));
  await tech.page.locator(`${card} ::-p-text(Take this reading)`).click();
  await tech.reads(card, 'measured');
  await tech.saved();
  expect(
    (await tech.savedRig(id)).devices.find((d) => d.id === first!.device)!.figures![first!.figure],
  ).toMatchObject({ value: first!.typical, from: 'measured' });
});

test('a finding leads to its subject and its sound', async () => {
  await tech.open('/rigs/observatory-practice/sounds');
  await tech.press('f');
  const late = analyse(brokenRig).findings.find((f) => f.rule === 'latency')!;
  await tech.page.locator(`[data-finding="${late.key}"] ::-p-text(Show)`).click();
  await tech.see('[data-inspector="desk"]');
  expect(await tech.text('.sound[aria-pressed="true"]')).toContain('Storm');
});

test('the palette does what buttons do', async () => {
  const id = await stored(tech, touringRig);
  await tech.open(`/rigs/${id}/signal`);
  await tech.control('k');
  await tech.see('.mantine-Spotlight-search:focus');
  await tech.page.keyboard.type('choose kiln');
  await tech.press('Enter');
  await tech.reads('.sound[aria-pressed="true"]', 'Kiln rhythm');
  await tech.gone('.mantine-Spotlight-search');
  await tech.control('k');
  await tech.see('.mantine-Spotlight-search:focus');
  await tech.page.keyboard.type('Show levels in dBV');
  await tech.press('Enter');
  await tech.reads('[data-destination="cab"]', 'dBV');
});

test('a rule of order is taken otherwise for one device: one boost for saturation, one for level', async () => {
  const rig = chainOf([
    'guitar-humbucker',
    ...['drive-low', 'boost', 'boost'].map((k): [string, { engaged: true }] => [
      k,
      { engaged: true },
    ]),
    'combo-tube',
  ]);
  const id = await stored(tech, rig);
  await tech.open(`/rigs/${id}/signal`);
  await tech.press('f');
  await tech.page.locator('::-p-text(Order rules)').click();
  await tech.click('[data-rule="boost-place"] [aria-label="School for Boost"]');
  await tech.pick('usual: before dirt or amp, for saturation');
  await tech.click('[data-rule="boost-place"] [aria-label="School for Boost, Device 3"]');
  await tech.pick('other school: after it, for a solo level');
  const stance = { stance: 'follow' as const, devices: { d3: 'other' as const } };
  const judged = analyse({ ...rig, order: { stances: { 'boost-place': stance } } }).findings;
  await tech.page.locator(`::-p-text(Open (${judged.length}))`).click();
  await tech.see('[data-finding="boost-place:d2"]');
  await tech.gone('[data-finding="boost-place:d3"]');
});
