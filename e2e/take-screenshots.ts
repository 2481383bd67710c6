import { mkdirSync } from 'node:fs';
import { rm } from 'node:fs/promises';
import type { Page } from 'puppeteer-core';
import { clickRole, launchBrowser, openWatched, seeText, signIn, startDesk, until } from './harness.ts';
import { chooseFile, newDrawing, rewrittenFile } from './files.ts';

/** Takes a picture of each main view from the demo, in the state a student leaves it in half-way. */
const folder = process.argv[2] ?? 'docs/screenshots';
const size = process.argv[3] === 'phone' ? { width: 390, height: 844 } : { width: 1280, height: 800 };
const theme = process.argv[4] === 'dark' ? 'dark' : 'light';
mkdirSync(folder, { recursive: true });
const desk = await startDesk('whole');
const browser = await launchBrowser();
const { page, faults } = await openWatched(browser, desk, size);
await page.emulateMediaFeatures([
  { name: 'prefers-color-scheme', value: theme },
  { name: 'prefers-reduced-motion', value: 'reduce' },
]);
const base = `${desk.address}/a/skarn-moss-report`;

async function shot(name: string): Promise<void> {
  await page.evaluate(async () => {
    await document.fonts.ready;
  });
  await page.screenshot({ path: `${folder}/${name}.png` });
}

async function typeInto(selector: string, text: string): Promise<void> {
  // Places are loaded when they are opened.
  await (await page.waitForSelector(selector))?.type(text);
}

/** Decides about the first remarks as a student might. */
async function decideSome(on: Page): Promise<void> {
  await on.goto(`${base}/decide`);
  await seeText(on, 'Remark 1 of 52');
  const choices = 'c a a a a k d a q a a a a q'.split(' ') as ('a' | 'c' | 'd' | 'k' | 'q')[];
  for (const [index, key] of choices.entries()) {
    await until(on, (title) => document.body.textContent.includes(title), `Remark ${index + 1} of 52`);
    await on.keyboard.press(key);
    await until(on, () => document.querySelector('main [aria-pressed="true"]') !== null);
    await on.keyboard.press('n');
  }
}

await signIn(page, desk);
await shot('arrivals');
await decideSome(page);
await seeText(page, 'Remark 15 of 52');
await shot('decide');
await page.goto(base);
await seeText(page, 'Another attempt can lift');
await shot('assignment');
await page.goto(`${base}/read`);
await page.waitForSelector('[data-page="1"] canvas');
for (let i = 0; i < 16; i++) await page.keyboard.press('n');
await page.waitForSelector('[data-slip][aria-current="true"]');
await page.waitForSelector('[data-page] .textLayer span');
// What remarks say is worked out by then, and the points stand on the slips.
await seeText(page, 'about 0.');
await shot('read');
await page.goto(`${base}/read?material=criteria`);
await seeText(page, 'reached');
await clickRole(page, 'button', 'Aim at this: Excellent, Question and aim');
await page.waitForSelector('[data-aim]');
await shot('rubric');
await page.goto(`${desk.address}/standing/mire-210`);
await page.waitForSelector('[role="img"] svg');
await clickRole(page, 'button', 'How Lab: falling-head tests is made');
await seeText(page, 'leaves 15');
await typeInto('input[aria-label^="If “Rewetting"]', '37');
await page.waitForSelector('[data-if-grade]');
await page.$eval('main', (main) => main.scrollTo(0, 0));
await shot('standing');
await page.goto(`${base}/plan`);
await page.waitForSelector('[data-task]');
await (await page.waitForSelector('[data-task] [role="checkbox"]'))?.click();
await seeText(page, '1 of 9 done');
await page.waitForSelector('[role="img"] svg');
await seeText(page, 'Open the week');
await shot('plan');
await page.goto(`${desk.address}/week`);
await page.waitForSelector('[data-block]');
await shot('week');
await page.goto(`${base}/revise`);
await clickRole(page, 'button', 'Begin the new draft');
await page.waitForSelector('[data-outcome="untouched"]');
await bringIn(page);
await page.waitForSelector('[data-outcome="reworded"]');
await page.waitForSelector('[data-sonner-toast]', { hidden: true });
await page.keyboard.press('n');
await page.waitForSelector('aside [aria-expanded="true"]');
await page.keyboard.press('y');
await page.waitForSelector('aside li:has([aria-expanded="true"]) [aria-checked="true"]');
await page.keyboard.press('n');
await shot('revise');
await page.goto(`${base}/check`);
await page.waitForSelector('ins');
await seeText(page, 'to look at again');
await shot('check');
await page.goto(`${base}/response`);
await seeText(page, 'remarks came back');
await shot('response');
await page.goto(`${base}/send`);
// The Word files that go are made first.
await page.waitForNetworkIdle();
await clickRole(page, 'button', 'Send to the course desk');
const sure = await page.waitForSelector('[role="dialog"] button::-p-text(Send to the course desk)');
await sure?.evaluate((button) => (button as HTMLElement).click());
await seeText(page, 'Receipt');
desk.clock.advance(60_000);
await seeText(page, 'Before and after');
await shot('before-after');
await page.goto(`${base}/overlap?of=marked`);
await clickRole(page, 'button', 'Fetch the course’s library');
await seeText(page, 'came in');
await page.waitForSelector('[data-sonner-toast]', { hidden: true });
for (let n = 0; n < 3; n++) await page.keyboard.press('n');
await page.waitForSelector('section[aria-label^="Match"] .underline');
await shot('overlap');
for (const [name, path, text] of [
  ['take-along', 'skarn-moss-report/take', 'A pack for a meeting'],
  ['quiz', 'quiz-flow/read', 'Darcy'],
  ['posts', 'seminar-post-2/read', 'My twelve pipes'],
] as const) {
  await page.goto(`${desk.address}/a/${path}`);
  await seeText(page, text);
  await page.waitForNetworkIdle();
  await shot(name);
}
await page.goto(`${desk.address}/a/core-log/decide`);
for (const at of ['1 of ', '2 of ']) {
  await page.waitForSelector('::-p-aria([name="Act"][role="button"])');
  await page.keyboard.press('a');
  await seeText(page, at);
  await page.keyboard.press('.');
}
await page.goto(`${desk.address}/a/core-log/revise`);
const drawing = await newDrawing(folder, 'Core SM-2, drawn anew.png');
await chooseFile(page, 'Bring in the new file', drawing);
await seeText(page, 'New: Core SM-2, drawn anew.png');
await rm(drawing);
const [answer] = await page.$$('aside textarea');
await answer.type('The scale stands beside the log now, and the same all the way down.');
await page.waitForNetworkIdle();
await shot('new-files');
await page.goto(`${desk.address}/ask`);
await seeText(page, 'Dr Aune Keld');
await shot('ask-list');
await page.goto(`${desk.address}/shelf`);
await seeText(page, 'Save everything as a ZIP');
await shot('shelf');
if (faults.length > 0) console.error(faults);
await browser.close();
await desk.remove();
process.exit(faults.length === 0 ? 0 : 1);

/** Brings the careful rewrite in as a Word file. */
async function bringIn(on: Page): Promise<void> {
  const path = await rewrittenFile(desk, folder);
  await chooseFile(on, 'Bring in your file', path);
  await seeText(on, 'is the draft now');
  await rm(path);
}
