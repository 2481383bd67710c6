import { execFileSync } from 'node:child_process';
import { mkdtemp, rm, writeFile } from 'node:fs/promises';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { expect } from 'vitest';
import { readMarkedDocx } from '#formats/docx/read-marked-docx.ts';
import { violationsInBoth } from './axe.ts';
import { saveBy } from './downloads.ts';
import { chooseFile, rewrittenFile } from './files.ts';
import { arrive, chooseIn, clickRole, openStation, seeText, settled, until } from './harness.ts';
import { saved } from './line.ts';
import { pageTest, PHONE } from './page-test.ts';

/** The response sheet: written, chosen, changed as text, and saved in three forms that other programs read. */

const EDITOR = '[aria-label="Text of the response sheet"]';

pageTest(
  'the response sheet is written, changed as text, and saved in three forms',
  async ({ page, desk }) => {
    const folder = await mkdtemp(join(tmpdir(), 'juncture-response-'));
    try {
      await arrive(page, desk);
      const path = await rewrittenFile(desk, folder);
      await page.goto(`${desk.address}/a/skarn-moss-report/revise`);
      await chooseFile(page, 'Bring in', path);
      await seeText(page, 'is the draft');
      // One is acted on, one declined with a reason.
      await page.goto(`${desk.address}/a/skarn-moss-report/decide`);
      await settled(page);
      await page.keyboard.press('a');
      await saved(page);
      await openStation(page, 'Check');
      await (await seeText(page, 'Write the response sheet')).click();
      await page.waitForSelector(`${EDITOR} h1`);
      await seeText(page, '52 remarks came back');
      await settled(page);
      expect(await violationsInBoth(page)).toEqual([]);
      await clickRole(page, 'radio', 'a letter');
      await page.waitForSelector(`${EDITOR} ::-p-text(Dear Dr Aune Keld,)`);
      await clickRole(page, 'button', 'All remarks are in it');
      await page.evaluate(() =>
        document.querySelector<HTMLElement>('[aria-label^="Remark 2 is in it"]')?.click(),
      );
      await seeText(page, '1 remark is left out of this sheet.');
      await saved(page);
      // Changed as text, it stays as it is, over a reload too.
      await page.click(`${EDITOR} p`);
      await page.keyboard.press('End');
      await page.keyboard.type(' And good morning.');
      await seeText(page, 'You changed this sheet');
      await saved(page);
      await page.reload();
      await page.waitForSelector(`${EDITOR} ::-p-text(And good morning.)`);
      const word = await saveBy(page, () => chooseIn(page, 'Save it', 'Word file'));
      expect(readMarkedDocx(word.bytes).paper.text).toContain('And good morning.');
      const pdf = await saveBy(page, () => chooseIn(page, 'Save it', 'PDF'));
      await writeFile(join(folder, 'sheet.pdf'), pdf.bytes);
      const text = execFileSync('pdftotext', [join(folder, 'sheet.pdf'), '-'], { encoding: 'utf8' });
      expect(text.replace(/\s+/g, ' ')).toContain('And good morning.');
      const markdown = await saveBy(page, () => chooseIn(page, 'Save it', 'Markdown'));
      expect(new TextDecoder().decode(markdown.bytes)).toContain('And good morning.');
      // What goes with the attempt is what was changed.
      await openStation(page, 'Send');
      await seeText(page, 'Change it');
      await page.goBack();
      await clickRole(page, 'button', 'Write it anew');
      await seeText(page, 'Undo brings it back.');
      await clickRole(page, 'button', 'Write it anew');
      await until(page, () => !document.body.textContent.includes('And good morning.'));
      await page.setViewport(PHONE);
      await settled(page);
      const wide = await page.evaluate(() => document.querySelector('main')?.scrollWidth ?? 0);
      expect(wide).toBeLessThanOrEqual(PHONE.width);
    } finally {
      await rm(folder, { recursive: true });
    }
  },
);
