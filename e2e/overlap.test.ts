import { mkdtemp, rm, writeFile } from 'node:fs/promises';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { expect } from 'vitest';
import { violationsInBoth } from './axe.ts';
import { saveBy } from './downloads.ts';
import { chooseFile, dropOn, openDropped } from './files.ts';
import { arrive, clickRole, openStation, seeText, settled, signIn, until } from './harness.ts';
import { saved } from './line.ts';
import { pageTest, PHONE } from './page-test.ts';

/** What a paper shares with sources: compared, decided about, rewritten, and gone. */

const COPIED = 'The surface sinks, the mosses give way to heather and birch';

pageTest(
  'a match goes from the report to a decision, a task, a changed draft, and is gone',
  async ({ page, desk }) => {
    await signIn(page, desk);
    await page.goto(`${desk.address}/a/skarn-moss-report`);
    await (await seeText(page, 'What this paper shares with sources')).click();
    await seeText(page, 'Nothing to compare with yet.');
    // The report that came back is told as it is, while its sources aren't here.
    await seeText(page, '29 words stand in Abery and Lunt');
    await clickRole(page, 'button', 'Fetch the course’s library');
    await seeText(page, '581 of 2,838');
    await seeText(page, '664 with all left in, 23.4 %');
    // A switch changes the figure at once, and is kept.
    await clickRole(page, 'checkbox', 'leave out own earlier text −54');
    await seeText(page, '635 of 2,838');
    await saved(page);
    await page.reload();
    await seeText(page, '635 of 2,838');
    // By keys: the third match, which nobody reported, with both texts.
    for (let n = 0; n < 3; n++) await page.keyboard.press('n');
    await seeText(page, 'Write it your own way, or mark the words and name the source.');
    await seeText(page, 'All 27 words are the source’s.');
    expect(await violationsInBoth(page)).toEqual([]);
    await page.keyboard.press('a');
    await until(page, () => document.querySelector('[aria-pressed="true"][data-state="on"]') !== null);
    await saved(page);
    await page.reload();
    // It is decided about, and not counted among what came back.
    await seeText(page, '635 of 2,838');
    await until(page, () => document.body.textContent.includes('0 of 1 done'));
    await until(page, () => document.body.textContent.includes('of 52'));
    await openStation(page, 'Plan');
    await seeText(page, 'Rewetting in five steps');
    // Rewritten, it is gone from the draft, while the marked version still has it.
    await openStation(page, 'Revise');
    await clickRole(page, 'button', 'Begin the new draft');
    await page.waitForSelector('[contenteditable="true"]');
    await settled(page);
    await page.evaluate((words) => {
      const editor = document.querySelector('[contenteditable="true"]');
      const walker = document.createTreeWalker(editor ?? document.body, NodeFilter.SHOW_TEXT);
      for (let node = walker.nextNode(); node !== null; node = walker.nextNode()) {
        const at = node.textContent?.indexOf(words) ?? -1;
        if (at < 0) continue;
        const range = document.createRange();
        range.setStart(node, at);
        range.setEnd(node, node.textContent?.length ?? at);
        const selection = getSelection();
        selection?.removeAllRanges();
        selection?.addRange(range);
        (editor as HTMLElement).focus();
      }
    }, COPIED);
    // Its sign tells how it stands as one types.
    const sign = (words: string) =>
      until(
        page,
        (told) =>
          [...document.querySelectorAll('[data-remark^="match/"]')].some((slip) =>
            slip.textContent.includes(told),
          ),
        words,
      );
    await sign('neither marked nor named');
    await page.keyboard.type('Once it is dry it shrinks, shrubs move in, and what it held is lost. ');
    await until(
      page,
      () => document.querySelector('[data-remark^="match/"][data-outcome="untouched"]') === null,
    );
    await saved(page);
    await page.goto(`${desk.address}/a/skarn-moss-report/overlap`);
    await seeText(page, 'Gone since the marked version');
    // What was handed in before is known, and is own earlier text.
    await seeText(page, 'Your earlier attempt at this');
    await until(
      page,
      (words) => [...document.querySelectorAll('s')].some((gone) => gone.textContent.includes(words)),
      COPIED,
    );
    await clickRole(page, 'radio', 'The marked version');
    await seeText(page, '635 of 2,838');
  },
);

