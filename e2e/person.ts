import puppeteer, {
  type Browser,
  type BrowserContext,
  type ElementHandle,
  type KeyInput,
  type Page,
  TargetType,
} from 'puppeteer-core';
import type { Rig } from '../src/core/rig';

let base = process.env.YANTREL_URL ?? 'http://127.0.0.1:3200';
const PATIENCE = Number(process.env.YANTREL_PATIENCE ?? 60_000);
/** How often a page is asked, in ms: at every frame it would do little else. */
const ASK_MS = 50;
// A machine that does other work besides may miss a moment: once more, and the log tells of it.
jest.retryTimes(Number(process.env.YANTREL_RETRY ?? 1), { logErrorsBeforeRetry: true });
let browser: Browser | undefined;
const contexts: BrowserContext[] = [];

/**
 * Takes this file's people to a Yantrel of their own, and gives the name of its database: it may be
 * taken away without anybody else noticing.
 */
export function whereTheDatabaseMayGo(): string {
  base = process.env.YANTREL_OWN_URL ?? base;
  return process.env.YANTREL_OWN_DATABASE ?? '';
}

/** A person at a browser of their own: nothing is shared with the others. */
export class Person {
  private constructor(
    readonly page: Page,
    readonly errors: string[],
  ) {}

  /** Where Yantrel is. */
  readonly base = base;

  static async arrives(): Promise<Person> {
    browser ??= await puppeteer.connect({
      browserWSEndpoint: process.env.YANTREL_BROWSER,
      defaultViewport: { width: 1280, height: 800 },
    });
    const context = await browser.createBrowserContext();
    contexts.push(context);
    return Person.at(context);
  }

  /** Another tab of the same browser: what it keeps is shared. */
  anotherTab = (): Promise<Person> => Person.at(this.page.browserContext());

  private static async at(context: BrowserContext): Promise<Person> {
    const page = await context.newPage();
    page.setDefaultTimeout(PATIENCE);
    if (process.env.YANTREL_SLOW) await page.emulateCPUThrottling(Number(process.env.YANTREL_SLOW));
    const errors: string[] = [];
    page.on('pageerror', (e) => errors.push(e instanceof Error ? e.message : String(e)));
    return new Person(page, errors);
  }

  static async allLeave(): Promise<void> {
    await Promise.all(contexts.splice(0).map((c) => c.close()));
    await browser?.disconnect();
    browser = undefined;
  }

