import type { Page } from 'puppeteer-core';
import { expect, vi } from 'vitest';
import { violationsInBoth } from './axe.ts';
import { arrive, chooseIn, clickRole, openStation, seeText, until, type Desk } from './harness.ts';
import { pressByKeys, tabTo } from './keys.ts';
import { toArrivals } from './line.ts';
import { pageTest, PHONE } from './page-test.ts';

/** A quiz taken again at the desk, from Juncture and back, by keyboard alone. */

const MINUTE = 60_000;

const sittingsAt = (desk: Desk) => desk.folder.state.sittings;
const attemptsAt = (desk: Desk) =>
  desk.folder.state.facts.flatMap((fact) =>
    fact.kind === 'attempt' && fact.value.assignmentId === 'quiz-flow' ? [fact.value] : [],
  );

/** Goes from Arrivals to the desk's page of the quiz, with the keyboard, and reloads on the way. */
async function toQuiz(page: Page, desk: Desk): Promise<void> {
  await toArrivals(page, desk, 'Quiz: flow through peat');
  await pressByKeys(page, /^Quiz: flow through peat/);
  await until(page, () => location.pathname === '/a/quiz-flow');
  for (const station of ['Read', 'Revise', 'Check', 'Send']) {
    await pressByKeys(page, new RegExp(`^${station}\\b`));
    await until(page, (end) => location.pathname.endsWith(`/${end}`), station.toLowerCase());
    await page.reload();
    await page.waitForSelector('nav[aria-label="The line of this assignment"]');
  }
  await seeText(page, 'This will be attempt 3 of 3');
  await seeText(page, 'Another attempt can move the course by');
  await pressByKeys(page, 'Go to the quiz');
  await until(page, () => location.pathname === '/desk/quizzes/quiz-flow');
}

async function goOn(page: Page, to: number | 'review'): Promise<void> {
  await pressByKeys(page, /^Keep and /);
  await until(page, (end) => location.pathname.endsWith(`/${end}`), String(to));
}

async function choose(page: Page, label: string, option: string): Promise<void> {
  await tabTo(page, label, 'combobox');
  await page.keyboard.type(option);
}

for (const [where, size] of [
  ['', { width: 1280, height: 800 }],
  [' at 390 × 844', PHONE],
] as const)
  pageTest(
    `a quiz is taken again by keyboard alone, kept over a reload, marked, and read${where}`,
    async ({ page, desk }) => {
      await arrive(page, desk);
      await toQuiz(page, desk);
      await seeText(page, '12 questions, 12 points.');
      expect(await violationsInBoth(page)).toEqual([]);
      await pressByKeys(page, 'Begin attempt 3');
      await seeText(page, 'Question 1 of 12');
      expect(await violationsInBoth(page)).toEqual([]);
      await tabTo(page, 'Your answer', 'textbox');
      await page.keyboard.type('0.02');
      await seeText(page, 'Your answer is kept.');
      await page.reload();
      await until(
        page,
        () => document.querySelector<HTMLInputElement>('input[name="answer"]')?.value === '0.02',
      );
      await goOn(page, 2);
      await tabTo(page, /metres$/, 'radio');
      await page.keyboard.press('ArrowDown');
      await goOn(page, 3);
      await tabTo(page, /^in the humified layer/, 'radio');
      await page.keyboard.press('ArrowDown');
      await goOn(page, 4);
      await tabTo(page, 'Your answer', 'textbox');
      await page.keyboard.type(
        'The pouring stirs the water and fills the gap around the pipe, so it falls too fast at first.',
      );
      await goOn(page, 5);
      await tabTo(page, 'Your answer', 'textbox');
      await page.keyboard.type('80');
      await goOn(page, 6);
      await goOn(page, 7);
      for (const name of ['more humification', 'compaction after draining', 'silt washed into the pores']) {
        await tabTo(page, name, 'checkbox');
        await page.keyboard.press('Space');
      }
      await goOn(page, 8);
      await choose(page, 'Read the level at set times while it falls', 'place 3');
      await choose(page, 'Let the well come to rest and read its level', 'place 1');
      await choose(page, 'Plot the logarithm of the height against time', 'place 4');
      await choose(page, 'Pour in water, quickly', 'place 2');
      expect(await violationsInBoth(page)).toEqual([]);
      await goOn(page, 9);
      await choose(page, 'hydraulic head', 'metres');
      await choose(page, 'gradient', 'none');
      await goOn(page, 10);
      await tabTo(page, 'Your answer', 'textbox');
      await page.keyboard.type('darcy');
      // Enter goes on, not back.
      await page.keyboard.press('Enter');
      await seeText(page, 'Question 11 of 12');
      await pressByKeys(page, 'Look over and end');
      await seeText(page, '3 questions are not answered.');
      expect(await violationsInBoth(page)).toEqual([]);
      await page.reload();
      await pressByKeys(page, 'End and hand in');
      await seeText(page, 'Attempt 3 is handed in');
      await pressByKeys(page, 'Back to Juncture');
      await seeText(page, 'Receipt');
      desk.clock.advance(20_000);
      const marking = await vi.waitFor(
        () => {
          const found = desk.folder.state.facts.flatMap((fact) =>
            fact.kind === 'marking' && fact.value.attemptId === attemptsAt(desk)[2].id ? [fact.value] : [],
          );
          expect(found).toHaveLength(2);
          return found[1];
        },
        { timeout: 15_000 },
      );
      // 1 + 0.5 + 0.5 + 1.5 + 1 + 0 + 0.75 + 1 + 0.5 + 1.
      expect(marking.score).toBe('7.75');
      await page.reload();
      await seeText(page, 'Before and after');
      await seeText(page, 'newly lost');
      await openStation(page, 'Read');
      // The attempt that counts comes first; the new one is told beside it with what it got.
      await chooseIn(page, 'Attempt 2: 10 of 12', 'Attempt 3: 7.75 of 12');
      await seeText(page, 'Total: 7.75 of 12 points.');
      await seeText(page, 'Questions that lost points come first.');
    },
    size,
    ['quiz-flow'],
  );

