import { mkdtemp, readFile, rm, writeFile } from 'node:fs/promises';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import type { Page } from 'puppeteer-core';
import { expect, vi } from 'vitest';
import type { Attempt, Marking } from '#core/model/facts.ts';
import { stations } from '#core/line/stations.ts';
import { readDocx } from '#formats/docx/read-docx.ts';
import { arrive, clickRole, openStation, pick, seeText, until, type Desk } from './harness.ts';
import { chooseFile, drop, newDrawing, openAlone } from './files.ts';
import { actOn, fromArrivals, saved, step } from './line.ts';
import { pageTest, PHONE } from './page-test.ts';

/** Each kind of work down its line, with a reload in the middle of each step. */

function attemptsAt(desk: Desk, assignment: string): Attempt[] {
  return desk.folder.state.facts.flatMap((fact) =>
    fact.kind === 'attempt' && fact.value.assignmentId === assignment && fact.value.receipt !== null
      ? [fact.value]
      : [],
  );
}

/** Lets the marker come to it, and waits until what it says is here. */
async function comesBack(page: Page, desk: Desk, attempt: Attempt): Promise<Marking> {
  desk.clock.advance(20_000);
  const marking = await vi.waitFor(
    () => {
      const found = desk.folder.state.facts.flatMap((fact) =>
        fact.kind === 'marking' && fact.value.attemptId === attempt.id && fact.value.complete
          ? [fact.value]
          : [],
      );
      expect(found).toHaveLength(1);
      return found[0];
    },
    { timeout: 15_000 },
  );
  await openStation(page, 'Send');
  await page.reload();
  await until(
    page,
    (points) => document.querySelector('main')?.textContent.includes(points) === true,
    `${marking.score} of `,
  );
  return marking;
}

/** What the response sheet of an attempt says, as the desk has it. */
async function responseText(desk: Desk, { files }: Attempt): Promise<string> {
  const hash = files.find(({ role }) => role === 'response')?.hash ?? '';
  const bytes = new Uint8Array(await readFile(desk.folder.pathOfFile(hash) ?? ''));
  return readDocx(bytes)
    .blocks.map(({ text }) => text)
    .join('\n');
}

/** Opens what stands under a line of words, whatever lies over it. */
async function openFold(page: Page, label: string): Promise<void> {
  const fold = await page.waitForSelector(`main button[aria-expanded="false"]::-p-text(${label})`);
  await fold?.evaluate((button) => (button as HTMLElement).click());
}

async function sendIt(page: Page): Promise<void> {
  await openStation(page, 'Send');
  await seeText(page, 'This will be attempt');
  await page.reload();
  await clickRole(page, 'button', 'Send to the course desk');
  await (await page.waitForSelector('[role="dialog"] button::-p-text(Send to the course desk)'))?.click();
  await seeText(page, 'Receipt');
}

