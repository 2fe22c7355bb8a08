import { chainOf } from '../src/core/testing/rigs';
import type { Rig } from '../src/core/rig';
import { forEachFile, Person, stored } from './person';

let tech: Person;
forEachFile((person) => (tech = person));

/** Histories of two people at one rig, each from a number of its own that is printed when it fails. */
const HISTORIES = Number(process.env.YANTREL_HISTORIES ?? 20);

/** Numbers from 0 to 1 that are the same for the same seed (mulberry32). */
const dice = (seed: number) => () => {
  seed = (seed + 0x6d2b79f5) | 0;
  let t = Math.imul(seed ^ (seed >>> 15), 1 | seed);
  t = (t + Math.imul(t ^ (t >>> 7), 61 | t)) ^ t;
  return ((t ^ (t >>> 14)) >>> 0) / 4_294_967_296;
};

/** Renames a device by its field, as fast as a page can take it. */
const rename = (who: Person, device: string, name: string): Promise<boolean> =>
  who.page.evaluate(
    async (id, text) => {
      if (document.querySelector('[data-clash]')) return false;
      // A page that was opened from the copy in its browser has its strips once its worker has judged it.
      const strip = () => document.querySelector<HTMLElement>(`[data-station="${id}"]`);
      for (let i = 0; i < 1000 && !strip(); i++) await new Promise((r) => setTimeout(r, 10));
      strip()!.click();
      const field = () =>
        document.querySelector<HTMLInputElement>(
          `[data-inspector="${id}"] [aria-label="Name of the device"]`,
        );
      for (let i = 0; i < 200 && !field(); i++) await new Promise((r) => setTimeout(r, 10));
      const input = field()!;
      input.focus();
      input.select();
      document.execCommand('insertText', false, text);
      await new Promise((r) => setTimeout(r, 20));
      input.blur();
      return true;
    },
    device,
    name,
  );

/** Settles what is asked, one way or the other, until the page says that all is saved. */
async function settle(who: Person, random: () => number): Promise<number> {
  let asked = 0;
  for (;;) {
    const state = await who.page.waitForFunction(() =>
      document.querySelector('[data-clash]')
        ? 'asks'
        : document.querySelector('[data-save="saved"]') && 'saved',
    );
    if ((await state.jsonValue()) === 'saved') return asked;
    asked++;
    if (random() < 0.5)
      await who.page.evaluate(() => {
        for (const label of document.querySelectorAll<HTMLElement>('[data-clash] label'))
          if (label.innerText.startsWith('yours')) label.click();
      });
    const question = await who.text('.mantine-Modal-body');
    await who.button('Go on with these');
    // The next question may come at once, where the other saved meanwhile.
    await who.page.waitForFunction(
      (asked) => {
        const now = document
          .querySelector<HTMLElement>('[data-clash]')
          ?.closest<HTMLElement>('.mantine-Modal-body');
        return now?.innerText.replace(/\s+/g, ' ').trim() !== asked;
      },
      {},
      question,
    );
  }
}

/** The first device whose name is nobody's last, in words. */
function missed(
  ids: readonly string[],
  names: readonly string[],
  last: readonly ReadonlyMap<string, string>[],
): string | undefined {
  const at = ids.findIndex((device, i) => {
    const wanted = last.flatMap((m) => m.get(device) ?? []);
    return wanted.length > 0 && !wanted.includes(names[i] ?? '');
  });
  const device = ids[at];
  if (device === undefined) return undefined;
  const wanted = last.flatMap((m) => m.get(device) ?? []).join(' or ');
  return `${device} is ${names[at]}, not ${wanted}`;
}

const shownNames = (who: Person, ids: string[]) =>
  who.page.evaluate(
    (all) =>
      all.map((id) =>
        document.querySelector<HTMLElement>(`[data-station="${id}"]`)!.innerText.trim(),
      ),
    ids,
  );

test(`${HISTORIES} random histories of two people: nothing is lost, and all agree at the end`, async () => {
  const rig: Rig = {
    ...chainOf(['guitar-active', 'boost', 'drive-mid', 'delay', 'console-input']),
    id: 'histories',
  };
  const ids = rig.devices.map((d) => d.id);
  const id = await stored(tech, rig);
  const people = [await Person.arrives(), await Person.arrives()];
  for (const who of people) {
    await who.page.setRequestInterception(true);
    who.page.on('request', (request) => {
      const saves = request.method() === 'POST' && request.url().endsWith('/revisions');
      setTimeout(() => void request.continue().catch(() => {}), saves ? Math.random() * 300 : 0);
    });
    await who.open(`/rigs/${id}/signal`);
  }
  let clashes = 0;
  for (let history = 1; history <= HISTORIES; history++) {
    const random = dice(history);
    const last: Map<string, string>[] = [new Map(), new Map()];
    // What a page that was reloaded had left comes up as a question where the next page typed over it.
    const left: Map<string, string>[] = [];
    for (let step = 0; step < 8; step++) {
      const n = Math.floor(random() * 2);
      const [who, mine] = [people[n]!, last[n]!];
      const what = random();
      if (what < 0.12) await who.offline();
      else if (what < 0.24) await who.page.setOfflineMode(false);
      else if (what < 0.26) {
        await who.page.setOfflineMode(false);
        left.push(new Map(mine));
        await who.reload();
      } else {
        const device = ids[Math.floor(random() * ids.length)]!;
        const name = `${'AB'[n]} ${history}.${step}`;
        if (await rename(who, device, name)) mine.set(device, name);
      }
    }
    for (const who of people) await who.page.setOfflineMode(false);
    let names: string[] = [];
    let lost: string | undefined;
    // What a page left that the browser has not quite closed yet is taken up a moment later; on a busy
    // machine a page says that all is saved until it has drawn what was typed last.
    for (let look = 0; look < 40; look++) {
      for (const who of people) clashes += await settle(who, random);
      for (const who of people) clashes += await settle(who, random);
      const { rig: now } = (await tech.api<{ rig: Rig }>(`/api/rigs/${id}`)).body;
      names = now.devices.map((d) => d.name);
      lost = missed(ids, names, [...last, ...left]);
      if (lost === undefined) break;
      await new Promise((r) => setTimeout(r, 500));
    }
    if (lost !== undefined) throw new Error(`history ${history}: ${lost}`);
    for (const who of people) {
      await who.page.waitForFunction(
        (all, want) =>
          all.every(
            (d, k) =>
              document.querySelector<HTMLElement>(`[data-station="${d}"]`)?.innerText.trim() ===
              want[k],
          ),
        {},
        ids,
        names,
      );
      expect(await shownNames(who, ids)).toEqual(names);
    }
  }
  // Where nobody was ever asked, the histories met nothing.
  if (HISTORIES >= 20) expect(clashes).toBeGreaterThan(0);
}, 600_000);
