import type { Page } from 'puppeteer-core';
import { strToU8 } from 'fflate';
import { describe, expect, vi } from 'vitest';
import { sample } from '#formats/samples/sample.ts';
import { violationsInBoth } from './axe.ts';
import { drop, openAlone, openReading, takeIn } from './files.ts';
import { clickRole, seeText, until, pick } from './harness.ts';
import { saved } from './line.ts';
import { pageTest, PHONE } from './page-test.ts';
import { fillTheDisk, giveSmallDisk } from './storage.ts';

const named = (...names: string[]): [string, Uint8Array][] => names.map((name) => [name, sample(name)]);

/** The counts of the tally, as they are shown: channel and what is not read. */
const tally = (page: Page) =>
  page.$$eval('[aria-label="What came back, by channel"] > *', (chips) =>
    chips.map((chip) => chip.textContent.replace(/\s+/g, ' ').trim()),
  );

describe('every kind of file', () => {
  pageTest(
    'from a fresh workspace to its remarks in the tally, and out again with undo',
    async ({ page, desk, expectFault }) => {
      expectFault(/401/);
      await openAlone(page, desk);
      const text = strToU8(
        '# Leaks\n\nThe planks had shrunk. Gaps of three millimetres let the water through.',
      );
      const onText = strToU8(
        JSON.stringify({
          '@context': 'http://www.w3.org/ns/anno.jsonld',
          type: 'Annotation',
          id: 'urn:x:1',
          body: 'Cause before effect.',
          creator: 'Dr Aune Keld',
          target: { source: 'leaks.txt', selector: { type: 'TextQuoteSelector', exact: 'had shrunk' } },
        }),
      );
      const cases: [[string, Uint8Array][], string[]][] = [
        [named('kinds.pdf'), ['In the paper17 not read0 decided']],
        [named('dams.docx'), ['In the paper7 not read0 decided']],
        [named('dams-changed.odt'), ['In the paper5 not read0 decided']],
        [named('dams-plain.pdf', 'same.xfdf'), ['In the paper7 not read0 decided']],
        [named('dams-plain.pdf', 'same.jsonld'), ['In the paper7 not read0 decided']],
        [
          [
            ['leaks.txt', text],
            ['leaks.json', onText],
          ],
          ['In the paper1 not read0 decided'],
        ],
        [named('core-turned.jpg', 'core-regions.jsonld'), ['Regions4 not read0 decided']],
        [named('spoken.webm'), ['Recordings1 not read0 decided']],
        [named('spoken.ogg', 'spoken.vtt'), ['Recordings1 not read0 decided']],
      ];
      for (const [files, expected] of cases) {
        await drop(page, ...files);
        // A PDF brings the file along that is attached to it.
        const count = files.length + (files[0][0] === 'kinds.pdf' ? 1 : 0);
        if (count > 1 || files[0][0].startsWith('spoken')) await takeIn(page, count);
        await until(page, () => location.pathname.startsWith('/a/'));
        await page.waitForSelector('[aria-label="What came back, by channel"]');
        const inAll = async () => [files.map(([name]) => name), await tally(page)];
        await vi.waitFor(
          async () => expect(await inAll()).toEqual([files.map(([name]) => name), expected]),
          10_000,
        );
        await page.reload();
        await page.waitForSelector('[aria-label="What came back, by channel"]');
        await vi.waitFor(async () => expect(await tally(page)).toEqual(expected), 10_000);
        await clickRole(page, 'button', 'Undo');
        await seeText(page, 'There is no such assignment here.');
        await page.goto(desk.address);
        await seeText(page, 'Nothing here yet.');
      }
    },
  );

  pageTest('an import that fails half-way leaves nothing', async ({ page, desk, expectFault }) => {
    expectFault(/401/);
    await giveSmallDisk(page, desk);
    await openAlone(page, desk);
    await page.evaluate(fillTheDisk);
    await drop(page, ...named('dams.docx', 'core.png', 'core-regions.jsonld'));
    await takeIn(page, 3);
    await seeText(page, 'nothing was taken in');
    await clickRole(page, 'button', 'Leave it');
    await page.reload();
    await seeText(page, 'Nothing here yet.');
    await page.goto(`${desk.address}/shelf`);
    await seeText(page, 'No files yet.');
    await page.evaluate(() => indexedDB.deleteDatabase('filler'));
    await drop(page, ...named('dams.docx', 'core.png', 'core-regions.jsonld'));
    await takeIn(page, 3);
    await seeText(page, '3 files are in: 11 remarks found.');
  });
});

