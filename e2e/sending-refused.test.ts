import { createHash, randomBytes } from 'node:crypto';
import { mkdtemp, open, rm, writeFile } from 'node:fs/promises';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import type { Page } from 'puppeteer-core';
import { expect, vi } from 'vitest';
import type { Assignment } from '#core/model/facts.ts';
import { asId, AssignmentId, instantOf } from '#core/model/ids.ts';
import { chooseFile } from './files.ts';
import { arrive, clickRole, openStation, seeText, until, type Desk } from './harness.ts';
import { saved } from './line.ts';
import { pageTest } from './page-test.ts';

/** What can't be sent, or can't any more: it is said, and nothing is lost. */

const DAY = 86_400_000;

/** Puts an assignment on record anew, with something else about it. */
function change(desk: Desk, id: string, to: Partial<Assignment>): void {
  const known = desk.folder.state.facts
    .flatMap((fact) => (fact.kind === 'assignment' && fact.value.id === id ? [fact.value] : []))
    .at(-1);
  if (known === undefined) throw new Error(`no ${id}`);
  desk.record({ kind: 'assignment', value: { ...known, ...to } });
}

const sentTo = (desk: Desk, id: string) =>
  desk.folder.state.facts.filter(
    (fact) => fact.kind === 'attempt' && fact.value.assignmentId === id && fact.value.receipt !== null,
  );

/** Confirms in the dialog that is open. */
async function confirm(page: Page): Promise<void> {
  await page.waitForSelector('[role="dialog"]');
  // What stands behind the dialog has no role while it is open.
  await clickRole(page, 'button', 'Send to the course desk');
}

pageTest(
  'a closing time that passes while the window is open is told, and what was written stays',
  async ({ page, desk, expectFault }) => {
    expectFault(/409/);
    await arrive(page, desk);
    await page.goto(`${desk.address}/a/levels-lab/revise`);
    const first = await page.waitForSelector('textarea');
    await first?.type('N1 310 mm, N2 280 mm.');
    await saved(page);
    await openStation(page, 'Send');
    await clickRole(page, 'button', 'Send to the course desk');
    desk.clock.advance(20 * DAY);
    await confirm(page);
    await seeText(page, 'The course desk did not take it: The closing time has passed');
    await page.reload();
    await seeText(page, 'N1 310 mm, N2 280 mm.');
    expect(sentTo(desk, 'levels-lab')).toEqual([]);
  },
  undefined,
  ['levels-lab'],
);

pageTest(
  'a post to a thread that was closed meanwhile is refused by name, and kept',
  async ({ page, desk, expectFault }) => {
    expectFault(/409/);
    await arrive(page, desk);
    await page.goto(`${desk.address}/a/seminar-post-1/revise`);
    await clickRole(page, 'button', 'Begin from your post');
    await page.waitForSelector('[aria-label="Text of the draft"] p');
    await page.click('[aria-label="Text of the draft"] p');
    await page.keyboard.type('Ostrander. ');
    await saved(page);
    await openStation(page, 'Send');
    await seeText(page, 'Just this text is posted:');
    await clickRole(page, 'button', 'Send to the course desk');
    await page.waitForSelector('[role="dialog"]');
    // The page has not heard of it yet when the button is pressed.
    desk.folder.update((state) => ({
      ...state,
      facts: state.facts.map((fact) =>
        fact.kind === 'assignment' && fact.value.id === asId(AssignmentId, 'seminar-post-1')
          ? { ...fact, value: { ...fact.value, closesAt: instantOf(desk.clock.now() - DAY) } }
          : fact,
      ),
    }));
    await confirm(page);
    await seeText(page, 'The course desk did not take it: The closing time has passed');
    await openStation(page, 'Revise');
    await seeText(page, 'Ostrander.');
    expect(sentTo(desk, 'seminar-post-1')).toEqual([]);
  },
  undefined,
  ['seminar-post-1'],
);

pageTest(
  'a thread that is known to be closed says so at Send before anything is pressed',
  async ({ page, desk }) => {
    await arrive(page, desk);
    change(desk, 'seminar-post-1', { closesAt: instantOf(desk.clock.now() - DAY) });
    await page.goto(`${desk.address}/a/seminar-post-1/send`);
    await seeText(page, 'No other attempt is taken');
    await page.goto(`${desk.address}/a/seminar-post-1/revise`);
    await seeText(page, 'You may still do it for yourself.');
  },
  undefined,
  ['seminar-post-1'],
);

