import { gzipSync } from 'node:zlib';
import { describe, expect } from 'vitest';
import type { Page } from 'puppeteer-core';
import type { FileFact, Marking } from '#core/model/facts.ts';
import { hashOf } from '#formats/hash.ts';
import {
  arrive,
  clickRole,
  REPORT,
  seeText,
  settled,
  signIn,
  until,
  type Desk,
  pick,
  seeChosen,
  chooseIn,
} from './harness.ts';
import { pageTest, PHONE } from './page-test.ts';

const DESK = { width: 1280, height: 800 };
type Run = Parameters<typeof pageTest>[1];
const whole = (name: string, run: Run) => pageTest(name, run, DESK, 'whole');
/** A test at a desk that has these assignments alone. */
const withOnly = (part: readonly string[], name: string, run: Run) => pageTest(name, run, DESK, part);

/** A marking that the desk has, to be put into its record once more with changes. */
function markingOf(desk: Desk, assignmentId: string): Marking {
  const found = desk.folder.state.facts.findLast(
    (fact) => fact.kind === 'marking' && fact.value.assignmentId === assignmentId,
  );
  if (found?.kind !== 'marking') throw new Error(`no marking of ${assignmentId}`);
  return found.value;
}

const at = (time: string) => `2026-11-02T${time}.000Z` as never;

/** The marking of what was waiting, as it might come back. */
function newMarking(desk: Desk): Marking {
  const like = markingOf(desk, 'dip-well-lab');
  return {
    ...like,
    id: 'stand-survey-marking-1' as never,
    attemptId: 'stand-survey-attempt-1' as never,
    assignmentId: 'stand-survey' as never,
    at: at('09:59:00'),
    marker: { name: 'Pascoe Wray', role: 'instructor' },
    score: '21' as never,
    overall: 'Ten quadrats, ten lists. Quadrat 8 needs its own depth.',
    criteria: [],
    files: [],
  };
}

/** Gives the desk a file that comes back, with so many remarks announced. */
async function returnedFile(
  desk: Desk,
  given: Pick<FileFact, 'role' | 'name' | 'mediaType' | 'announced'>,
  bytes: Uint8Array<ArrayBuffer>,
): Promise<FileFact> {
  const hash = await hashOf(bytes);
  desk.folder.putFile(hash, bytes);
  return { ...given, size: bytes.length, hash, aboutHash: null };
}

const figures = (page: Page) =>
  page.$eval('nav[aria-label="The line of this assignment"]', (nav) => nav.textContent);

