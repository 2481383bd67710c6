import { copyFile, mkdtemp, readFile, rm } from 'node:fs/promises';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { describe, expect } from 'vitest';
import { readDocx } from '#formats/docx/read-docx.ts';
import { atWords, beginWithActs, findRemark, openSlip, typeBehind } from './drafting.ts';
import { arrive, clickRole, openStation, seeText, until, type Desk } from './harness.ts';
import { saved } from './line.ts';
import { pageTest } from './page-test.ts';

/** Answers to remarks, whatever they look like. */

const REPORT = 'skarn-moss-report' as const;

async function sentSheet(desk: Desk): Promise<string[]> {
  const sent = desk.folder.state.facts.find((fact) => fact.kind === 'attempt' && fact.value.number === 2);
  const receipt = sent?.kind === 'attempt' ? sent.value.receipt : null;
  const hash = receipt?.files.at(-1)?.hash ?? '';
  const bytes = new Uint8Array(await readFile(desk.folder.pathOfFile(hash) ?? ''));
  return readDocx(bytes).blocks.map(({ text }) => text);
}

describe('a remark', () => {
  pageTest(
    'is answered by an addition with one key, by chosen words, in words, and by a file; the sheet tells each',
    async ({ page, desk }) => {
      const folder = await mkdtemp(join(tmpdir(), 'juncture-answers-'));
      await arrive(page, desk);
      await beginWithActs(page, desk, REPORT, [
        'Who is everybody?',
        'A sketch map with both transects',
        'So there is no control.',
        'Said by whom?',
      ]);
      // A sentence behind the marked one: proposed, taken with one key, ticked.
      const added = 'That is how the trust sees it, and Hask and others say the same.';
      await typeBehind(page, 'rewetted as soon as possible.', ` ${added}`);
      await openSlip(page, 'Who is everybody?');
      await page.waitForSelector(`aside li ::-p-text(${added.slice(0, 30)})`);
      await page.keyboard.press('y');
      await page.waitForSelector('aside [role="checkbox"][aria-checked="true"]');
      await seeText(page, `“${added}”`);
      // Words elsewhere, chosen by hand.
      const chosen = 'Every ditch got its dams, so nothing is left to compare with.';
      await typeBehind(page, 'all of them were near ditches.', ` ${chosen}`);
      await openSlip(page, 'So there is no control.');
      await atWords(page, chosen, 'chosen');
      await clickRole(page, 'button', 'The chosen words answer it');
      await seeText(page, `“${chosen}”`);
      // In words.
      await openSlip(page, 'Said by whom?');
      const field = await page.waitForSelector('aside textarea');
      await field?.type('Nobody has written it down; I take it back in the talk.');
      await saved(page);
      // By a file.
      await openSlip(page, 'A sketch map with both transects');
      const map = join(folder, 'map.pdf');
      await copyFile(new URL('../formats/samples/dams-plain.pdf', import.meta.url), map);
      const input = await page.waitForSelector('aside input[type="file"]');
      await (input as unknown as { uploadFile(path: string): Promise<void> }).uploadFile(map);
      await seeText(page, '“map.pdf” answers it');
      await until(
        page,
        () => document.querySelectorAll('aside [role="checkbox"][aria-checked="true"]').length === 4,
      );
      await page.reload();
      await seeText(page, `“${added}”`);
      await until(
        page,
        () => document.querySelectorAll('aside [role="checkbox"][aria-checked="true"]').length === 4,
      );
      // Changed again since: told, and still the answer.
      await typeBehind(page, 'Hask and others', ' (2018)');
      await seeText(page, 'changed again since');
      // One is taken away, and back with undo.
      await openSlip(page, 'So there is no control.');
      await clickRole(page, 'button', 'Not an answer after all');
      await until(
        page,
        () => document.querySelectorAll('aside [role="checkbox"][aria-checked="true"]').length === 3,
      );
      await clickRole(page, 'button', 'Undo');
      await until(
        page,
        () => document.querySelectorAll('aside [role="checkbox"][aria-checked="true"]').length === 4,
      );
      await openStation(page, 'Check');
      await seeText(page, 'Nothing decided yet (48)');
      expect(await page.$('::-p-text(No answer yet)')).toBeNull();
      await openStation(page, 'Send');
      await seeText(page, 'map.pdf');
      // What was told of the last change stands over the corner of the page for a while.
      await page.reload();
      await page.waitForSelector('button:not([disabled])::-p-text(Send to the course desk)');
      await clickRole(page, 'button', 'Send to the course desk');
      await (await page.waitForSelector('[role="dialog"] button::-p-text(Send to the course desk)'))?.click();
      await seeText(page, 'Waiting to be marked');
      const sheet = await sentSheet(desk);
      expect(sheet).toEqual(
        expect.arrayContaining([
          'Now: That is how the trust sees it, and Hask and others (2018) say the same.',
          `Now: ${chosen}`,
          'Nobody has written it down; I take it back in the talk.',
          'In the file “map.pdf”.',
        ]),
      );
      expect(sheet.join(' ')).not.toMatch(/The (?:marked words|passage) stands?/);
      await rm(folder, { recursive: true, force: true });
    },
    undefined,
    [REPORT],
  );

  pageTest(
    'is answered by a reply alone, and one that is only ticked is listed as that',
    async ({ page, desk }) => {
      await arrive(page, desk);
      await beginWithActs(page, desk, REPORT, ['Who is everybody?', 'Said by whom?']);
      await page.waitForSelector('aside [role="checkbox"]');
      await (await page.waitForSelector('aside li:nth-child(2) [role="checkbox"]'))?.click();
      await until(
        page,
        () => document.querySelector('aside [role="checkbox"][aria-checked="true"]') !== null,
      );
      await openStation(page, 'Check');
      await seeText(page, 'Ticked, but nothing says what answers it (1)');
      await seeText(page, 'No answer yet (1)');
      await clickRole(
        page,
        'link',
        '3 Who is everybody? Name at least one source, or say that it is the view of the trust.',
      );
      await until(page, () => location.pathname.endsWith('/revise'));
      await page.waitForSelector('aside li:has([aria-expanded="true"]) ::-p-text(Who is everybody?)');
      const slip = new URL(page.url()).searchParams.get('remark') ?? '';
      await page.goto(`${desk.address}/a/${REPORT}/read?remark=${encodeURIComponent(slip)}`);
      await clickRole(page, 'button', 'Reply');
      const field = await page.waitForSelector('[aria-label="Your reply"]:focus');
      await field?.type('It is the view of the trust alone.');
      await saved(page);
      await page.goto(`${desk.address}/a/${REPORT}/revise`);
      await seeText(page, 'It is the view of the trust alone.');
      await openStation(page, 'Check');
      await until(page, () => !document.body.textContent.includes('No answer yet'));
    },
    undefined,
    [REPORT],
  );
});

pageTest(
  'a change that the marker made is seen, kept with one key, or refused and put back as it was',
  async ({ page, desk }) => {
    await arrive(page, desk);
    await page.goto(`${desk.address}/a/policy-brief-draft/decide`);
    for (const words of [', from May to October', 'as much as they can']) {
      await findRemark(page, words);
      await page.keyboard.press('a');
      await page.waitForSelector('main [aria-label="Decide about this remark"] [aria-pressed="true"]');
      await saved(page);
    }
    await page.goto(`${desk.address}/a/policy-brief/revise`);
    await clickRole(page, 'button', 'Begin the new draft');
    await page.waitForSelector('[aria-label="Text of the draft"] ::-p-text(from May to October)');
    await openSlip(page, 'from May to October');
    await page.waitForSelector('aside button::-p-text(Keep as suggested)');
    await page.keyboard.press('i');
    await page.waitForSelector('aside [role="checkbox"][aria-checked="true"]');
    await clickRole(page, 'button', 'Refuse it');
    await until(
      page,
      () =>
        document.querySelector('[aria-label="Text of the draft"]')?.textContent.includes('from May') ===
        false,
    );
  },
  undefined,
  ['policy-brief', 'policy-brief-draft'],
);