for (const [where, size] of [
  ['', { width: 1280, height: 800 }],
  [' on a phone', PHONE],
] as const)
  pageTest(
    `a new drawing is brought in, laid over the marked one, answered by place and in words, and sent${where}`,
    async ({ page, desk }) => {
      const folder = await mkdtemp(join(tmpdir(), 'juncture-drawing-'));
      await arrive(page, desk);
      await fromArrivals(page, desk, 'core-log', 'Drawn log of core SM-2');
      await actOn(page, 2);
      await step(page, 'Plan');
      await seeText(page, '2 tasks');
      await step(page, 'Revise');
      await seeText(page, 'No new file is here yet.');
      const wrong = join(folder, 'log.txt');
      await writeFile(wrong, 'No drawing.');
      await chooseFile(page, 'Bring in the new file', wrong);
      await seeText(page, '“log.txt” is of no kind that this assignment takes.');
      await chooseFile(page, 'Bring in the new file', await newDrawing(folder, 'Core SM-2, drawn anew.png'));
      await seeText(page, 'New: Core SM-2, drawn anew.png');
      await page.reload();
      await seeText(page, 'New: Core SM-2, drawn anew.png');
      await clickRole(page, 'radio', 'Over one another');
      const slider = await page.waitForSelector('[role="slider"]');
      await slider?.press('ArrowRight');
      expect(await slider?.evaluate((one) => one.getAttribute('aria-valuetext'))).toBe('51 % of the new one');
      await clickRole(page, 'radio', 'Side by side');
      const [first] = await page.$$('aside textarea');
      await first.evaluate((element) => element.scrollIntoView({ block: 'center' }));
      await first.type('The scale stands beside the log now.');
      await clickRole(page, 'button', 'Show where in the new picture');
      const picture = await page.waitForSelector('img[alt^="New:"]');
      await picture?.evaluate((element) => element.scrollIntoView({ block: 'center' }));
      const box = await picture?.boundingBox();
      if (box == null) throw new Error('the new picture is not shown');
      await page.mouse.move(box.x + box.width * 0.3, box.y + box.height * 0.5);
      await page.mouse.down();
      await page.mouse.move(box.x + box.width * 0.5, box.y + box.height * 0.55, { steps: 4 });
      await page.mouse.up();
      await seeText(page, '1 place shown');
      await saved(page);
      await page.reload();
      await seeText(page, '1 place shown');
      await step(page, 'Plan');
      await seeText(page, '1 done');
      await step(page, 'Check');
      await seeText(page, 'of a kind and size that is taken');
      await sendIt(page);
      const [sent] = attemptsAt(desk, 'core-log');
      expect(await responseText(desk, sent)).toContain('The scale stands beside the log now.');
      expect(sent.files.map(({ role, name }) => [role, name])).toEqual([
        ['paper', 'Core SM-2, drawn anew.png'],
        ['response', expect.stringMatching(/response sheet.*\.docx$/)],
      ]);
      await seeText(page, sent.files[0].hash);
      await page.reload();
      await seeText(page, sent.receipt?.id ?? 'no receipt');
      await openStation(page, 'Revise');
      await seeText(page, 'These files were sent.');
      const marking = await comesBack(page, desk, sent);
      await seeText(page, 'Before and after');
      await openFold(page, 'Answers, and what is said again');
      await seeText(page, 'The scale stands beside the log now.');
      await seeText(page, '1 place or file shown as the answer.');
      // What the marker says of the new drawing is read on it, in its place.
      expect(marking.files[0].announced.region).toBeGreaterThan(0);
      await openStation(page, 'Read');
      await page.waitForSelector('[data-page] img');
      // Twelve of the first marking, six of the second.
      await seeText(page, '/18');
      await rm(folder, { recursive: true, force: true });
    },
    size,
    ['core-log'],
  );