pageTest(
  'a quiz whose time runs out in mid-answer with its tab closed counts with what was answered',
  async ({ page, desk, context }) => {
    await arrive(page, desk);
    await toQuiz(page, desk);
    await clickRole(page, 'button', 'Begin attempt 3');
    await seeText(page, 'Question 1 of 12');
    const taking = await context.newPage();
    await taking.goto(page.url());
    await taking.bringToFront();
    await taking.type('input[name="answer"]', '0.02');
    await until(
      taking,
      () => document.querySelector<HTMLInputElement>('input[name="answer"]')?.value === '0.02',
    );
    // Closed before a button was pressed: what was typed is kept all the same.
    await taking.close({ runBeforeUnload: true });
    await vi.waitFor(() => expect(sittingsAt(desk)[0].answers['darcy-1']).toEqual(['0.02']), 10_000);
    await page.goto(`${desk.address}/a/quiz-flow/send`);
    desk.clock.advance(31 * MINUTE);
    await seeText(page, 'Receipt');
    await vi.waitFor(() => expect(attemptsAt(desk)).toHaveLength(3), 10_000);
    expect(attemptsAt(desk)[2].at).toBe(sittingsAt(desk)[0].endsAt);
    await seeText(page, '10 of 12 count under the rules.');
    await page.goto(`${desk.address}/desk/quizzes/quiz-flow`);
    await seeText(page, 'All 3 attempts at this assignment have been used.');
  },
  undefined,
  ['quiz-flow'],
);

pageTest(
  'a quiz in two tabs is one sitting, and says in the other that it has ended',
  async ({ page, desk, context }) => {
    await arrive(page, desk);
    await toQuiz(page, desk);
    await clickRole(page, 'button', 'Begin attempt 3');
    await seeText(page, 'Question 1 of 12');
    const other = await context.newPage();
    await other.bringToFront();
    await other.goto(`${desk.address}/desk/quizzes/quiz-flow`);
    await clickRole(other, 'button', 'Go on');
    await until(other, (path) => location.pathname === path, new URL(page.url()).pathname);
    await clickRole(other, 'button', 'Look over and end');
    await clickRole(other, 'button', 'End and hand in');
    await seeText(other, 'Attempt 3 is handed in');
    await page.bringToFront();
    await clickRole(page, 'button', 'Keep and go on');
    await seeText(page, 'Attempt 3 is handed in');
    expect(attemptsAt(desk)).toHaveLength(3);
  },
  undefined,
  ['quiz-flow'],
);
