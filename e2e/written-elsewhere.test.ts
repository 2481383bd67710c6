import { createHash } from 'node:crypto';
import { mkdtemp, readFile, rm, writeFile } from 'node:fs/promises';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import type { Page } from 'puppeteer-core';
import { expect } from 'vitest';
import { writeDraftDocx } from '#formats/docx/write-draft.ts';
import { beginWithActs, openSlip } from './drafting.ts';
import { chooseFile, rewrittenFile } from './files.ts';
import { arrive, clickRole, openStation, seeText, until, type Desk } from './harness.ts';
import { saved } from './line.ts';
import { pageTest } from './page-test.ts';

/** A draft that is written in a word processor: its file is the version, and goes as it is. */

const REPORT = 'skarn-moss-report' as const;
const sample = (name: string) => new URL(`../formats/samples/${name}`, import.meta.url).pathname;

function sentFiles(desk: Desk) {
  const sent = desk.folder.state.facts.find((fact) => fact.kind === 'attempt' && fact.value.number === 2);
  return sent?.kind === 'attempt' ? (sent.value.receipt?.files ?? []) : [];
}

async function actOnFirst(page: Page, desk: Desk, count: number): Promise<void> {
  await page.goto(`${desk.address}/a/${REPORT}/decide`);
  for (let n = 1; n <= count; n++) {
    await page.waitForSelector('::-p-aria([name="Act"][role="button"])');
    await page.keyboard.press('a');
    await until(page, (wanted) => document.body.textContent.includes(wanted), `${n} of `);
    await saved(page);
    await page.keyboard.press('.');
  }
}

pageTest(
  'a file written elsewhere is followed, answered in, followed by a newer one, and sent byte for byte',
  async ({ page, desk }) => {
    const folder = await mkdtemp(join(tmpdir(), 'juncture-elsewhere-'));
    await arrive(page, desk);
    await actOnFirst(page, desk, 4);
    await page.goto(`${desk.address}/a/${REPORT}/revise`);
    const path = await rewrittenFile(desk, folder);
    await chooseFile(page, 'Bring in your file', path);
    await seeText(page, 'Written elsewhere; the file goes as it is.');
    await seeText(page, 'This report asks one question');
    // What answers is proposed from its text, and taken.
    await openSlip(page, 'Who is everybody?');
    await page.waitForSelector('aside li ::-p-text(Abery and Lunt)');
    await page.keyboard.press('y');
    await until(page, () => document.querySelector('aside [role="checkbox"][aria-checked="true"]') !== null);
    await page.reload();
    await seeText(page, 'report rewritten elsewhere.docx');
    await until(page, () => document.querySelector('aside [role="checkbox"][aria-checked="true"]') !== null);
    // Saved again elsewhere: the answer is still followed, and told as changed.
    const newer = await docxWith(path, folder, 'before its surface sinks', 'before its peat sinks');
    await chooseFile(page, 'Bring in a newer file', newer);
    await seeText(page, 'report again.docx');
    await openStation(page, 'Check');
    await page.waitForSelector('ins::-p-text(Abery and Lunt)');
    await openStation(page, 'Send');
    await seeText(page, 'report again.docx');
    // What was told of the last change stands over the corner of the page for a while.
    await page.reload();
    await page.waitForSelector('button:not([disabled])::-p-text(Send to the course desk)');
    await clickRole(page, 'button', 'Send to the course desk');
    await (await page.waitForSelector('[role="dialog"] button::-p-text(Send to the course desk)'))?.click();
    await seeText(page, 'Waiting to be marked');
    const hash = createHash('sha256')
      .update(await readFile(newer))
      .digest('hex');
    expect(sentFiles(desk).map((file) => [file.name, file.hash])[0]).toEqual(['report again.docx', hash]);
    await rm(folder, { recursive: true, force: true });
  },
  undefined,
  [REPORT],
);

