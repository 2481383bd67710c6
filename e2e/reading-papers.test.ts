import { PDFArray, PDFDocument, PDFName, PDFString } from '@cantoo/pdf-lib';
import type { KeyInput, Page } from 'puppeteer-core';
import { describe, expect } from 'vitest';
import { sample } from '#formats/samples/sample.ts';
import { hashOf } from '#formats/hash.ts';
import { arrive, clickRole, seeText, settled, signIn, until, type Desk } from './harness.ts';
import { drop, markedBytes, openAlone, openDropped, openReading } from './files.ts';
import { columnsPaper, inkPaper } from './papers/hard-papers.ts';
import { pageTest, PHONE } from './page-test.ts';

const press = async (page: Page, ...keys: readonly KeyInput[]) => {
  for (const key of keys) await page.keyboard.press(key);
};
const focusedText = (page: Page) =>
  page.$eval('[data-slip][aria-current="true"]', (slip) => (slip as HTMLElement).innerText);
const inFocus = (page: Page, text: string) =>
  until(
    page,
    (wanted) =>
      document.querySelector<HTMLElement>('[data-slip][aria-current="true"]')?.innerText.includes(wanted) ===
      true,
    text,
  );

/** The remark in focus is decided: act. */
const isActedOn = (page: Page) =>
  until(
    page,
    () =>
      document
        .querySelector('[data-slip][aria-current="true"] [aria-pressed="true"]')
        ?.textContent.startsWith('Act') === true,
  );

/** A mark of the remark that says this, in the middle of what is in sight. */
async function markOf(page: Page, said: string): Promise<{ x: number; y: number }> {
  await page.waitForSelector('[data-mark]');
  const mark = await page.evaluateHandle(
    (wanted) =>
      [...document.querySelectorAll<HTMLElement>('[data-mark]')].find(
        (one) => one.getAttribute('aria-label')?.includes(wanted) === true,
      ) ?? null,
    said,
  );
  const element = mark.asElement();
  if (element === null) throw new Error(`no mark of “${said}”`);
  await element.evaluate((one) => (one as HTMLElement).scrollIntoView({ block: 'center' }));
  await settled(page);
  // A large shape is pointed at by its edge: other marks may lie within.
  return element.evaluate((one) => {
    const box = (one as HTMLElement).getBoundingClientRect();
    return { x: box.left + Math.min(box.width / 2, 30), y: box.top + Math.min(box.height / 2, 8) };
  });
}

/**
 * What a student does with a paper, whatever it is: points at a mark and reads the slip, goes on by keys, decides by
 * one, finds it so again; then the same on a phone by touch, with the slip as a sheet below.
 */
async function readEverywhere(page: Page, said: readonly [string, string]): Promise<void> {
  const [first, second] = said;
  const at = await markOf(page, first);
  await page.mouse.click(at.x, at.y);
  await inFocus(page, first);
  await press(page, 'n');
  await inFocus(page, second);
  await press(page, 'p');
  await inFocus(page, first);
  await press(page, 'a');
  await isActedOn(page);
  await page.setViewport({ ...PHONE, hasTouch: true, isMobile: true });
  await page.reload();
  const there = await markOf(page, second);
  await page.touchscreen.tap(there.x, there.y);
  await inFocus(page, second);
  const sheet = await page.$eval('[data-slip][aria-current="true"]', (slip) => {
    const box = slip.getBoundingClientRect();
    return { left: box.left, right: box.right, top: box.top };
  });
  expect(sheet.left).toBeGreaterThanOrEqual(0);
  expect(sheet.right).toBeLessThanOrEqual(PHONE.width);
  expect(sheet.top).toBeGreaterThan(PHONE.height * 0.3);
  await clickRole(page, 'button', 'Previous remark');
  await inFocus(page, first);
  expect(await page.evaluate(() => document.documentElement.scrollWidth)).toBeLessThanOrEqual(PHONE.width);
  // Keys work there as well.
  await press(page, 'n');
  await inFocus(page, second);
}

