import { mkdtemp, readdir, readFile, rm, writeFile } from 'node:fs/promises';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import type { Page } from 'puppeteer-core';
import { expect, vi } from 'vitest';
import { readMarkedDocx } from '#formats/docx/read-marked-docx.ts';
import { sample } from '#formats/samples/sample.ts';
import { atWords, beginWithActs, typeBehind } from './drafting.ts';
import { drop, openAlone } from './files.ts';
import { arrive, clickRole, seeText, settled, until } from './harness.ts';
import { saved } from './line.ts';
import { pageTest } from './page-test.ts';

/** The editor of drafts. */

const REPORT = 'skarn-moss-report' as const;
const EDITOR = '[aria-label="Text of the draft"]';

async function savedAs(page: Page, folder: string, kind: string, ending: string): Promise<Uint8Array> {
  await clickRole(page, 'button', 'Save a copy');
  await (await page.waitForSelector(`[role="menuitem"]::-p-text(${kind})`))?.click();
  return vi.waitFor(
    async () => {
      const name = (await readdir(folder)).find((file) => file.endsWith(ending));
      if (name === undefined) throw new Error('not there yet');
      return new Uint8Array(await readFile(join(folder, name)));
    },
    { timeout: 15_000, interval: 100 },
  );
}

pageTest(
  'lists, tables, pictures with captions, footnotes, links and raised letters are written, kept and saved as files',
  async ({ page, desk }) => {
    const folder = await mkdtemp(join(tmpdir(), 'juncture-editor-'));
    const session = await page.createCDPSession();
    await session.send('Page.setDownloadBehavior', { behavior: 'allow', downloadPath: folder });
    await arrive(page, desk);
    await beginWithActs(page, desk, REPORT, ['Who is everybody?']);
    await atWords(page, 'Skarn Moss is now a healthy bog again.', 'behind');
    await page.keyboard.press('Enter');
    await clickRole(page, 'button', 'Numbered list');
    await page.keyboard.type('measure');
    await page.keyboard.press('Enter');
    await page.keyboard.type('compare');
    await page.keyboard.press('Enter');
    await page.keyboard.press('Enter');
    await clickRole(page, 'button', 'Table');
    await page.keyboard.type('Well');
    await page.keyboard.press('Tab');
    await page.keyboard.type('Rise in m');
    await clickRole(page, 'button', 'Raised');
    await page.keyboard.type('2');
    await clickRole(page, 'button', 'A row below');
    await page.waitForSelector(`${EDITOR} tr:nth-child(4)`);
    await atWords(page, 'It was cut for fuel', 'behind');
    await clickRole(page, 'button', 'Footnote');
    await (await page.waitForSelector('[role="dialog"] input'))?.type('So the parish books say.');
    await page.keyboard.press('Enter');
    await page.waitForSelector(`${EDITOR} .footnote`);
    await atWords(page, 'most of them were between', 'chosen');
    await clickRole(page, 'button', 'Link');
    await (await page.waitForSelector('[role="dialog"] input'))?.type('https://ashwell.example/ditches');
    await page.keyboard.press('Enter');
    await page.waitForSelector(`${EDITOR} a[href="https://ashwell.example/ditches"]`);
    await atWords(page, 'The aim of this report', 'behind');
    const picture = new URL('../formats/samples/core.png', import.meta.url).pathname;
    await (await page.waitForSelector('input[aria-label="Choose a picture"]'))?.uploadFile(picture);
    await page.waitForSelector(`${EDITOR} figure img[src^="blob:"]`);
    await saved(page);
    await page.reload();
    for (const what of ['ol li', 'th', 'sup', '.footnote', 'figure img[src^="blob:"]'])
      await page.waitForSelector(`${EDITOR} ${what}`);
    // The editor takes the focus once it stands, which closes a menu.
    await page.waitForSelector('[data-outcome="untouched"]');
    await settled(page);
    const { layout } = readMarkedDocx(await savedAs(page, folder, 'Word file', '.docx'));
    expect(layout?.pictures).toHaveLength(1);
    expect(layout?.blocks.filter(({ ordered }) => ordered)).toHaveLength(2);
    expect(layout?.blocks.filter(({ cell }) => cell !== null).length).toBeGreaterThanOrEqual(12);
    expect(layout?.notes).toHaveLength(1);
    expect(layout?.text).toContain('So the parish books say.');
    const pdf = await savedAs(page, folder, 'PDF', '.pdf');
    expect(new TextDecoder('latin1').decode(pdf.slice(0, 5))).toBe('%PDF-');
    const markdown = new TextDecoder().decode(await savedAs(page, folder, 'Markdown', '.md'));
    expect(markdown).toContain('1. measure\n2. compare');
    expect(markdown).toContain('[^1]: So the parish books say.');
    await rm(folder, { recursive: true, force: true });
  },
  undefined,
  [REPORT],
);

