import { rigOf, device, sound } from '../src/core/testing/rigs';
import { analyse } from '../src/core/report';
import type { Rig } from '../src/core/rig';
import { fixed } from '../src/core/units';
import { forEachFile, Person, stored } from './person';

let tech: Person;
forEachFile((person) => (tech = person));

/** Chooses an entry of a searchable list by its label and its whole words. */
async function choose(label: string, words: string): Promise<void> {
  const field = await tech.page.locator(`::-p-aria([name="${label}"])`).waitHandle();
  await field.click();
  await tech.page.keyboard.type(words);
  await tech.pick(words);
}
async function connect(from: string, to: string): Promise<void> {
  await choose('From an output', from);
  await choose('To an input', to);
  await tech.button('Connect');
  // Once it is connected the form is empty again.
  await tech.page.waitForFunction(
    () =>
      [...document.querySelectorAll('button')].some(
        (b) => b.textContent === 'Connect' && b.disabled,
      ),
    { timeout: 40_000 },
  );
}
const kept = async (id: string): Promise<Rig> => {
  await tech.saved();
  return (await tech.api<{ rig: Rig }>(`/api/rigs/${id}`)).body.rig;
};

test(
  'front and loop together, put together jack by jack; two plugs exchanged are found ' +
    'and put right with one press',
  async () => {
    const id = await stored(
      tech,
      rigOf(
        [
          device('g', 'guitar-humbucker', 'Baritone'),
          device('m', 'modeler-compact', 'Pocket'),
          device('h', 'head-tube', 'Stage head'),
          device('c', 'cabinet', 'Stage cabinet'),
        ],
        [],
        [sound('one', 'One', [])],
      ),
    );
    await tech.open(`/rigs/${id}/signal`);
    await tech.press('w');
    await tech.see('::-p-text(Connect free jacks)');
    await connect('Baritone, out', 'Pocket, in');
    await connect('Pocket, send 1', 'Stage head, loop return');
    await connect('Stage head, loop send', 'Pocket, return 1');
    await connect('Pocket, out left', 'Stage head, in');
    await connect('Stage head, speaker', 'Stage cabinet, speaker in');
    expect(await tech.page.$$('[data-wire]')).toHaveLength(5);
    await connect('Pocket, from the input', 'Pocket, to send 1');
    await connect('Pocket, from return 1', 'Pocket, to the left output');
    const wrong = await kept(id);
    expect(wrong.leads.map((l) => l.type)).toEqual([
      'instrument',
      'instrument',
      'instrument',
      'instrument',
      'speaker',
      'inside',
      'inside',
    ]);
    const faulty = analyse(wrong).findings.find((f) => f.rule === 'swapped')!;
    await tech.press('Escape', 'f');
    await tech.reads(`[data-finding="${faulty.key}"]`, faulty.what);
    await tech.button(faulty.fix!.words);
    await tech.gone(`[data-finding="${faulty.key}"]`);
    const right = await kept(id);
    expect(
      right.leads.map((l) => `${l.from.device}.${l.from.jack} ${l.to.device}.${l.to.jack}`),
    ).toEqual(expect.arrayContaining(['m.send1 h.in', 'm.out h.return', 'h.send m.return1']));
    const cabinet = analyse(right).sounds[0]!.destinations.find((d) => d.device === 'c')!;
    await tech.reads('[data-destination="c"]', `${fixed(cabinet.levelDbu!.normal)} dBu`);
  },
);
