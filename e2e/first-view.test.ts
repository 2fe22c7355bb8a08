import { Person } from './person';

afterAll(() => Person.allLeave());

/** Script that a page has fetched so far, in kB as it was before it was packed. */
const scripts = (tech: Person): Promise<number> =>
  tech.page.evaluate(() =>
    performance
      .getEntriesByType('resource')
      .filter((e): e is PerformanceResourceTiming => e instanceof PerformanceResourceTiming)
      .filter((e) => e.name.endsWith('.js') && e.initiatorType === 'script')
      .reduce((sum, e) => sum + e.decodedBodySize / 1000, 0),
  );

test('a rig opens with the script of its view; the rest comes after it, and then opens with the server away', async () => {
  const tech = await Person.arrives();
  await tech.page.goto(`${tech.base}/rigs/salt-and-ferry/signal`, { waitUntil: 'load' });
  const first = await scripts(tech);
  // The engine alone, or one of the larger places, would go over this.
  expect(first).toBeGreaterThan(300);
  expect(first).toBeLessThan(1600);
  await tech.page.waitForFunction(
    (size) =>
      performance
        .getEntriesByType('resource')
        .filter((e) => e.name.endsWith('.js') && e.name.includes('/_next/static/'))
        .reduce((sum, e) => sum + (e as PerformanceResourceTiming).decodedBodySize / 1000, 0) >
      size * 1.3,
    {},
    first,
  );
  // The last of what is fetched later is a dialog: then nothing has to be asked for any more.
  await tech.page.waitForFunction(
    () =>
      new Promise<boolean>((done) => {
        const count = () => performance.getEntriesByType('resource').length;
        const was = count();
        setTimeout(() => done(count() === was), 1500);
      }),
  );
  await tech.offline();
  await tech.press('f');
  await tech.see('::-p-aria([name="Findings"][role="dialog"])');
  await tech.press('Escape');
  await tech.gone('.mantine-Drawer-content');
  await tech.click('button[aria-label="Keys"]');
  await tech.see('::-p-aria([name="Keys"][role="dialog"])');
  expect(tech.errors).toEqual([]);
});