pageTest(
  'what was typed can be taken back after a reload, found, replaced, and looked at beside the marked version',
  async ({ page, desk }) => {
    await arrive(page, desk);
    await beginWithActs(page, desk, REPORT, ['Who is everybody?']);
    await typeBehind(page, 'as soon as possible.', ' Many do.');
    await page.waitForFunction(() => performance.now() > 0);
    // A pause longer than the editor's own makes two changes of what is typed.
    await new Promise((resolve) => setTimeout(resolve, 700));
    await typeBehind(page, 'Many do.', ' Not all.');
    await page.reload();
    await seeText(page, 'Many do. Not all.');
    await (await page.waitForSelector(EDITOR))?.focus();
    await clickRole(page, 'button', 'Undo typing');
    await until(page, () => !document.body.textContent.includes('Not all.'));
    await seeText(page, 'Many do.');
    await clickRole(page, 'button', 'Redo typing');
    await seeText(page, 'Many do. Not all.');
    await clickRole(page, 'button', 'Find and replace');
    await (await page.waitForSelector('input[aria-label="Find in the draft"]'))?.type('Sphagnum');
    await seeText(page, '1 of ');
    await (await page.waitForSelector('input[aria-label="Put in its place"]'))?.type('peat moss');
    await (await page.waitForSelector('button::-p-text(Replace all)'))?.click();
    await seeText(page, 'not there');
    await saved(page);
    await clickRole(page, 'radio', 'beside');
    await page.waitForSelector('[aria-label="Marked version"] ::-p-text(Sphagnum)');
    await page.waitForSelector('[role="separator"]');
  },
  undefined,
  [REPORT],
);

pageTest(
  'a hostile clipboard brings words and structure, and nothing that runs or is fetched',
  async ({ page, desk }) => {
    await arrive(page, desk);
    await beginWithActs(page, desk, REPORT, ['Who is everybody?']);
    await atWords(page, 'as soon as possible.', 'behind');
    await page.$eval(EDITOR, (editor) => {
      const data = new DataTransfer();
      data.setData(
        'text/html',
        `<p onclick="window.hurt = 1">Pasted <b>words</b><script>window.hurt = 2</script>
         <img src="https://elsewhere.example/x.png" onerror="window.hurt = 3">
         <a href="javascript:window.hurt = 4">here</a><iframe src="https://elsewhere.example"></iframe></p>
         <table><tr><td colspan="9999">cell</td></tr></table><style>* { display: none }</style>`,
      );
      editor.dispatchEvent(
        new ClipboardEvent('paste', { clipboardData: data, bubbles: true, cancelable: true }),
      );
    });
    await page.waitForSelector(`${EDITOR} strong::-p-text(words)`);
    await page.waitForSelector(`${EDITOR} td::-p-text(cell)`);
    const left = await page.$eval(EDITOR, (editor) => [
      editor.querySelectorAll('script, img, iframe, style, [onclick], a[href^="javascript"]').length,
      (globalThis as unknown as { hurt?: number }).hurt ?? 0,
    ]);
    expect(left).toEqual([0, 0]);
    await saved(page);
    // A picture that is too large, and one that is none, are refused by name.
    const folder = await mkdtemp(join(tmpdir(), 'juncture-pictures-'));
    const large = join(folder, 'large.png');
    await writeFile(large, Buffer.alloc(50 * 1024 * 1024));
    await (await page.waitForSelector('input[aria-label="Choose a picture"]'))?.uploadFile(large);
    await seeText(page, 'a picture in the draft may have 20 MB');
    const torn = join(folder, 'torn.png');
    await writeFile(torn, 'no picture');
    await (await page.waitForSelector('input[aria-label="Choose a picture"]'))?.uploadFile(torn);
    await seeText(page, '“torn.png” is no picture');
    await rm(folder, { recursive: true, force: true });
  },
  undefined,
  [REPORT],
);

pageTest(
  'a draft starts from a PDF with its table, picture and footnotes',
  async ({ page, desk, expectFault }) => {
    expectFault(/401/);
    await openAlone(page, desk);
    await drop(page, ['starts-writer.pdf', sample('starts-writer.pdf')]);
    await until(page, () => location.pathname.startsWith('/a/'));
    await page.goto(`${page.url().split('?')[0]}/revise`);
    await clickRole(page, 'button', 'Begin the new draft');
    await page.waitForSelector(`${EDITOR} table ::-p-text(Step)`);
    await page.waitForSelector(`${EDITOR} ol ::-p-text(drive longer boards)`);
    const picture = await page.waitForSelector(`${EDITOR} figure img`);
    await vi.waitFor(
      async () => expect(await picture?.evaluate((image) => image.naturalWidth)).toBeGreaterThan(300),
      10_000,
    );
    await page.waitForSelector(`${EDITOR} figure ::-p-text(Figure 1. The bed of the ditch)`);
    const words = 'We read the level on both sides of each dam on four days,';
    expect(
      await page.$$eval(
        `${EDITOR} p`,
        (blocks, start) => blocks.filter((block) => block.textContent.startsWith(start)).length,
        words,
      ),
    ).toBe(1);
    expect(await page.$$eval(`${EDITOR} [data-footnote]`, (notes) => notes.length)).toBe(2);
  },
);
