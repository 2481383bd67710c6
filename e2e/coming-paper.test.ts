import { describe, expect } from 'vitest';
import { largePdf } from '../bench/large-pdf.ts';
import { violationsInBoth } from './axe.ts';
import { drop, openAlone, openReading } from './files.ts';
import { clickRole, seeText, until } from './harness.ts';
import { pageTest, PHONE } from './page-test.ts';
import { fillTheDisk, giveSmallDisk } from './storage.ts';

const NAME = 'Long paper.pdf';
const shownPage = (number: number) => `[data-page="${number}"]:has(canvas[data-drawn]):has(.textLayer span)`;

describe('a long paper', () => {
  pageTest(
    'is read while its remarks are looked for, and at the same page with them',
    async ({ page, desk, expectFault }) => {
      expectFault(/401/);
      await openAlone(page, desk);
      await drop(page, [NAME, await largePdf(240, 480)]);
      await page.waitForSelector(shownPage(1));
      expect(new URL(page.url()).pathname).toBe('/coming-in');
      await seeText(page, 'The remarks are being looked for');
      // The keys that scroll work at once.
      await page.keyboard.press('PageDown');
      await page.keyboard.press('PageDown');
      await page.keyboard.press('PageDown');
      await page.waitForSelector(shownPage(3));
      const left = await page.$eval('[data-page="3"]', (element) => element.getBoundingClientRect().left);
      await until(page, () => document.querySelector('[data-slip]') !== null);
      await seeText(page, '480 remarks found');
      await until(page, () => location.pathname.endsWith('/read'));
      await page.waitForSelector(shownPage(3));
      // It stands where it stood.
      expect(await page.$eval('[data-page="3"]', (element) => element.getBoundingClientRect().left)).toBe(
        left,
      );
      const number = await page.$eval('[data-page="3"]', (element) => {
        const { top, bottom } = element.getBoundingClientRect();
        return top < innerHeight && bottom > 0;
      });
      expect(number).toBe(true);
      await page.waitForSelector('[data-page="3"] [data-mark]');
      // The way back leads to where it was dropped, not to the place that only led on.
      await page.goBack();
      await until(page, () => location.pathname === '/');
      await seeText(page, 'Long paper');
    },
  );

  pageTest('is given up where it is shown, and nothing of it stays', async ({ page, desk, expectFault }) => {
    expectFault(/401/);
    await openAlone(page, desk);
    await page.goto(`${desk.address}/shelf`);
    await seeText(page, 'Shelf');
    await drop(page, [NAME, await largePdf(240, 480)]);
    await page.waitForSelector(shownPage(1));
    expect(await violationsInBoth(page)).toEqual([]);
    await clickRole(page, 'button', 'Cancel');
    await until(page, () => location.pathname === '/shelf');
    await seeText(page, `“${NAME}” was not taken in.`);
    await page.goto(`${desk.address}/coming-in`);
    await seeText(page, 'No paper is coming in.');
    await clickRole(page, 'link', 'To Arrivals');
    await seeText(page, 'Nothing here yet.');
  });

  pageTest(
    'goes on being read when its place is left',
    async ({ page, desk, expectFault }) => {
      expectFault(/401/);
      await openAlone(page, desk);
      await drop(page, [NAME, await largePdf(240, 480)]);
      await page.waitForSelector(shownPage(1));
      // Also on a phone it can be given up here.
      await page.waitForSelector('main ::-p-aria([name="Cancel"][role="button"])');
      await page.goBack();
      await until(page, () => location.pathname === '/');
      await seeText(page, `Reading “${NAME}”`);
      await until(page, () => location.pathname.startsWith('/a/'));
      await seeText(page, '480 remarks found');
    },
    PHONE,
  );

  pageTest('that the disk has no room for is left as it was', async ({ page, desk, expectFault }) => {
    expectFault(/401/);
    await giveSmallDisk(page, desk);
    await openAlone(page, desk);
    await page.evaluate(fillTheDisk);
    await drop(page, [NAME, await largePdf(120, 240)]);
    await page.waitForSelector(shownPage(1));
    await seeText(page, 'nothing was taken in');
    await until(page, () => location.pathname === '/');
    await seeText(page, 'Nothing here yet.');
  });
});

pageTest('a paper is read to its end when the reader dies half-way', async ({ page, desk, expectFault }) => {
  expectFault(/401/);
  expectFault(/broken on purpose/);
  await openAlone(page, desk);
  await drop(page, [NAME, await largePdf(240, 480)]);
  await page.waitForFunction(
    () => Number(document.querySelector('[role="progressbar"]')?.getAttribute('aria-valuenow')) > 20,
  );
  const reader = page.workers().find((worker) => worker.url().includes('reader.worker'));
  await reader?.evaluate(() => {
    setTimeout(() => {
      throw new Error('broken on purpose');
    });
  });
  await seeText(page, '480 remarks found');
  await page.waitForSelector('[data-slip]');
});

pageTest('a paper is read to its end when another is given up', async ({ page, desk, expectFault }) => {
  expectFault(/401/);
  await openAlone(page, desk);
  const first = await largePdf(240, 480);
  const second = await largePdf(200, 400);
  await drop(page, ['First.pdf', first]);
  await page.waitForSelector(shownPage(1));
  await drop(page, ['Second.pdf', second]);
  await seeText(page, '“Second.pdf” comes in');
  // A notice stays for some seconds only: it is waited for before what brings it about.
  const told = seeText(page, '“First.pdf” was not taken in.');
  // The first one is told of in a notice now.
  await until(page, () => {
    const notices = [...document.querySelectorAll<HTMLElement>('li[data-sonner-toast]')];
    const own = notices.find(({ textContent }) => textContent.includes('Reading “First.pdf”'));
    const cancel = own?.querySelector<HTMLElement>('button[data-cancel]');
    cancel?.click();
    return cancel !== undefined && cancel !== null;
  });
  await told;
  await seeText(page, '400 remarks found');
  await page.waitForSelector('[data-slip]');
  await clickRole(page, 'link', 'Shelf');
  await seeText(page, 'Second.pdf');
  expect(await page.$eval('main', (main) => main.textContent.includes('First.pdf'))).toBe(false);
});

pageTest('a short paper comes in without a place of its own', async ({ page, desk, expectFault }) => {
  expectFault(/401/);
  await openAlone(page, desk);
  const places: string[] = [];
  page.on('framenavigated', (frame) => places.push(new URL(frame.url()).pathname));
  await drop(page, ['Short paper.pdf', await largePdf(20, 40)]);
  await seeText(page, '40 remarks found');
  await until(page, () => location.pathname.startsWith('/a/'));
  expect(places).not.toContain('/coming-in');
  // A long one that joins it is read on where one is, even where a list or the text was open.
  await openReading(page);
  await page.waitForSelector('[data-slip]');
  await clickRole(page, 'button', 'As text');
  await page.waitForSelector('[data-sheet="text"]');
  await clickRole(page, 'button', 'List');
  await until(page, () => document.querySelector('[data-slip]') === null);
  await drop(page, [NAME, await largePdf(40, 80)]);
  await clickRole(page, 'button', 'Take it in');
  await page.waitForSelector('[data-slip]');
  await page.waitForSelector(shownPage(1));
});
