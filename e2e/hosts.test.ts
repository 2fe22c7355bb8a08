import { mixedRig } from '../bench/big-rig';
import { analyse } from '../src/core/report';
import { brokenRig, hybridRig } from '../src/core/demo';
import { applyEdits, type Edit, type Rig } from '../src/core/rig';
import { fixed } from '../src/core/units';
import { forEachFile, Person, stored } from './person';

let tech: Person;
forEachFile((person) => (tech = person));

const after = (rig: Rig, ...edits: Edit[]): Rig => {
  const r = applyEdits(rig, edits);
  if (!r.ok) throw new Error(r.problems[0]!.what);
  return r.value.rig;
};
test(
  'editing inside a modeler: a link is probed, a block put into it with one key, and ' +
    'it can be undone',
  async () => {
    const id = await stored(tech, hybridRig);
    await tech.open(`/rigs/${id}/signal`);
    await tech.sound('3');
    await tech.click('[data-lead="i05"]');
    await tech.reads('[data-probe="i05"]', 'Cab, out');
    await tech.press('i');
    await tech.see('[aria-label="Find a kind"]:focus');
    expect(await tech.texts('[role="option"]')).not.toContain('Wireless system Front of the chain');
    await tech.page.keyboard.type('equal');
    await tech.press('Enter');
    await tech.see('[data-inspector]');
    const rig = await tech.savedRig(id);
    const fresh = rig.devices.at(-1)!;
    expect(fresh).toMatchObject({ kind: 'eq', host: 'lode' });
    expect(rig.leads.find((l) => l.to.device === fresh.id)).toMatchObject({
      from: { device: 'cabb', jack: 'out' },
      type: 'inside',
    });
    await tech.control('z');
    await tech.gone(`[data-device="${fresh.id}"]`);
  },
);

test(
  'the order of a switcher’s loops is written for one sound; a wrong one is refused ' +
    'in words; the walk follows',
  async () => {
    const id = await stored(tech, hybridRig);
    await tech.open(`/rigs/${id}/signal`);
    await tech.sound('3');
    await tech.click('[data-device="loops"]');
    const field = await tech.page
      .locator('[data-inspector="loops"] ::-p-aria([name="Loops in order"])')
      .waitHandle();
    await field.click({ count: 3 });
    await tech.page.keyboard.type('2 9');
    await tech.reads('[data-inspector="loops"]', 'there is no loop 9; it has loops 1 to 8');
    await field.click({ count: 3 });
    await tech.page.keyboard.type('2 1');
    await tech.press('Enter');
    const turned = after(hybridRig, {
      edit: 'setSetting',
      device: 'loops',
      sound: 'slag',
      setting: 'order',
      value: '2 1',
    });
    const ash = analyse(turned)
      .sounds.find((s) => s.sound === 'slag')!
      .stations.find((s) => s.device === 'ash')!;
    await tech.reads('[data-figures="ash"] [data-row="level"]', fixed(ash.output.levelDbu!.normal));
    const order = await tech.order();
    expect(order.indexOf('slag')).toBeLessThan(order.indexOf('ash'));
    expect(
      (await tech.savedRig(id)).sounds.find((s) => s.id === 'slag')!.states.loops!.settings,
    ).toEqual({ order: '2 1' });
  },
);

test(
  'room inside, sends and returns are told; a block goes out in front of its path and ' +
    'comes in again',
  async () => {
    const id = await stored(tech, hybridRig);
    await tech.open(`/rigs/${id}/signal`);
    // What can be folded is known once the rig has been judged.
    await tech.see('[data-station="lode:in"]');
    await tech.press('h');
    await tech.click('[data-station="lode~0"]');
    const use = analyse(hybridRig).sounds[0]!.hosts.find((h) => h.host === 'lode')!;
    await tech.reads(
      '[data-host="lode"]',
      `Slots ${use.used.slots} ${use.has.slots} ${use.has.slots - use.used.slots}`,
    );
    expect(await tech.text('[data-loop="loop1"]')).toBe('1 to Vesk Gate from Vesk Gate');
    await tech.press('h');
    await tech.click('[data-device="wood"]');
    await tech.page
      .locator('[data-inspector="wood"] button::-p-text(Out, in front of Lode modeler)')
      .click();
    await tech.page
      .locator('[data-inspector="wood"] button::-p-text(Into Lode modeler, first on its path)')
      .wait();
    const out = await tech.savedRig(id);
    expect(out.devices.find((d) => d.id === 'wood')!.host).toBeUndefined();
    expect(
      out.leads
        .filter((l) => l.to.device === 'wood' || l.from.device === 'wood')
        .map((l) => [l.from.device, l.to.device, l.to.jack]),
    ).toEqual([
      ['bari', 'wood', 'in'],
      ['wood', 'lode', 'aux'],
    ]);
    await tech.page
      .locator('[data-inspector="wood"] button::-p-text(Into Lode modeler, first on its path)')
      .click();
    await tech.page
      .locator('[data-inspector="wood"] button::-p-text(Out, in front of Lode modeler)')
      .wait();
    const back = await tech.savedRig(id);
    expect(back.devices.find((d) => d.id === 'wood')!.host).toBe('lode');
    expect(back.leads.find((l) => l.to.device === 'wood')!.from).toEqual({
      device: 'lode',
      jack: 'fromAux',
    });
  },
);

test('a modeler over its budget: the proposal says what leaves and why, and is taken with one press', async () => {
  const id = await stored(tech, brokenRig);
  await tech.open(`/rigs/${id}/signal`);
  await tech.button('Proposals');
  await tech.page.locator('label ::-p-text(Inside or outside)').click();
  await tech.button('Work it out');
  await tech.reads(
    '[data-proposal="inside"]',
    'Pocket delay: outside, on a send and return of Pocket modeler',
  );
  const said = await tech.text('[data-proposal="inside"]');
  expect(said).toContain('Slots 2 3 2');
  expect(said).toContain('over its budget (3 of 2 slots');
  await tech.button('Make these moves');
  const rig = await tech.savedRig(id);
  expect(rig.devices.find((d) => d.id === 'pocket3')!.host).toBeUndefined();
  expect(analyse(rig).findings.map((f) => f.rule)).not.toContain('host-budget');
});

test('many hosts are folded from a menu; more that arrives than there is room for is scrolled by keys', async () => {
  const id = await stored(tech, mixedRig(180));
  await tech.open(`/rigs/${id}/signal`);
  await tech.button('Fold …');
  await tech.page.locator('::-p-aria([name="Fold Modeler 0"][role="menuitem"])').click();
  await tech.page.locator('::-p-aria([name="Unfold Modeler 0"][role="menuitem"])').waitHandle();
  await tech.press('Escape');
  await tech.gone('[role="menu"]');
  await tech.page.locator('::-p-aria([name="1 folded …"][role="button"])').waitHandle();
  await tech.see('[data-station="m0~0"]');
  expect(await tech.page.$('[data-station="b0x0"]')).toBeNull();

  const arriving = await tech.page.waitForSelector('.arrivals[tabindex="0"]');
  expect((await tech.texts('.arrivals [data-destination]')).length).toBeGreaterThan(8);
  await arriving!.focus();
  await tech.press('End');
  await tech.page.waitForFunction(
    () => {
      const box = document.querySelector('.arrivals')!;
      const last = box.lastElementChild!.getBoundingClientRect();
      return box.scrollTop > 0 && last.bottom <= box.getBoundingClientRect().bottom + 2;
    },
    { polling: 50 },
  );
});