  /**
   * Opens a place: from the address line while Yantrel is not there yet, or where it is open already;
   * otherwise as by its links, where nothing is loaded anew.
   */
  async open(path: string): Promise<void> {
    const is = this.page.url();
    if (is.startsWith(base) && is !== base + path) await this.goes(path);
    else await this.loads(path);
  }
  /** Opens a place from the address line: everything is loaded. */
  async loads(path: string): Promise<void> {
    await this.page.goto(base + path, { waitUntil: 'load' });
    await this.arrived(path);
  }
  /** Goes to another place as by its links. */
  async goes(path: string): Promise<void> {
    await this.page.evaluate(
      (p) =>
        (window as unknown as { next: { router: { push: (p: string) => void } } }).next.router.push(
          p,
        ),
      path,
    );
    await this.page.waitForFunction(
      (p) => {
        const [asked, is] = [new URL(p, location.href), new URL(location.href)];
        return (
          asked.pathname === is.pathname &&
          [...asked.searchParams].every(([name, value]) => is.searchParams.get(name) === value)
        );
      },
      { polling: ASK_MS },
      path,
    );
    await this.arrived(path);
  }
  private async arrived(path: string): Promise<void> {
    // A place that is opened for the first time comes a moment after its address.
    await this.page.waitForFunction(
      () => document.querySelector<HTMLElement>('main')?.innerText.trim(),
      { polling: ASK_MS },
    );
    if (path.startsWith('/rigs/') && path !== '/rigs/new')
      await this.see('[data-save="saved"], [data-save="saving"], [data-save="unsaved"]');
    await this.ready();
  }
  /** Waits until the browser keeps all that any place is made of. */
  async all(): Promise<void> {
    await this.page.waitForFunction(
      async () => {
        const files = (await (await fetch('/api/page-files')).json()) as string[];
        const kept = await Promise.all(files.map((path) => caches.match(path)));
        return files.length > 0 && kept.every(Boolean);
      },
      { polling: 500 },
    );
  }
  async reload(): Promise<void> {
    await this.page.reload();
    await this.ready();
  }
  /** The network goes, once the page has all that it needs to go on. */
  async offline(): Promise<void> {
    await this.see('[data-station]');
    await this.all();
    await this.page.setOfflineMode(true);
  }
  /** The network goes for good, for what keeps pages as well: only what is kept is there. */
  async cutOff(): Promise<void> {
    const all = this.page.browserContext().targets();
    for (const target of all.filter((t) => t.type() === TargetType.SERVICE_WORKER)) {
      const session = await target.createCDPSession();
      await session.send('Network.enable');
      await session.send('Network.emulateNetworkConditions', {
        offline: true,
        latency: 0,
        downloadThroughput: 0,
        uploadThroughput: 0,
      });
    }
    await this.page.setOfflineMode(true);
  }
  /** A page answers once its scripts have taken up everything in it, part by part. */
  private ready = () =>
    this.page.waitForFunction(
      () => {
        const all = [
          ...document.querySelectorAll(
            'main, .frame, button, input, select, textarea:not([aria-hidden])',
          ),
        ];
        return (
          document.readyState === 'complete' &&
          all.length > 0 &&
          all.every((e) => Object.keys(e).some((k) => k.startsWith('__reactProps')))
        );
      },
      { polling: ASK_MS },
    );

