import type { ElementHandle, Page } from 'puppeteer-core';
import { describe, expect } from 'vitest';
import { violationsInBoth } from './axe.ts';
import { openMarked, type Mark } from './marked.ts';
import { arrive, chooseIn, clickRole, pick, seeText, until } from './harness.ts';
import { saved } from './line.ts';
import { pageTest } from './page-test.ts';

/** Putting right what remarks say, their parts, the key of a hand, machine remarks, and the words of the trade. */

function slipOf(page: Page, text: string): Promise<ElementHandle | null> {
  return page.waitForSelector(`::-p-xpath(//*[@data-slip][contains(., "${text}")])`);
}

/** What is said on the head of the slip with these words. */
async function headOf(page: Page, text: string): Promise<string> {
  const slip = await slipOf(page, text);
  return (await slip?.evaluate((one) => one.querySelector('header')?.textContent ?? '')) ?? '';
}

async function focus(page: Page, text: string): Promise<void> {
  await (await slipOf(page, text))?.click();
  await page.waitForSelector(`::-p-xpath(//*[@data-slip][@aria-current="true"][contains(., "${text}")])`);
}

const undo = async (page: Page) => {
  await page.keyboard.down('Control');
  await page.keyboard.press('z');
  await page.keyboard.up('Control');
  await seeText(page, 'Undone: ');
};

describe('what is put right', () => {
  pageTest(
    'shows in the author’s other remarks, with the reason, and goes with undo',
    async ({ page, desk, expectFault }) => {
      expectFault(/401/);
      await openMarked(page, desk, [
        { by: 'Lindiwe Strand', text: 'The frost once more.' },
        { by: 'Lindiwe Strand', text: 'The level again.' },
        { by: 'Lindiwe Strand', text: 'The planks again.' },
      ]);
      await seeText(page, 'perhaps fix');
      for (const text of ['The frost once more.', 'The level again.']) {
        expect(await headOf(page, 'The planks again.')).toContain('fix');
        await focus(page, text);
        await pick(page, 'What it says', 'plain note');
        await saved(page);
      }
      await focus(page, 'The planks again.');
      await seeText(page, 'As you put right twice for Lindiwe Strand.');
      expect(await headOf(page, 'The planks again.')).toContain('perhaps plain note');
      await page.reload();
      await seeText(page, 'As you put right twice for Lindiwe Strand.');
      await undo(page);
      await until(page, () => !document.body.textContent.includes('As you put right twice'));
      await focus(page, 'The planks again.');
      expect(await headOf(page, 'The planks again.')).toContain('fix');
    },
  );
});

describe('a spoken comment', () => {
  pageTest('is split in three, each decided by itself, and makes three tasks', async ({ page, desk }) => {
    await arrive(page, desk);
    await page.goto(`${desk.address}/a/skarn-moss-report/read?material=recordings`);
    await page.waitForSelector('[data-slip] [data-says]');
    await focus(page, 'this is Aune Keld');
    // What was proposed is joined to one first, then cut where the student hears a new thing begin.
    await clickRole(page, 'button', 'Split or join');
    const begins = () =>
      page.$$eval('[aria-label="Where parts begin"] [aria-pressed="true"]', (list) => list.length);
    while ((await begins()) > 0) {
      const before = await begins();
      await (await page.waitForSelector('[aria-label="Where parts begin"] [aria-pressed="true"]'))?.click();
      await until(
        page,
        (count) =>
          document.querySelectorAll('[aria-label="Where parts begin"] [aria-pressed="true"]').length <
          Number(count),
        String(before),
      );
    }
    for (const [word, nth] of [
      ['So', 0],
      ['and', 2],
    ] as const) {
      const starts = await page.$$(`[aria-label="A part begins with “${word}”"]`);
      await starts[Math.min(nth, starts.length - 1)].click();
      await saved(page);
    }
    await clickRole(page, 'button', 'Done');
    await seeText(page, '3 things in it');
    // One key goes through the parts, another decides.
    for (let part = 1; part <= 3; part++) {
      await page.keyboard.press('s');
      await until(
        page,
        (wanted) =>
          document.querySelector('[role="radio"][aria-checked="true"]')?.textContent.startsWith(wanted) ===
          true,
        `${part} `,
      );
      await page.keyboard.press('a');
      await saved(page);
    }
    await page.reload();
    await until(page, () => document.querySelectorAll('[data-says*="Act"]').length === 3);
    await page.goto(`${desk.address}/a/skarn-moss-report/plan`);
    await until(page, () => document.querySelectorAll('[data-task]').length === 3);
    const titles = await page.$$eval('[data-task] textarea', (fields) => fields.map(({ value }) => value));
    expect(new Set(titles).size).toBe(3);
    await (await seeText(page, 'part 3 of 3')).click();
    await seeText(page, 'how much of the rise on the northern transect');
    await page.goto(`${desk.address}/a/skarn-moss-report/read?material=recordings`);
    await page.waitForSelector('[data-slip]');
    await undo(page);
    await page.goto(`${desk.address}/a/skarn-moss-report/plan`);
    await until(page, () => document.querySelectorAll('[data-task]').length === 2);
  });

  pageTest('leads to the section that it names', async ({ page, desk }) => {
    await arrive(page, desk);
    await page.goto(`${desk.address}/a/skarn-moss-report/read?material=recordings`);
    await focus(page, 'this is Aune Keld');
    await seeText(page, 'section three point two');
    await (await page.waitForSelector('::-p-aria([name="Go there"])'))?.click();
    await until(page, () => new URLSearchParams(location.search).get('material') === 'paper');
    await page.waitForSelector('[data-page] .textLayer span');
    await seeText(page, '1 of 1');
    expect(await page.$eval('[role="search"] input', (field) => field.value)).toContain(
      'The southern transect',
    );
  });
});