/** A Word file like another, with other words in one place. */
async function docxWith(path: string, folder: string, find: string, put: string): Promise<string> {
  const { readDocx } = await import('#formats/docx/read-docx.ts');
  const { blocks } = readDocx(new Uint8Array(await readFile(path)));
  const bytes = await writeDraftDocx(
    blocks.map(({ kind, level, text }) => ({
      kind,
      level,
      runs: [{ text: text.replace(find, put), bold: false, italic: false }],
    })),
    'Report',
    new Map(),
  );
  const other = join(folder, 'report again.docx');
  await writeFile(other, bytes);
  return other;
}

pageTest(
  'quite another text is asked about before anything is changed, and what can’t be held is said before one writes on',
  async ({ page, desk }) => {
    await arrive(page, desk);
    await beginWithActs(page, desk, REPORT, ['Who is everybody?']);
    await chooseFile(page, 'Bring in your file', sample('dams-changed.docx'));
    await seeText(page, 'Is this the right file?');
    await clickRole(page, 'button', 'Not this one');
    await page.waitForSelector('[aria-label="Text of the draft"] ::-p-text(Skarn Moss is a raised bog)');
    await chooseFile(page, 'Bring in your file', sample('dams-changed.docx'));
    await clickRole(page, 'button', 'Bring it in all the same');
    await seeText(page, 'Written elsewhere');
    await clickRole(page, 'button', 'Go on writing here');
    await seeText(page, '5 tracked changes, taken as accepted');
    await (await page.waitForSelector('[role="dialog"] button::-p-text(Go on writing here)'))?.click();
    await page.waitForSelector('[aria-label="Text of the draft"] h1');
    // The file, and what was written before it, are versions to go back to.
    await clickRole(page, 'button', 'Versions');
    await seeText(page, 'a file that came in');
    const buttons = await page.$$('[role="dialog"] button::-p-text(Go back to it)');
    await buttons.at(-1)?.click();
    await page.waitForSelector('[aria-label="Text of the draft"] ::-p-text(Skarn Moss is a raised bog)');
    await clickRole(page, 'button', 'Undo');
    await page.waitForSelector('[aria-label="Text of the draft"] ::-p-text(Why the dams)');
    // Files that are no text are refused by name.
    await chooseFile(page, 'Bring in your file', sample('core.png'));
    await seeText(page, '“core.png” has no text that can be read.');
  },
  undefined,
  [REPORT],
);

pageTest(
  'beside a word processor the slips fill a narrow window, and a file that is saved again is taken in with one key',
  async ({ page, desk }) => {
    const folder = await mkdtemp(join(tmpdir(), 'juncture-narrow-'));
    await arrive(page, desk);
    await actOnFirst(page, desk, 3);
    const path = await rewrittenFile(desk, folder);
    const base64 = (await readFile(path)).toString('base64');
    // A browser without a screen has no window to choose files in; the file it would give is given here.
    await page.evaluateOnNewDocument((content) => {
      const saved = { at: 1 };
      Object.assign(globalThis, {
        saveAgain: () => (saved.at += 1000),
        showOpenFilePicker: () =>
          Promise.resolve([
            {
              getFile: () => {
                const bytes = Uint8Array.from(atob(content), (c) => c.charCodeAt(0));
                return Promise.resolve(new File([bytes], 'watched.docx', { lastModified: saved.at }));
              },
            },
          ]),
      });
    }, base64);
    await page.goto(`${desk.address}/a/${REPORT}/revise`);
    await chooseFile(page, 'Bring in your file', path);
    await page.waitForSelector('aside li');
    const wide = await page.evaluate(() => document.documentElement.scrollWidth > innerWidth);
    expect(wide).toBe(false);
    await clickRole(page, 'button', 'Choose the file to be watched for what you save');
    await seeText(page, 'Watched: what you save in it is offered here.');
    await page.evaluate(() => (globalThis as unknown as { saveAgain: () => void }).saveAgain());
    await seeText(page, '“watched.docx” was saved again.');
    await page.keyboard.press('t');
    await seeText(page, 'Watched: what you save in it is offered here.');
    // To the next slip and back by keyboard.
    await page.keyboard.press('n');
    await page.keyboard.press('n');
    await until(page, () => document.querySelectorAll('aside [aria-expanded="true"]').length === 1);
    await rm(folder, { recursive: true, force: true });
  },
  { width: 360, height: 740 },
  [REPORT],
);
