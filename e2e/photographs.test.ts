import { createCanvas } from '@napi-rs/canvas';
import { mkdtemp, readdir, readFile, rm, writeFile } from 'node:fs/promises';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import type { ElementHandle, Page } from 'puppeteer-core';
import { expect, vi } from 'vitest';
import { openPdf } from '#formats/pdf/open-pdf.ts';
import { readMarkedPdf } from '#formats/pdf/read-marked-pdf.ts';
import { arrive, clickRole, openStation, seeText, until } from './harness.ts';
import { pressByKeys, tabTo } from './keys.ts';
import { pageTest } from './page-test.ts';

/** A photograph of a page of writing that lies on its side; `soft`: held badly. */
function photograph(soft: boolean): Buffer {
  const canvas = createCanvas(1400, 1000);
  const pen = canvas.getContext('2d');
  pen.fillStyle = '#6b5b45';
  pen.fillRect(0, 0, 1400, 1000);
  if (soft) pen.filter = 'blur(7px)';
  pen.fillStyle = '#fbfaf5';
  pen.fillRect(90, 70, 1220, 860);
  pen.fillStyle = '#222';
  for (let line = 0; line < 26; line++)
    for (let letter = 0; letter < 46; letter++)
      if ((line * 7 + letter * 5) % 6 !== 0) pen.fillRect(130 + line * 44, 110 + letter * 17, 26, 9);
  return canvas.toBuffer('image/jpeg');
}

/** What a screen reader is told while a row is moved. */
const told = (page: Page, words: string) =>
  until(page, (wanted) => document.body.textContent.includes(wanted), words);

const inOrder = (page: Page, ...order: string[]) =>
  until(
    page,
    (wanted) =>
      [...document.querySelectorAll('button[aria-pressed]')]
        .map((one) => one.textContent.trim().split(' ')[0])
        .filter((name) => name.endsWith('.jpg'))
        .join() === wanted,
    order.join(),
  );

async function sizeShown(page: Page): Promise<'upright' | 'across'> {
  return page.$eval('[role="dialog"] img', (image) =>
    image.naturalWidth < image.naturalHeight ? 'upright' : 'across',
  );
}