describe('papers of all kinds, by mouse, by keys and by touch', () => {
  pageTest('of three columns', async ({ page, desk, expectFault }) => {
    expectFault(/401/);
    const { bytes } = await columnsPaper({
      columns: 3,
      remarks: 80,
      said: (n) => `Line ${n}. Say which wells these are.`,
    });
    await openDropped(page, desk, 'three columns.pdf', bytes);
    // From the foot of the first column one comes to the head of the second.
    await readEverywhere(page, ['Line 38.', 'Line 39.']);
    // As text it is one column, in reading order, with every remark in its place.
    await clickRole(page, 'button', 'As text');
    await page.waitForSelector('[data-sheet="text"]');
    await until(page, () => document.querySelectorAll('[data-mark]').length === 80);
    const flow = await page.evaluate(() => {
      const marks = [...document.querySelectorAll<HTMLElement>('[data-mark]')];
      return {
        numbers: marks.map((mark) => Number(/Line (\d+)\./.exec(mark.getAttribute('aria-label') ?? '')?.[1])),
        wide: document.querySelector('[data-sheet]')?.scrollWidth ?? 0,
      };
    });
    // Down the first column, then the second: the order in which the lines were written.
    expect(flow.numbers).toEqual(Array.from({ length: 80 }, (_, i) => i + 1));
    expect(flow.wide).toBeLessThanOrEqual(PHONE.width);
    const mark = await markOf(page, 'Line 41.');
    await page.touchscreen.tap(mark.x, mark.y);
    await inFocus(page, 'Line 41.');
    await page.reload();
    await page.waitForSelector('[data-sheet="text"]');
    await clickRole(page, 'button', 'As pages');
    await page.waitForSelector('[data-page="1"] canvas');
  });

  pageTest(
    'with ink, a box of text, half a page and a note about nothing',
    async ({ page, desk, expectFault }) => {
      expectFault(/401/);
      await openDropped(page, desk, 'ink.pdf', await inkPaper());
      await readEverywhere(page, ['This wave is your water table.', 'Well begun.']);
      // Two fingers make it larger, about where they are.
      const client = await page.createCDPSession();
      const touch = (type: 'touchStart' | 'touchMove' | 'touchEnd', apart: number) =>
        client.send('Input.dispatchTouchEvent', {
          type,
          touchPoints:
            type === 'touchEnd'
              ? []
              : [
                  { x: 195 - apart, y: 420, id: 1 },
                  { x: 195 + apart, y: 420, id: 2 },
                ],
        });
      const wide = () => page.$eval('[data-page]', (sheet) => sheet.getBoundingClientRect().width);
      const before = await wide();
      await touch('touchStart', 30);
      for (const apart of [36, 44, 52, 60]) await touch('touchMove', apart);
      await touch('touchEnd', 0);
      await until(
        page,
        (was) => {
          const sheet = document.querySelector('[data-page]');
          return sheet !== null && sheet.getBoundingClientRect().width > Number(was) * 1.8;
        },
        String(before),
      );
      // What a box of text says can be read whatever the page's size: it is in the slip.
      await press(page, 'n', 'n', 'n', 'n');
      await seeText(page, 'All of this half is method.');
    },
  );

  pageTest('a picture with boxes', async ({ page, desk, expectFault }) => {
    expectFault(/401/);
    await openAlone(page, desk);
    await drop(
      page,
      ['core-turned.jpg', sample('core-turned.jpg')],
      ['core-regions.jsonld', sample('core-regions.jsonld')],
    );
    await seeText(page, 'Where does this belong?');
    await clickRole(page, 'button', 'Take in 2 files');
    await until(page, () => location.pathname.startsWith('/a/'));
    await openReading(page);
    await page.waitForSelector('[data-slip]');
    await page.waitForSelector('[data-mark]');
    const said = await page.$$eval('[data-mark]', (marks) =>
      marks.map((mark) => (mark.getAttribute('aria-label') ?? '').replace(/^Remark \d+: /, '')),
    );
    await readEverywhere(page, [said[0], said[1]]);
  });

  pageTest(
    'a Word file with replies and suggestions',
    async ({ page, desk }) => {
      await arrive(page, desk);
      await page.goto(`${desk.address}/a/policy-brief-draft/read`);
      await page.waitForSelector('[data-slip]');
      await readEverywhere(page, ['Put in: “for the last two years”', 'This is not the law.']);
      const answered = await markOf(page, 'This is what they say.');
      await page.touchscreen.tap(answered.x, answered.y);
      await seeText(page, 'Then use the hay: it is the better figure.');
    },
    undefined,
    ['policy-brief-draft'],
  );
});

