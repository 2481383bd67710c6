import { existsSync, mkdirSync, mkdtempSync, rmSync, writeFileSync } from 'node:fs';
import { createServer } from 'node:net';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import puppeteer, { type Browser, type BrowserContext, type ElementHandle, type Page } from 'puppeteer-core';
import { buildDesk } from '#demo/build-desk.ts';
import { steppedClock, type SteppedClock } from '#server/clock.ts';
import { withFact, type DeskContent, type NewFact } from '#server/desk/desk-state.ts';
import { createDesk, openDesk, type DeskFolder } from '#server/desk/desk-folder.ts';
import { listen, type RunningServer } from '#server/listen.ts';
import { waitByTheClock } from './patience.ts';
import { giveWorkspace, isKept, keepWorkspace } from './warm.ts';

/** Drives the real build, served by the real server, in headless Chromium. */

const DAY_ZERO = '2026-11-02';
const NOW = Date.parse('2026-11-02T10:00:00.000Z');
const ACCESS_CODE = 'TESTS-TESTS';
export const REPORT = 'Rewetting Skarn Moss: a water-table report';

/** The headless build takes half of the time of the whole browser, which does as well. See scripts/chromium.mjs. */
const CHROMIUM = ['/usr/lib/chromium/chromium-headless-shell', '/usr/bin/chromium'];

export function launchBrowser(extra: { userDataDir?: string } = {}): Promise<Browser> {
  return puppeteer.launch({
    executablePath: process.env.CHROMIUM ?? CHROMIUM.find((path) => existsSync(path)) ?? CHROMIUM[0],
    headless: true,
    args: [
      ...(process.getuid?.() === 0 ? ['--no-sandbox'] : []),
      '--disable-gpu',
      '--disable-quic',
      '--no-first-run',
      '--disable-background-networking',
      '--disable-component-update',
      '--disable-sync',
      // What moves takes frames, and is not there where somebody asked for none.
      '--force-prefers-reduced-motion',
      '--force-color-profile=srgb',
      '--hide-scrollbars',
      // A tab in the background goes on as one in front does.
      '--disable-renderer-backgrounding',
      '--disable-backgrounding-occluded-windows',
      '--disable-background-timer-throttling',
    ],
    ...extra,
  });
}

function freePort(): Promise<number> {
  return new Promise((resolve, reject) => {
    const probe = createServer();
    probe.once('error', reject);
    probe.listen(0, '127.0.0.1', () => {
      const address = probe.address();
      probe.close(() => resolve(typeof address === 'object' && address !== null ? address.port : 0));
    });
  });
}

/** Which assignments of the demo a desk has: with few of them a page is sooner in order. */
export type DemoPart = 'whole' | readonly string[];
export const FEW: DemoPart = [
  'skarn-moss-report',
  'dip-well-lab',
  'policy-brief',
  'stand-survey',
  'seminar-post-4',
];
const contents = new Map<string, Promise<DeskContent>>();

function contentOf(part: DemoPart): Promise<DeskContent> {
  const built = contents.get(String(part)) ?? buildDesk(DAY_ZERO, part === 'whole' ? [] : part);
  contents.set(String(part), built);
  return built;
}

/** A course desk of its own with the demo, on a port of its own, with a clock that stands still. */
export interface Desk {
  /** Names what the desk has at first. */
  readonly content: string;
  readonly address: string;
  readonly signInAddress: string;
  readonly clock: SteppedClock;
  readonly folder: DeskFolder;
  /** Puts a line into the desk's record, and tells open pages of it. */
  record(fact: NewFact): void;
  stop(): Promise<void>;
  start(): Promise<void>;
  remove(): Promise<void>;
}

