import type { Page } from 'puppeteer-core';
import { describe, expect } from 'vitest';
import { sample } from '#formats/samples/sample.ts';
import { openDropped } from './files.ts';
import { arrive, clickRole, seeText, settled, chooseIn, seeChosen } from './harness.ts';
import { columnsPaper, oddPaper, shownBox, shownWidth, type Placed } from './papers/hard-papers.ts';
import { pageTest } from './page-test.ts';

/** For each remark whose mark and words are drawn, how far the mark is from where it was put, in pixels. */
async function distances(
  page: Page,
  placed: readonly Placed[],
  turn: 0 | 90 | 180 | 270,
): Promise<readonly number[]> {
  const wanted = placed.map((one) => ({ text: one.text, box: shownBox(one.box, turn) }));
  return page.evaluate(
    (all, width) => {
      const sheet = document.querySelector('[data-page="1"]');
      const frame = sheet?.getBoundingClientRect();
      if (frame === undefined) return [];
      const marks = [...document.querySelectorAll<HTMLElement>('[data-page="1"] [data-mark]')];
      return all.map(({ text, box }) => {
        // The page stands in a border of one pixel.
        const scale = (frame.width - 2) / width;
        const [left, top, right, bottom] = box.map((at) => at * scale);
        const own = marks.filter((mark) => mark.getAttribute('aria-label')?.endsWith(text) === true);
        const off = own.map((mark) => {
          const at = mark.getBoundingClientRect();
          return Math.max(
            Math.abs(at.left - frame.left - 1 - left),
            Math.abs(at.top - frame.top - 1 - top),
            Math.abs(at.right - frame.left - 1 - right),
            Math.abs(at.bottom - frame.top - 1 - bottom),
          );
        });
        return Math.min(...off);
      });
    },
    wanted,
    shownWidth(turn),
  );
}

/** What must hold of slips and curves wherever they stand; the curves as the browser draws them. */
const shapeOf = (page: Page) =>
  page.evaluate(() => {
    const boxes = [...document.querySelectorAll('ol > li[aria-posinset]')]
      .map((one) => one.getBoundingClientRect())
      .toSorted((x, y) => x.top - y.top);
    const svg = document.querySelector('[data-curve]')?.closest('svg')?.getBoundingClientRect();
    const curves = [...document.querySelectorAll<SVGGElement>('[data-curve]')].map((curve) => {
      const id = curve.dataset.curve ?? '';
      const path = curve.querySelector('path');
      const length = path?.getTotalLength() ?? 0;
      const at = (share: number) => path?.getPointAtLength(length * share) ?? { x: 0, y: 0 };
      const slip = document.querySelector(`[data-slip="${CSS.escape(id)}"]`)?.getBoundingClientRect();
      const marks = [...document.querySelectorAll(`[data-mark="${CSS.escape(id)}"]`)].map((mark) =>
        mark.getBoundingClientRect(),
      );
      const [from, to] = [at(0), at(1)];
      const top = svg?.top ?? 0;
      return {
        from,
        to,
        ys: Array.from({ length: 11 }, (_, i) => at(i / 10).y),
        // Level with the passage's first line, and within the slip.
        atMark:
          marks.length === 0 || (from.y + top >= marks[0].top - 2 && from.y + top <= marks[0].bottom + 2),
        atSlip: slip === undefined || (to.y + top >= slip.top - 2 && to.y + top <= slip.bottom + 2),
        bySlip:
          slip === undefined ||
          Math.min(
            Math.abs(to.x + (svg?.left ?? 0) - slip.left),
            Math.abs(to.x + (svg?.left ?? 0) - slip.right),
          ) <= 2,
      };
    });
    const ordered = curves.toSorted((x, y) => x.from.y - y.from.y || x.to.y - y.to.y);
    return {
      slips: boxes.length,
      overlaps: boxes.filter((one, i) => i > 0 && one.top < boxes[i - 1].bottom - 0.5).length,
      crossings: ordered.filter((one, i) => i > 0 && one.ys.some((y, k) => y < ordered[i - 1].ys[k] - 0.5))
        .length,
      away: curves.filter(({ atMark, atSlip, bySlip }) => !atMark || !atSlip || !bySlip).length,
    };
  });

async function toZoom(page: Page, percent: number): Promise<void> {
  const steps = [50, 67, 80, 100, 125, 150, 200, 300, 400];
  const now = await page.$eval('[role="combobox"][aria-label="How large the paper is"]', (list) => {
    const said = list.textContent;
    return said === 'Fit the width' ? 100 : Number(said.replace(' %', ''));
  });
  const by = steps.indexOf(percent) - steps.indexOf(now);
  for (let i = 0; i < Math.abs(by); i++) await page.keyboard.press(by > 0 ? '+' : '-');
  await seeChosen(page, 'How large the paper is', percent === 100 ? 'Fit the width' : `${percent} %`);
  await page.waitForSelector('[data-page="1"] [data-mark]');
}