describe('Arrivals', () => {
  whole('leads to every remark of the busiest assignment by keyboard alone', async ({ page, desk }) => {
    await signIn(page, desk);
    await page.keyboard.press('.');
    await seeText(page, 'Read 0 of 52');
    const visited = new Set<string>();
    const materials = new Set<string>();
    for (let i = 0; i < 52; i++) {
      const focused = new URL(page.url()).searchParams.get('remark') ?? '';
      expect(visited.has(focused)).toBe(false);
      visited.add(focused);
      materials.add(
        await page.$eval('[role="tab"][aria-selected="true"]', (tab) => tab.textContent.replace(/\d.*/, '')),
      );
      await page.waitForSelector('[aria-current="true"][data-slip]');
      await page.keyboard.press(i % 7 === 0 ? 'k' : 'a');
      await until(page, (wanted) => document.body.textContent.includes(wanted), `Decide ${i + 1} of 52`);
      if (i < 51) {
        await page.keyboard.press('.');
        await until(page, (before) => !location.search.includes(before), encodeURIComponent(focused));
      }
    }
    expect([...materials].sort()).toEqual(['Criteria', 'In the paper', 'Overall', 'Overlap', 'Recordings']);
    expect(await figures(page)).toContain('Read 52 of 52');
    // Nothing is left here: the next key goes on to the next assignment that has something.
    await page.keyboard.press('.');
    await seeText(page, 'Next not read: Lab activity: levels of six wells');
    await page.goto(`${desk.address}/a/skarn-moss-report`);
    await until(page, () => document.body.textContent.match(/all decided/g)?.length === 5);
    await page.goto(desk.address);
    await seeText(page, 'Gone through');
  });

  whole('tells every state by its facts', async ({ page, desk }) => {
    await signIn(page, desk);
    for (const fact of [
      'the course grade up to',
      '1 attempt left',
      'part marked, more is to come',
      '5.75 of 10 so far',
      'sent again Sun 1 Nov 09:20; the first score counts until then',
      'sent 3 h after the due time, 2 points off',
      'Marked with 17 now, with 15 before',
      '“See my notes in the file for each sheet.”: nothing came in the paper',
      'two records that don’t fit',
      'due Sun 8 Nov 23:59 for others, Tue 10 Nov 23:59 for you; nothing sent',
      'taken late until Sun 15 Nov 23:59',
      '26 remarks on its draft stage',
      'opens Sat 14 Nov 09:00',
      'Closed Mon 26 Oct 18:00; nothing was sent',
      'Excused: it doesn’t count',
      'Spring term: 3 assignments',
    ])
      await seeText(page, fact);
    await page.goto(`${desk.address}/a/field-day`);
    await seeText(page, 'A score is on record, but no attempt.');
    await page.goto(`${desk.address}/a/policy-brief`);
    await seeText(page, 'Advice on the draft: 26 remarks');
    await page.goto(`${desk.address}/a/policy-brief-draft/revise`);
    await seeText(page, 'This was a draft stage.');
  });

  pageTest(
    'shows what comes back while one looks only when asked, so that nothing jumps',
    async ({ page, desk }) => {
      await signIn(page, desk);
      const places = () => page.$$eval('main h2 a', (links) => links.map((link) => link.textContent));
      const before = await places();
      desk.record({ kind: 'marking', value: newMarking(desk) });
      await seeText(page, '1 assignment has come back just now.');
      await seeText(page, 'Pascoe Wray has marked “Stand survey');
      expect(await places()).toEqual(before);
      await clickRole(page, 'button', 'Show');
      await until(
        page,
        () => document.querySelector('main h2 a')?.textContent.startsWith('Stand survey') === true,
      );
      await page.reload();
      await seeText(page, 'Stand survey: sphagnum on the southern transect');
      expect(await page.title()).toMatch(/^\(\d+\) Arrivals/);
    },
  );

  pageTest('says what has come back since the last visit', async ({ page, desk }) => {
    await signIn(page, desk);
    // The desk's clock stands still between steps: the visit ends a minute after what came in it.
    desk.clock.advance(60_000);
    await page.reload();
    await seeText(page, 'desk reached');
    await page.goto('about:blank');
    desk.clock.advance(3_600_000);
    desk.record({ kind: 'marking', value: newMarking(desk) });
    await page.goto(desk.address);
    await seeText(page, '1 assignment has come back since your last visit.');
    await seeText(page, 'new');
    // What came was seen within that minute.
    desk.clock.advance(60_000);
    await page.reload();
    await seeText(page, 'desk reached');
    await page.reload();
    await seeText(page, 'Stand survey: sphagnum on the southern transect');
    await until(page, () => !document.body.textContent.includes('since your last visit'));
  });

  withOnly(
    ['seminar-post-1', 'dip-well-lab'],
    'marks everything of an assignment as read, which can be taken back',
    async ({ page, desk }) => {
      await arrive(page, desk);
      await clickRole(page, 'button', 'Mark as read Seminar post 1: what is a common?');
      await seeText(page, 'all 5 remarks read');
      await clickRole(page, 'button', 'Undo');
      await seeText(page, 'Undone: all marked as read.');
      await until(page, () => !document.body.textContent.includes('all 5 remarks read'));
      await clickRole(page, 'button', 'Mark as read Seminar post 1: what is a common?');
      await seeText(page, 'all 5 remarks read');
      await page.reload();
      await seeText(page, 'Gone through');
      await (await seeText(page, 'Seminar post 1: what is a common?')).click();
      await seeText(page, '5 read');
    },
  );
});

describe('the first page', () => {
  withOnly(['core-log'], 'needs less than 200 kB of code', async ({ page, desk }) => {
    // What takes the first files in is asked for when they come, and not shown with.
    await arrive(page, desk);
    const coming: Promise<number>[] = [];
    page.on('response', (response) => {
      // A worker reads files beside the page, which does not wait for it.
      if (response.request().resourceType() === 'script' && !response.url().includes('.worker-'))
        coming.push(response.buffer().then((body) => gzipSync(body).length));
    });
    await page.setCacheEnabled(false);
    await page.reload();
    await seeText(page, 'desk reached');
    await page.waitForNetworkIdle({ idleTime: 1000, concurrency: 1 });
    const sizes = await Promise.all(coming);
    console.log(
      `Arrivals is shown with ${Math.round(sizes.reduce((x, y) => x + y, 0) / 1000)} kB of code, compressed`,
    );
    expect(sizes.length).toBeGreaterThan(1);
    expect(sizes.reduce((x, y) => x + y, 0)).toBeLessThan(200_000);
  });
});

