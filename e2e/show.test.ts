import { chartLines } from '../src/core/formats/chart';
import { leadCodes, misfitsAt } from '../src/core/build';
import { touringRig } from '../src/core/demo';
import { kindOf } from '../src/core/kinds';
import type { Rig } from '../src/core/rig';
import {
  atEar,
  type Effects,
  effectsOf,
  Finder,
  Listener,
  symptomWords,
  demoBook,
  drillOf,
  lineCheckOf,
  scheduleOf,
  smallestSpares,
  SYMPTOM_IDS,
} from '../src/core/show';
import { bitOf } from '../src/core/show/symptoms';
import { type Book, dueOf } from '../src/core/show/book';
import { exactly } from '../src/core/optimum';
import loadHighs from 'highs';
import { forEachFile, Person, stored } from './person';

let tech: Person;
forEachFile((person) => (tech = person));

let effects: Effects;
beforeAll(async () => {
  effects = await effectsOf(new Listener(touringRig));
});

const PHONE = { width: 390, height: 844 };
const bookOf = async (id: string): Promise<Book> =>
  (await tech.api<{ book: Book }>(`/api/rigs/${id}/log`)).body.book;
/** Writes down the demo run beside a copy of the rig. */
async function withRun(id: string): Promise<void> {
  const changes = demoBook(touringRig, new Date().toISOString().slice(0, 10)).map((c) => ({
    ...c,
    id: `${c.id}-${id}`.slice(0, 64),
    fields: {
      ...c.fields,
      ...(c.fields.show && {
        show: { was: '', now: `${String(c.fields.show.now)}-${id}`.slice(0, 64) },
      }),
    },
  }));
  await tech.api(`/api/rigs/${id}/log`, 'POST', { changes });
}
const written = () => tech.see('[data-book="saved"]');
const tap = async (label: string) => {
  await tech.page.waitForFunction(
    (l) =>
      [...document.querySelectorAll<HTMLElement>('button')].some(
        (b) => b.innerText.trim() === l && !b.hasAttribute('disabled'),
      ),
    {},
    label,
  );
  await tech.page.evaluate(
    (l) =>
      [...document.querySelectorAll<HTMLElement>('button')]
        .find((b) => b.innerText.trim() === l)!
        .click(),
    label,
  );
};

test('a set is walked through on a phone with the network cut; two taps to any song; a line is kept', async () => {
  const id = await stored(tech, touringRig);
  await tech.page.setViewport(PHONE);
  await tech.open(`/rigs/${id}/show?part=now`);
  await tech.see('[data-gap]');
  await tech.page.setOfflineMode(true);
  const set = touringRig.sets![0]!;
  const first = touringRig.songs!.find((s) => s.id === set.entries[0]!.song)!;
  await tech.reads('.stage-song', `${first.title} 1 of ${set.entries.length}`);
  const headings = chartLines(first.chart ?? '').flatMap((l) => (l.is === 'head' ? l.text : []));
  expect(first.sections.filter((s) => headings.includes(s.name)).length).toBeGreaterThan(3);
  for (const [i, section] of first.sections.entries()) {
    await tech.press('ArrowRight');
    await tech.see(`[data-stop="${i + 1}"]`);
    await tech.reads('.stage-section', section.name);
    await tech.reads('.stage-sound', touringRig.sounds.find((s) => s.id === section.sound)!.name);
    // The chart follows: what is played stands on the page that is shown.
    if (headings.includes(section.name))
      await tech.page.waitForFunction(
        (name) =>
          [...document.querySelectorAll<HTMLElement>('.stage-chart h4')].some(
            (h) => h.innerText.trim() === name,
          ),
        {},
        section.name,
      );
  }
  await tech.reads(
    '[data-next]',
    touringRig.songs!.find((s) => s.id === set.entries[1]!.song)!.title,
  );
  // A page that was turned to stays until the song goes on.
  await tech.see('[data-chart-page="3"]');
  await tap('Page back');
  await tech.see('[data-chart-page="2"]');
  await tech.press('ArrowLeft');
  await tech.see('[data-chart-page="3"]');
  // Any song in two taps.
  const fifth = touringRig.songs!.find((s) => s.id === set.entries[4]!.song)!;
  await tech.click('.stage-song');
  await tap(fifth.title);
  await tech.reads('.stage-song', `${fifth.title} 5 of ${set.entries.length}`);
  // A line with nothing but a thumb and no network.
  await tech.click('[aria-label="A line for the logbook"]');
  await tech.page.keyboard.type('kiln drive crackles');
  await tech.press('Enter');
  await tech.page.waitForFunction(
    () =>
      document.querySelector<HTMLInputElement>('[aria-label="A line for the logbook"]')!.value ===
      '',
  );
  await tech.page.setOfflineMode(false);
  await tech.page.evaluate(() => window.dispatchEvent(new Event('online')));
  for (let i = 0; i < 100 && !(await bookOf(id)).line.length; i++)
    await new Promise((r) => setTimeout(r, 100));
  const [line] = (await bookOf(id)).line;
  expect(line).toMatchObject({ text: 'kiln drive crackles', sort: 'fault', song: fifth.id });
  expect(line!.links.map((l) => l.id)).toEqual(['kiln']);
  await tech.page.setViewport({ width: 1280, height: 800 });
});

