import { mkdtemp, readdir, readFile } from 'node:fs/promises';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import type { Page, SerializedAXNode } from 'puppeteer-core';
import { describe, expect, vi } from 'vitest';
import { readPaperText } from '#demo/scenario.ts';
import { readMarkedDocx } from '#formats/docx/read-marked-docx.ts';
import { clickRole, seeText, signIn, until, type Desk, chooseIn, pick, seeChosen } from './harness.ts';
import { pageTest } from './page-test.ts';

const markdown = readPaperText('skarn-moss-report');

async function openPaper(page: Page, desk: Desk): Promise<void> {
  await signIn(page, desk);
  await page.goto(`${desk.address}/a/skarn-moss-report/read`);
  await page.waitForSelector('[data-page="1"] .textLayer span');
  await page.waitForSelector('[data-slip]');
}

const inList = (page: Page) => page.$eval('[aria-setsize]', (slip) => slip.getAttribute('aria-setsize'));

describe('The reading place', () => {
  pageTest(
    'filters what is shown, steps through that alone, and is so again on return',
    async ({ page, desk }) => {
      await openPaper(page, desk);
      // A list that is open stands still only once what remarks say is worked out.
      await seeText(page, 'about 0.');
      await page.keyboard.press('/');
      await page.waitForSelector('[role="combobox"][aria-label="Page"]');
      const inHand = () => page.evaluate(() => document.activeElement?.getAttribute('aria-label'));
      expect(await inHand()).toBe('Words in remarks');
      await page.keyboard.type('dam');
      await until(page, () => / of 38 shown/.test(document.body.textContent));
      for (let i = 0; i < 3; i++) await page.keyboard.press('Backspace');
      await page.keyboard.press('Tab');
      expect(await inHand()).toBe('Page');
      // By keys alone: it opens, goes down by two, and is chosen.
      await page.keyboard.press('Enter');
      await page.waitForSelector('[role="option"][data-highlighted]');
      const option = await page.$$eval('[role="option"]', (options) => options[2].textContent);
      const count = /\((\d+)\)/.exec(option)?.[1] ?? '';
      for (const n of [2, 3]) {
        await page.keyboard.press('ArrowDown');
        await page.waitForSelector(`[role="option"][data-highlighted]:nth-child(${n})`);
      }
      await page.keyboard.press('Enter');
      await seeText(page, `${count} of 38 shown`);
      expect(await inList(page)).toBe(count);
      await page.reload();
      await seeText(page, `${count} of 38 shown`);
      await page.waitForSelector('[data-slip]');
      for (let i = 0; i < Number(count) + 3; i++) await page.keyboard.press('n');
      await page.waitForSelector('[data-slip][aria-current="true"]');
      expect(await inList(page)).toBe(count);
      await clickRole(page, 'button', 'Show all');
      await seeText(page, 'all 38 shown');
      await clickRole(page, 'button', 'Close');
      await until(page, () => document.querySelector('[role="combobox"][aria-label="Page"]') === null);
    },
  );

  pageTest(
    'lists the remarks in groups with counts, and leads from the list to the place and back',
    async ({ page, desk }) => {
      await openPaper(page, desk);
      await clickRole(page, 'button', 'List');
      await seeText(page, 'page 1');
      await clickRole(page, 'radio', 'Criterion');
      await until(
        page,
        () => document.querySelector('main h2')?.textContent.startsWith('Question and aim') === true,
      );
      const counts = await page.$$eval('main h2 span:last-child', (all) =>
        all.map((one) => Number(one.textContent)),
      );
      expect(counts.reduce((x, y) => x + y, 0)).toBe(38);
      await clickRole(page, 'radio', 'Colour');
      await page.reload();
      await until(
        page,
        () => document.querySelector('main [role="radio"][aria-checked="true"]')?.textContent === 'Colour',
      );
      await (await seeText(page, 'So there is no control.')).click();
      await page.waitForSelector('[data-slip][aria-current="true"]');
      expect(await page.$eval('[data-slip][aria-current="true"]', (slip) => slip.textContent)).toContain(
        'So there is no control.',
      );
      await clickRole(page, 'button', 'List');
      await until(page, () => document.querySelector('main [role="radio"][aria-checked="true"]') !== null);
    },
  );

  pageTest('copies a remark with its words and page', async ({ page, desk, context }) => {
    await openPaper(page, desk);
    for (const name of ['clipboard-read', 'clipboard-write'])
      await context.setPermission(desk.address, { permission: { name }, state: 'granted' });
    await page.keyboard.press('n');
    await page.keyboard.press('n');
    await seeText(page, 'A summary should end on what you found.');
    await clickRole(page, 'button', 'Copy');
    await seeText(page, 'Copied, with its words and page.');
    expect(await page.evaluate(() => navigator.clipboard.readText())).toBe(
      '“The results show that ditch blocking works and that Skarn Moss is now a healthy bog again.”\n' +
        'A summary should end on what you found. You measured water, not health. Give the two rises and say how far they reach. (Dr Aune Keld, page 1)',
    );
  });

  pageTest('goes to a page, and shows a whole one or as wide as there is room', async ({ page, desk }) => {
    await openPaper(page, desk);
    const field = await page.waitForSelector('input[aria-label="Go to page"]');
    await field?.click();
    await page.keyboard.type('6');
    await page.keyboard.press('Enter');
    await page.waitForSelector('[data-page="6"] canvas');
    // What is far away is not drawn.
    expect(await page.$('[data-page="1"]')).toBeNull();
    await until(page, () => {
      const box = document.querySelector('[data-page="6"]')?.getBoundingClientRect();
      const frame = document.querySelector('[data-scroller]')?.getBoundingClientRect();
      return box !== undefined && frame !== undefined && Math.abs(box.top - frame.top) < 24;
    });
    await pick(page, 'How large the paper is', 'whole page');
    await until(page, () => {
      const box = document.querySelector('[data-page]')?.getBoundingClientRect();
      const frame = document.querySelector('[data-scroller]')?.getBoundingClientRect();
      return box !== undefined && frame !== undefined && box.height <= frame.height;
    });
    await page.reload();
    // As it was left: the page, and how large.
    await page.waitForSelector('[data-page="6"] canvas');
    await seeChosen(page, 'How large the paper is', 'whole page');
  });

  pageTest(
    'lays each mark on its words at 50, 100 and 400 %, with slips that never overlap and curves that never cross',
    async ({ page, desk }) => {
      await openPaper(page, desk);
      const steps: readonly (readonly [number, '-' | '+', number])[] = [
        [50, '-', 3],
        [100, '+', 3],
        [400, '+', 5],
      ];
      for (const [percent, key, times] of steps) {
        for (let i = 0; i < times; i++) await page.keyboard.press(key);
        await seeChosen(page, 'How large the paper is', percent === 100 ? 'Fit the width' : `${percent} %`);
        // What was chosen is so again on return.
        await page.reload();
        await page.waitForSelector('[data-page="1"] .textLayer span');
        await page.waitForSelector('[data-slip]');
        const off = await page.evaluate(() => {
          const spans = [...document.querySelectorAll('[data-page="1"] .textLayer span')];
          const last = spans.find((span) => span.textContent.startsWith('again.'))?.getBoundingClientRect();
          const marks = [...document.querySelectorAll('[data-page="1"] [data-mark]')].map((mark) =>
            mark.getBoundingClientRect(),
          );
          if (last === undefined) return null;
          const near = marks.map((mark) =>
            Math.max(
              Math.abs(mark.left - last.left),
              Math.abs((mark.top + mark.bottom) / 2 - (last.top + last.bottom) / 2) - last.height * 0.2,
            ),
          );
          return Math.min(...near);
        });
        expect(off, `at ${percent} %`).not.toBeNull();
        expect(off, `at ${percent} %`).toBeLessThanOrEqual(2);
        const shape = await page.evaluate(() => {
          const slips = [...document.querySelectorAll('ol > li[aria-posinset]')].map((one) =>
            one.getBoundingClientRect(),
          );
          const sorted = slips.toSorted((x, y) => x.top - y.top);
          const overlaps = sorted.filter((one, i) => i > 0 && one.top < sorted[i - 1].bottom - 0.5).length;
          const ends = [...document.querySelectorAll<SVGPathElement>('[data-curve] path')].map((curve) => ({
            from: curve.getPointAtLength(0).y,
            to: curve.getPointAtLength(curve.getTotalLength()).y,
          }));
          const byStart = ends.toSorted((x, y) => x.from - y.from || x.to - y.to);
          const crossings = byStart.filter((one, i) => i > 0 && one.to < byStart[i - 1].to).length;
          return { overlaps, crossings, slips: slips.length };
        });
        expect(shape, `at ${percent} %`).toMatchObject({ overlaps: 0, crossings: 0 });
        expect(shape.slips).toBeGreaterThan(2);
      }
    },
  );

  pageTest('finds words in the paper, as pages and as text', async ({ page, desk }) => {
    await openPaper(page, desk);
    const expected = markdown.toLowerCase().match(/water[\s-]+table/g)?.length ?? 0;
    expect(expected).toBeGreaterThan(10);
    await page.keyboard.press('f');
    await page.waitForSelector('[type="search"]:focus');
    await page.keyboard.type('Water  Table');
    const shown = (text: string) =>
      until(
        page,
        (wanted) => document.querySelector('[role="search"] [role="status"]')?.textContent === wanted,
        text,
      );
    const here = () =>
      page.evaluate(() => {
        const [range] = [...(CSS.highlights.get('found-here') ?? [])] as Range[];
        const box = (range as Range | undefined)?.getBoundingClientRect();
        const frame = document.querySelector('[data-scroller]')?.getBoundingClientRect();
        return {
          text: (range as Range | undefined)?.toString().toLowerCase().replace(/\s+/g, ' ') ?? null,
          inSight:
            box !== undefined && frame !== undefined && box.top >= frame.top && box.bottom <= frame.bottom,
        };
      });
    await shown(`1 of ${expected}`);
    // Backwards from the first is the last, on a page that was not drawn.
    await page.keyboard.down('Shift');
    await page.keyboard.press('Enter');
    await page.keyboard.up('Shift');
    await shown(`${expected} of ${expected}`);
    await until(page, () => (CSS.highlights.get('found-here')?.size ?? 0) === 1);
    expect(await here()).toEqual({ text: 'water table', inSight: true });
    expect(await page.$('[data-page="1"]')).toBeNull();
    await page.keyboard.press('Escape');
    await until(
      page,
      () => document.querySelector('[role="search"]') === null && !CSS.highlights.has('found'),
    );
    await clickRole(page, 'button', 'As text');
    await clickRole(page, 'button', 'Find');
    await shown(`${expected} of ${expected}`);
    await page.keyboard.press('Enter');
    await shown(`1 of ${expected}`);
    await until(page, () => (CSS.highlights.get('found-here')?.size ?? 0) === 1);
    expect(await here()).toEqual({ text: 'water table', inSight: true });
    expect(await page.evaluate(() => CSS.highlights.get('found')?.size)).toBe(expected);
    await page.keyboard.type('q');
    await page.keyboard.press('Backspace');
    await clickRole(page, 'button', 'As pages');
    await page.waitForSelector('[data-page="1"] canvas');
  });

  pageTest('keeps a reply with its remark, and writes it into the response sheet', async ({ page, desk }) => {
    await openPaper(page, desk);
    await page.keyboard.press('n');
    await clickRole(page, 'button', 'Reply');
    await page.waitForSelector('[aria-label="Your reply"]:focus');
    await page.keyboard.type('It stands on the title page now.');
    await seeText(page, 'Nobody is told of it before you send that.');
    await page.keyboard.press('Tab');
    await until(
      page,
      () => document.querySelector('header [role="status"]')?.textContent.startsWith('Saved') === true,
    );
    await page.reload();
    await page.waitForSelector('[data-slip]');
    const kept = () =>
      until(
        page,
        (text) => document.querySelector<HTMLTextAreaElement>('[aria-label="Your reply"]')?.value === text,
        'It stands on the title page now.',
      );
    await kept();
    await page.goto(`${desk.address}/a/skarn-moss-report/revise`);
    await clickRole(page, 'button', 'Begin the new draft');
    await page.waitForSelector('[aria-label="Text of the draft"] p');
    await page.goto(`${desk.address}/a/skarn-moss-report/send`);
    const folder = await mkdtemp(join(tmpdir(), 'juncture-sheet-'));
    const client = await page.createCDPSession();
    await client.send('Page.setDownloadBehavior', { behavior: 'allow', downloadPath: folder });
    await clickRole(page, 'button', 'Save the response sheet');
    const saved = await vi.waitFor(
      async () => {
        const name = (await readdir(folder)).find((one) => one.endsWith('.docx'));
        if (name === undefined) throw new Error('not there yet');
        return readFile(join(folder, name));
      },
      { timeout: 15_000, interval: 100 },
    );
    const sheet = readMarkedDocx(new Uint8Array(saved));
    expect(sheet.paper.text).toContain('Reply: It stands on the title page now.');
    await page.goto(`${desk.address}/a/skarn-moss-report/read`);
    await page.waitForSelector('[data-slip]');
    await seeText(page, 'You reply: It stands on the title page now.');
    await page.keyboard.press('n');
    await kept();
    // The draft that was begun, then the reply.
    await clickRole(page, 'button', 'Undo');
    await clickRole(page, 'button', 'Undo');
    await until(page, () => document.querySelector('[aria-label="Your reply"]') === null);
  });

  pageTest('shows matches and remarks together or one by one', async ({ page, desk }) => {
    await openPaper(page, desk);
    expect(await inList(page)).toBe('38');
    await chooseIn(page, 'View', 'With matches');
    await until(page, () => document.querySelector('[aria-setsize]')?.getAttribute('aria-setsize') === '46');
    await page.waitForSelector('[data-page="1"] [data-mark]');
    const match = await page.waitForSelector('::-p-text(words stand in Abery and Lunt)');
    await match?.click();
    await page.waitForSelector('[data-slip][aria-current="true"] textarea');
    // It is read where it stands: among the remarks of the paper.
    expect(await page.$eval('[role="tab"][aria-selected="true"]', (tab) => tab.textContent)).toContain(
      'In the paper',
    );
    expect(await inList(page)).toBe('46');
    await page.keyboard.press('/');
    await page.waitForSelector('[role="combobox"][aria-label="Channel"]');
    await pick(page, 'Channel', 'Overlap');
    await seeText(page, '8 of 46 shown');
    await clickRole(page, 'button', 'Show all');
    await clickRole(page, 'button', 'Close');
    await page.reload();
    await page.waitForSelector('[data-slip][aria-current="true"] textarea');
    expect(await inList(page)).toBe('46');
    await chooseIn(page, 'View', 'With matches');
    await until(page, () => document.querySelector('[aria-setsize]')?.getAttribute('aria-setsize') === '38');
  });

  pageTest('tells a screen reader of each remark with its passage, in a list', async ({ page, desk }) => {
    await openPaper(page, desk);
    const tree = await page.accessibility.snapshot({ interestingOnly: false });
    const said: string[] = [];
    const walk = (node: SerializedAXNode | null, inside: string) => {
      if (node === null) return;
      const here = node.role === 'list' ? (node.name ?? '') : inside;
      said.push(`${node.role} “${node.name ?? ''}” in “${here}”`);
      for (const child of node.children ?? []) walk(child, here);
    };
    walk(tree, '');
    const list = 'Remarks in the paper';
    expect(said).toContain(`list “${list}” in “${list}”`);
    expect(
      said.filter((line) => line.startsWith('listitem') && line.endsWith(`in “${list}”`)).length,
    ).toBeGreaterThan(3);
    expect(said).toContain(
      `article “Remark 2, page 1, on “The results show that ditch blocking works and that Skarn Moss is now a healthy bog again.”” in “${list}”`,
    );
    expect(said.some((line) => line.startsWith('region “Page 1”'))).toBe(true);
    expect(said.some((line) => line.includes('A summary should end on what you found.'))).toBe(true);
    expect(said.some((line) => line.startsWith('tab “In the paper'))).toBe(true);
  });
});
