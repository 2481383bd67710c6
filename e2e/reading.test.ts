import type { Page } from 'puppeteer-core';
import { describe, expect } from 'vitest';
import { seeText, signIn, until, type Desk } from './harness.ts';
import { pageTest, PHONE } from './page-test.ts';

async function openPaper(page: Page, desk: Desk): Promise<void> {
  await signIn(page, desk);
  await page.goto(`${desk.address}/a/skarn-moss-report/read`);
  await page.waitForSelector('[data-page="1"] canvas');
  await page.waitForSelector('[data-slip]');
}

function focusedSlip(page: Page): Promise<string | null> {
  return page
    .$eval('[data-slip][aria-current="true"]', (slip) => slip.getAttribute('data-slip'))
    .catch(() => null);
}

describe('Read', () => {
  pageTest(
    'a slip leads to its passage and a passage to its slip, by mouse and by keys',
    async ({ page, desk }) => {
      await openPaper(page, desk);
      const ids = await page.$$eval('[data-slip]', (slips) =>
        slips.map((slip) => slip.getAttribute('data-slip') ?? ''),
      );
      // Only slips near are drawn; a screen reader is told of all.
      expect(ids.length).toBeLessThan(38);
      expect(await page.$eval('[aria-setsize]', (slip) => slip.getAttribute('aria-setsize'))).toBe('38');
      await (await page.waitForSelector(`[data-mark="${ids[2]}"]`))?.click();
      await until(
        page,
        (id) => document.querySelector('[aria-current="true"]')?.getAttribute('data-slip') === id,
        ids[2],
      );
      const curveStands = (id: string) =>
        until(
          page,
          (wanted) =>
            document.querySelector(`[data-curve="${wanted}"]`)?.classList.contains('stroke-ink') === true,
          id,
        );
      await (await page.waitForSelector(`[data-mark="${ids[1]}"]`))?.hover();
      await curveStands(ids[1]);
      await (await page.waitForSelector(`[data-slip="${ids[3]}"] p`))?.hover();
      await curveStands(ids[3]);
      await page.keyboard.press('n');
      await until(
        page,
        (id) => document.querySelector('[aria-current="true"]')?.getAttribute('data-slip') === id,
        ids[3],
      );
      await page.keyboard.press('p');
      await until(
        page,
        (id) => document.querySelector('[aria-current="true"]')?.getAttribute('data-slip') === id,
        ids[2],
      );
      await (await page.waitForSelector(`[data-slip="${ids[1]}"] p`))?.click();
      await until(
        page,
        (id) => document.querySelector('[aria-current="true"]')?.getAttribute('data-slip') === id,
        ids[1],
      );
      expect(new URL(page.url()).searchParams.get('remark')).toBe(ids[1]);
      await page.reload();
      await page.waitForSelector('[data-slip][aria-current="true"]');
      expect(await focusedSlip(page)).toBe(ids[1]);
    },
  );

  pageTest('each mark lies on its words, and each curve ends at both', async ({ page, desk }) => {
    await openPaper(page, desk);
    const id = await page.$$eval('[data-slip]', (slips) => slips[1].getAttribute('data-slip') ?? '');
    await page.waitForSelector('[data-page="1"] .textLayer span');
    const measured = await page.evaluate((remark) => {
      const marks = [...document.querySelectorAll(`[data-mark="${remark}"]`)].map((m) =>
        m.getBoundingClientRect(),
      );
      const spans = [...document.querySelectorAll('[data-page="1"] .textLayer span')];
      const last = spans.find((span) => span.textContent.startsWith('again.'))?.getBoundingClientRect();
      const slip = document.querySelector(`[data-slip="${remark}"]`)?.getBoundingClientRect();
      const curve = document.querySelector<SVGPathElement>(`[data-curve="${remark}"] path`);
      const svg = curve?.ownerSVGElement?.getBoundingClientRect();
      const start = curve?.getPointAtLength(0);
      const end = curve?.getPointAtLength(curve.getTotalLength());
      if (!last || !slip || !svg || !start || !end) return null;
      return {
        markLeft: marks[1].left,
        markMiddle: (marks[1].top + marks[1].bottom) / 2,
        textLeft: last.left,
        textMiddle: (last.top + last.bottom) / 2,
        firstMiddle: (marks[0].top + marks[0].bottom) / 2,
        startY: svg.top + start.y,
        endX: svg.left + end.x,
        endY: svg.top + end.y,
        slip: { left: slip.left, top: slip.top, bottom: slip.bottom },
      };
    }, id);
    if (measured === null) throw new Error('the remark about the summary is not all there');
    expect(Math.abs(measured.markLeft - measured.textLeft)).toBeLessThanOrEqual(2);
    expect(Math.abs(measured.markMiddle - measured.textMiddle)).toBeLessThanOrEqual(3);
    expect(Math.abs(measured.startY - measured.firstMiddle)).toBeLessThanOrEqual(3);
    expect(Math.abs(measured.endX - measured.slip.left)).toBeLessThanOrEqual(2);
    expect(measured.endY).toBeGreaterThan(measured.slip.top);
    expect(measured.endY).toBeLessThan(measured.slip.bottom);
  });

  pageTest('holding a key down reads nothing and decides nothing', async ({ page, desk }) => {
    await openPaper(page, desk);
    // Holding n steps through the whole paper; nothing stays in view long enough.
    await page.keyboard.down('n');
    for (let i = 0; i < 25; i++) await page.keyboard.down('n');
    await page.keyboard.up('n');
    await page.keyboard.down('d');
    for (let i = 0; i < 4; i++) await page.keyboard.down('d');
    await page.keyboard.up('d');
    await until(page, () => document.querySelectorAll('[data-slip] [aria-pressed="true"]').length === 1);
    await until(page, () =>
      /Decide\s*1 of 52/.test(
        document.querySelector('nav[aria-label="The line of this assignment"]')?.textContent ?? '',
      ),
    );
    const line = await page.$eval('nav[aria-label="The line of this assignment"]', (nav) => nav.textContent);
    // The one that was decided counts as read, and at most the one the stepping ended on beside it.
    expect(Number(/Read\s*(\d+) of/.exec(line)?.[1])).toBeLessThanOrEqual(2);
  });

  pageTest(
    'read is toggled by hand, undone, and single keys never act in a field',
    async ({ page, desk }) => {
      await openPaper(page, desk);
      await page.keyboard.press('n');
      await page.waitForSelector('[data-slip][aria-current="true"] textarea');
      await page.keyboard.press('r');
      await seeText(page, 'Mark as not read');
      await page.keyboard.press('r');
      await seeText(page, 'Mark as read');
      await (await page.waitForSelector('[data-slip][aria-current="true"] textarea'))?.click();
      await page.keyboard.type('and quickly');
      await until(
        page,
        () => document.querySelector('header [role="status"]')?.textContent.startsWith('Saved') === true,
      );
      await page.reload();
      await page.waitForSelector('[data-slip][aria-current="true"] textarea');
      expect(await page.$eval('[data-slip][aria-current="true"] textarea', (field) => field.value)).toBe(
        'and quickly',
      );
      expect(await page.$('[data-slip] [aria-pressed="true"]')).toBeNull();
    },
  );

  pageTest('the rubric with its levels and the overall words are there', async ({ page, desk }) => {
    await openPaper(page, desk);
    await (await page.waitForSelector('[role="tab"]::-p-text(Criteria)'))?.click();
    await seeText(page, 'Claims go beyond the results in several places.');
    await seeText(page, 'Claim less, explain more.');
    await seeText(page, '10 remarks elsewhere on it');
    await (await page.waitForSelector('[role="tab"]::-p-text(Overall)'))?.click();
    await seeText(page, 'I would be glad to see a second attempt.');
  });

  pageTest(
    'on a phone the slip is a sheet below the paper',
    async ({ page, desk }) => {
      await openPaperOnPhone(page, desk);
      await (
        await page.waitForSelector(
          'section[aria-label="Remarks in the paper"] button[aria-label="Next remark"]',
        )
      )?.click();
      await seeText(page, '1 of 38');
      await (await page.waitForSelector('[data-mark]:nth-of-type(2)'))?.tap();
      await page.waitForSelector('section[aria-label="Remarks in the paper"] [data-slip]');
      const wide = await page.evaluate(() => document.documentElement.scrollWidth);
      expect(wide).toBeLessThanOrEqual(390);
    },
    PHONE,
  );
});

async function openPaperOnPhone(page: Page, desk: Desk): Promise<void> {
  await signIn(page, desk);
  await page.goto(`${desk.address}/a/skarn-moss-report/read`);
  await page.waitForSelector('[data-page="1"] canvas');
}