pageTest(
  'what was said of a draft stage is decided there, planned and worked into the final, and the final is sent',
  async ({ page, desk }) => {
    await arrive(page, desk);
    await fromArrivals(page, desk, 'policy-brief-draft', 'Draft of the brief');
    await actOn(page, 2);
    // The line of the stage leads on to the final.
    await openStation(page, 'Plan');
    await until(page, () => location.pathname === '/a/policy-brief/plan');
    await seeText(page, '2 tasks');
    await page.reload();
    await seeText(page, '2 tasks');
    // The station of the stage itself says where it happens.
    await page.goto(`${desk.address}/a/policy-brief-draft/check`);
    await seeText(page, 'This was a draft stage.');
    await (await seeText(page, 'Go to Check of')).click();
    await until(page, () => location.pathname === '/a/policy-brief/check');
    await openStation(page, 'Decide');
    await until(page, () => location.pathname === '/a/policy-brief-draft/decide');
    await page.goto(`${desk.address}/a/policy-brief/revise`);
    await seeText(page, 'from your draft stage with its structure');
    await clickRole(page, 'button', 'Begin the new draft');
    await page.waitForSelector('[aria-label="Text of the draft"] p');
    await page.waitForSelector('[data-outcome="untouched"]');
    await page.click('[aria-label="Text of the draft"] p');
    await page.keyboard.press('End');
    await page.keyboard.type(' The grazing board pays for it.');
    await saved(page);
    await page.reload();
    await seeText(page, 'The grazing board pays for it.');
    await step(page, 'Check');
    await page.waitForSelector('ins::-p-text(grazing board pays)');
    await sendIt(page);
    const [sent] = attemptsAt(desk, 'policy-brief');
    expect([sent.number, sent.files.map(({ role }) => role)]).toEqual([1, ['paper', 'response']]);
    expect(attemptsAt(desk, 'policy-brief-draft')).toEqual([]);
    await page.reload();
    await seeText(page, sent.receipt?.id ?? 'no receipt');
    await comesBack(page, desk, sent);
    await openStation(page, 'Read');
    await seeText(page, 'Give the clause of the award. Without it this is an opinion.');
  },
  undefined,
  ['policy-brief', 'policy-brief-draft'],
);

pageTest(
  'a better version of a post is written beside its thread, counted as it is written, and posted',
  async ({ page, desk }) => {
    await arrive(page, desk);
    await fromArrivals(page, desk, 'seminar-post-1', 'Seminar post 1');
    await actOn(page, 1);
    await step(page, 'Plan');
    await seeText(page, '1 task');
    await step(page, 'Revise');
    await seeText(page, 'The thread: 3 posts');
    await clickRole(page, 'button', 'Begin from your post');
    await page.waitForSelector('[aria-label="Text of the draft"] p');
    await seeText(page, 'Reading Ostrander: not named yet');
    await page.click('[aria-label="Text of the draft"] p');
    await page.keyboard.press('End');
    await page.keyboard.type(' Ostrander (p. 88) found councils on eleven commons.');
    await seeText(page, 'Reading Ostrander: named');
    await seeText(page, '7 sentences, asked: 6 at least');
    await saved(page);
    await page.reload();
    await seeText(page, 'found councils on eleven commons.');
    await seeText(page, 'The thread: 3 posts');
    await step(page, 'Check');
    await seeText(page, 'words, asked: 150 to 300, not met yet');
    await page.waitForSelector('ins::-p-text(councils on eleven commons)');
    await openStation(page, 'Revise');
    await pick(page, 'What this post is', 'An answer to Maren Oake');
    await saved(page);
    // It is too short: a note that says so is proposed, and finished by hand.
    await openStation(page, 'Send');
    await seeText(page, 'What goes departs from what is asked in one thing.');
    await clickRole(page, 'button', 'Put a note that explains this');
    await until(
      page,
      () => document.querySelector('textarea')?.value.includes('where 150 to 300 are asked.') === true,
    );
    await (await page.$('textarea'))?.type('I was ill.');
    await saved(page);
    await sendIt(page);
    const [sent] = attemptsAt(desk, 'seminar-post-1');
    expect(sent.post).toMatchObject({ answers: 'p1-maren', betters: null });
    expect(sent.post?.text).toContain('found councils on eleven commons.');
    expect(sent.note).toMatch(/where 150 to 300 are asked\. The reason is: I was ill\.$/);
    await page.reload();
    await seeText(page, sent.receipt?.id ?? 'no receipt');
    await comesBack(page, desk, sent);
    await seeText(page, 'Before and after');
    // The first post and the newest, word by word.
    await page.waitForSelector('ins::-p-text(councils on eleven commons)');
    await openStation(page, 'Read');
    await seeText(page, 'The sea has its rules.');
  },
  undefined,
  ['seminar-post-1'],
);