describe('a remark that is being read', () => {
  withOnly(['core-log'], 'stays where it is when something comes back', async ({ page, desk }) => {
    await arrive(page, desk);
    await page.goto(`${desk.address}/a/core-log/read`);
    await page.waitForSelector('[data-slip]');
    for (let i = 0; i < 9; i++) await page.keyboard.press('n');
    await page.waitForSelector('[aria-current="true"][data-slip]');
    await until(page, () => (document.querySelector('[data-scroller]')?.scrollTop ?? 0) > 100);
    await settled(page);
    const place = () =>
      page.evaluate(() => ({
        top: document.querySelector('[data-scroller]')?.scrollTop,
        slip: document.querySelector('[aria-current="true"][data-slip]')?.getBoundingClientRect().top,
        address: location.search,
      }));
    const before = await place();
    const old = markingOf(desk, 'core-log');
    desk.record({
      kind: 'marking',
      value: {
        ...old,
        id: 'core-log-more' as never,
        at: at('09:58:00'),
        criteria: old.criteria.map((criterion) => ({
          ...criterion,
          comment: criterion.comment || 'And the lens?',
        })),
      },
    });
    await until(page, () => /Criteria\s*\d\/3/.test(document.body.textContent));
    expect(await place()).toEqual(before);
    // The same notice once more changes nothing.
    desk.record({ kind: 'marking', value: markingOf(desk, 'core-log') });
    await seeText(page, 'Pascoe Wray has changed the marking');
    await until(page, () => /Criteria\s*\d\/3/.test(document.body.textContent));
    expect(await place()).toEqual(before);
  });
});

describe('the assignment page', () => {
  withOnly(
    ['policy-brief-draft', 'herbarium'],
    'tells promises kept and broken, and brings a broken one onto the ask list',
    async ({ page, desk }) => {
      await arrive(page, desk);
      await page.goto(`${desk.address}/a/policy-brief-draft`);
      await (await seeText(page, 'here: 23 remarks')).click();
      await page.waitForSelector('[aria-current="true"][data-slip]');
      await page.goto(`${desk.address}/a/herbarium`);
      await seeText(page, 'nothing came in the paper');
      await (await seeText(page, 'Ask about it')).click();
      await (await seeText(page, 'on the ask list')).click();
      await seeText(page, '1 to ask');
      await page.waitForSelector('textarea[aria-label="Your question"]');
      const question = await page.$eval('textarea[aria-label="Your question"]', (field) => field.value);
      expect(question).toBe(
        'You wrote “See my notes in the file for each sheet.”, but I can’t find it. Where is it?',
      );
      await page.goto(`${desk.address}/a/herbarium`);
      await (await seeText(page, 'Set aside')).click();
      await seeText(page, 'set aside');
      await page.reload();
      await seeText(page, 'set aside');
      await (await seeText(page, 'Note something promised elsewhere')).click();
      await (
        await page.waitForSelector('section form input')
      )?.type('He will bring sheet six to the seminar');
      await page.keyboard.press('Enter');
      await seeText(page, '“He will bring sheet six to the seminar”');
      await page.reload();
      await seeText(page, 'noted by you');
    },
  );

  withOnly(
    ['falling-head-lab'],
    'shows what changed after return, and the same words twice as one remark',
    async ({ page, desk }) => {
      await arrive(page, desk);
      await page.goto(`${desk.address}/a/falling-head-lab`);
      await seeText(page, 'Marked with 17 now, with 15 before');
      await clickRole(page, 'button', 'Seen');
      await (await seeText(page, 'Two points back for the table')).click();
      await seeText(page, 'changed after return; before');
      await seeText(page, 'points: 15 before, 17 now');
      await page.goto(`${desk.address}/a/falling-head-lab/read`);
      await (await page.waitForSelector('[data-slip]'))?.click();
      await (await seeText(page, 'These are two')).click();
      await seeText(page, 'Read 0 of 5');
      await clickRole(page, 'button', 'Undo');
      await until(page, () => /Read\s*0 of 4/.test(document.body.textContent));
    },
  );

  withOnly(
    ['quiz-flow', 'falling-head-lab', 'stand-survey'],
    'opens every attempt as it stood, and takes one back where the rules allow it',
    async ({ page, desk }) => {
      await arrive(page, desk);
      await page.goto(`${desk.address}/a/quiz-flow`);
      await seeText(page, 'Attempt 2');
      await clickRole(page, 'button', 'Open Flow through peat, attempt 2.zip');
      await seeText(page, 'Better than the model answer');
      await page.goto(`${desk.address}/a/falling-head-lab`);
      await clickRole(page, 'button', 'Open Falling-head sheet.pdf');
      await page.waitForSelector('[data-page="1"] canvas');
      await page.goto(`${desk.address}/a/stand-survey`);
      await seeText(page, 'Quadrat 8 was under water');
      await clickRole(page, 'button', 'Take this attempt back');
      await clickRole(page, 'button', 'Take it back');
      await seeText(page, 'The attempt is taken back.');
      await seeText(page, 'it counts no more');
      await page.reload();
      await seeText(page, 'Closed Sat 31 Oct 18:00; nothing was sent');
    },
  );

  withOnly(['photo-key'], 'keeps work that was handed in elsewhere', async ({ page, desk }) => {
    await arrive(page, desk);
    await page.goto(`${desk.address}/a/photo-key`);
    await (await seeText(page, 'Note an attempt handed in elsewhere')).click();
    await (await page.waitForSelector('section form input:not([type])'))?.type('prints, on his desk');
    await clickRole(page, 'button', 'Keep it');
    await seeText(page, 'handed in outside of Juncture, as you noted');
    await page.reload();
    await seeText(page, 'prints, on his desk');
    await clickRole(page, 'button', 'Undo');
    await until(page, () => !document.body.textContent.includes('prints, on his desk'));
  });
});

