import ICAL from 'ical.js';
import { mkdtemp, rm, writeFile } from 'node:fs/promises';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import type { ElementHandle, Page } from 'puppeteer-core';
import { expect } from 'vitest';
import { violationsInBoth } from './axe.ts';
import { savedText, savesInto } from './downloads.ts';
import { arrive, clickRole, pick, seeText, settled, until } from './harness.ts';
import { actOn, saved } from './line.ts';
import { pageTest, PHONE } from './page-test.ts';

/** From thirty decisions to a week: joined, chosen, placed, moved, begun, and given to a calendar. */

const REPORT = 'skarn-moss-report';

/** What the blocks that are shown are called. */
const blocks = (page: Page) => page.$$eval('[data-block] b', (all) => all.map((one) => one.textContent));
const tasks = (page: Page) => page.$$eval('[data-task]', (rows) => rows.length);

/** The block of a name, where it says this too. */
async function block(page: Page, name: string, says = ''): Promise<ElementHandle> {
  const found = await page.waitForFunction(
    (wanted, also) =>
      [...document.querySelectorAll('[data-block] > button')].find(
        (one) => one.querySelector('b')?.textContent === wanted && one.textContent.includes(also),
      ),
    { polling: 50, timeout: 20_000 },
    name,
    says,
  );
  return found as ElementHandle;
}

/** On a phone, a block that was set to half past six. */
const SET = 'button[data-block] ::-p-text(18:30)';

const eventsIn = (text: string) =>
  new ICAL.Component(ICAL.parse(text) as unknown[]).getAllSubcomponents('vevent').map((component) => {
    const { uid, sequence, startDate } = new ICAL.Event(component);
    return {
      uid,
      sequence,
      from: startDate.toJSDate().toISOString(),
      status: component.getFirstPropertyValue('status'),
    };
  });