describe('taking in', () => {
  pageTest(
    'proposes where a file belongs, and what was said can be put right',
    async ({ page, desk, expectFault }) => {
      expectFault(/401/);
      await openAlone(page, desk);
      await drop(page, ...named('dams.docx'));
      await seeText(page, '7 remarks found');
      await drop(page, ...named('dams-plain.pdf', 'sideways.pdf'));
      await seeText(page, 'its text is much like a paper there');
      expect(await violationsInBoth(page)).toEqual([]);
      await pick(page, 'Is: dams-plain.pdf', 'what was sent');
      await takeIn(page, 2);
      await seeText(page, '2 files are in: 1 remark found.');
      // Both copies are files of one attempt; the third paper is an assignment of its own.
      await page.goto(`${desk.address}/shelf`);
      await seeText(page, 'what was sent · in dams');
      await seeText(page, 'the marked copy · in sideways');
      expect(await violationsInBoth(page)).toEqual([]);
      await clickRole(page, 'button', 'Put right sideways.pdf');
      await pick(page, 'Belongs to', 'dams');
      await page.waitForFunction(() => !document.body.textContent.includes('in sideways'));
      await clickRole(page, 'button', 'Done');
      // Two names that are one person, and somebody who is a peer.
      await pick(page, 'Lindiwe Strand is the same person as', 'Pascoe Wray');
      await pick(page, 'Role of Pascoe Wray', 'peer');
      await saved(page);
      await page.goto(desk.address);
      await (await seeText(page, 'dams')).click();
      await until(page, () => location.pathname.startsWith('/a/'));
      await page.waitForSelector('[aria-label="What came back, by channel"]');
      expect(await tally(page)).toEqual(['In the paper8 not read0 decided']);
      await openReading(page);
      await page.waitForSelector('[data-sheet="text"]');
      await until(
        page,
        () =>
          [...document.querySelectorAll('[data-slip] header')].filter((h) =>
            h.textContent.includes('Pascoe Wray'),
          ).length === 3,
      );
      await until(
        page,
        () =>
          document
            .querySelector('[data-slip] header')
            ?.parentElement?.parentElement?.parentElement?.textContent.includes('peer') === true,
      );
      await clickRole(page, 'button', '3 files');
      await page.waitForSelector('[role="menuitemradio"]');
      expect(await page.$$eval('[role="menuitemradio"]', (all) => all.map((one) => one.textContent))).toEqual(
        ['dams.docx', 'sideways.pdf', 'dams-plain.pdf'],
      );
    },
  );

  pageTest(
    'asks for a password, keeps a copy without, and knows the file again',
    async ({ page, desk, expectFault }) => {
      expectFault(/401/);
      await openAlone(page, desk);
      await drop(page, ...named('locked.pdf'));
      await seeText(
        page,
        '“locked.pdf” is locked with a password. Type it here, or save a copy without one and drop that.',
      );
      await page.keyboard.type('heath');
      await page.keyboard.press('Enter');
      await seeText(page, 'That is not the password of “locked.pdf”.');
      await page.keyboard.type('peat');
      await page.keyboard.press('Enter');
      await seeText(page, '1 remark found');
      await until(page, () => location.pathname.startsWith('/a/'));
      await page.reload();
      await openReading(page);
      await page.waitForSelector('[data-page="1"] canvas');
      await seeText(page, 'At which well?');
      await page.goto(desk.address);
      await seeText(page, 'Came back');
      await seeText(page, 'locked');
      await drop(page, ...named('locked.pdf'));
      await seeText(page, 'is locked with a password');
      await page.keyboard.press('Escape');
      await seeText(page, '“locked.pdf” is locked with a password. Type it here');
      await page.goto(`${desk.address}/shelf`);
      await seeText(page, 'Save a copy');
      expect(await page.$$('::-p-text(Save a copy)')).toHaveLength(1);
    },
  );

  pageTest(
    'takes remarks that are pasted, and lets a student place what was not found',
    async ({ page, desk, expectFault }) => {
      expectFault(/401/);
      await openAlone(page, desk);
      await drop(page, ...named('dams.docx'));
      await seeText(page, '7 remarks found');
      const annotation = {
        '@context': 'http://www.w3.org/ns/anno.jsonld',
        type: 'Annotation',
        id: 'urn:x:lost',
        body: 'Who wrote them down?',
        creator: 'Dr Aune Keld',
        target: {
          source: 'dams.docx',
          selector: { type: 'TextQuoteSelector', exact: 'words that are not there' },
        },
      };
      await page.evaluate((text) => {
        const clipboardData = new DataTransfer();
        clipboardData.setData('text/plain', text);
        document.body.dispatchEvent(new ClipboardEvent('paste', { clipboardData, bubbles: true }));
      }, JSON.stringify(annotation));
      await takeIn(page, 1);
      await seeText(page, 'is in: 1 remark found.');
      await openReading(page);
      await seeText(page, 'Not placed yet: 1 remark');
      await seeText(page, 'It names “words that are not there”.');
      await clickRole(page, 'button', 'Put it on the selected words');
      await seeText(page, 'Select the words in the paper first.');
      await page.evaluate(() => {
        const piece = [...document.querySelectorAll('[data-from]')].find((one) =>
          one.textContent.includes('wrote the levels down'),
        );
        const node = piece?.firstChild;
        if (node === null || node === undefined) return;
        const at = node.textContent?.indexOf('wrote the levels') ?? 0;
        getSelection()?.setBaseAndExtent(node, at, node, at + 'wrote the levels'.length);
      });
      await clickRole(page, 'button', 'Put it on the selected words');
      await seeText(page, 'The remark hangs on these words now.');
      await page.waitForFunction(() => document.querySelectorAll('[data-sheet] [data-mark]').length === 8);
      await page.reload();
      await page.waitForFunction(() => document.querySelectorAll('[data-sheet] [data-mark]').length === 8);
      await clickRole(page, 'button', 'Undo');
      await seeText(page, 'Not placed yet: 1 remark');
    },
  );
});

