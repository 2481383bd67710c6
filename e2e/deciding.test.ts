import { expect } from 'vitest';
import { violationsInBoth } from './axe.ts';
import { arrive, clickRole, openStation, seeText, until } from './harness.ts';
import { saved } from './line.ts';
import { openMarked } from './marked.ts';
import { pageTest } from './page-test.ts';

/** Deciding with what is proposed, several at once, and after a question was answered. */

const REPORT = 'skarn-moss-report';
const machine = (text: string) => ({ by: 'Sentence checker', text, subject: 'comma splice' });

pageTest(
  'remarks are decided as proposed, alike ones together, by keys alone, and undone in one step',
  async ({ page, desk, expectFault }) => {
    expectFault(/401/);
    await openMarked(page, desk, [
      { by: 'Pascoe Wray', text: 'Give the units of the water table depth.' },
      machine('Two sentences are joined by a comma.'),
      { by: 'Pascoe Wray', text: 'The water table depth needs its units.' },
      machine('A comma joins two sentences here.'),
      machine('Comma between two sentences.'),
      { by: 'Pascoe Wray', text: 'Well said!' },
    ]);
    await openStation(page, 'Decide');
    await seeText(page, 'Remark 1 of 6');
    await seeText(page, 'Proposed: Act, since it says:');
    await page.keyboard.press('y');
    await until(
      page,
      () => document.querySelector('main [aria-pressed="true"]')?.textContent.startsWith('Act') === true,
    );
    await seeText(page, 'calls for the same.');
    await seeText(page, 'Act, both');
    expect(await violationsInBoth(page)).toEqual([]);
    await page.keyboard.press('e');
    await seeText(page, '4 remarks left to decide');
    await saved(page);
    // One thing to do, though two remarks ask for it; taken back in one step, and done again.
    await page.keyboard.down('Control');
    await page.keyboard.press('z');
    await page.keyboard.up('Control');
    await seeText(page, '5 remarks left to decide');
    await page.keyboard.press('e');
    await seeText(page, '4 remarks left to decide');
    await saved(page);
    await page.reload();
    await seeText(page, '4 remarks left to decide');
    // A rule decided twice the same tells how it is taken.
    for (const decline of ['2', '4']) {
      await page.keyboard.press('.');
      await seeText(page, `Remark ${decline} of 6`);
      await page.keyboard.press('d');
      await saved(page);
    }
    await page.keyboard.press('.');
    await seeText(page, 'Remark 5 of 6');
    await seeText(page, 'since you decided so 2 times about “comma splice”');
    await page.keyboard.press('y');
    await seeText(page, '1 remark left to decide');
    await openStation(page, 'Plan');
    await until(page, () => document.querySelectorAll('[data-task]').length === 1);
    await seeText(page, 'remark 3');
  },
);

pageTest(
  'a question that was answered becomes a task, with its answer beside the remark',
  async ({ page, desk }) => {
    await arrive(page, desk);
    await page.goto(`${desk.address}/a/${REPORT}/decide`);
    await seeText(page, 'Remark 1 of 52');
    await page.keyboard.press('q');
    await until(page, () => document.querySelector('main [aria-pressed="true"]') !== null);
    await saved(page);
    const remark = new URL(page.url()).searchParams.get('remark') ?? '';
    await clickRole(page, 'link', '1 to ask');
    const question = await page.waitForSelector('textarea[aria-label="Your question"]');
    await question?.type('Which year do you mean?');
    await clickRole(page, 'checkbox', 'Asked');
    const answer = await page.waitForSelector('textarea[aria-label="What came back"]');
    await answer?.type('The dry one.');
    await saved(page);
    await page.reload();
    await until(
      page,
      () =>
        document.querySelector<HTMLTextAreaElement>('textarea[aria-label="What came back"]')?.value ===
        'The dry one.',
    );
    await clickRole(page, 'button', 'Act on it');
    await seeText(page, 'You act on it.');
    expect(await violationsInBoth(page)).toEqual([]);
    await page.goto(`${desk.address}/a/${REPORT}/plan`);
    await until(page, () => document.querySelectorAll('[data-task]').length === 1);
    await page.goto(`${desk.address}/a/${REPORT}/decide?remark=${encodeURIComponent(remark)}`);
    await seeText(page, 'Came back: The dry one.');
  },
);

pageTest(
  'a remark holds for other places too: looked for, taken one by one, followed in the draft',
  async ({ page, desk }) => {
    await arrive(page, desk);
    await page.goto(`${desk.address}/a/${REPORT}/decide`);
    await seeText(page, 'Remark 1 of 52');
    await page.keyboard.press('a');
    await until(page, () => document.querySelector('main [aria-pressed="true"]') !== null);
    await (await seeText(page, 'Does it hold elsewhere too?')).click();
    const sought = await page.waitForSelector('::-p-aria([name="Look for"][role="textbox"])');
    await sought?.type('healthier');
    await seeText(page, 'These words stand nowhere else in the paper.');
    await sought?.click({ count: 3 });
    await page.keyboard.type('peat dams');
    await until(page, () => /“peat dams” stands at \d+ other place/.test(document.body.textContent));
    const boxes = await page.$$('main li [role="checkbox"]');
    expect(boxes.length).toBeGreaterThan(0);
    await boxes[0].click();
    await seeText(page, ', 1 taken');
    await saved(page);
    expect(await violationsInBoth(page)).toEqual([]);
    await page.reload();
    await seeText(page, ', 1 taken');
    const remark = page.url();
    await page.goto(`${desk.address}/a/${REPORT}/read`);
    await page.waitForSelector('[data-slip]');
    await page.goto(`${desk.address}/a/${REPORT}/revise`);
    await clickRole(page, 'button', 'Begin the new draft');
    await page.waitForSelector('[data-outcome="untouched"]');
    await page.goto(remark);
    await seeText(page, ', 1 taken');
    await (await seeText(page, ', 1 taken')).click();
    await (await page.waitForSelector('main li [role="checkbox"]'))?.click();
    await until(page, () => !document.body.textContent.includes(', 1 taken'));
    await page.keyboard.down('Control');
    await page.keyboard.press('z');
    await page.keyboard.up('Control');
    await seeText(page, 'Undone: other places of a remark');
    await seeText(page, ', 1 taken');
  },
);

pageTest(
  'what somebody asks the student waits in a list of its own until it is answered',
  async ({ page, desk, expectFault }) => {
    expectFault(/401/);
    await openMarked(page, desk, [
      { by: 'Pascoe Wray', text: 'Did you weigh the moss wet or dry?' },
      { by: 'Pascoe Wray', text: 'Give the units.' },
      machine('Did you mean a full stop?'),
    ]);
    await clickRole(page, 'link', '0 to ask');
    await seeText(page, 'Waits for your answer');
    expect(await page.$$eval('main a ::-p-text(Answer it)', (all) => all.length)).toBe(1);
    await (await seeText(page, 'Answer it')).click();
    await until(page, () => location.pathname.endsWith('/read'));
  },
);