/** Whether the remark in focus has its mark and its slip wholly in sight. */
const pairInSight = (page: Page) =>
  page.evaluate(() => {
    const slip = document.querySelector<HTMLElement>('[data-slip][aria-current="true"]');
    const frame = document.querySelector('[data-scroller]')?.getBoundingClientRect();
    const mark = document.querySelector(`[data-mark="${CSS.escape(slip?.dataset.slip ?? '')}"]`);
    const whole = (box: DOMRect | undefined) =>
      box !== undefined &&
      frame !== undefined &&
      box.top >= frame.top - 1 &&
      box.bottom <= frame.bottom + 1 &&
      box.left >= frame.left - 1 &&
      box.right <= frame.right + 1;
    return { slip: whole(slip?.getBoundingClientRect()), mark: whole(mark?.getBoundingClientRect()) };
  });

describe('geometry', () => {
  for (const turn of [90, 270] as const)
    pageTest(
      `60 remarks on a page of two columns, turned by ${turn}°, with some that stand there twice`,
      async ({ page, desk, expectFault }) => {
        expectFault(/401/);
        const { bytes, placed } = await columnsPaper({ columns: 2, turn, remarks: 60, doubled: 4 });
        await openDropped(page, desk, 'two columns.pdf', bytes);
        // The same words twice at one place are one remark.
        await seeText(page, '0 of 60');
        for (const percent of [50, 100, 400]) {
          await toZoom(page, percent);
          const off = await distances(page, placed, turn);
          expect(off.length).toBe(60);
          expect(Math.max(...off), `at ${percent} %`).toBeLessThanOrEqual(2);
          expect(await shapeOf(page), `at ${percent} %`).toMatchObject({
            overlaps: 0,
            crossings: 0,
            away: 0,
          });
        }
        await toZoom(page, 100);
        await page.setViewport({ width: 1010, height: 700 });
        await settled(page);
        expect(Math.max(...(await distances(page, placed, turn))), 'after resizing').toBeLessThanOrEqual(2);
        expect(await shapeOf(page), 'after resizing').toMatchObject({ overlaps: 0, crossings: 0, away: 0 });
        // So many fold to a line each, and the one in focus stands in full.
        await page.keyboard.press('n');
        await page.waitForSelector('[data-slip][aria-current="true"] textarea');
        expect(await page.$$eval('[data-slip][data-folded]', (slips) => slips.length)).toBeGreaterThan(5);
        await settled(page);
        expect(await shapeOf(page), 'with one in focus').toMatchObject({
          overlaps: 0,
          crossings: 0,
          away: 0,
        });
        // The pair comes into sight however many slips stand above it, and at any size.
        for (let i = 0; i < 13; i++) await page.keyboard.press('n');
        for (const percent of [100, 200]) {
          await toZoom(page, percent);
          await page.keyboard.press('n');
          await settled(page);
          expect(await pairInSight(page), `at ${percent} %`).toEqual({ slip: true, mark: true });
          expect(await shapeOf(page), `at ${percent} %`).toMatchObject({
            overlaps: 0,
            crossings: 0,
            away: 0,
          });
        }
      },
    );

  pageTest('slips on the left, and as wide as they were drawn', async ({ page, desk, expectFault }) => {
    expectFault(/401/);
    const { bytes, placed } = await columnsPaper({ columns: 3, remarks: 9 });
    await openDropped(page, desk, 'three columns.pdf', bytes);
    await chooseIn(page, 'View', 'Put the remarks on the left');
    await settled(page);
    const edges = () =>
      page.evaluate(() => {
        const slip = document.querySelector('[data-slip]')?.getBoundingClientRect();
        const paper = document.querySelector('[data-page]')?.getBoundingClientRect();
        return { slip: slip?.right ?? 0, paper: paper?.left ?? 0, width: Math.round(slip?.width ?? 0) };
      });
    const before = await edges();
    expect(before.slip).toBeLessThan(before.paper);
    expect(await shapeOf(page)).toMatchObject({ overlaps: 0, crossings: 0, away: 0 });
    const edge = await page.waitForSelector('[role="separator"]');
    const box = await edge?.boundingBox();
    if (box === null || box === undefined) throw new Error('no edge');
    await page.mouse.move(box.x + box.width / 2, 400);
    await page.mouse.down();
    await page.mouse.move(box.x + box.width / 2 - 90, 400, { steps: 4 });
    await page.mouse.up();
    await settled(page);
    expect((await edges()).width).toBe(before.width - 90);
    // By keys as well: to the left makes what stands on the left narrower.
    await edge?.focus();
    await page.keyboard.press('ArrowLeft');
    await settled(page);
    expect((await edges()).width).toBe(before.width - 114);
    await page.reload();
    await page.waitForSelector('[data-page] .textLayer span');
    await settled(page);
    const after = await edges();
    expect(after.width).toBe(before.width - 114);
    expect(after.slip).toBeLessThan(after.paper);
    expect(Math.max(...(await distances(page, placed, 0)))).toBeLessThanOrEqual(2);
    expect(await shapeOf(page)).toMatchObject({ overlaps: 0, crossings: 0, away: 0 });
  });

  pageTest(
    'a remark about three places, a table, a figure, and one without words',
    async ({ page, desk, expectFault }) => {
      expectFault(/401/);
      await openDropped(page, desk, 'odd.pdf', await oddPaper());
      await page.waitForSelector('[data-mark]');
      await settled(page);
      const shown = await page.evaluate(() => {
        const sheet = document.querySelector('[data-page]')?.getBoundingClientRect();
        return [...document.querySelectorAll<HTMLElement>('[data-slip]')].map((slip) => {
          const marks = [
            ...document.querySelectorAll(`[data-mark="${CSS.escape(slip.dataset.slip ?? '')}"]`),
          ];
          const boxes = marks.map((mark) => mark.getBoundingClientRect());
          return {
            said: slip.querySelector('p')?.textContent.slice(0, 20),
            marks: marks.length,
            onPage: boxes.every(
              (box) =>
                sheet !== undefined && box.left >= sheet.left && box.bottom <= sheet.bottom && box.height > 5,
            ),
          };
        });
      });
      expect(shown).toEqual([
        { said: 'This mark came witho', marks: 1, onPage: true },
        { said: 'Three words for one ', marks: 3, onPage: true },
        { said: expect.any(String) as unknown, marks: 1, onPage: true },
        { said: 'Units are missing in', marks: 1, onPage: true },
        { said: 'A figure without axe', marks: 1, onPage: true },
      ]);
      expect(await shapeOf(page)).toMatchObject({ overlaps: 0, crossings: 0, away: 0 });
      // A long one folds, and stays unfolded on return.
      await clickRole(page, 'button', 'Show all');
      await settled(page);
      expect(await page.$$eval('[data-slip][data-folded="true"]', (slips) => slips.length)).toBe(0);
      await page.reload();
      await page.waitForSelector('::-p-text(Fold)');
      expect(await page.$$eval('[data-slip][data-folded="true"]', (slips) => slips.length)).toBe(0);
    },
  );

  pageTest('remarks that hang on words of a Word file', async ({ page, desk, expectFault }) => {
    expectFault(/401/);
    await openDropped(page, desk, 'dams.docx', sample('dams.docx'));
    await page.waitForSelector('[data-slip]');
    // What is told of where a remark begins is where its words stand, wherever the text flows.
    for (const width of [1280, 1010]) {
      await page.setViewport({ width, height: 800 });
      await settled(page);
      const off = await page.evaluate(() => {
        const svg = document.querySelector('[data-curve]')?.closest('svg')?.getBoundingClientRect();
        return [...document.querySelectorAll<SVGGElement>('[data-curve]')].map((curve) => {
          const path = curve.querySelector('path');
          const mark = document.querySelector(`[data-mark="${CSS.escape(curve.dataset.curve ?? '')}"]`);
          const words = mark?.nextElementSibling?.getClientRects()[0];
          const from = path?.getPointAtLength(0);
          if (from === undefined || words === undefined || svg === undefined) return Infinity;
          const y = from.y + svg.top;
          return Math.max(0, words.top - y, y - words.bottom);
        });
      });
      expect(off.length).toBeGreaterThan(3);
      expect(Math.max(...off), `${width} px wide`).toBeLessThanOrEqual(2);
      expect(await shapeOf(page)).toMatchObject({ overlaps: 0, crossings: 0, away: 0 });
    }
  });
});

describe('the line where one reads', () => {
  for (const width of [1280, 1100])
    pageTest(
      `shows every station at ${width} pixels, however long the title and whatever the stations say`,
      async ({ page, desk }) => {
        await arrive(page, desk);
        await page.goto(`${desk.address}/a/policy-brief-draft/read`);
        await seeText(page, 'Put in: “');
        const line = await page.$eval('nav ol', (one) => ({
          cut: one.scrollWidth - one.clientWidth,
          title: document.querySelector('h1')?.getBoundingClientRect().width ?? 0,
        }));
        expect(line.cut).toBe(0);
        expect(line.title).toBeGreaterThan(100);
      },
      { width, height: 800 },
      ['policy-brief-draft'],
    );
});