export async function startDesk(part: DemoPart = FEW): Promise<Desk> {
  const path = mkdtempSync(join(tmpdir(), 'juncture-desk-'));
  createDesk(path, await contentOf(part), ACCESS_CODE);
  const folder = openDesk(path);
  const clock = steppedClock(NOW);
  const port = await freePort();
  const appFolder = join(process.cwd(), 'dist', 'app');
  let server: RunningServer | null = null;
  const start = async () => {
    server ??= await listen({ desk: folder, clock, appFolder, port });
  };
  const stop = async () => {
    await server?.stop();
    server = null;
  };
  await start();
  const address = `http://127.0.0.1:${port}`;
  return {
    content: String(part),
    address,
    signInAddress: `${address}/#student=ines-tarrow&code=${ACCESS_CODE}`,
    clock,
    folder,
    record(fact) {
      folder.update((state) => withFact(state, fact));
      server?.tell();
    },
    start,
    stop,
    async remove() {
      await stop();
      rmSync(path, { recursive: true, force: true });
    },
  };
}

/** A page that keeps account of everything that went wrong in it. */
export interface WatchedPage {
  readonly page: Page;
  readonly faults: string[];
  readonly log: string[];
}

export async function openWatched(
  context: BrowserContext | Browser,
  desk: Desk,
  size = { width: 1280, height: 800 },
): Promise<WatchedPage> {
  const page = await context.newPage();
  waitByTheClock(page);
  await page.setViewport(size);
  // Keeping the whole application in a fresh profile takes longer than most of what is tested: see letInstall.
  await page.evaluateOnNewDocument(() => {
    if (location.protocol === 'http:' && sessionStorage.getItem('may be installed') === null)
      ServiceWorkerContainer.prototype.register = () => new Promise<never>(() => undefined);
  });
  const faults: string[] = [];
  const log: string[] = [];
  page.on('console', (message) => {
    log.push(`${message.type()}: ${message.text()}`);
    if (message.type() === 'error') faults.push(`console: ${message.text()} ${message.location().url ?? ''}`);
  });
  page.on('pageerror', (error) => faults.push(`page: ${String(error)}`));
  page.on('request', (request) => {
    const url = new URL(request.url());
    if (!['data:', 'blob:'].includes(url.protocol) && url.origin !== desk.address)
      faults.push(`request to ${request.url()}`);
  });
  return { page, faults, log };
}

/** From its next loading on, the application is kept in the page's profile, and waits until it is. */
export async function letInstall(page: Page): Promise<void> {
  await page.evaluate(() => sessionStorage.setItem('may be installed', 'yes'));
  await page.reload();
  await page.evaluate(async () => {
    await navigator.serviceWorker.ready;
  });
}

const PATIENCE = { timeout: 20_000 };

/** The element that shows this text (the innermost one). */
export async function seeText(page: Page, text: string): Promise<ElementHandle> {
  const found = await page.waitForSelector(`::-p-text(${text})`, { ...PATIENCE, visible: true });
  if (found === null) throw new Error(`“${text}” is not shown`);
  return found;
}

/** Clicks what has this role and name, as assistive technology finds it, once it is enabled and stays where it is. */
export async function clickRole(page: Page, role: string, name: string): Promise<void> {
  const selector = `::-p-aria([name="${name}"][role="${role}"])`;
  const end = Date.now() + PATIENCE.timeout;
  for (;;) {
    const found = await page.waitForSelector(selector, { ...PATIENCE, visible: true });
    const rests = await found?.evaluate(async (element) => {
      element.scrollIntoView({ block: 'center' });
      const place = () => JSON.stringify(element.getBoundingClientRect());
      const before = place();
      await new Promise((resolve) => requestAnimationFrame(() => requestAnimationFrame(resolve)));
      return element.isConnected && !element.matches(':disabled') && place() === before;
    });
    if (rests === true) return found?.click();
    if (Date.now() > end) throw new Error(`${role} “${name}” is disabled, or does not rest`);
  }
}

/** Opens a menu by its button and chooses something in it. */
export async function chooseIn(page: Page, menu: string, item: string): Promise<void> {
  await clickRole(page, 'button', menu);
  const chosen = await page.waitForSelector(
    `::-p-xpath(//*[starts-with(@role, "menuitem") and contains(normalize-space(.), "${item}")])`,
    { ...PATIENCE, visible: true },
  );
  await chosen?.click();
}

