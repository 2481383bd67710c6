/** F1: typing in a draft of 40,000 words, with 1,500 remarks followed live, beside the same editor without remarks. */
import { mkdtempSync, rmSync, writeFileSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import type { ElementHandle, Page } from 'puppeteer-core';
import { buildDesk } from '#demo/build-desk.ts';
import { withFilesAlone } from './in-browser.ts';
import { largePdf } from './large-pdf.ts';

/** Of 528 words each. */
const PAGES = 76;
const REMARKS = 1500;
const KEYS = 120;
const EDITOR = '[aria-label="Text of the draft"]';
const PATIENCE = { timeout: 120_000 };

/** Brings a paper in and begins the draft from it. */
async function beginDraft(page: Page, file: string, remarks: number): Promise<void> {
  const input = (await page.waitForSelector('main input[type="file"]')) as ElementHandle<HTMLInputElement>;
  await input.uploadFile(file);
  await page.waitForFunction(() => location.pathname.startsWith('/a/'), PATIENCE);
  // Its remarks are looked for while it can be read already.
  await page.waitForFunction(() => document.body.textContent.includes('” is in'), PATIENCE);
  await page.goto(
    `${page
      .url()
      .split('?')[0]
      .replace(/\/read$/, '')}/revise`,
  );
  const begin = await page.waitForSelector(
    'main button:not([disabled])::-p-text(Begin the new draft)',
    PATIENCE,
  );
  await begin?.click();
  await page.waitForSelector(`${EDITOR} p`, PATIENCE);
  if (remarks > 0) {
    await (await page.waitForSelector('aside button::-p-text(all 1500)', PATIENCE))?.click();
    await page.waitForSelector('[data-outcome="untouched"]', PATIENCE);
  }
}

/** From each key to the frame after it, in ms. */
async function typeAndMeasure(page: Page): Promise<number[]> {
  await page.evaluate((editor) => {
    const told = globalThis as unknown as { times: number[] };
    told.times = [];
    document.querySelector(editor)?.addEventListener(
      'keydown',
      () => {
        const startedAt = performance.now();
        requestAnimationFrame(() => {
          const { port1, port2 } = new MessageChannel();
          port1.onmessage = () => told.times.push(performance.now() - startedAt);
          port2.postMessage(null);
        });
      },
      { capture: true },
    );
    const paragraphs = [...document.querySelectorAll<HTMLElement>(`${editor} p`)];
    const middle = paragraphs[Math.floor(paragraphs.length / 2)];
    middle.scrollIntoView({ block: 'center' });
    document.querySelector<HTMLElement>(editor)?.focus();
    getSelection()?.collapse(middle, 0);
  }, EDITOR);
  for (let n = 0; n < KEYS; n++) {
    await page.keyboard.press(n % 6 === 5 ? 'Space' : 'KeyE');
    // As fast as a fast typist.
    await new Promise((resolve) => setTimeout(resolve, 90));
  }
  return page.evaluate(() => (globalThis as unknown as { times: number[] }).times);
}

const content = await buildDesk('2026-11-02', ['skarn-moss-report']);
const folder = mkdtempSync(join(tmpdir(), 'juncture-typing-'));
const p95s: number[] = [];
for (const remarks of [0, REMARKS]) {
  const file = join(folder, `paper with ${remarks}.pdf`);
  writeFileSync(file, await largePdf(PAGES, remarks));
  await withFilesAlone(content, async (page) => {
    await beginDraft(page, file, remarks);
    const times = (await typeAndMeasure(page)).toSorted((x, y) => x - y);
    const at = (share: number) => times[Math.min(times.length - 1, Math.floor(times.length * share))];
    p95s.push(at(0.95));
    console.log(
      `F1  ${remarks} remarks: median ${at(0.5).toFixed(0)} ms, p95 ${at(0.95).toFixed(0)} ms, most ${at(1).toFixed(0)} ms`,
    );
  });
}
console.log(`    p95 with remarks ${(p95s[1] / p95s[0]).toFixed(2)} × without; bar 1.5`);
rmSync(folder, { recursive: true, force: true });
