import { describe, expect } from 'vitest';
import type { Page } from 'puppeteer-core';
import { clickRole, openStation, REPORT, seeChecked, seeText, signIn, until, type Desk } from './harness.ts';
import { pageTest } from './page-test.ts';

async function openDecide(page: Page, desk: Desk): Promise<void> {
  await signIn(page, desk);
  await page.goto(`${desk.address}/a/skarn-moss-report/decide`);
  await seeText(page, 'Remark 1 of 52');
}

/** The decision that is pressed for the remark in view. */
const pressed = (page: Page, decision: string) =>
  until(
    page,
    (wanted) => document.querySelector('main [aria-pressed="true"]')?.textContent.includes(wanted) === true,
    decision,
  );

describe('the ask list', () => {
  pageTest(
    'keeps questions by person, in own words, to be copied and ticked off',
    async ({ page, desk, context }) => {
      await context.setPermission(
        desk.address,
        { permission: { name: 'clipboard-read' }, state: 'granted' },
        { permission: { name: 'clipboard-write' }, state: 'granted' },
      );
      await openDecide(page, desk);
      await page.keyboard.press('n');
      await seeText(page, 'Remark 2 of 52');
      await page.keyboard.press('q');
      await pressed(page, 'Ask');
      await (await page.waitForSelector('main textarea'))?.type('May I give the two rises as a table?');
      await until(
        page,
        () => document.querySelector('header [role="status"]')?.textContent.startsWith('Saved') === true,
      );
      await (await seeText(page, '1 to ask')).click();
      await seeText(page, 'Dr Aune Keld');
      const field = await page.waitForSelector('textarea[aria-label="Your question"]');
      expect(await field?.evaluate((element) => element.value)).toBe('May I give the two rises as a table?');
      await field?.click();
      await page.keyboard.press('End');
      await page.keyboard.type(' Or in words?');
      await clickRole(page, 'button', 'Copy as text');
      await seeText(page, 'Copied.');
      const copied = await page.evaluate(() => navigator.clipboard.readText());
      expect(copied).toContain('Dear Dr Aune Keld,');
      expect(copied).toContain(`About “${REPORT}”:`);
      expect(copied).toContain('1. May I give the two rises as a table? Or in words?');
      expect(copied).toContain('you wrote: “A summary should end on what you found.');
      await page.reload();
      await (await page.waitForSelector('main [role="checkbox"]'))?.click();
      await seeText(page, '0 to ask');
      await page.reload();
      await seeText(page, '0 to ask');
      expect(await page.$eval('main [role="checkbox"]', (box) => box.getAttribute('aria-checked'))).toBe(
        'true',
      );
    },
  );
});

describe('Decide', () => {
  pageTest('takes one key each, withdraws by the same key, and sums up', async ({ page, desk }) => {
    await openDecide(page, desk);
    for (const [key, decision] of [
      ['a', 'Act'],
      ['k', 'Keep doing'],
      ['d', 'Decline'],
      ['q', 'Ask'],
    ] as const) {
      await page.keyboard.press(key);
      await pressed(page, decision);
      expect(await page.$$('main [aria-pressed="true"]')).toHaveLength(1);
    }
    await page.keyboard.press('q');
    await until(page, () => document.querySelector('main [aria-pressed="true"]') === null);
    await clickRole(page, 'button', 'Summary');
    await seeText(page, '52 remarks left to decide.');
    await (await page.waitForSelector('main li button'))?.click();
    await seeText(page, 'Remark 1 of 52');
    expect(new URL(page.url()).searchParams.get('remark')).toContain('keld-30');
  });

  pageTest('stays at the remark that one looks at when another is taken back', async ({ page, desk }) => {
    await openDecide(page, desk);
    await page.keyboard.press('a');
    await pressed(page, 'Act');
    await clickRole(page, 'button', 'Next remark');
    await seeText(page, 'Remark 2 of 52');
    await page.keyboard.down('Control');
    await page.keyboard.press('z');
    await page.keyboard.up('Control');
    await seeText(page, 'Undone: decided “Act”, on “');
    await seeText(page, 'Remark 2 of 52');
    await page.keyboard.down('Control');
    await page.keyboard.press('y');
    await page.keyboard.up('Control');
    await seeText(page, 'Done again: decided “Act”, on “');
    await seeText(page, 'Remark 2 of 52');
    await clickRole(page, 'button', 'Previous remark');
    await pressed(page, 'Act');
  });

  pageTest('is taken back step by step, also after a reload', async ({ page, desk }) => {
    await openDecide(page, desk);
    await page.keyboard.press('a');
    await pressed(page, 'Act');
    await page.keyboard.press('c');
    await until(page, () => document.querySelectorAll('main [aria-pressed="true"]').length === 2);
    await page.reload();
    await until(page, () => document.querySelectorAll('main [aria-pressed="true"]').length === 2);
    await clickRole(page, 'button', 'Undo');
    await seeText(page, 'Undone: carry mark, on “');
    await clickRole(page, 'button', 'Undo');
    await seeText(page, 'Undone: decided “Act”, on “');
    await clickRole(page, 'button', 'Undo');
    await seeText(page, 'There is nothing to undo here.');
    await seeText(page, 'no tasks yet');
  });
});