/** Opens a list by its name and chooses what has these words in it. */
export async function pick(page: Page, list: string, item: string): Promise<void> {
  await clickRole(page, 'combobox', list);
  const chosen = await page.waitForSelector(
    `::-p-xpath(//*[@role="option" and contains(normalize-space(.), "${item}")])`,
    { ...PATIENCE, visible: true },
  );
  await chosen?.evaluate((element) => element.scrollIntoView({ block: 'nearest' }));
  await chosen?.click();
  await page.waitForSelector('[role="listbox"]', { ...PATIENCE, hidden: true });
}

/** Waits until a list that can be opened shows these words as what is chosen. */
export async function seeChosen(page: Page, list: string, item: string): Promise<void> {
  const found = await page.waitForSelector(`::-p-aria([name="${list}"][role="combobox"])`, PATIENCE);
  await page.waitForFunction(
    (element, wanted) => element?.textContent === wanted,
    { ...PATIENCE, polling: 50 },
    found,
    item,
  );
}

/** Waits until a box is ticked, or one of several chosen. */
export async function seeChecked(page: Page, role: 'checkbox' | 'radio', name: string): Promise<void> {
  const found = await page.waitForSelector(`::-p-aria([name="${name}"][role="${role}"])`, PATIENCE);
  await page.waitForFunction(
    (element) => element?.getAttribute('aria-checked') === 'true',
    { ...PATIENCE, polling: 50 },
    found,
  );
}

/** Waits until a question about the page, asked with one text, is answered with yes. */
export async function until(page: Page, question: (text: string) => boolean, text = ''): Promise<void> {
  // By the clock, since a tab in the background draws no frames.
  await page.waitForFunction(question, { ...PATIENCE, polling: 80 }, text);
}

/** Waits until nothing has moved for some frames. */
export function settled(page: Page): Promise<void> {
  return page.evaluate(async () => {
    const places = () =>
      JSON.stringify(
        [...document.querySelectorAll('[data-slip], [data-mark], [data-task], [data-scroller]')].map(
          (one) => [one.getBoundingClientRect(), one.scrollTop],
        ),
      );
    const frame = () => new Promise((resolve) => requestAnimationFrame(resolve));
    let before = '';
    for (let still = 0; still < 8;) {
      await frame();
      const now = places();
      still = now === before ? still + 1 : 0;
      before = now;
    }
  });
}

/** Signs in by the address that npm start prints, and waits until everything that came back is in. */
export async function arriveFirst(page: Page, desk: Desk): Promise<void> {
  await page.goto(desk.signInAddress);
  await seeText(page, 'desk reached');
  // Files come one after the other; the counts stand once all are in.
  await until(page, () => !document.body.textContent.includes('more announced'));
}

/** The same, for a student where everything came in before, though nothing was looked at. */
export async function arrive(page: Page, desk: Desk): Promise<void> {
  const known = isKept(desk);
  if (known) await giveWorkspace(page, desk);
  await arriveFirst(page, desk);
  if (!known) await keepWorkspace(page, desk);
}

/** The same at a desk that has the report. */
export async function signIn(page: Page, desk: Desk): Promise<void> {
  await arrive(page, desk);
  await seeText(page, REPORT);
  await seeText(page, '38 not read');
}

/** Opens a station of the report through the line. */
export async function openStation(page: Page, station: string): Promise<void> {
  const link = await page.waitForSelector(
    `nav[aria-label="The line of this assignment"] ::-p-text(${station})`,
    PATIENCE,
  );
  // A line that is still being laid out would be missed by the click.
  await page.waitForFunction(
    (element) =>
      new Promise<boolean>((resolve) => {
        const before = JSON.stringify(element?.getBoundingClientRect());
        setTimeout(() => resolve(JSON.stringify(element?.getBoundingClientRect()) === before), 150);
      }),
    { ...PATIENCE, polling: 50 },
    link,
  );
  await link?.click();
  await until(page, (path) => location.pathname.endsWith(path), `/${station.toLowerCase()}`);
}

export function keepFailure(name: string, screenshot: Uint8Array, log: readonly string[]): void {
  const folder = join(process.cwd(), 'e2e', 'failures');
  mkdirSync(folder, { recursive: true });
  const file = join(folder, name.replace(/[^\w-]+/g, '-').slice(0, 80));
  writeFileSync(`${file}.png`, screenshot);
  writeFileSync(`${file}.log`, log.join('\n'));
}
