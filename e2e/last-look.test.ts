import { expect } from 'vitest';
import { violationsInBoth } from './axe.ts';
import { openDropped } from './files.ts';
import { clickRole, openStation, seeText, settled, until } from './harness.ts';
import { saved } from './line.ts';
import { pageTest, PHONE } from './page-test.ts';

/** The last look: a line leads to its place, is mended and gone; another is let be, with its reason. */

const PAPER = `# Dams on the common

The water table rose behind the dams (Hask, 2018; Abery and Lunt, 2011). The colour of the peat was noted, and the the depth was read. it was recieved well. Nothing more was said of the color.

Table 1 shows the depths. The first dam stood at 12 mm.

Table 1. Depths in mm

| Dam | Depth |
| --- | --- |
| First | 21 |
| Second | 18 |

# References

Hask, L. (2018) A first season. Mire Letters 2, 1-9.
`;

pageTest(
  'a line leads to its place, is mended and gone; another is let be with a reason',
  async ({ page, desk, expectFault }) => {
    expectFault(/401/);
    await openDropped(page, desk, 'Dams.md', new TextEncoder().encode(PAPER));
    await openStation(page, 'Revise');
    await clickRole(page, 'button', 'Begin the new draft');
    await page.waitForSelector('[contenteditable="true"]');
    await settled(page);
    await saved(page);
    await openStation(page, 'Check');
    await seeText(page, '6 lines to look at again');
    for (const line of [
      '“(Hask, 2018; Abery and Lunt, 2011)” is cited',
      'The text has 12, the table 21.',
      '“recieved” is in no dictionary.',
      '“the the”: a word twice.',
      '“it” begins a sentence with a small letter.',
    ])
      await seeText(page, line);
    expect(await violationsInBoth(page)).toEqual([]);
    await clickRole(page, 'button', 'What may be meant: recieved');
    await seeText(page, 'Perhaps received');
    // To its place, mended, and back: it is gone.
    await clickRole(page, 'link', '“the the”: a word twice.');
    await page.waitForSelector('.followed-focus ::-p-text(the the)');
    await page.evaluate(() => {
      const mark = document.querySelector('.followed-focus')?.firstChild;
      const selection = getSelection();
      if (mark === null || mark === undefined) return;
      document.querySelector<HTMLElement>('[contenteditable="true"]')?.focus();
      selection?.setBaseAndExtent(mark, 0, mark, 4);
    });
    await page.keyboard.press('Delete');
    await saved(page);
    await clickRole(page, 'button', 'Mark the last look');
    await page.waitForSelector('.looked-at[title*="recieved"]');
    await clickRole(page, 'link', 'Back to the last look');
    await seeText(page, '5 lines to look at again');
    await until(page, () => !document.body.textContent.includes('a word twice'));
    await clickRole(page, 'button', 'Let it be: “recieved” is in no dictionary.');
    const field = await page.waitForSelector('[role="dialog"] input');
    await field?.type('As the letter has it.');
    await clickRole(page, 'button', 'Let it be');
    await seeText(page, '4 lines to look at again');
    await saved(page);
    await page.reload();
    await clickRole(page, 'button', 'Let be (1)');
    await seeText(page, 'As the letter has it.');
    await clickRole(page, 'button', 'Look at it again: “recieved” is in no dictionary.');
    await seeText(page, '5 lines to look at again');
    await clickRole(page, 'button', 'It is a word of mine: recieved');
    await seeText(page, '4 lines to look at again');
    // What is asked can be said as a brief would say it.
    await clickRole(page, 'button', 'Add what is asked …');
    const asked = await page.waitForSelector('[role="dialog"] input');
    await asked?.type('At least three sources');
    await clickRole(page, 'button', 'Add it');
    await seeText(page, 'Not there: at least 3 sources (1 here).');
    await page.setViewport(PHONE);
    await settled(page);
    const wide = await page.evaluate(() => document.querySelector('main')?.scrollWidth ?? 0);
    expect(wide).toBeLessThanOrEqual(PHONE.width);
  },
);