pageTest(
  'items of an activity are answered again beside the old answers, handed in and marked',
  async ({ page, desk }) => {
    await arrive(page, desk);
    await fromArrivals(page, desk, 'levels-lab', 'Lab activity: levels of six wells');
    await actOn(page, 1);
    await step(page, 'Plan');
    await seeText(page, '1 task');
    await step(page, 'Revise');
    await seeText(page, 'The items, beside your old answers');
    await seeText(page, '62 cm below the peat.');
    const second = await page.waitForSelector('li:nth-child(2) textarea');
    await second?.type('The water is 62 mm below the peat.');
    await saved(page);
    await page.reload();
    await until(
      page,
      () =>
        document.querySelector<HTMLTextAreaElement>('li:nth-child(2) textarea')?.value ===
        'The water is 62 mm below the peat.',
    );
    await step(page, 'Check');
    await seeText(page, 'answered again');
    await sendIt(page);
    const [sent] = attemptsAt(desk, 'levels-lab');
    expect(sent.items).toEqual({ 'lev-depth': 'The water is 62 mm below the peat.' });
    await page.reload();
    await seeText(page, sent.receipt?.id ?? 'no receipt');
    const marking = await comesBack(page, desk, sent);
    expect(marking.score).toBe('11');
    await seeText(page, 'Before and after');
    await seeText(page, '1 → 5');
    await openStation(page, 'Read');
    await (await page.waitForSelector('main ::-p-text(Criteria)'))?.click();
    await until(page, () => location.search.includes('criteria'));
    await seeText(page, 'How much is too much, and why that much?');
  },
  undefined,
  ['levels-lab'],
);

pageTest(
  'the missed questions of a quiz are practised without their answers first',
  async ({ page, desk }) => {
    await arrive(page, desk);
    await page.goto(`${desk.address}/a/quiz-flow/revise`);
    await seeText(page, 'Practise what was missed');
    await seeText(page, 'questions that lost points');
    const shown = () => page.evaluate(() => document.body.textContent.includes('It should have had'));
    expect(await shown()).toBe(false);
    await clickRole(page, 'button', 'Show what it should have had');
    await seeText(page, 'It should have had');
    await clickRole(page, 'button', 'Next question');
    await until(page, () => !document.body.textContent.includes('It should have had'));
    await openStation(page, 'Check');
    await seeText(page, 'What is still weak');
    await (await seeText(page, 'Practise them')).click();
    await seeText(page, 'Practise what was missed');
  },
  undefined,
  ['quiz-flow'],
);

pageTest(
  'a dropped picture goes down the same line, with an own receipt at its end',
  async ({ page, desk, expectFault }) => {
    expectFault(/401/);
    const folder = await mkdtemp(join(tmpdir(), 'juncture-alone-'));
    const old = await readFile(join(process.cwd(), 'demo', 'media', 'core-log.png'));
    await openAlone(page, desk);
    await drop(page, ['Core SM-2.png', old]);
    await until(page, () => location.pathname.startsWith('/a/'));
    await page.goto(`${page.url().split('/').slice(0, 5).join('/')}/revise`);
    await seeText(page, 'Any kind of file is taken');
    await seeText(page, 'Marked: Core SM-2.png');
    await chooseFile(page, 'Bring in the new file', await newDrawing(folder, 'Core SM-2, drawn anew.png'));
    await seeText(page, 'New: Core SM-2, drawn anew.png');
    await saved(page);
    await openStation(page, 'Send');
    await seeText(page, 'There is no course desk for this work.');
    await page.reload();
    await (await page.waitForSelector('form input'))?.type('by mail to Pascoe Wray');
    await clickRole(page, 'button', 'I have handed it in');
    await seeText(page, 'as you noted: by mail to Pascoe Wray');
    await page.reload();
    await seeText(page, 'as you noted: by mail to Pascoe Wray');
    await seeText(page, 'Save the receipt as JSON');
    await rm(folder, { recursive: true, force: true });
  },
);

