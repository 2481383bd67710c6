import { strToU8 } from 'fflate';
import type { Page } from 'puppeteer-core';
import { sample } from '#formats/samples/sample.ts';
import { drop, openAlone, openReading } from './files.ts';
import { clickRole, seeText, until, type Desk } from './harness.ts';

export interface Mark {
  readonly by: string;
  readonly text: string;
  readonly subject?: string;
}

/** Marks on a plain PDF in a file of their own, one below the other. */
function xfdfOf(marks: readonly Mark[]): Uint8Array {
  const annots = marks.map(({ by, text, subject }, i) => {
    const top = 720 - i * 60;
    const at = `56,${top},140,${top},56,${top - 14},140,${top - 14}`;
    return `<highlight page="0" rect="56,${top - 14},140,${top}" coords="${at}" color="#F5D940" name="m-${i}" title="${by}" ${subject === undefined ? '' : `subject="${subject}"`}><contents>${text}</contents></highlight>`;
  });
  return strToU8(
    `<?xml version="1.0" encoding="UTF-8"?><xfdf xmlns="http://ns.adobe.com/xfdf/"><f href="dams-plain.pdf"/><annots>${annots.join('')}</annots></xfdf>`,
  );
}

/** Takes a plain PDF in with such marks, and opens it to be read. */
export async function openMarked(page: Page, desk: Desk, marks: readonly Mark[]): Promise<void> {
  await openAlone(page, desk);
  await drop(page, ['dams-plain.pdf', sample('dams-plain.pdf')], ['marks.xfdf', xfdfOf(marks)]);
  await seeText(page, 'Where does this belong?');
  await clickRole(page, 'button', 'Take in 2 files');
  await until(page, () => location.pathname.startsWith('/a/'));
  await openReading(page);
  await page.waitForSelector('[data-slip]');
}