test('the stand-in of the set list moves the show view of another window on', async () => {
  const id = await stored(tech, touringRig);
  await tech.open(`/rigs/${id}/show?part=now`);
  await tech.see('[data-gap]');
  const tablet = await tech.anotherTab();
  await tablet.open(`/rigs/${id}/control?part=rehearse`);
  await tablet.see('[data-rehearse]');
  const [first] = touringRig.sets![0]!.entries;
  const { sections } = touringRig.songs!.find((s) => s.id === first!.song)!;
  for (const n of [1, 2]) {
    await tablet.press('ArrowRight');
    // The gap before the song comes first there.
    await tech.see(`[data-stop="${n + 1}"]`);
    await tech.reads('.stage-section', sections[n]!.name);
  }
  await tablet.press('ArrowLeft');
  await tech.see('[data-stop="2"]');
  await tablet.page.close();
});

test('a show view that was open opens again without any network', async () => {
  const id = await stored(tech, touringRig);
  await tech.page.setViewport(PHONE);
  await tech.open(`/rigs/${id}/show?part=now`);
  await tech.see('[data-gap]');
  await tech.press('ArrowRight');
  await tech.see('[data-stop="1"]');
  // The page, its scripts and the rig are kept by then.
  await tech.page.waitForFunction(
    async (path) => {
      const keys = await caches.keys();
      const all = await Promise.all(keys.map(async (k) => (await caches.open(k)).keys()));
      return all.flat().some((r) => new URL(r.url).pathname === path);
    },
    { polling: 200 },
    `/rigs/${id}/show`,
  );
  const worker = await tech.page
    .browser()
    .waitForTarget(
      (t) =>
        String(t.type()) === 'service_worker' && t.browserContext() === tech.page.browserContext(),
    );
  const line = await worker.createCDPSession();
  const cut = { offline: true, latency: 0, downloadThroughput: 0, uploadThroughput: 0 };
  await line.send('Network.enable');
  await line.send('Network.emulateNetworkConditions', cut);
  await tech.page.setOfflineMode(true);
  await tech.reload();
  await tech.see('[data-stop="1"]');
  await tech.press('ArrowRight');
  await tech.see('[data-stop="2"]');
  await tech.page.setOfflineMode(false);
  await line.send('Network.emulateNetworkConditions', {
    ...cut,
    offline: false,
    downloadThroughput: -1,
    uploadThroughput: -1,
  });
  await tech.page.setViewport({ width: 1280, height: 800 });
});