pageTest(
  'files are compared with, what can’t be read is named, and what is set aside stays in the table with its reason',
  async ({ page, desk }) => {
    const folder = await mkdtemp(join(tmpdir(), 'juncture-sources-'));
    const file = async (name: string, content: string | Uint8Array) => {
      await writeFile(join(folder, name), content);
      return join(folder, name);
    };
    const words = 'Peat is formed where plants grow faster than they rot, and they only rot slowly';
    const page1 = await file(
      'page.html',
      `<!doctype html><html><body><h1>Peat</h1><p>${words}.</p></body></html>`,
    );
    const none = await file('scan.txt', '... --- ...');
    await arrive(page, desk);
    await page.goto(`${desk.address}/a/skarn-moss-report/overlap`);
    await seeText(page, 'Nothing to compare with yet.');
    await chooseFile(page, 'Compare with files …', page1, none);
    await seeText(page, 'No text in “scan.txt”');
    await seeText(page, '15 of 2,838');
    await (await seeText(page, words.slice(0, 30))).click();
    await clickRole(page, 'button', 'Set aside …');
    const field = await page.waitForSelector('[role="dialog"] input');
    await field?.type('A definition that we all learnt.');
    await clickRole(page, 'button', 'Leave it out');
    await seeText(page, '0 of 2,838');
    await seeText(page, 'set aside: A definition that we all learnt.');
    await saved(page);
    const { bytes } = await saveBy(page, () => clickRole(page, 'button', 'Save as a table'));
    const text = new TextDecoder().decode(bytes);
    expect(text).toContain('set aside: A definition that we all learnt.');
    expect(text).toContain('compared with 1 text on');
    await page.reload();
    await seeText(page, '0 of 2,838');
    await page.setViewport(PHONE);
    await settled(page);
    const wide = await page.evaluate(() => document.querySelector('main')?.scrollWidth ?? 0);
    expect(wide).toBeLessThanOrEqual(PHONE.width);
    // A citation that isn't in order leads to its place.
    await seeText(page, 'Citations and references');
    await rm(folder, { recursive: true, force: true });
  },
);

const PAPER = `# Dams on the common

The water table rose behind the dams (Hask, 2018; Abery and Lunt, 2011). Nobody had read the wells before that, and so nobody can say by how much.

# References

Hask, L. (2018) A first season. Mire Letters 2, 1-9.
`;
const BIB = `@article{dams, author = {Abery, Jane and Lunt, M.}, title = {Dams of {Peat}}, journal = {Journal of Mire Practice},
 year = 2011, volume = 4, pages = {21--39}}
@article{season, author = {Hask, L.}, title = {A first season}, year = 2018}`;

pageTest(
  'a source dropped on its list is compared with, and entries come out of a file of references',
  async ({ page, desk, expectFault }) => {
    expectFault(/401/);
    await openDropped(page, desk, 'Dams.md', new TextEncoder().encode(PAPER));
    await openStation(page, 'Revise');
    await clickRole(page, 'button', 'Begin the new draft');
    await page.waitForSelector('[contenteditable="true"]');
    await settled(page);
    await saved(page);
    await page.goto(`${page.url().split('/revise')[0]}/overlap`);
    await seeText(page, 'or drop files here');
    await dropOn(page, '[data-takes-files]', [
      'Wells.txt',
      new TextEncoder().encode(
        'In the end nobody had read the wells before that, and so nobody can say it. It was dry.',
      ),
    ]);
    await seeText(page, '1 file to compare with.');
    await settled(page);
    await seeText(page, 'Wells');
    await clickRole(page, 'button', 'Match A');
    await seeText(page, 'cited, but not in the list');
    const folder = await mkdtemp(join(tmpdir(), 'references-'));
    try {
      await writeFile(join(folder, 'no references.bib'), 'Dear all');
      await chooseFile(page, 'Entries from BibTeX', join(folder, 'no references.bib'));
      await seeText(page, 'There are no references in “no references.bib”');
      await writeFile(join(folder, 'mire.bib'), BIB);
      await chooseFile(page, 'Entries from BibTeX', join(folder, 'mire.bib'));
      await seeText(page, 'Abery, J. and Lunt, M. (2011) Dams of Peat. Journal of Mire Practice 4, 21-39.');
      await seeText(page, 'in the list by now');
      expect(await violationsInBoth(page)).toEqual([]);
      await clickRole(page, 'button', 'Put 1 entry into the draft’s list');
      await seeText(page, 'All that is cited is listed');
      await saved(page);
      await openStation(page, 'Revise');
      await page.waitForSelector('[contenteditable="true"] ::-p-text(Dams of Peat)');
    } finally {
      await rm(folder, { recursive: true });
    }
  },
);
