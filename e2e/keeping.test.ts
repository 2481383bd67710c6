import { mkdtemp, rm } from 'node:fs/promises';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import type { Page } from 'puppeteer-core';
import { describe, expect, test } from 'vitest';
import {
  clickRole,
  keepFailure,
  launchBrowser,
  openWatched,
  seeText,
  signIn,
  startDesk,
  until,
} from './harness.ts';
import { pageTest } from './page-test.ts';
import { fillTheDisk, giveSmallDisk, isStorageAwaited, keepStorageBusy } from './storage.ts';

const saved = () =>
  document.querySelector('header [role="status"]')?.textContent.startsWith('Saved') === true;

describe('nothing is lost', () => {
  test('closing the browser, and killing it', async () => {
    const desk = await startDesk();
    const profile = await mkdtemp(join(tmpdir(), 'juncture-profile-'));
    const typed = 'Written just before the browser was closed. ';
    try {
      const first = await launchBrowser({ userDataDir: profile });
      const { page, faults } = await openWatched(first, desk);
      await signIn(page, desk);
      await page.goto(`${desk.address}/a/skarn-moss-report/revise`);
      await clickRole(page, 'button', 'Begin the new draft');
      await (await page.waitForSelector('[aria-label="Text of the draft"] p'))?.click();
      await page.keyboard.type(typed);
      // Closed as a person does it, by the window's own button.
      const shut = new Promise((resolve) => page.once('close', resolve));
      await page.close({ runBeforeUnload: true });
      await shut;
      await first.close();
      expect(faults).toEqual([]);

      const second = await launchBrowser({ userDataDir: profile });
      const again = await openWatched(second, desk);
      await again.page.goto(`${desk.address}/a/skarn-moss-report/revise`);
      await seeText(again.page, typed.trim());
      await (await again.page.waitForSelector('[aria-label="Text of the draft"] p'))?.click();
      await again.page.keyboard.type('Saved, then killed. ');
      await until(again.page, () => {
        const state = document.querySelector('header [role="status"]')?.textContent ?? '';
        return state.startsWith('Saved') && document.body.textContent.includes('Saved, then killed.');
      });
      // What is promised: a killed browser may lose the last second of typing, and no more.
      await new Promise((resolve) => setTimeout(resolve, 1000));
      const process = second.process();
      const gone = new Promise((resolve) => process?.once('exit', resolve));
      process?.kill('SIGKILL');
      await gone;

      const third = await launchBrowser({ userDataDir: profile });
      const last = await openWatched(third, desk);
      await last.page.goto(`${desk.address}/a/skarn-moss-report/revise`);
      try {
        await seeText(last.page, 'Saved, then killed.');
      } catch (error) {
        keepFailure('killed', await last.page.screenshot(), [...last.log, ...last.faults]);
        throw error;
      }
      await third.close();
    } finally {
      await desk.remove();
      await rm(profile, { recursive: true, force: true, maxRetries: 5 });
    }
  });

  pageTest(
    'words cleared from the journal stay cleared, whatever comes back of it',
    async ({ page, desk }) => {
      await signIn(page, desk);
      await page.goto(`${desk.address}/a/skarn-moss-report/revise`);
      await clickRole(page, 'button', 'Begin the new draft');
      await (await page.waitForSelector('[aria-label="Text of the draft"] p'))?.click();
      await page.keyboard.type('Older. ');
      // A page that is put aside while something is typed writes its journal; a crash may bring that entry back.
      const entry = await page.evaluate(() => {
        const clipboardData = new DataTransfer();
        clipboardData.setData('text/plain', 'Younger. ');
        document
          .querySelector('[aria-label="Text of the draft"]')
          ?.dispatchEvent(new ClipboardEvent('paste', { clipboardData, bubbles: true, cancelable: true }));
        window.dispatchEvent(new PageTransitionEvent('pagehide'));
        const key = Object.keys(localStorage).find((name) => name.startsWith('juncture/journal/')) ?? '';
        return { key, text: localStorage.getItem(key) ?? '' };
      });
      expect(entry.text).toContain('Younger.');
      await until(page, saved);
      await page.keyboard.type('Youngest. ');
      await until(page, saved);
      await page.evaluate(({ key, text }) => localStorage.setItem(key, text), entry);
      await page.reload();
      await seeText(page, 'Youngest.');
      await until(page, saved);
      await page.reload();
      await seeText(page, 'Older. Younger. Youngest.');
    },
  );

  pageTest('words whose saving is still under way when the page goes', async ({ page, desk }) => {
    await signIn(page, desk);
    await page.goto(`${desk.address}/a/skarn-moss-report/revise`);
    await clickRole(page, 'button', 'Begin the new draft');
    await (await page.waitForSelector('[aria-label="Text of the draft"] p'))?.click();
    await page.keyboard.type('First. ');
    await until(page, saved);
    await page.evaluate(keepStorageBusy);
    await page.keyboard.type('Still on its way. ');
    await until(page, isStorageAwaited);
    expect(await page.evaluate(saved)).toBe(false);
    await page.reload();
    await seeText(page, 'First. Still on its way.');
    await until(page, saved);
    await page.reload();
    await seeText(page, 'First. Still on its way.');
  });

  pageTest('a full disk is said, and what was typed is offered as a file', async ({ page, desk }) => {
    await giveSmallDisk(page, desk);
    await signIn(page, desk);
    await page.goto(`${desk.address}/a/skarn-moss-report/revise`);
    await clickRole(page, 'button', 'Begin the new draft');
    await (await page.waitForSelector('[aria-label="Text of the draft"] p'))?.click();
    await until(page, saved);
    await page.evaluate(fillTheDisk);
    await page.keyboard.type('Written on a full disk. ');
    await seeText(page, 'Save the draft as a Word file');
    await seeText(page, 'Not saved');
    await page.reload();
    await seeText(page, 'Written on a full disk.');
    await page.evaluate(() => indexedDB.deleteDatabase('filler'));
    await (await page.waitForSelector('[aria-label="Text of the draft"] p'))?.click();
    await page.keyboard.type('Room again. ');
    await until(page, saved);
    await page.reload();
    await seeText(page, 'Written on a full disk.');
    await seeText(page, 'Room again.');
  });

  pageTest(
    'two tabs see each other’s changes, and only one writes the draft',
    async ({ page, desk, context }) => {
      const shows = (tab: Page, text: string) =>
        until(tab, (wanted) => document.body.textContent.includes(wanted), text);
      const writable = (tab: Page, yes: boolean) =>
        until(
          tab,
          (wanted) =>
            document.querySelector('[aria-label="Text of the draft"]')?.getAttribute('contenteditable') ===
            wanted,
          String(yes),
        );
      await signIn(page, desk);
      await page.goto(`${desk.address}/a/skarn-moss-report/revise`);
      await clickRole(page, 'button', 'Begin the new draft');
      await writable(page, true);
      const other = await openWatched(context, desk);
      await other.page.bringToFront();
      await other.page.goto(`${desk.address}/a/skarn-moss-report/decide`);
      await shows(other.page, 'Remark 1 of 52');
      await other.page.keyboard.press('a');
      await shows(other.page, '0 of 1 done');
      await page.bringToFront();
      await shows(page, '0 of 1 done');
      await other.page.bringToFront();
      await other.page.goto(`${desk.address}/a/skarn-moss-report/revise`);
      await shows(other.page, 'This draft is open in another tab');
      await writable(other.page, false);
      await page.bringToFront();
      await (await page.waitForSelector('[aria-label="Text of the draft"] p'))?.click();
      await page.keyboard.type('Seen in both tabs. ');
      await until(page, saved);
      await other.page.bringToFront();
      await shows(other.page, 'Seen in both tabs.');
      await page.close();
      await writable(other.page, true);
      expect(other.faults).toEqual([]);
    },
  );

  pageTest('a damaged backup is refused and named, and nothing is touched', async ({ page, desk }) => {
    await signIn(page, desk);
    await page.goto(`${desk.address}/shelf`);
    const file = join(await mkdtemp(join(tmpdir(), 'juncture-zip-')), 'old.zip');
    const { writeBag } = await import('#formats/bag/bag.ts');
    const { writeFile } = await import('node:fs/promises');
    const row = { store: 'tasks', key: 'x', record: { id: 'x', minutes: 'many' } };
    const content = {
      kind: 'juncture workspace',
      version: 1,
      at: '2026-11-02T10:00:00.000Z',
      cursor: 0,
      records: [row],
    };
    const json = new TextEncoder().encode(JSON.stringify(content));
    await writeFile(file, await writeBag('old', { 'workspace.json': json }, '2026-11-02'));
    const input = await page.waitForSelector('input[accept=".zip,application/zip"]');
    await (input as NonNullable<typeof input> & { uploadFile(path: string): Promise<void> }).uploadFile(file);
    await seeText(page, '“old.zip” is damaged: workspace.json, tasks x is missing or changed.');
    await page.goto(desk.address);
    await seeText(page, '38 not read');
    await until(page, saved);
  });
});
