import { TimeoutError, type ElementHandle, type Page } from 'puppeteer-core';
import { clickRole, seeText, type Desk } from './harness.ts';
import { saved } from './line.ts';

/** What a student does beside a draft. */

/** So often a slip is asked for: each time the list has moved, that is enough and more. */
const MOST_TRIES = 4;

/** Decides to act on these remarks, found by what they say, and begins the draft from the marked paper. */
export async function beginWithActs(
  page: Page,
  desk: Desk,
  id: string,
  remarks: readonly string[],
): Promise<void> {
  await page.goto(`${desk.address}/a/${id}/decide`);
  for (const words of remarks) {
    await findRemark(page, words);
    await page.keyboard.press('a');
    await page.waitForSelector('main [aria-label="Decide about this remark"] [aria-pressed="true"]');
    await saved(page);
  }
  await page.goto(`${desk.address}/a/${id}/revise`);
  await clickRole(page, 'button', 'Begin the new draft');
  await page.waitForSelector('[aria-label="Text of the draft"] p');
}

/** Goes on at Decide to the remark that says this. */
export async function findRemark(page: Page, words: string): Promise<void> {
  await page.waitForSelector('::-p-aria([name="Act"][role="button"])');
  for (let n = 0; n < 60; n++) {
    const isShown = await page.$eval('main', (main, text) => main.textContent.includes(text), words);
    if (isShown) return;
    const before = await page.$eval('main h2', (title) => title.textContent);
    await page.keyboard.press('n');
    await page.waitForFunction(
      (title) => document.querySelector('main h2')?.textContent !== title,
      { polling: 50 },
      before,
    );
  }
  throw new Error(`no remark says “${words}”`);
}

/** Puts the cursor of the draft behind some words, or chooses them. */
export async function atWords(page: Page, words: string, how: 'behind' | 'chosen'): Promise<void> {
  // One tab at a time writes: until this one may, the draft can only be read.
  await page.waitForSelector('[aria-label="Text of the draft"][contenteditable="true"]');
  await seeText(page, words.slice(0, 30));
  await page.$eval(
    '[aria-label="Text of the draft"]',
    (editor, text, chosen) => {
      const walker = document.createTreeWalker(editor, NodeFilter.SHOW_TEXT);
      const block = [...editor.querySelectorAll('p, h1, h2, h3, h4')].find((one) =>
        one.textContent.includes(text),
      );
      if (block === undefined) throw new Error(`no “${text}” in the draft`);
      const start = block.textContent.indexOf(text);
      const range = document.createRange();
      let at = 0;
      walker.currentNode = block;
      for (let node = walker.nextNode(); node !== null && block.contains(node); node = walker.nextNode()) {
        const { length } = node.textContent ?? '';
        if (start >= at && start < at + length) range.setStart(node, start - at);
        if (start + text.length > at && start + text.length <= at + length) {
          range.setEnd(node, start + text.length - at);
          break;
        }
        at += length;
      }
      if (!chosen) range.collapse(false);
      block.scrollIntoView({ block: 'center' });
      (editor as HTMLElement).focus();
      getSelection()?.removeAllRanges();
      getSelection()?.addRange(range);
    },
    words,
    how === 'chosen',
  );
  // The editor hears of it with the next frame.
  await page.evaluate(() => new Promise(requestAnimationFrame));
}

/** Types behind some words of the draft, and waits until it is kept. */
export async function typeBehind(page: Page, words: string, text: string): Promise<void> {
  await atWords(page, words, 'behind');
  await page.keyboard.type(text);
  await saved(page);
}

/** The slip of a remark beside the draft, in focus. */
export async function openSlip(page: Page, words: string): Promise<ElementHandle> {
  const open = `aside li:has([aria-expanded="true"]) ::-p-text(${words})`;
  // The list is put in order again as the text and what answers it come in; a click may fall beside the slip then.
  for (let tries = 0, isOpen = false; tries < MOST_TRIES && !isOpen; tries++) {
    await page.locator(`aside li ::-p-text(${words})`).click();
    isOpen = await page
      .waitForSelector(open, { timeout: 5_000 })
      .then(() => true)
      .catch((error: unknown) => {
        if (error instanceof TimeoutError) return false;
        throw error;
      });
  }
  const found = await page.waitForSelector('aside li:has([aria-expanded="true"])');
  if (found === null) throw new Error(`no slip says “${words}”`);
  return found;
}