describe('a marking that changes while it is read', () => {
  pageTest('keeps the remark in focus where it is, with what was decided', async ({ page, desk }) => {
    await signIn(page, desk);
    await page.goto(`${desk.address}/a/skarn-moss-report/read`);
    await page.waitForSelector('[data-page="1"] .textLayer span');
    await press(page, ...Array.from({ length: 9 }, () => 'n' as const));
    await page.waitForSelector('[aria-current="true"][data-slip] textarea');
    await press(page, 'a');
    await settled(page);
    const said = await focusedText(page);
    const place = () =>
      page.evaluate(() => ({
        slip: document.querySelector('[aria-current="true"][data-slip]')?.getBoundingClientRect().top ?? 0,
        scrolled: document.querySelector('[data-scroller]')?.scrollTop ?? 0,
      }));
    const before = await place();
    // In every frame from here on the remark is looked for where it was.
    await page.evaluate((top) => {
      const look = () => {
        const slip = document.querySelector('[aria-current="true"][data-slip]');
        if (slip === null || Math.abs(slip.getBoundingClientRect().top - top) > 2)
          document.documentElement.dataset.moved ??=
            slip === null ? 'gone' : `from ${top} to ${slip.getBoundingClientRect().top}`;
        requestAnimationFrame(look);
      };
      look();
    }, before.slip);
    await changeMarking(desk, 'One more thing, on the last page.');
    await until(page, () => /\d\/39/.test(document.body.textContent));
    await settled(page);
    await page.waitForFunction(() => document.querySelectorAll('[data-page] canvas').length > 0);
    expect(await page.$eval('html', (html) => html.dataset.moved)).toBeUndefined();
    expect(await focusedText(page)).toBe(said);
    const after = await place();
    expect(Math.abs(after.slip - before.slip)).toBeLessThanOrEqual(2);
    expect(Math.abs(after.scrolled - before.scrolled)).toBeLessThanOrEqual(2);
    await isActedOn(page);
  });
});

/** The instructor puts one more remark onto the last page and returns the file anew. */
async function changeMarking(desk: Desk, text: string): Promise<void> {
  const document = await PDFDocument.load(await markedBytes(desk));
  const page = document.getPage(document.getPageCount() - 1);
  const list =
    page.node.lookupMaybe(PDFName.of('Annots'), PDFArray) ?? PDFArray.withContext(document.context);
  list.push(
    document.context.register(
      document.context.obj({
        Type: 'Annot',
        Subtype: 'Text',
        Rect: [20, 700, 40, 720],
        T: PDFString.of('Dr Aune Keld'),
        NM: PDFString.of('one-more'),
        Contents: PDFString.of(text),
      }),
    ),
  );
  page.node.set(PDFName.of('Annots'), list);
  const bytes = new Uint8Array(await document.save());
  const hash = await hashOf(bytes);
  desk.folder.putFile(hash, bytes);
  const found = desk.folder.state.facts.findLast(
    (fact) => fact.kind === 'marking' && fact.value.assignmentId === 'skarn-moss-report',
  );
  if (found?.kind !== 'marking') throw new Error('no marking');
  desk.record({
    kind: 'marking',
    value: {
      ...found.value,
      files: found.value.files.map((file) =>
        file.role === 'marked' ? { ...file, hash, size: bytes.length } : file,
      ),
    },
  });
}