describe('a PDF', () => {
  pageTest(
    'says which marks it also holds that can’t be shown, and draws those of another file',
    async ({ page, desk, expectFault }) => {
      expectFault(/401/);
      await openAlone(page, desk);
      await drop(page, ...named('kinds.pdf'));
      await takeIn(page, 2);
      await openReading(page);
      await page.waitForSelector('[data-page="1"] canvas');
      await seeText(page, 'marks of a kind that can’t be shown here (compass)');
      await until(page, () => document.querySelectorAll('[data-slip]').length === 17);
      await seeText(page, 'This mark came without words.');
      const xfdf = strToU8(
        '<?xml version="1.0"?><xfdf><f href="kinds.pdf"/><annots><ink page="0" rect="60,300,120,340" title="Pascoe Wray"><contents>Round again</contents><inklist><gesture>60,300;90,340;120,300</gesture></inklist></ink></annots></xfdf>',
      );
      await drop(page, ['ink.xfdf', xfdf]);
      await takeIn(page, 1);
      await seeText(page, '“ink.xfdf” is in: 1 remark found.');
      await openReading(page);
      await seeText(page, 'Round again');
      await page.waitForSelector('[data-page="1"] svg polyline');
    },
  );
});

describe('a picture', () => {
  pageTest('takes a remark where a box is drawn for it', async ({ page, desk, expectFault }) => {
    expectFault(/401/);
    await openAlone(page, desk);
    await drop(page, ...named('core.png', 'core-regions.jsonld'));
    await takeIn(page, 2);
    await openReading(page);
    await seeText(page, 'Not placed yet: 1 remark');
    expect(await violationsInBoth(page)).toEqual([]);
    await clickRole(page, 'button', 'Draw where it belongs');
    const sheet = await (await page.waitForSelector('[role="application"]'))?.boundingBox();
    const { x, y } = sheet ?? { x: 0, y: 0 };
    const top = Math.max(y, 420);
    await page.mouse.move(x + 60, top + 40);
    await page.mouse.down();
    await page.mouse.move(x + 180, top + 100, { steps: 4 });
    await page.mouse.up();
    await page.waitForFunction(() => document.querySelectorAll('[data-page] [data-mark]').length === 4);
    await page.reload();
    await page.waitForFunction(() => document.querySelectorAll('[data-page] [data-mark]').length === 4);
    await clickRole(page, 'button', 'Undo');
    await seeText(page, 'Not placed yet: 1 remark');
  });
});