describe('the brief and its resources', () => {
  pageTest('are materials like the others, and open in the reading place', async ({ page, desk }) => {
    await signIn(page, desk);
    await page.goto(`${desk.address}/a/skarn-moss-report/read?material=brief`);
    await seeText(page, 'Report on what blocking the ditches did');
    await clickRole(page, 'button', 'Open Lab sheet 3, dip wells.pdf');
    await page.waitForSelector('[data-page="1"] canvas');
    expect(await page.$$('[data-slip]')).toHaveLength(0);
    await page.reload();
    await page.waitForSelector('[data-page="1"] canvas');
    await page.goBack();
    await seeText(page, 'Report on what blocking the ditches did');
  });
});

describe('a quiz', () => {
  withOnly(
    ['quiz-flow'],
    'opens at the attempt that its score goes by, named with what that got, and leads to the other',
    async ({ page, desk }) => {
      await arrive(page, desk);
      await page.goto(`${desk.address}/a/quiz-flow/read`);
      await seeText(page, 'Attempt 2: 10 of 12');
      await chooseIn(page, 'Attempt 2: 10 of 12', 'Attempt 1: 2.5 of 12');
      await seeText(page, 'Attempt 1: 2.5 of 12');
      expect(new URL(page.url()).searchParams.get('material')).toBe('quiz');
      // On a phone the two results are rows, and nothing is cut off.
      await page.setViewport(PHONE);
      await page.goto(`${desk.address}/a/quiz-flow/send`);
      await seeText(page, 'Before and after');
      expect(await page.evaluate(() => document.documentElement.scrollWidth <= window.innerWidth)).toBe(true);
    },
  );
});

describe('what a remark says', () => {
  withOnly(
    ['core-log'],
    'is proposed, corrected with one key, and back to what was proposed with another',
    async ({ page, desk }) => {
      await arrive(page, desk);
      await page.goto(`${desk.address}/a/core-log/read`);
      await (await page.waitForSelector('[data-slip]'))?.click();
      await page.waitForSelector('[aria-label="What it says"] ::-p-text((proposed))');
      await page.keyboard.press('3');
      await seeChosen(page, 'What it says', '3 polish');
      await page.reload();
      await seeChosen(page, 'What it says', '3 polish');
      await page.keyboard.press('0');
      await page.waitForSelector('[aria-label="What it says"] ::-p-text((proposed))');
      await seeText(page, '“sc.” means “scale” in this hand.');
    },
  );
});

describe('deciding for many at once', () => {
  withOnly(
    ['core-log'],
    'takes one decision for all that are chosen, and one undo',
    async ({ page, desk }) => {
      await arrive(page, desk);
      await page.goto(`${desk.address}/a/core-log/decide?remark=none`);
      await clickRole(page, 'button', 'Choose for several');
      await pick(page, 'Channel', 'Regions');
      await clickRole(page, 'checkbox', 'All of these');
      await seeText(page, '12 remarks chosen');
      await clickRole(page, 'button', 'Act');
      await seeText(page, '0 remarks chosen');
      await until(page, () => /Decide\s*12 of 15/.test(document.body.textContent));
      await clickRole(page, 'button', 'Undo');
      await seeText(page, 'Undone: decided “Act” for 12 remarks.');
      await until(page, () => /Decide\s*0 of 15/.test(document.body.textContent));
    },
  );
});

