import { mkdtempSync, rmSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import type { Page } from 'puppeteer-core';
import { steppedClock } from '#server/clock.ts';
import { createDesk, openDesk } from '#server/desk/desk-folder.ts';
import type { DeskContent } from '#server/desk/desk-state.ts';
import { listen } from '#server/listen.ts';
import { launchBrowser } from '../e2e/harness.ts';
import { ASSIGNMENTS, NOW, REMARKS_EACH } from './large-desk.ts';

/** The built application in headless Chromium, measured from a click or key to the changed screen. */

export const RUNS = Number(process.env.RUNS ?? 9);
const PORT = 7399;
const CODE = 'BENCH-BENCH';

export interface Act {
  /** What is clicked: the first of these with this text. */
  readonly click?: { readonly selector: string; readonly text: string };
  readonly key?: { readonly key: string; readonly ctrlKey: boolean };
  /** What a field is made to hold, as one key would. */
  readonly type?: { readonly selector: string; readonly text: string };
}
/** What is to be seen: at least so many of an element, a text, or a text no more. */
export interface Seen {
  readonly selector?: string;
  readonly atLeast?: number;
  readonly text?: string;
  readonly gone?: string;
}

/** Does something in the page and counts the time until what it brings about is on the screen. */
export function timed(page: Page, act: Act, seen: Seen): Promise<number> {
  return page.evaluate(
    ({ click, key, type }: Act, { selector, atLeast = 1, text = '', gone }: Seen) =>
      new Promise<number>((resolve) => {
        const target =
          click === undefined
            ? undefined
            : [...document.querySelectorAll<HTMLElement>(click.selector)].find((one) =>
                one.textContent.startsWith(click.text),
              );
        const startedAt = performance.now();
        target?.click();
        if (type !== undefined) {
          const field = document.querySelector<HTMLInputElement>(type.selector);
          field?.focus();
          field?.setRangeText(type.text, 0, field.value.length, 'end');
          field?.dispatchEvent(new InputEvent('input', { bubbles: true }));
        }
        if (key !== undefined) window.dispatchEvent(new KeyboardEvent('keydown', { ...key, bubbles: true }));
        const isSeen = () => {
          const all = document.body.textContent;
          if (gone !== undefined && all.includes(gone)) return false;
          if (!all.includes(text)) return false;
          return selector === undefined || document.querySelectorAll(selector).length >= atLeast;
        };
        const look = () => {
          if (!isSeen()) requestAnimationFrame(look);
          // The frame after the one in which it is there has been drawn.
          else requestAnimationFrame(() => resolve(performance.now() - startedAt));
        };
        look();
      }),
    act,
    seen,
  );
}

export function shown(name: string, times: readonly number[]): void {
  const sorted = times.toSorted((x, y) => x - y);
  const at = (share: number) =>
    sorted[Math.min(sorted.length - 1, Math.floor(sorted.length * share))].toFixed(0);
  console.log(`  ${name.padEnd(58)} median ${at(0.5).padStart(4)} ms, p95 ${at(0.95).padStart(4)} ms`);
}

/** Opens a desk in a browser of its own. */
async function withServer(
  content: DeskContent,
  use: (page: Page, signInAddress: string) => Promise<void>,
): Promise<void> {
  const folder = mkdtempSync(join(tmpdir(), 'juncture-bench-'));
  createDesk(folder, content, CODE);
  const server = await listen({
    desk: openDesk(folder),
    clock: steppedClock(NOW),
    appFolder: join(process.cwd(), 'dist', 'app'),
    port: PORT,
  });
  const browser = await launchBrowser();
  try {
    const page = await browser.newPage();
    await page.setViewport({ width: 1280, height: 800 });
    await use(page, `http://127.0.0.1:${PORT}/#student=ines-tarrow&code=${CODE}`);
  } finally {
    await browser.close();
    await server.stop();
    rmSync(folder, { recursive: true, force: true });
  }
}

/** The same, once everything that came back is in. */
export function withDesk(content: DeskContent, use: (page: Page) => Promise<void>): Promise<void> {
  return withServer(content, async (page, address) => {
    await page.goto(address);
    await page.waitForFunction(
      (text) => document.body.textContent.includes(text),
      { timeout: 120_000 },
      `${ASSIGNMENTS} assignments with ${ASSIGNMENTS * REMARKS_EACH} remarks not read yet.`,
    );
    await use(page);
  });
}

/** A workspace from files alone, with nothing in it. */
export function withFilesAlone(content: DeskContent, use: (page: Page) => Promise<void>): Promise<void> {
  return withServer(content, async (page, address) => {
    await page.goto(new URL('/', address).href);
    const alone = await page.waitForSelector('::-p-aria([name="Work from files alone"][role="button"])');
    await alone?.click();
    await page.waitForSelector('::-p-text(Nothing here yet.)');
    await use(page);
  });
}

/** A round of its own before the measured ones warms up; between two acts the page comes to rest. */
export async function measured(
  page: Page,
  round: (measure: (name: string, act: Act, seen: Seen) => Promise<void>) => Promise<void>,
): Promise<Record<string, number[]>> {
  const times: Record<string, number[]> = {};
  for (let run = 0; run <= RUNS; run++)
    await round(async (name, act, seen) => {
      const ms = await timed(page, act, seen);
      if (run > 0) (times[name] ??= []).push(ms);
      await new Promise((resolve) => setTimeout(resolve, 400));
    });
  return times;
}