describe('a paper without pages', () => {
  pageTest(
    'shows its changes, as it reads with them and as it read before, by keys',
    async ({ page, desk, expectFault }) => {
      expectFault(/401/);
      await openAlone(page, desk);
      await drop(page, ...named('dams-changed.docx'));
      await seeText(page, '5 remarks found');
      await openReading(page);
      await page.waitForSelector('[data-sheet="text"] [data-mark]');
      const shown = () =>
        page.$eval('[data-sheet="text"]', (sheet) =>
          [...sheet.querySelectorAll('[data-from]')].map((one) => one.textContent).join(''),
        );
      expect(await shown()).toContain('The wardens walked the line each Friday');
      await page.keyboard.press('n');
      await seeText(page, 'Put in: “of dry weather”');
      await page.keyboard.press('k');
      await until(page, () => document.body.textContent.includes('Decide 1 of 5'));
      expect(await violationsInBoth(page)).toEqual([]);
      await pick(page, 'Show the text', 'As it reads with them');
      await page.waitForFunction(
        () => !document.querySelector('[data-sheet="text"]')?.textContent.includes('walked the line'),
      );
      expect(await shown()).toContain('noted the levels');
      await pick(page, 'Show the text', 'As it read before');
      await page.waitForFunction(() =>
        document.querySelector('[data-sheet="text"]')?.textContent.includes('walked the line'),
      );
      expect(await shown()).not.toContain('of dry weather');
      // Each mark has its slip, and the curve of the one in focus ends at both.
      const ends = await page.evaluate(() => {
        const mark = document.querySelector('[data-mark]');
        const id = mark?.getAttribute('data-mark') ?? '';
        const slip = document.querySelector(`[data-slip="${CSS.escape(id)}"]`)?.getBoundingClientRect();
        const path = document.querySelector(`[data-curve="${CSS.escape(id)}"] path`)?.getBoundingClientRect();
        const at = mark?.getBoundingClientRect();
        return {
          right: Math.abs((path?.right ?? 0) - (slip?.left ?? 99)),
          level: Math.abs((path?.top ?? 0) - (at?.top ?? 999)),
        };
      });
      expect(ends.right).toBeLessThan(3);
      expect(ends.level).toBeLessThan(40);
    },
  );

  pageTest(
    'fits a phone, with the slip as a sheet below',
    async ({ page, desk, expectFault }) => {
      expectFault(/401/);
      await openAlone(page, desk);
      await drop(page, ...named('dams.docx'));
      await seeText(page, '7 remarks found');
      await openReading(page);
      await page.waitForSelector('[data-sheet="text"] [data-mark]');
      await page.$eval('[data-mark]', (mark) => (mark as HTMLElement).click());
      await seeText(page, 'Which two? Name them here.');
      expect(await page.evaluate(() => document.querySelector('main')?.scrollWidth ?? 0)).toBeLessThanOrEqual(
        390,
      );
      expect(await violationsInBoth(page)).toEqual([]);
    },
    PHONE,
  );

  pageTest(
    'a recording counts as read when it was played to its end',
    async ({ page, desk, expectFault }) => {
      expectFault(/401/);
      await openAlone(page, desk);
      await drop(page, ...named('spoken.mp3', 'spoken.vtt'));
      await takeIn(page, 2);
      await seeText(page, '2 files are in: 1 remark found.');
      await openReading(page);
      await seeText(page, 'But the legend is missing');
      await page.waitForFunction(() => (document.querySelector('audio')?.duration ?? 0) > 5);
      await page.$eval('audio', (audio) => {
        audio.muted = true;
        audio.currentTime = audio.duration - 0.3;
        return audio.play();
      });
      await until(page, () => document.body.textContent.includes('Read 1 of 1'));
      expect(await violationsInBoth(page)).toEqual([]);
    },
  );
});