test('a hidden fault is found by taps; sound back is tried; it ends as a line with a spare to buy', async () => {
  const id = await stored(tech, touringRig);
  const fault = effects.faults.findIndex((f) => f.id === 'lead open l09');
  const sound = effects.sounds.findIndex((s) => s.id === 'flat');
  await tech.page.setViewport(PHONE);
  await tech.open(`/rigs/${id}/show?part=finder`);
  for (const ear of ['wide', 'tdesk']) {
    await tech.click(`[data-ear="${ear}"]`);
    const bits = atEar(
      effects,
      fault,
      sound,
      effects.ears.findIndex((e) => e.device === ear),
    );
    const names = symptomWords(bits).split(', ');
    if (bits)
      for (const name of names)
        await tech.page.evaluate(
          (n) =>
            [...document.querySelectorAll<HTMLElement>('.mantine-Chip-label')]
              .find((l) => l.innerText.trim() === n)!
              .click(),
          name,
        );
    await tap(bits ? 'That is it' : 'All fine here');
  }
  const finder = new Finder(touringRig, effects, {
    sound: 'flat',
    noticed: ['wide', 'tdesk'].map((ear) => {
      const bits = atEar(
        effects,
        fault,
        sound,
        effects.ears.findIndex((e) => e.device === ear),
      );
      return { ear, sound: 'flat', what: SYMPTOM_IDS.filter((s) => bits & bitOf(s)) };
    }),
    answers: [],
    cannot: [],
  });
  const start = finder.find();
  await tech.reads('.finder-expect', `${start.candidates.length} are possible`);
  await tap('Sound back now');
  await tech.see('[data-rescue]');
  for (let i = 0; i < 25; i++) {
    const test = await tech.page.$eval('.finder', (f) =>
      f.querySelector('[data-test]')?.getAttribute('data-test'),
    );
    if (!test) break;
    const answer = finder.test(test)!.answer(fault);
    await tech.click(`[data-answer="${answer}"]`);
    await tech.see(`[data-answered="${test}"]`);
  }
  // It is spoken of by what is written on its ends.
  const called = leadCodes(touringRig).get('l09')!.code;
  expect(called).toBe('W09');
  await tech.reads('.finder-expect', `All that is left is at lead ${called}`);
  await tech.see('[data-candidate="lead open l09"]');
  await tech.click('[data-candidate="lead open l09"] [data-it-was]');
  await tech.reads('[data-found]', 'To buy: instrument lead');
  await written();
  const [line] = (await bookOf(id)).line;
  expect(line).toMatchObject({ sort: 'fault' });
  expect(line!.text).toContain(`lead ${called}`);
  expect(line!.links.map((l) => l.id)).toContain('l09');
  await tech.page.setViewport({ width: 1280, height: 800 });
});

test('the line check is ticked with who and when, is there for another, and a failure opens the finder', async () => {
  const id = await stored(tech, touringRig);
  await withRun(id);
  const solver = exactly(await loadHighs({}));
  const check = lineCheckOf(touringRig, touringRig.sets![0], solver);
  await tech.open(`/rigs/${id}/show?part=check`);
  await tech.reads('[data-progress]', `0 of ${check.steps.length} done`);
  await tech.typeOver('.show-initials input', 'OD');
  const [ears] = check.steps;
  await tech.click(`[data-step="${ears!.id}"] .taps button`);
  await tech.reads(`[data-step="${ears!.id}"]`, /Done \d\d:\d\d UTC, OD/);
  await written();
  const other = await tech.anotherTab();
  await other.open(`/rigs/${id}/show?part=check`);
  await other.reads('[data-progress]', `1 of ${check.steps.length} done`);
  // What was done well before is known when the next one fails.
  const [fine, play] = check.steps.filter((s) => s.part === 'plays' && s.alone?.length);
  await other.click(`[data-step="${fine!.id}"] .taps button`);
  await other.reads('[data-progress]', '2 of');
  await other.click(`[data-step="${play!.id}"] .taps button:last-child`);
  await other.see('.notice-form');
  for (const ear of fine!.alone!) await other.reads(`[data-noticed="${ear}"]`, 'all fine');
  expect(await other.page.$eval('#hunt-sound', (e) => (e as HTMLSelectElement).value)).toBe(
    play!.sound,
  );
  await other.page.close();
  await tech.page.reload();
  await tech.reads('[data-progress]', '1 failed');
});

