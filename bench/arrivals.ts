import { measured, RUNS, shown, withDesk, type Act, type Seen } from './in-browser.ts';
import { ASSIGNMENTS, largeDesk, REMARKS_EACH } from './large-desk.ts';

/** Arrivals with 10,000 remarks over 200 assignments: from a click or key to the changed screen. */

/** Arrivals draws the beginning of a long list. */
const SHOWN_AT_ONCE = 12;

await withDesk(await largeDesk(5), async (page) => {
  console.log(
    `Arrivals with ${ASSIGNMENTS * REMARKS_EACH} remarks over ${ASSIGNMENTS} assignments, in the browser; ${RUNS} runs (bar: 100 ms)`,
  );
  const link = (href: string): Act => ({ click: { selector: `header a[href="${href}"]`, text: '' } });
  const key = (name: string, ctrlKey: boolean): Act => ({ key: { key: name, ctrlKey } });
  const arrivals: Seen = { selector: 'main h2 a', atLeast: SHOWN_AT_ONCE };
  const allRead = `all ${REMARKS_EACH} remarks read`;
  const times = await measured(page, async (measure) => {
    await measure('leave', link('/shelf'), { text: 'Save the workspace as a ZIP' });
    await measure('arrive', link('/'), arrivals);
    const markRead: Act = { click: { selector: 'main li button', text: 'Mark as read' } };
    await measure('read', markRead, { text: allRead });
    await measure('undo', key('z', true), { gone: allRead });
    await measure('key', key('.', false), { selector: '[data-slip][aria-current]' });
    await measure('back', link('/'), arrivals);
  });
  shown('from the Shelf to Arrivals, by click', times.arrive);
  shown('from Arrivals to the Shelf, by click', times.leave);
  shown('“Mark as read” of an assignment of 50 remarks, saved', times.read);
  shown('taking that back, by key', times.undo);
  shown('the next remark not read, in its place, by key', times.key);
});