pageTest(
  'thirty decisions become a week of work that is moved, begun, kept and given to a calendar',
  async ({ page, desk }) => {
    const folder = await mkdtemp(join(tmpdir(), 'juncture-week-'));
    await savesInto(page, folder);
    await arrive(page, desk);
    await page.goto(`${desk.address}/a/${REPORT}/decide`);
    await actOn(page, 30);
    await page.goto(`${desk.address}/a/${REPORT}/plan`);
    await seeText(page, 'To do, in this order');
    await until(page, () => document.querySelectorAll('[data-task]').length === 30);

    // Joined, taken back, joined again.
    await (await seeText(page, 'These could be one task (')).click();
    await clickRole(page, 'button', 'Join them');
    await until(page, () => document.querySelectorAll('[data-task]').length < 30);
    const joined = await tasks(page);
    await clickRole(page, 'button', 'Undo');
    await until(page, () => document.querySelectorAll('[data-task]').length === 30);
    await clickRole(page, 'button', 'Do it again');
    await until(page, () => document.querySelectorAll('[data-task]').length < 30);
    expect(await tasks(page)).toBe(joined);

    // The others are left apart, and not proposed again.
    const apart = '::-p-aria([name="Leave them apart"][role="button"])';
    const groups = (await page.$$(apart)).length;
    expect(groups).toBeGreaterThan(0);
    for (let left = groups; left > 0; left--) {
      await (await page.waitForSelector(apart))?.click();
      await until(
        page,
        (now) => (/could be one task \((\d+)/.exec(document.body.textContent)?.[1] ?? '0') === now,
        String(left - 1),
      );
    }
    await saved(page);
    await page.reload();
    await until(page, () => document.querySelectorAll('[data-task]').length > 0);
    expect(await page.$('::-p-text(These could be one task)')).toBeNull();

    // The minutes there are stay; a row that is worked in stays where it is.
    await page.focus('[role="slider"]');
    await page.keyboard.press('Home');
    for (let n = 0; n < 24; n++) await page.keyboard.press('ArrowRight');
    await page.waitForSelector('[role="slider"][aria-valuetext="2 h"]');
    await saved(page);
    await page.goto(desk.address);
    await page.goto(`${desk.address}/a/${REPORT}/plan`);
    await page.waitForSelector('[role="slider"][aria-valuetext="2 h"]');
    await seeText(page, 'Left out at this much time');
    await settled(page);
    const titles = () => page.$$eval('[data-task] textarea', (all) => all.map((one) => one.value));
    const before = await titles();
    const minutes = await page.waitForSelector('[data-task] input[aria-label^="Minutes"]');
    await minutes?.click({ count: 3 });
    await page.keyboard.type('1 h 30');
    await page.keyboard.press('Tab');
    await saved(page);
    await seeText(page, 'Renew the order');
    expect(await titles()).toEqual(before);
    await clickRole(page, 'button', 'Renew the order');
    await until(
      page,
      (first) => document.querySelector<HTMLTextAreaElement>('[data-task] textarea')?.value !== first,
      before[0],
    );
    await clickRole(page, 'button', 'Undo');
    await saved(page);

    // In any case, with a step and what it needs; the circle is refused by name.
    await settled(page);
    const now = await titles();
    const [top, , third] = now;
    await (await page.waitForSelector('[data-task] ::-p-text(More)'))?.click();
    await pick(page, `In the plan: ${top}`, 'in any case');
    await page.type(`input[aria-label="Add a step: ${top}"]`, 'Look it up');
    await page.keyboard.press('Enter');
    await seeText(page, '0 of 1 step');
    await pick(page, `Needs first: ${top}`, third);
    await page.waitForSelector(`::-p-aria([name="No longer needs “${third}”"][role="button"])`);
    await page.reload();
    await seeText(page, '0 of 1 step');
    const rows = await page.$$('[data-task]');
    for (const row of rows)
      if ((await row.$eval('textarea', (one) => one.value)) === third)
        await (await row.waitForSelector('::-p-text(More)'))?.click();
    await pick(page, `Needs first: ${third}`, top);
    await seeText(page, 'That would go in a circle');
    expect(await violationsInBoth(page)).toEqual([]);

    // The week: moved by keyboard and by mouse, kept, let go.
    await clickRole(page, 'link', 'Week');
    await page.waitForSelector('[data-block]');
    await settled(page);
    expect(await violationsInBoth(page)).toEqual([]);
    const [one, two] = await blocks(page);
    await (await block(page, one)).focus();
    await page.keyboard.press('Space');
    await until(page, () => document.querySelector('[data-block] [aria-pressed="true"]') !== null);
    await page.keyboard.press('ArrowRight');
    await page.keyboard.press('ArrowDown');
    await seeText(page, 'Tue 3 Nov 17:15 to');
    await page.keyboard.press('Space');
    await seeText(page, 'Set to Tue 3 Nov 17:15 to');
    await block(page, one, ', 17:15 to');
    await block(page, one, 'set by you');
    await settled(page);
    const box = await (await block(page, two)).boundingBox();
    const column = await (await page.waitForSelector('li:has(> div h2)'))?.boundingBox();
    if (box == null || column == null) throw new Error('no block, or no day');
    await page.mouse.move(box.x + 40, box.y + 8);
    await page.mouse.down();
    await page.mouse.move(box.x + 40 + column.width, box.y + 8, { steps: 5 });
    await page.mouse.move(box.x + 40 + 2 * column.width, box.y + 8, { steps: 5 });
    await page.mouse.up();
    await block(page, two, 'set by you');
    await saved(page);
    await page.reload();
    await block(page, one, ', 17:15 to');
    await block(page, one, 'set by you');
    await block(page, two, 'set by you');

    // Given to a calendar, and given again when one was moved: changed, and not put in twice.
    await clickRole(page, 'button', 'Save as calendar (.ics)');
    const calendar = await savedText(folder, '.ics');
    const given = eventsIn(calendar);
    await seeText(page, 'Saved as juncture-week.ics');
    expect(given.length).toBe((await blocks(page)).length);
    expect(new Set(given.map(({ uid }) => uid)).size).toBe(given.length);
    await (await block(page, one)).click();
    await seeText(page, 'A block of work');
    await clickRole(page, 'button', 'Let it be placed again');
    await until(page, () => document.body.textContent.split('set by you').length === 2);
    await saved(page);
    await clickRole(page, 'button', 'Save as calendar (.ics)');
    const again = eventsIn(await savedText(folder, '.ics', calendar));
    const changed = again.filter(({ sequence }) => sequence > 0);
    expect(changed.length).toBeGreaterThan(0);
    expect(new Set(again.map(({ uid }) => uid)).size).toBe(again.length);

    // Made longer by its edge, by keys.
    await (await page.waitForSelector(`::-p-aria([name="Length of “${two}”"][role="button"])`))?.focus();
    await page.keyboard.press('Space');
    await until(page, () => document.querySelector('[data-block] [aria-pressed="true"]') !== null);
    await page.keyboard.press('ArrowDown');
    await until(page, () =>
      [...document.querySelectorAll('main [role="status"]')].some((one) =>
        /^\w{3} \d+ \w+ \d\d:\d\d to/.test(one.textContent),
      ),
    );
    await page.keyboard.press('Space');
    await seeText(page, 'Set to ');
    await saved(page);

    // Busy times keep it free; bad events are named.
    const busy = join(folder, 'term.ics');
    await writeFile(
      busy,
      [
        'BEGIN:VCALENDAR',
        ...['BEGIN:VEVENT', 'UID:1', 'SUMMARY:Choir', 'DTSTART:20261102T170000', 'DTEND:20261102T200000'],
        ...['RRULE:FREQ=DAILY;COUNT=3', 'END:VEVENT'],
        ...['BEGIN:VEVENT', 'UID:2', 'SUMMARY:Torn', 'this is no line', 'END:VEVENT'],
        'END:VCALENDAR',
      ].join('\r\n'),
    );
    const input = (await page.waitForSelector('input[accept^=".ics"]')) as ElementHandle<HTMLInputElement>;
    await input.uploadFile(busy);
    await seeText(page, '2 events, 3 busy times ahead');
    await seeText(page, 'Torn: a line of it is broken');
    // Monday to Wednesday evening is taken: what is not set by hand goes to Thursday or later.
    await until(page, () =>
      [...document.querySelectorAll('ol > li:nth-child(-n + 3) [data-block]')].every((each) =>
        each.textContent.includes('set by you'),
      ),
    );

    // Begun: counted, over a reload too, and kept with the task.
    const [name] = await blocks(page);
    await (await block(page, name)).click();
    await seeText(page, 'A block of work');
    await clickRole(page, 'button', 'Start on it');
    await seeText(page, 'Working on “');
    await saved(page);
    await page.reload();
    await seeText(page, 'Working on “');
    await clickRole(page, 'button', 'Done');
    await until(page, () => !document.body.textContent.includes('Working on “'));
    await saved(page);
    await page.goto(`${desk.address}/a/${REPORT}/plan`);
    await seeText(page, ', 1 done');
    await clickRole(page, 'button', 'Save as table (.csv)');
    const table = await savedText(folder, '.csv');
    expect(table.split('\r\n')[0]).toBe(
      'Task,Kind of change,Minutes,Points behind,Expected gain,Remarks,Done,Steps',
    );
    expect(table.trimEnd().split('\r\n')).toHaveLength(1 + (await tasks(page)));
    expect(table).toContain('Look it up');
    await rm(folder, { recursive: true, force: true });
  },
);

pageTest(
  'on a phone the week is a list of days, a block is set to another time, and a little time is used',
  async ({ page, desk }) => {
    await arrive(page, desk);
    await page.goto(`${desk.address}/week`);
    await seeText(page, 'No tasks yet.');
    await seeText(page, 'There is no open task.');
    await page.goto(`${desk.address}/a/${REPORT}/decide`);
    await actOn(page, 5);
    await page.goto(desk.address);
    await clickRole(page, 'link', '20 minutes left: what first?');
    await page.waitForSelector('button[data-block]');
    expect(await violationsInBoth(page)).toEqual([]);
    expect(await page.evaluate(() => document.documentElement.scrollWidth <= window.innerWidth)).toBe(true);
    await (await page.waitForSelector('button[data-block]'))?.click();
    await seeText(page, 'A block of work');
    const from = await page.waitForSelector('[role="dialog"] ::-p-aria([name="From"][role="textbox"])');
    await from?.click({ count: 3 });
    await page.keyboard.type('soon');
    await seeText(page, 'Type a time of the day');
    await from?.click({ count: 3 });
    await page.keyboard.type('9:00');
    await clickRole(page, 'button', 'Set it there');
    await seeText(page, 'That time is over.');
    await from?.click({ count: 3 });
    await page.keyboard.type('18:30');
    await page.keyboard.press('Enter');
    await page.waitForSelector(SET);
    // Free hours of the student's own; what makes none is said.
    const monday = await page.waitForSelector('::-p-aria([name="Monday"][role="textbox"])');
    await monday?.click({ count: 3 });
    await page.keyboard.type('evenings');
    await page.keyboard.press('Enter');
    await seeText(page, 'Type hours such as 17:00-20:00');
    await monday?.click({ count: 3 });
    await page.keyboard.type('20-21');
    await page.keyboard.press('Enter');
    await until(page, () => !document.body.textContent.includes('Taken for now, until you say'));
    await saved(page);
    await page.reload();
    await page.waitForSelector(SET);
    await clickRole(page, 'button', 'Start on it');
    await seeText(page, 'Working on “');
    await clickRole(page, 'button', 'Stop');
    await until(page, () => !document.body.textContent.includes('Working on “'));
    // A page that was closed meanwhile asks what of the time counts.
    await clickRole(page, 'button', 'Start on it');
    await seeText(page, 'Working on “');
    await saved(page);
    desk.clock.advance(40 * 60_000);
    await page.reload();
    await seeText(page, 'this page last saw it at');
    expect(await violationsInBoth(page)).toEqual([]);
    await clickRole(page, 'button', 'Until now: 40 min');
    await until(page, () => !document.body.textContent.includes('this page last saw it at'));
    await page.goto(`${desk.address}/a/${REPORT}/plan`);
    await seeText(page, 'To do, in this order');
    await until(page, () => document.querySelectorAll('[data-task]').length === 5);
    for (const more of await page.$$('[data-task] ::-p-text(More)')) await more.click();
    await seeText(page, '40 min spent');
  },
  PHONE,
);