pageTest(
  'photographs of pages are turned, cut, put in order by keys and by hand, looked at for sharpness and joined',
  async ({ page, desk }) => {
    const folder = await mkdtemp(join(tmpdir(), 'juncture-photographs-'));
    await writeFile(join(folder, 'first.jpg'), photograph(false));
    await writeFile(join(folder, 'second.jpg'), photograph(true));
    await arrive(page, desk);
    const client = await page.createCDPSession();
    await client.send('Page.setDownloadBehavior', { behavior: 'allow', downloadPath: folder });
    await page.goto(`${desk.address}/a/core-log/revise`);
    const input = (await page.waitForSelector(
      'input[type="file"][multiple]',
    )) as ElementHandle<HTMLInputElement>;
    await input.uploadFile(join(folder, 'first.jpg'), join(folder, 'second.jpg'));
    await inOrder(page, 'first.jpg', 'second.jpg');
    // Only the one that was held badly is spoken of.
    await seeText(page, 'Looks soft: small writing may be hard to read.');
    expect(await page.$$('::-p-text(Looks soft)')).toHaveLength(1);

    // By keys.
    await tabTo(page, 'Move “second.jpg”');
    await page.keyboard.press('Space');
    await told(page, 'second.jpg is now at place 2 of 2.');
    // Rows are measured after one is taken; a key before that moves nothing, and is pressed again.
    await vi.waitFor(async () => {
      await page.keyboard.press('ArrowUp');
      expect(await page.evaluate(() => document.body.textContent)).toContain(
        'second.jpg is now at place 1 of 2.',
      );
    });
    await page.keyboard.press('Space');
    await inOrder(page, 'second.jpg', 'first.jpg');
    await page.reload();
    await inOrder(page, 'second.jpg', 'first.jpg');
    // By hand.
    const [grip, other] = await Promise.all(
      ['second', 'first'].map((name) => page.waitForSelector(`::-p-aria(Move “${name}.jpg”)`)),
    );
    const [from, to] = [await grip?.boundingBox(), await other?.boundingBox()];
    if (from == null || to == null) throw new Error('no handles');
    await page.mouse.move(from.x + 8, from.y + 8);
    await page.mouse.down();
    await page.mouse.move(to.x + 8, to.y + 4, { steps: 8 });
    await page.mouse.move(to.x + 8, to.y + 14, { steps: 8 });
    await page.mouse.up();
    await inOrder(page, 'first.jpg', 'second.jpg');

    // Turned, and cut by the edges.
    await pressByKeys(page, 'Turn or cut “first.jpg”');
    await page.waitForSelector('[role="dialog"] img');
    expect(await sizeShown(page)).toBe('across');
    await pressByKeys(page, 'Turn right');
    await until(page, () => {
      const image = document.querySelector<HTMLImageElement>('[role="dialog"] img');
      return image !== null && image.naturalHeight === 1400 && image.naturalWidth === 1000;
    });
    await tabTo(page, 'Upper edge', 'slider');
    for (let n = 0; n < 10; n++) await page.keyboard.press('ArrowRight');
    await pressByKeys(page, 'Cut to the box');
    await until(
      page,
      () => document.querySelector<HTMLImageElement>('[role="dialog"] img')?.naturalHeight === 1260,
    );
    await pressByKeys(page, 'Done');
    await page.reload();
    await inOrder(page, 'first.jpg', 'second.jpg');

    await clickRole(page, 'button', 'Join 2 pictures into one PDF');
    await seeText(page, 'Page 1 of 2');
    // Undo brings the pictures back, and it is joined again.
    await clickRole(page, 'button', 'Undo');
    await inOrder(page, 'first.jpg', 'second.jpg');
    await clickRole(page, 'button', 'Join 2 pictures into one PDF');
    await seeText(page, 'Page 1 of 2');
    await openStation(page, 'Send');
    await seeText(page, 'What the rules say');
    // The notice of what was undone goes with a reload.
    await page.reload();
    await clickRole(page, 'button', 'Look at it: Drawn log of core SM-2, pages.pdf');
    await seeText(page, 'Page 1 of 2');
    await clickRole(page, 'button', 'Close');
    await clickRole(page, 'button', 'Send to the course desk');
    await (await page.waitForSelector('[role="dialog"] button::-p-text(Send to the course desk)'))?.click();
    await seeText(page, 'Save the receipt as PDF');
    const sent = desk.folder.state.facts.flatMap((fact) =>
      fact.kind === 'attempt' && fact.value.receipt !== null ? fact.value.files : [],
    );
    const joined = sent.find(({ mediaType }) => mediaType === 'application/pdf');
    const bytes = new Uint8Array(await readFile(desk.folder.pathOfFile(joined?.hash ?? '') ?? ''));
    const pdf = await openPdf(bytes, null);
    const sizes = [];
    for (const number of [1, 2]) {
      const { width, height } = (await pdf.getPage(number)).getViewport({ scale: 1 });
      sizes.push(width < height ? 'upright' : 'across');
    }
    expect([pdf.numPages, ...sizes]).toEqual([2, 'upright', 'across']);
    const { info } = await pdf.getMetadata();
    expect(info).toMatchObject({ Title: 'Drawn log of core SM-2', Language: 'en-GB' });
    await pdf.destroy();
    // The receipt as a PDF, with the very fingerprints of what was sent.
    await clickRole(page, 'button', 'Save the receipt as PDF');
    const receipt = await vi.waitFor(
      async () => {
        const name = (await readdir(folder)).find((one) => one.endsWith('.pdf'));
        return new Uint8Array(await readFile(join(folder, name ?? 'none yet')));
      },
      { timeout: 20_000 },
    );
    const { paper } = await readMarkedPdf(receipt, null);
    for (const { hash, name } of sent) {
      expect(paper.text.replaceAll(/\s/g, '')).toContain(hash);
      expect(paper.text).toContain(name);
    }
    await rm(folder, { recursive: true, force: true });
  },
  undefined,
  ['core-log'],
);
