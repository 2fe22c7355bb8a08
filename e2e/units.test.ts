import { analyse } from '../src/core/report';
import { touringRig } from '../src/core/demo';
import { dbvOfDbu, fixed } from '../src/core/units';
import { forEachFile, Person, stored } from './person';

let tech: Person;
forEachFile((person) => (tech = person));

const palette = async (words: string) => {
  await tech.control('k');
  await tech.see('.mantine-Spotlight-search:focus');
  await tech.page.keyboard.type(words);
  await tech.page.waitForFunction(
    (w) =>
      document
        .querySelector<HTMLElement>('.mantine-Spotlight-action[data-selected]')
        ?.innerText.includes(w),
    {},
    words,
  );
  await tech.press('Enter');
  await tech.gone('.mantine-Spotlight-search');
};

test('levels in dBV and lengths in feet, everywhere, and still after a reload', async () => {
  const id = await stored(tech, touringRig);
  await tech.open(`/rigs/${id}/signal`);
  await palette('Show levels in dBV');
  await palette('Show lengths in feet');
  const comp = analyse(touringRig).sounds[0]!.stations.find((s) => s.id === 'comp')!.output
    .levelDbu!.normal;
  const check = async () => {
    await tech.reads('[data-figures="comp"] [data-row="level"]', fixed(dbvOfDbu(comp)));
    await tech.press('w');
    await tech.reads('[data-wire="l03"]', '19.7 ft');
  };
  await check();
  await tech.reload();
  await tech.see('[data-figures="comp"]');
  await tech.reads('[data-destination="cab"]', 'dBV');
  await check();
});

test('what is typed while the palette is still opening switches nothing on the page', async () => {
  await tech.open('/rigs/salt-and-ferry/signal');
  const scheme = () => tech.page.$eval('html', (e) => e.getAttribute('data-mantine-color-scheme'));
  const before = await scheme();
  await tech.control('k');
  await tech.press('d');
  await tech.see('.mantine-Spotlight-search:focus');
  expect(await scheme()).toBe(before);
  await tech.press('Escape');
  await tech.gone('.mantine-Spotlight-search');
  await tech.press('d');
  await tech.see(`html:not([data-mantine-color-scheme="${before}"])`);
  await tech.press('d');
  await tech.see(`html[data-mantine-color-scheme="${before}"]`);
});

test('rows of the meter bridge can be chosen, and the side put away', async () => {
  await tech.open('/rigs/salt-and-ferry/signal');
  await tech.see('[data-figures="comp"] [data-row="width"]');
  await tech.button('Choose the rows of the meter bridge');
  await tech.page.locator('::-p-text(Width: mono, dual mono)').click();
  await tech.gone('[data-figures="comp"] [data-row="width"]');
  await tech.page.locator('::-p-text(Touch: the word)').click();
  await tech.reads('[data-figures="comp"] [data-row="touch"]', 'clean');
  await tech.press('Escape');
  await tech.button('Show or hide the side');
  await tech.gone('aside');
});

test('keys: walk along, probe on, bypass, and the list of them all', async () => {
  const id = await stored(tech, touringRig);
  await tech.open(`/rigs/${id}/signal`);
  await tech.see('[data-station]');
  await tech.press('ArrowRight', 'ArrowRight');
  await tech.see('[data-inspector="radio"]');
  await tech.press('p');
  await tech.see('[data-probe="l02"]');
  await tech.press('ArrowRight');
  await tech.gone('[data-probe="l02"]');
  await tech.press('?');
  await tech.reads('.mantine-Modal-body', 'move: arrows choose the place, Enter puts it there');
  await tech.press('Escape');
  await tech.gone('.mantine-Modal-body');
});