  see = (selector: string) => this.page.waitForSelector(selector, { timeout: PATIENCE });
  gone = (selector: string) =>
    this.page.waitForSelector(selector, { hidden: true, timeout: PATIENCE });
  /** What an element says, once it is there. */
  text = async (selector: string): Promise<string> => (await this.texts(selector))[0]!;
  /** What each of several elements says, once there is one. */
  texts = async (selector: string): Promise<string[]> => {
    await this.see(selector);
    return this.page.$$eval(selector, (all) =>
      all.map((e) => (e as HTMLElement).innerText.replace(/\s+/g, ' ').trim()),
    );
  };
  async reads(selector: string, part: string | RegExp): Promise<void> {
    await this.page
      .waitForFunction(
        (s, p, isPattern) => {
          const text = document.querySelector<HTMLElement>(s)?.innerText.replace(/\s+/g, ' ') ?? '';
          return isPattern ? new RegExp(p).test(text) : text.includes(p);
        },
        { timeout: PATIENCE, polling: ASK_MS },
        selector,
        typeof part === 'string' ? part : part.source,
        typeof part !== 'string',
      )
      .catch(async () => {
        const reads = await this.page
          .$eval(selector, (e) => (e as HTMLElement).innerText)
          .catch(() => 'nothing');
        throw new Error(`${selector} never read "${String(part)}"; it reads "${reads}"`);
      });
  }
  click = async (selector: string): Promise<void> => {
    await this.see(selector);
    await this.page.click(selector);
  };
  press = async (...keys: KeyInput[]): Promise<void> => {
    for (const key of keys) await this.page.keyboard.press(key);
  };
  /** Calls a sound by its digit, once the rig has been judged, and waits until its walk is drawn. */
  async sound(digit: KeyInput): Promise<void> {
    const onWalk = this.page.url().includes('/signal');
    if (onWalk) await this.see('[data-station]');
    await this.press(digit);
    await this.see(`.sounds-bar [data-digit="${digit}"][aria-pressed="true"]`);
    if (onWalk) await this.see('[data-station]');
  }
  async control(key: KeyInput): Promise<void> {
    await this.page.keyboard.down('Control');
    await this.page.keyboard.press(key);
    await this.page.keyboard.up('Control');
  }
  /** Types over what a field holds, the way a hand does, and leaves it. */
  async typeOver(selector: string, text: string): Promise<void> {
    const field = await this.page.locator(selector).waitHandle();
    await field.click();
    // A number field puts the caret right a moment after it was entered.
    await field.evaluate((e) => new Promise((settled) => setTimeout(() => settled(e), 100)));
    await this.control('a');
    if (text) await this.page.keyboard.type(text);
    else await this.press('Backspace');
    await this.press('Tab');
  }
  /** Presses a button by what it says. */
  async button(name: string): Promise<void> {
    await this.page.locator(`::-p-aria([name="${name}"][role="button"])`).click();
  }
  /** Picks from the list that is open by what a line of it says; lists that are shut stay in the page unseen. */
  async pick(words: string): Promise<void> {
    const line = await this.page.waitForFunction(
      (w) => {
        const shown = [...document.querySelectorAll<HTMLElement>('[role="option"]')].filter(
          (e) => e.getClientRects().length > 0,
        );
        // What says just that goes before what others called so and more.
        return (
          shown.find((e) => e.innerText.trim() === w) ?? shown.find((e) => e.innerText.includes(w))
        );
      },
      { polling: ASK_MS },
      words,
    );
    await (line as unknown as ElementHandle<Element>).asLocator().click();
  }
  /** Picks the line that begins so by arrows, as who types does: others of the list may only hold the word. */
  async pickBeginning(words: string): Promise<void> {
    const place = await this.page.waitForFunction(
      (w) => {
        const place = [...document.querySelectorAll<HTMLElement>('[role="option"]')]
          .filter((e) => e.getClientRects().length > 0)
          .findIndex((e) => e.innerText.trim().startsWith(w));
        return place + 1;
      },
      { polling: ASK_MS },
      words,
    );
    const presses = await place.jsonValue();
    await this.press(...Array<KeyInput>(presses).fill('ArrowDown'), 'Enter');
  }
  /** Leaves a dialog and waits until nothing of it lies over the page. */
  async done(): Promise<void> {
    await this.button('Done');
    await this.gone('.mantine-Modal-overlay');
  }
  saved = () => this.see('[data-save="saved"]');
  /** The rig as the server has it, once everything is saved. */
  async savedRig(id: string): Promise<Rig> {
    await this.saved();
    return (await this.api<{ rig: Rig }>(`/api/rigs/${id}`)).body.rig;
  }
  /** A figure of the meter bridge, under a strip. */
  figure = (station: string, row: string): Promise<string> =>
    this.text(`[data-figures="${station}"] [data-row="${row}"]`);
  order = (): Promise<string[]> =>
    this.page.$$eval('.station', (all) =>
      [...all]
        .sort(
          (a, b) =>
            parseFloat((a as HTMLElement).style.top) - parseFloat((b as HTMLElement).style.top) ||
            parseFloat((a as HTMLElement).style.left) - parseFloat((b as HTMLElement).style.left),
        )
        .map((e) => e.getAttribute('data-device')!),
    );
  api = <T>(path: string, method = 'GET', body?: unknown): Promise<{ status: number; body: T }> =>
    // A connection of its own: one that is kept may be closed by the server in the moment it is used again.
    fetch(base + path, {
      method,
      headers: { connection: 'close' },
      ...(body !== undefined && { body: JSON.stringify(body) }),
    }).then(async (r) => ({ status: r.status, body: (await r.json()) as T }));
}

let made = 0;
/** Stores a rig for one test and gives its id. */
export async function stored<R extends { id: string }>(person: Person, rig: R): Promise<string> {
  const { body } = await person.api<{ id: string }>('/api/rigs', 'POST', {
    rig: { ...rig, id: `e2e-${process.pid}-${Date.now()}-${++made}` },
  });
  return body.id;
}

/** One person for all tests of a file; at its end no page may have met an error. */
export function forEachFile(give: (person: Person) => void): void {
  let person: Person;
  beforeAll(async () => give((person = await Person.arrives())));
  afterAll(async () => {
    expect(person.errors).toEqual([]);
    await Person.allLeave();
  });
}
