import { mkdtemp, rm } from 'node:fs/promises';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import type { FileChooser, Page } from 'puppeteer-core';
import { expect, vi } from 'vitest';
import { newDrawing } from './files.ts';
import { arrive, seeText, settled, until, type Desk } from './harness.ts';
import { pressByKeys, tabTo } from './keys.ts';
import { saved } from './line.ts';
import { pageTest, PHONE } from './page-test.ts';

/** The longest ways down the line with the keyboard alone, on a wide screen and on a narrow one. */

const SIZES = [
  ['', { width: 1280, height: 800 }],
  [' at 390 × 844', PHONE],
] as const;

/** Decides to act on the first remark. */
async function actOnFirst(page: Page, desk: Desk, id: string): Promise<void> {
  await page.goto(`${desk.address}/a/${id}/decide`);
  await page.waitForSelector('::-p-aria([name="Act"][role="button"])');
  await page.keyboard.press('a');
  await until(page, () => document.body.textContent.includes('1 of '));
  await saved(page);
}

/** Goes to a station by its link in the line. */
async function goTo(page: Page, station: string): Promise<void> {
  await pressByKeys(page, new RegExp(`^${station}\\b`));
  await until(page, (end) => location.pathname.endsWith(`/${end}`), station.toLowerCase());
}

async function sendIt(page: Page): Promise<void> {
  await goTo(page, 'Send');
  await seeText(page, 'This will be attempt');
  await page.reload();
  await seeText(page, 'This will be attempt');
  await pressByKeys(page, 'Send to the course desk');
  await page.waitForSelector('[role="dialog"]');
  await pressByKeys(page, 'Send to the course desk');
  await seeText(page, 'Receipt');
}

/** Opens the file chooser from what has the focus. The browser's own interception now and then misses the first one. */
async function chooserByKey(page: Page): Promise<FileChooser> {
  return vi.waitFor(
    async () => {
      const [chooser] = await Promise.all([
        page.waitForFileChooser({ timeout: 4000 }),
        page.keyboard.press('Space'),
      ]);
      return chooser;
    },
    { timeout: 25_000 },
  );
}

const sentTo = (desk: Desk, id: string) =>
  desk.folder.state.facts.flatMap((fact) =>
    fact.kind === 'attempt' && fact.value.assignmentId === id && fact.value.receipt !== null
      ? [fact.value]
      : [],
  );

for (const [where, size] of SIZES)
  pageTest(
    `a drawing is brought in, answered by its edges and sent by keyboard alone${where}`,
    async ({ page, desk }) => {
      const folder = await mkdtemp(join(tmpdir(), 'juncture-keys-'));
      await arrive(page, desk);
      await actOnFirst(page, desk, 'core-log');
      await goTo(page, 'Revise');
      await page.waitForSelector('img[alt^="Marked:"]');
      await settled(page);
      await tabTo(page, /^Bring in the new file/);
      const chooser = await chooserByKey(page);
      await chooser.accept([await newDrawing(folder, 'Core SM-2, drawn anew.png')]);
      await seeText(page, 'New: Core SM-2, drawn anew.png');
      await saved(page);
      await page.reload();
      await seeText(page, 'New: Core SM-2, drawn anew.png');
      await tabTo(page, 'What you did about remark 1');
      await page.keyboard.type('The scale is drawn anew.');
      await pressByKeys(page, 'Show where in the new picture');
      await tabTo(page, 'Right edge', 'slider');
      for (let n = 0; n < 3; n++) await page.keyboard.press('ArrowLeft');
      await pressByKeys(page, 'Keep this place');
      await seeText(page, '1 place shown');
      await saved(page);
      await sendIt(page);
      const [sent] = sentTo(desk, 'core-log');
      expect(sent.files.map(({ role }) => role)).toEqual(['paper', 'response']);
      await rm(folder, { recursive: true, force: true });
    },
    size,
    ['core-log'],
  );

for (const [where, size] of SIZES)
  pageTest(
    `a final is begun from its draft stage, written and sent by keyboard alone${where}`,
    async ({ page, desk }) => {
      await arrive(page, desk);
      await actOnFirst(page, desk, 'policy-brief-draft');
      await pressByKeys(page, /^Revise\b/);
      await until(page, () => location.pathname === '/a/policy-brief/revise');
      await pressByKeys(page, 'Begin the new draft');
      await page.waitForSelector('[aria-label="Text of the draft"] p');
      await tabTo(page, 'Text of the draft');
      await page.keyboard.type('Clause 14 gives the right. ');
      await saved(page);
      await page.reload();
      await seeText(page, 'Clause 14 gives the right.');
      await sendIt(page);
      expect(sentTo(desk, 'policy-brief')).toHaveLength(1);
    },
    size,
    ['policy-brief', 'policy-brief-draft'],
  );