pageTest(
  'files of no bytes and of more than 300 MB are refused by name, and the others taken',
  async ({ page, desk }) => {
    const folder = await mkdtemp(join(tmpdir(), 'juncture-sizes-'));
    await arrive(page, desk);
    await page.goto(`${desk.address}/a/core-log/revise`);
    await writeFile(join(folder, 'nothing.png'), '');
    await chooseFile(page, 'Bring in the new file', join(folder, 'nothing.png'));
    await seeText(page, '“nothing.png” is empty: it has no content at all.');
    const large = await open(join(folder, 'huge.png'), 'w');
    await large.truncate(300 * 1024 * 1024 + 1);
    await large.close();
    await chooseFile(page, 'Bring in the new file', join(folder, 'huge.png'));
    await seeText(page, '“huge.png” is larger than');
    await seeText(page, 'No new file is here yet.');
    await rm(folder, { recursive: true, force: true });
  },
  undefined,
  ['core-log'],
);

pageTest(
  'a damaged picture among new files is shown as one that can’t be, and can still be sent',
  async ({ page, desk }) => {
    const folder = await mkdtemp(join(tmpdir(), 'juncture-damaged-'));
    await arrive(page, desk);
    await page.goto(`${desk.address}/a/core-log/revise`);
    await writeFile(join(folder, 'torn.jpg'), Buffer.from([0xff, 0xd8, 0xff, 0xe0, 1, 2, 3]));
    await chooseFile(page, 'Bring in the new file', join(folder, 'torn.jpg'));
    await clickRole(page, 'button', 'Make a PDF of the picture');
    await seeText(page, 'damaged');
    await openStation(page, 'Send');
    await seeText(page, 'torn.jpg');
    await rm(folder, { recursive: true, force: true });
  },
  undefined,
  ['core-log'],
);

pageTest(
  'a draft stage whose final was taken away keeps its tasks and says what has become of it',
  async ({ page, desk }) => {
    await arrive(page, desk);
    await page.goto(`${desk.address}/a/policy-brief-draft/decide`);
    await page.waitForSelector('::-p-aria([name="Act"][role="button"])');
    await page.keyboard.press('a');
    await until(page, () => document.body.textContent.includes('1 of '));
    await saved(page);
    change(desk, 'policy-brief-draft', { draftOf: asId(AssignmentId, 'taken-away') });
    // Until the page has heard of it, Plan leads to the final's.
    await until(page, () => document.querySelector('nav a[href="/a/policy-brief-draft/plan"]') !== null);
    await openStation(page, 'Plan');
    await until(page, () => location.pathname === '/a/policy-brief-draft/plan');
    await seeText(page, 'The final that this draft leads to is not here');
    await seeText(page, '1 task');
    await page.reload();
    await seeText(page, '1 task');
    // And back, when it is there again.
    change(desk, 'policy-brief-draft', { draftOf: asId(AssignmentId, 'policy-brief') });
    await page.goto(`${desk.address}/a/policy-brief/plan`);
    await seeText(page, '1 task');
  },
  undefined,
  ['policy-brief', 'policy-brief-draft'],
);

pageTest(
  'an upload that breaks off goes on from where it was after a reload, and arrives once',
  async ({ page, desk, expectFault }) => {
    expectFault(/ERR_|Failed to (?:fetch|load)/);
    const folder = await mkdtemp(join(tmpdir(), 'juncture-broken-'));
    // What the page sends at once.
    const PART = 1024 * 1024;
    const bytes = randomBytes(5.5 * PART);
    bytes.write('%PDF-1.7\n');
    await writeFile(join(folder, 'large.pdf'), bytes);
    await arrive(page, desk);
    await page.goto(`${desk.address}/a/core-log/revise`);
    await chooseFile(page, 'Bring in the new file', join(folder, 'large.pdf'));
    await seeText(page, 'large.pdf');
    await saved(page);
    const froms: number[] = [];
    const hash = createHash('sha256').update(bytes).digest('hex');
    let isBroken = true;
    const take = desk.folder.uploads.take.bind(desk.folder.uploads);
    vi.spyOn(desk.folder.uploads, 'take').mockImplementation((of, part, taken) => {
      if (of === hash) froms.push(part.from);
      if (of !== hash || !isBroken || part.from === 0) return take(of, part, taken);
      // The desk goes away once it has the first part.
      void desk.stop();
      return new Promise(() => undefined);
    });
    await openStation(page, 'Send');
    await clickRole(page, 'button', 'Send to the course desk');
    await confirm(page);
    await vi.waitFor(() => expect(froms.length).toBeGreaterThan(1), { timeout: 20_000 });
    expect(desk.folder.uploads.stateOf(hash)).toMatchObject({ received: PART, whole: false });
    expect(sentTo(desk, 'core-log')).toEqual([]);
    isBroken = false;
    const before = froms.length;
    await desk.stop();
    await desk.start();
    await page.reload();
    await seeText(page, 'Save the receipt as PDF');
    // Nothing that the desk had was sent again.
    expect(froms.slice(before)).not.toContain(0);
    expect(sentTo(desk, 'core-log')).toHaveLength(1);
    expect(desk.folder.uploads.stateOf(hash)?.whole).toBe(true);
    await rm(folder, { recursive: true, force: true });
  },
  undefined,
  ['core-log'],
);