describe('a course desk that is not in order', () => {
  pageTest(
    'is said in words, whatever is wrong, and everything else works',
    async ({ page, desk, expectFault }) => {
      expectFault(/Failed to load resource|500|502/);
      await signIn(page, desk);
      let answer: { status: number; contentType: string; body: string } | null = null;
      let waitMs = 2500;
      await page.setRequestInterception(true);
      page.on('request', (request) => {
        const isFacts = new URL(request.url()).pathname === '/desk/facts';
        if (isFacts && answer !== null) void request.respond(answer);
        else if (isFacts) setTimeout(() => void request.continue(), waitMs);
        else void request.continue();
      });
      // A slow answer holds up nothing that is here already.
      await page.reload();
      await seeText(page, REPORT);
      await seeText(page, 'asking the course desk');
      await seeText(page, 'desk reached');
      waitMs = 0;
      answer = { status: 200, contentType: 'text/html', body: '<h1>Sign in</h1>' };
      await page.reload();
      await seeText(page, 'The course desk answers, but not in a form that can be read here.');
      await seeText(page, REPORT);
      answer = { status: 500, contentType: 'application/json', body: '{}' };
      await seeText(page, 'desk not reached');
      const cursor = desk.folder.state.facts.length;
      answer = {
        status: 200,
        contentType: 'application/json',
        body: JSON.stringify({
          now: '2026-11-02T10:00:00.000Z',
          cursor,
          facts: [
            { seq: cursor + 1, kind: 'marking', value: { result: { sourcedId: 'x' } } },
            { seq: cursor + 2, kind: 'prize', value: {} },
          ],
        }),
      };
      await seeText(page, '2 things that the course desk sent can’t be read here (marking: value.result');
      await seeText(page, 'desk reached');
      await page.reload();
      await seeText(page, '2 things that the course desk sent can’t be read here');
      answer = null;
    },
  );

  pageTest(
    'may announce a large file, which waits with its size until it is asked for',
    async ({ page, desk }) => {
      await signIn(page, desk);
      const bytes = new Uint8Array(21 * 1024 * 1024).map((_, i) => i % 251);
      const given = { role: 'recording', name: 'On the survey.ogg', mediaType: 'audio/ogg' } as const;
      const file = await returnedFile(desk, { ...given, announced: { recording: 1 } }, bytes);
      desk.record({ kind: 'marking', value: { ...newMarking(desk), files: [file] } });
      await clickRole(page, 'button', 'Show');
      await seeText(page, '1 more announced, file not read yet');
      await page.goto(`${desk.address}/a/stand-survey`);
      await seeText(page, 'On the survey.ogg, 21.0 MB');
      await seeText(page, 'left for later');
      await clickRole(page, 'button', 'Fetch it');
      await until(page, () => !document.body.textContent.includes('Not here yet'));
      await until(page, () => /Read\s*0 of 2/.test(document.body.textContent));
    },
  );

  pageTest('may send 2,000 remarks on one assignment', async ({ page, desk }) => {
    await signIn(page, desk);
    const posts = Array.from({ length: 40 }, (_, p) => ({
      id: `p${p}`,
      author: { name: p % 2 === 0 ? 'Ines Tarrow' : 'Lena Fisk', role: 'peer' },
      at: '2026-11-01T10:00:00.000Z',
      answers: null,
      text: Array.from({ length: 50 }, (_, i) => `Sentence ${i} of post ${p} stands here.`).join(' '),
      comments: Array.from({ length: 50 }, (_, i) => ({
        id: `p${p}c${i}`,
        author: { name: 'Pascoe Wray', role: 'instructor' },
        at: null,
        quote: `Sentence ${i} of post ${p} stands here.`,
        text: `Say why, number ${i} of ${p}.`,
      })),
    }));
    const bytes = new TextEncoder().encode(JSON.stringify({ type: 'discussion', title: 'Long', posts }));
    const given = { role: 'posts', name: 'long.json', mediaType: 'application/json' } as const;
    const file = await returnedFile(desk, { ...given, announced: { post: 2000 } }, bytes);
    desk.record({ kind: 'marking', value: { ...newMarking(desk), overall: '', files: [file] } });
    await clickRole(page, 'button', 'Show');
    await seeText(page, '2000 not read');
    await page.goto(`${desk.address}/a/stand-survey/decide`);
    await seeText(page, 'Remark 1 of 2000');
    await page.keyboard.press('a');
    await until(page, () => /Decide\s*1 of 2000/.test(document.body.textContent));
  });
});