describe('the key of a hand', () => {
  pageTest(
    'is learnt from what the author says, confirmed, and used on a mark without words',
    async ({ page, desk }) => {
      await arrive(page, desk);
      await page.goto(`${desk.address}/a/skarn-moss-report/read?material=paper`);
      const bare = 'This mark came without words.';
      await page.waitForSelector('[data-slip]');
      await clickRole(page, 'button', 'Filter');
      await pick(page, 'Colour', 'amber (16)');
      await clickRole(page, 'button', 'List');
      const lineSays = (stance: string) =>
        page.waitForSelector(`::-p-xpath(//li[contains(., "${bare}")][contains(., "${stance}")])`);
      await lineSays('question');
      await page.waitForSelector('[aria-label="The place of the mark"]');
      await page.goto(`${desk.address}/marks`);
      const amber = '[data-key="color amber"]';
      await page.waitForSelector(amber);
      await seeText(page, 'The author says so.');
      expect(await page.$eval(`${amber} input`, (field) => field.value)).toBe('evidence');
      expect(await violationsInBoth(page)).toEqual([]);
      const confirm = await page.waitForSelector(`${amber} ::-p-aria([name="Confirm"])`);
      await confirm?.click();
      await saved(page);
      await page.waitForSelector(`${amber} ::-p-text(Confirmed)`);
      await page.goto(`${desk.address}/a/skarn-moss-report/read?material=paper`);
      await lineSays('fix');
      await page.waitForSelector(
        '::-p-aria([name="Colour"][role="combobox"]) ::-p-text(amber \\(evidence\\))',
      );
      await (await page.waitForSelector(`a ::-p-text(${bare})`))?.click();
      await page.waitForSelector('[data-slip][aria-current="true"]');
      await seeText(page, 'By the key of Dr Aune Keld: evidence.');
      expect(await headOf(page, bare)).toContain('fix');
      await page.keyboard.press('a');
      await saved(page);
      await page.goto(`${desk.address}/a/skarn-moss-report/plan`);
      await until(page, () =>
        [...document.querySelectorAll('[data-task] textarea')].some(
          (field) => (field as HTMLTextAreaElement).value === 'Give evidence for this',
        ),
      );
      await page.goto(`${desk.address}/marks`);
      await page.waitForSelector(amber);
      await undo(page);
      await page.waitForSelector(`${amber} ::-p-text(Proposed)`);
    },
  );

  pageTest(
    'opens what a term of the trade means, the student’s own too',
    async ({ page, desk, expectFault }) => {
      expectFault(/401/);
      await openMarked(page, desk, [
        { by: 'Pascoe Wray', text: 'This is a comma splice, on a moorlog.' },
        { by: 'Pascoe Wray', text: 'Fine.' },
      ]);
      await page.goto(`${desk.address}/marks`);
      await clickRole(page, 'button', 'Add a term');
      await page.type('::-p-aria([name="Word or abbreviation"])', 'moorlog');
      await page.type('::-p-aria([name="What it means"])', 'Our word for the field book.');
      const add = await page.waitForSelector('form button[type="submit"]');
      await add?.click();
      await saved(page);
      await page.goBack();
      await focus(page, 'on a moorlog');
      await clickRole(page, 'button', 'comma splice');
      await seeText(page, 'Two whole sentences joined by a comma alone.');
      await page.keyboard.press('Escape');
      await clickRole(page, 'button', 'moorlog');
      await seeText(page, 'Our word for the field book.');
    },
  );
});

describe('machine remarks', () => {
  const marks: Mark[] = [
    ...Array.from({ length: 5 }, (_, i) => ({
      by: 'Grammar checker',
      subject: 'COMMA_SPLICE',
      text: `Two sentences meet at a comma here, place ${i + 1}.`,
    })),
    { by: 'Dr Aune Keld', text: 'Say how you measured this.' },
  ];

  pageTest(
    'stand folded by rule, are counted, lead to their rule, and may be hidden',
    async ({ page, desk, expectFault }) => {
      expectFault(/401/);
      await openMarked(page, desk, marks);
      const slips = () => page.$$eval('[data-slip]', (list) => list.length);
      const line = () =>
        page.$eval('nav[aria-label="The line of this assignment"]', (stations) => stations.textContent);
      await until(page, () => document.querySelectorAll('[data-slip]').length === 2);
      expect(await line()).toMatch(/Read\s*0 of 6/);
      await clickRole(page, 'button', '5 by this rule');
      await until(page, () => document.querySelectorAll('[data-slip]').length === 6);
      await focus(page, 'place 1.');
      await seeText(page, 'Rule: COMMA_SPLICE');
      await seeText(page, 'Two sentences and a comma');
      await page.keyboard.press('q');
      await saved(page);
      await clickRole(page, 'button', 'Fold this rule');
      await until(page, () => document.querySelectorAll('[data-slip]').length === 2);
      await focus(page, 'Say how you measured');
      await chooseIn(page, 'View', 'Machine remarks');
      await until(page, () => document.querySelectorAll('[data-slip]').length === 1);
      expect(await line()).toMatch(/of 6.*of 6/);
      expect(await slips()).toBe(1);
      await page.reload();
      await until(page, () => document.querySelectorAll('[data-slip]').length === 1);
      // Nobody answers for a program: without an instructor the question stays with the file’s own author of remarks.
      await page.goto(`${desk.address}/ask`);
      await until(page, () => !document.body.textContent.includes('Dear Grammar checker'));
    },
  );
});
