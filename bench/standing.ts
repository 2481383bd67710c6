import { measured, RUNS, shown, withDesk, type Act } from './in-browser.ts';
import { ASSIGNMENTS, largeDesk, REMARKS_EACH } from './large-desk.ts';

/** Standing of one course with 200 assignments, 10,000 remarks, four categories and drops. */

await withDesk(await largeDesk(1), async (page) => {
  console.log(
    `Standing of a course of ${ASSIGNMENTS} assignments with ${ASSIGNMENTS * REMARKS_EACH} remarks, in the browser; ${RUNS} runs (bar: 100 ms)`,
  );
  const link = (href: string): Act => ({ click: { selector: `header a[href="${href}"]`, text: '' } });
  const type = (selector: string, text: string): Act => ({ type: { selector, text } });
  const ifField = 'input[aria-label="If “Assignment 0” had"]';
  const goal = 'aside input';
  const rest = () => new Promise((resolve) => setTimeout(resolve, 400));
  const times = await measured(page, async (measure) => {
    await measure('shelf', link('/shelf'), { text: 'Save the workspace as a ZIP' });
    await measure('arrive', link('/standing'), { selector: '[data-grade]' });
    await page.focus(ifField);
    await rest();
    await measure('if', type(ifField, '4'), { selector: '[data-if-grade]', text: 'With 1 “if” score' });
    await measure('if more', type(ifField, '49'), {
      selector: '[data-row="assignment-0"] button[aria-label^="Clear"]',
    });
    await page.focus(goal);
    await rest();
    await measure('goal', type(goal, '60'), { text: 'the rest would have to average' });
    await measure('goal more', type(goal, '99'), { text: 'With full points the course comes to' });
    await measure(
      'open',
      { click: { selector: '[data-row="assignment-4"] button[aria-expanded="false"]', text: '' } },
      { selector: '[data-arithmetic]' },
    );
    await measure(
      'close',
      { click: { selector: '[data-row="assignment-4"] button[aria-expanded]', text: '' } },
      {},
    );
    await page.evaluate(() => (document.activeElement as HTMLElement).blur());
    await measure('clear', { key: { key: 'x', ctrlKey: false } }, { gone: 'With 1 “if” score' });
  });
  shown('from the Shelf to Standing, by click', times.arrive);
  shown('the first digit of an “if” score, saved, by key', times.if);
  shown('what the rest would have to be, by key', times.goal);
  shown('the same for a goal that is out of reach', times['goal more']);
  shown('opening a figure', times.open);
  shown('clearing “if”, by key', times.clear);
});
