import { mkdtempSync, rmSync, writeFileSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import type { ElementHandle, Page } from 'puppeteer-core';
import { buildDesk } from '#demo/build-desk.ts';
import { measured, RUNS, shown, withFilesAlone } from './in-browser.ts';
import { largePdf } from './large-pdf.ts';

/** The reading place with long papers: from the choice of the file to its remarks, scrolling, stepping, filtering. */

/** Scrolls through the paper for a while, as fast as a wheel does, and counts the frames that came late. */
function droppedWhileScrolling(page: Page): Promise<number> {
  return page.evaluate(
    () =>
      new Promise<number>((resolve) => {
        const scroller = document.querySelector('[data-scroller]');
        const late: boolean[] = [];
        let before = performance.now();
        const step = (now: number) => {
          // Two frames of 60 a second: one was left out.
          late.push(now - before > 25);
          before = now;
          scroller?.scrollBy(0, 60);
          if (late.length < 240) requestAnimationFrame(step);
          else resolve(late.filter(Boolean).length / late.length);
        };
        requestAnimationFrame(step);
      }),
  );
}

/** From the key to the frame in which another slip is in focus and wholly in sight. */
function nextRemark(page: Page): Promise<number> {
  return page.evaluate(
    () =>
      new Promise<number>((resolve) => {
        const current = () => document.querySelector('[data-slip][aria-current="true"]');
        const before = current()?.getAttribute('data-slip');
        const startedAt = performance.now();
        window.dispatchEvent(new KeyboardEvent('keydown', { key: 'n', bubbles: true }));
        const look = () => {
          const slip = current();
          const box = slip?.getBoundingClientRect();
          const there =
            slip?.getAttribute('data-slip') !== before &&
            box !== undefined &&
            box.top > 0 &&
            box.bottom < innerHeight;
          if (there) requestAnimationFrame(() => resolve(performance.now() - startedAt));
          else requestAnimationFrame(look);
        };
        look();
      }),
  );
}

/** So many times it is scrolled; what an 84-page paper has room for. */
const SCROLLS = 5;

/** Keeps the longest task of the page from now on, in ms. */
function watchTasks(page: Page): Promise<void> {
  return page.evaluate(() => {
    new PerformanceObserver((list) => {
      const longest = Math.max(...list.getEntries().map(({ duration }) => duration));
      document.documentElement.dataset.longest = String(
        Math.max(longest, Number(document.documentElement.dataset.longest ?? 0)),
      );
    }).observe({ type: 'longtask' });
  });
}

/** From the choice of the file to its first page, and to all its remarks. */
async function bringIn(page: Page, file: string, remarks: number): Promise<void> {
  const input = (await page.waitForSelector('main input[type="file"]')) as ElementHandle<HTMLInputElement>;
  await watchTasks(page);
  const startedAt = performance.now();
  const sinceStart = () => performance.now() - startedAt;
  await input.uploadFile(file);
  const readable = '[data-page="1"]:has(canvas[data-drawn]):has(.textLayer span)';
  const readableMs = page.waitForSelector(readable, { timeout: 180_000 }).then(sinceStart);
  const listedMs = page
    .waitForFunction(
      (count) =>
        document.querySelectorAll('[data-slip]').length > 0 && document.body.textContent.includes(count),
      { timeout: 180_000, polling: 50 },
      `${remarks} remarks found`,
    )
    .then(sinceStart);
  const seconds = async (ms: Promise<number>) => ((await ms) / 1000).toFixed(1);
  console.log(`  first page readable ${await seconds(readableMs)} s after the file was chosen (bar: 1.5 s)`);
  console.log(
    `  all remarks listed, the first in their places after ${await seconds(listedMs)} s (bar: 6 s)`,
  );
  const longest = await page.$eval('html', (html) => html.dataset.longest ?? '0');
  console.log(`  longest task of the page ${Number(longest).toFixed(0)} ms (bar: 100 ms)`);
}

async function scrollOn(page: Page): Promise<void> {
  // On and on, so that each time the pages that come are yet to be drawn.
  const dropped: number[] = [];
  while (dropped.length < SCROLLS) dropped.push(await droppedWhileScrolling(page));
  const percent = (share = 0) => `${(100 * share).toFixed(1)} %`;
  const [median, most] = [dropped.toSorted((x, y) => x - y)[SCROLLS >> 1], Math.max(...dropped)];
  console.log(
    `  scrolling: ${percent(median)} of frames dropped (median of ${SCROLLS}; bar: 5 %), ${percent(most)} at most`,
  );
  await page.$eval('[data-scroller]', (scroller) => scroller.scrollTo(0, 0));
}

async function stepAndDecide(page: Page): Promise<void> {
  const nextMs: number[] = [];
  for (let run = 0; run < RUNS; run++) {
    nextMs.push(await nextRemark(page));
    await new Promise((resolve) => setTimeout(resolve, 300));
  }
  shown('the next remark in its place, by key', nextMs);
  const times = await measured(page, async (measure) => {
    await measure(
      'next',
      { key: { key: 'n', ctrlKey: false } },
      { selector: '[data-slip][aria-current="true"]' },
    );
    await measure(
      'decide',
      { key: { key: 'a', ctrlKey: false } },
      { selector: '[data-slip] [aria-pressed="true"]' },
    );
  });
  shown('deciding it, saved', times.decide);
}

/** From the choice of a page in the list to the frame in which its remarks alone stand. */
async function filterByPage(page: Page): Promise<void> {
  const list = '[role="combobox"][aria-label="Page"]';
  await page.keyboard.press('/');
  const filterMs: number[] = [];
  for (let run = 0; run < RUNS; run++) {
    const field = await page.waitForSelector(list);
    await field?.click();
    await page.waitForSelector('[role="option"]');
    filterMs.push(
      await page.evaluate(
        (at) =>
          new Promise<number>((resolve) => {
            const option = document.querySelectorAll<HTMLElement>('[role="option"]').item(at);
            option.focus();
            const began = performance.now();
            option.dispatchEvent(new KeyboardEvent('keydown', { key: 'Enter', bubbles: true }));
            requestAnimationFrame(() => requestAnimationFrame(() => resolve(performance.now() - began)));
          }),
        // The first is all pages.
        (run % 9) + 1,
      ),
    );
    await page.waitForSelector('[role="listbox"]', { hidden: true });
  }
  shown('a filter, by choice', filterMs);
}

async function readLong(pages: number, remarks: number): Promise<void> {
  const folder = mkdtempSync(join(tmpdir(), 'juncture-bench-'));
  const file = join(folder, 'Long paper.pdf');
  writeFileSync(file, await largePdf(pages, remarks));
  try {
    await withFilesAlone(await buildDesk('2026-11-02', ['dip-well-lab']), async (page) => {
      console.log(`A PDF of ${pages} pages with ${remarks} remarks, in the browser; ${RUNS} runs`);
      await bringIn(page, file, remarks);
      await scrollOn(page);
      await stepAndDecide(page);
      await filterByPage(page);
    });
  } finally {
    rmSync(folder, { recursive: true });
  }
}

await readLong(84, 700);
await readLong(300, 2000);