test('the drill names the smallest set of spares, and keeps a decision with its reason', async () => {
  // One song, so that it does not take a minute.
  const [set] = touringRig.sets!;
  const short: Rig = { ...touringRig, sets: [{ ...set!, entries: set!.entries.slice(0, 1) }] };
  const id = await stored(tech, short);
  await tech.open(`/rigs/${id}/show?part=drill`);
  await tap('Start the drill');
  await tech.see('[data-table="losses"]');
  const drill = await drillOf(short, short.sets![0]);
  const plan = smallestSpares(short, drill, 60, exactly(await loadHighs({})));
  expect((await tech.page.$$('[data-spare]')).length).toBe(plan.take.length);
  const [worst] = drill.losses;
  await tech.reads('[data-table="losses"] tbody tr', worst!.fault.words);
  await tech.typeOver('[data-table="losses"] tbody tr input', 'two spares, since it is first');
  await written();
  const [line] = (await bookOf(id)).line;
  expect(line!.text).toBe('Decision: two spares, since it is first');
});

test('lines typed in bursts while the server is away are all there when the page was closed on them', async () => {
  const id = await stored(tech, touringRig);
  const other = await tech.anotherTab();
  await other.open(`/rigs/${id}/show?part=log`);
  await other.see('[data-book="saved"]');
  await other.page.setOfflineMode(true);
  const lines = ['kiln crackles', 'l05 cuts out', 'fresh battery in the Radio pack', 'good show'];
  for (const line of lines) {
    await other.click('[aria-label="A line for the logbook"]');
    await other.page.keyboard.type(line);
    await other.press('Enter');
  }
  await other.reads('[data-book]', `${lines.length} kept in this browser`);
  await other.page.close();
  await tech.open(`/rigs/${id}/show?part=log`);
  await written();
  for (let i = 0; i < 50 && (await bookOf(id)).line.length < lines.length; i++)
    await new Promise((r) => setTimeout(r, 100));
  expect((await bookOf(id)).line.map((l) => l.text).sort()).toEqual([...lines].sort());
});

test('one line that two change otherwise: each is asked, and what is chosen holds for both', async () => {
  const id = await stored(tech, touringRig);
  await withRun(id);
  const other = await Person.arrives();
  for (const person of [tech, other]) {
    await person.open(`/rigs/${id}/show?part=log`);
    await person.see('.log-line');
    await person.see('[data-book="saved"]');
  }
  const line = (await tech.page.$eval('.log-line', (l) => l.getAttribute('data-line')))!;
  const field = `[data-line="${line}"] input`;
  await other.page.setOfflineMode(true);
  await other.typeOver(field, 'mine, written without a network');
  await tech.typeOver(field, 'theirs, written meanwhile');
  await written();
  await other.page.setOfflineMode(false);
  await other.page.evaluate(() => window.dispatchEvent(new Event('online')));
  await other.reads('[data-differs]', 'theirs, written meanwhile');
  await other.page.evaluate(() =>
    [...document.querySelectorAll<HTMLElement>('button')]
      .find((b) => b.innerText.trim() === 'Put yours')!
      .click(),
  );
  await other.gone('[data-differs]');
  for (let i = 0; i < 80; i++) {
    if ((await bookOf(id)).line.find((l) => l.id === line)?.text.startsWith('mine')) break;
    await new Promise((r) => setTimeout(r, 100));
  }
  expect((await bookOf(id)).line.find((l) => l.id === line)!.text).toMatch(/^mine/);
});