describe('Arrivals and the assignment', () => {
  pageTest(
    'finished work looks finished, and what was marked as read can be unread again',
    async ({ page, desk }) => {
      await signIn(page, desk);
      await (await seeText(page, 'Lab activity: reading a dip well')).click();
      await seeText(page, 'Finished: no other attempt, nothing to hand in');
      const line = await page.$eval(
        'nav[aria-label="The line of this assignment"]',
        (nav) => nav.textContent,
      );
      expect(line.match(/not needed/g)).toHaveLength(4);
      await clickRole(page, 'button', 'Mark all as read');
      await seeText(page, '3 read');
      await page.goBack();
      await seeText(page, 'all 4 remarks read');
      await seeText(page, '1 assignment with 52 remarks not read yet.');
      expect(await page.title()).toBe('(52) Arrivals · Juncture');
      await (await seeText(page, 'Lab activity: reading a dip well')).click();
      await seeText(page, '3 read');
      await clickRole(page, 'button', 'Undo');
      await seeText(page, 'Undone: all marked as read.');
      await seeText(page, '3 not read');
    },
  );

  pageTest('every state is told by facts', async ({ page, desk }) => {
    await signIn(page, desk);
    for (const fact of [
      'up to 34 of 40 points, from 28.5',
      'sent Fri 30 Oct 20:47',
      'due Sun 8 Nov 23:59 for others, Tue 10 Nov 23:59 for you; nothing sent',
      'opens Fri 6 Nov 09:00',
    ])
      await seeText(page, fact);
    await page.goto(`${desk.address}/a/stand-survey`);
    await seeText(page, 'Sent Fri 30 Oct 20:47, not marked yet');
    await seeText(page, 'Nothing has come back yet.');
    await page.goto(`${desk.address}/a/no-such-assignment`);
    await seeText(page, 'There is no such assignment here.');
    await page.goto(`${desk.address}/no/such/place`);
    await seeText(page, 'Came back');
  });
});

describe('Check', () => {
  pageTest('takes a tick without a changed passage for no answer', async ({ page, desk }) => {
    await openDecide(page, desk);
    await page.keyboard.press('n');
    await seeText(page, 'Remark 2 of 52');
    await page.keyboard.press('a');
    await pressed(page, 'Act');
    await openStation(page, 'Revise');
    await clickRole(page, 'button', 'Begin the new draft');
    await page.waitForSelector('[data-outcome="untouched"]');
    await (await page.waitForSelector('aside [role="checkbox"]'))?.click();
    await seeText(page, '1 of 1 done');
    await openStation(page, 'Check');
    await seeText(page, 'Ticked, but nothing says what answers it (1)');
    await seeText(page, 'The draft reads exactly like the marked version.');
    await seeText(page, '2838 words, asked: 2000 to 3300');
    await (await seeText(page, 'A summary should end on what you found.')).click();
    const summary = await page.waitForSelector(
      '[aria-label="Text of the draft"] p::-p-text(healthy bog again)',
    );
    await summary?.click({ count: 3 });
    await page.keyboard.type('The water table rose by 118 mm.');
    await page.waitForSelector('[data-outcome="reworded"], [data-outcome="gone"], [data-outcome="unsure"]');
    // Where so much went and so little came, the student says that it is the answer, once all that was typed is seen.
    await page.waitForSelector('aside ::-p-text(rose by 118 mm)');
    await clickRole(page, 'button', 'Take');
    await page.waitForSelector('aside li ::-p-text(rose by 118 mm”)');
    await openStation(page, 'Check');
    await page.waitForSelector('ins::-p-text(rose by 118 mm)');
    await until(page, () => !document.body.textContent.includes('nothing says what answers it'));
  });
});

describe('Settings', () => {
  pageTest('keep theme, text size and keys, and let a student leave', async ({ page, desk, expectFault }) => {
    expectFault(/401/);
    await signIn(page, desk);
    await page.goto(`${desk.address}/settings`);
    await (await page.waitForSelector('label ::-p-text(dark)'))?.click();
    await until(page, () => document.documentElement.dataset.theme === 'dark');
    await clickRole(page, 'radio', 'off');
    await seeChecked(page, 'radio', 'off');
    await page.goto(`${desk.address}/a/skarn-moss-report/decide`);
    await seeText(page, 'Remark 1 of 52');
    await page.keyboard.press('a');
    await clickRole(page, 'button', 'Next remark');
    await seeText(page, 'Remark 2 of 52');
    await seeText(page, '0 of 52');
    await until(page, () => document.documentElement.dataset.theme === 'dark');
    await page.goto(`${desk.address}/settings`);
    await seeChecked(page, 'radio', 'off');
    // What is set is taken back here, and done again.
    await page.keyboard.down('Control');
    await page.keyboard.press('z');
    await seeChecked(page, 'radio', 'on');
    await page.keyboard.press('y');
    await page.keyboard.up('Control');
    await seeChecked(page, 'radio', 'off');
    await clickRole(page, 'button', 'Sign out');
    await seeText(page, 'Sign in at your course desk');
    await page.reload();
    await seeText(page, 'Sign in at your course desk');
    await signIn(page, desk);
  });
});