/** What came back from the demo's desk for an assignment, as a file to drop. */
async function returnedFile(desk: Desk, role: 'quiz' | 'posts'): Promise<[string, Uint8Array]> {
  const files = desk.folder.state.facts.flatMap((fact) => (fact.kind === 'marking' ? fact.value.files : []));
  const fact = files.find((file) => file.role === role);
  const bytes = await readFile(desk.folder.pathOfFile(fact?.hash ?? '') ?? '');
  return [fact?.name ?? '', new Uint8Array(bytes)];
}

pageTest(
  'dropped quiz results are practised, and Send says where another try is taken',
  async ({ page, desk, expectFault }) => {
    expectFault(/401/);
    await openAlone(page, desk);
    await drop(page, await returnedFile(desk, 'quiz'));
    await until(page, () => location.pathname.startsWith('/a/'));
    await page.goto(`${page.url().split('/').slice(0, 5).join('/')}/revise`);
    await seeText(page, 'questions that lost points');
    await page.reload();
    await clickRole(page, 'button', 'Show what it should have had');
    await seeText(page, 'It should have had');
    await openStation(page, 'Send');
    await seeText(page, 'Another try is taken where your school gives the quiz');
    await openStation(page, 'Check');
    await seeText(page, 'What is still weak');
  },
  undefined,
  ['quiz-flow'],
);

pageTest(
  'dropped posts are answered by a better one, with an own receipt of its words',
  async ({ page, desk, expectFault }) => {
    expectFault(/401/);
    await openAlone(page, desk);
    await drop(page, await returnedFile(desk, 'posts'));
    await until(page, () => location.pathname.startsWith('/a/'));
    await page.goto(`${page.url().split('/').slice(0, 5).join('/')}/revise`);
    await clickRole(page, 'button', 'Write a new post');
    await page.waitForSelector('[aria-label="Text of the draft"] p');
    await page.click('[aria-label="Text of the draft"] p');
    await page.keyboard.type('Ostrander found the same. ');
    await saved(page);
    await page.reload();
    await seeText(page, 'Ostrander found the same.');
    await openStation(page, 'Send');
    await seeText(page, 'There is no course desk for this work.');
    await (await page.waitForSelector('form input'))?.type('in the seminar’s list');
    await clickRole(page, 'button', 'I have handed it in');
    await seeText(page, 'as you noted: in the seminar’s list');
    await seeText(page, 'Save the receipt as PDF');
  },
  undefined,
  ['seminar-post-1'],
);

pageTest(
  'no station of any assignment of the demo is empty without a way on',
  async ({ page, desk }) => {
    await arrive(page, desk);
    const ids = new Set(
      desk.folder.state.facts.flatMap((fact) => (fact.kind === 'assignment' ? [fact.value.id] : [])),
    );
    const dead: string[] = [];
    for (const id of ids)
      for (const station of stations) {
        await page.evaluate((path) => {
          history.pushState(null, '', path);
          dispatchEvent(new PopStateEvent('popstate'));
        }, `/a/${id}/${station}`);
        const current = `nav[aria-label="The line of this assignment"] [href$="/${station}"]`;
        await page.waitForSelector(current);
        // Something to read, and something to do: a link or a control below the line.
        const isAlive = await page
          .waitForFunction(
            () => {
              const line = document.querySelector('nav[aria-label="The line of this assignment"]');
              const below = [
                ...document.querySelectorAll('main a, main button, main textarea, main [role="textbox"]'),
              ];
              return below.some(
                (one) =>
                  line !== null && line.compareDocumentPosition(one) === Node.DOCUMENT_POSITION_FOLLOWING,
              );
            },
            { polling: 50, timeout: 10_000 },
          )
          .then(() => true)
          .catch(() => false);
        if (!isAlive) dead.push(`${id} ${station}`);
      }
    expect(dead).toEqual([]);
    expect(ids.size).toBeGreaterThan(20);
  },
  undefined,
  'whole',
);