test('how often care is due is said by the crew, and what was done takes it off the list', async () => {
  const id = await stored(tech, touringRig);
  await withRun(id);
  await tech.open(`/rigs/${id}/show?part=log`);
  await written();
  const [due] = dueOf(touringRig, await bookOf(id), new Date().toISOString().slice(0, 10)).filter(
    (d) => d.id.startsWith('tubes'),
  );
  const item = `[data-due-item="${due!.id}"]`;
  expect(await tech.page.$(item)).toBeNull();
  await tech.click('[data-care] summary');
  await tech.typeOver(`::-p-aria([name="${due!.words}: every … hours"])`, '2');
  await tech.reads(item, 'Now');
  await tech.reads(item, 'of 2 hours');
  await written();
  const [set] = (await bookOf(id)).care;
  expect(set).toMatchObject({ device: due!.device, care: 'tubes', every: 2 });
  await tech.click(`${item} button`);
  await tech.gone(item);
  await written();
  const { line } = await bookOf(id);
  expect(line.filter((l) => l.sort === 'tube').map((l) => l.text)).toContain(`Done: ${due!.words}`);
});

test('a show is put into the calendar, its day worked back from doors, its mains judged', async () => {
  const id = await stored(tech, touringRig);
  await tech.open(`/rigs/${id}/show?part=calendar`);
  await tap('Add a show');
  await tech.see('.one-show');
  await tech.typeOver('::-p-aria([name="Venue"][role="textbox"])', 'Silo');
  for (let i = 0; i < 50 && (await bookOf(id)).show[0]?.venue !== 'Silo'; i++)
    await new Promise((r) => setTimeout(r, 100));
  const [show] = (await bookOf(id)).show;
  expect(show).toMatchObject({ venue: 'Silo', doors: '19:00' });
  const check = lineCheckOf(touringRig, touringRig.sets![0], exactly(await loadHighs({})));
  const seconds = check.steps.reduce((s, x) => s + x.seconds, 0);
  const day = scheduleOf(touringRig, show!, seconds);
  await tech.reads('[data-stretch="check"]', 'from the steps of the line check');
  await tech.reads('[data-stretch="check"]', `${day.find((s) => s.id === 'check')!.minutes} min`);
  await tech.reads('.day h3', /be there at \d\d:\d\d/);
  const sound = day.find((s) => s.id === 'sound')!;
  await tech.page.focus('[data-stretch="sound"] [role="slider"]');
  await tech.press('ArrowRight');
  await tech.reads('[data-stretch="sound"]', `${sound.minutes + 5} min`);
  await written();
  expect((await bookOf(id)).show[0]!.minutes.sound).toBe(sound.minutes + 5);

  // What that place asks of the rig: its mains, as said and as measured, and its radio.
  await tech.click('::-p-aria([name="Country"])');
  await tech.page.keyboard.type('Norway');
  await tech.pick('Norway');
  await tech.reads('[data-venue="NO"]', '230 V, 50 Hz');
  const links = touringRig.devices.filter((d) => kindOf(d.kind).job === 'wireless');
  await tech.reads(`[data-radio="${links.length}"]`, links[0]!.name);
  await tech.typeOver('::-p-aria([name="Mains measured, V"])', '280');
  await tech.press('Tab');
  await tech.reads('[data-venue] [role="alert"]', '280 V is more than a tenth off');
  for (const { device } of misfitsAt(touringRig, 280, [50]))
    await tech.reads('[data-measured="280"]', device.name);
});

test('the trainer hides a fault, answers tests and scores the guess', async () => {
  await tech.open('/rigs/salt-and-ferry/show?part=trainer');
  await tap('Hide a fault');
  await tech.reads('[data-complaint]', /In .+, at .+: .+!/);
  await tech.click('input[placeholder="What do you do?"]');
  await tech.press('ArrowDown', 'Enter');
  await tech.see('[data-made]');
  await tech.click('input[placeholder="Name the fault"]');
  await tech.press('ArrowDown', 'Enter');
  await tap('That is it');
  await tech.reads('[data-score]', 'It was:');
  await tech.reads('[data-score]', /the best strategy/);
  // The course is the crew's: it stands in the database, not in this browser alone.
  const scores = async () => (await bookOf('salt-and-ferry')).score;
  for (let i = 0; i < 100 && !(await scores()).length; i++)
    await new Promise((r) => setTimeout(r, 100));
  const score = await scores();
  expect(score.at(-1)).toMatchObject({ difficulty: 'easy' });
  await tech.see('.score-chart');
});
