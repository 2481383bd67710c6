import { mkdtempSync, rmSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import type { Page } from 'puppeteer-core';
import {
  asId,
  AssignmentId,
  CourseId,
  CriterionId,
  instantOf,
  MarkingId,
  AttemptId,
} from '#core/model/ids.ts';
import { buildDesk } from '#demo/build-desk.ts';
import { readFeedback } from '#demo/scenario.ts';
import { steppedClock } from '#server/clock.ts';
import { createDesk, openDesk } from '#server/desk/desk-folder.ts';
import type { DeskContent, NewFact } from '#server/desk/desk-state.ts';
import { listen } from '#server/listen.ts';
import { launchBrowser } from '../e2e/harness.ts';

/**
 * Arrivals with 10,000 remarks over 200 assignments, in the built application in headless Chromium: from a click or key
 * to the changed screen.
 */

const ASSIGNMENTS = 200;
const REMARKS_EACH = 50;
/** Arrivals draws the beginning of a long list. */
const SHOWN_AT_ONCE = 12;
const RUNS = Number(process.env.RUNS ?? 9);
const PORT = 7399;
const CODE = 'BENCH-BENCH';
const NOW = Date.parse('2026-11-02T10:00:00.000Z');
const DAY_MS = 86_400_000;

/** Two hundred assignments, each with overall words and 49 criterion comments out of the demo's remarks. */
async function largeDesk(): Promise<DeskContent> {
  const small = await buildDesk('2026-11-02', ['dip-well-lab']);
  const texts = ['skarn-moss-remarks', 'policy-brief-draft', 'landscape-essay'].flatMap((name) =>
    readFeedback(name).remarks.map(({ text }) => text),
  );
  const [course] = small.facts.flatMap((fact) => (fact.kind === 'course' ? [fact.value] : []));
  const [assignment] = small.facts.flatMap((fact) => (fact.kind === 'assignment' ? [fact.value] : []));
  const [attempt] = small.facts.flatMap((fact) => (fact.kind === 'attempt' ? [fact.value] : []));
  const [marking] = small.facts.flatMap((fact) => (fact.kind === 'marking' ? [fact.value] : []));
  const facts: NewFact[] = Array.from({ length: 5 }, (_, i) => ({
    kind: 'course' as const,
    value: { ...course, id: asId(CourseId, `course-${i}`), title: `Course ${i}` },
  }));
  for (let i = 0; i < ASSIGNMENTS; i++) {
    const id = asId(AssignmentId, `assignment-${i}`);
    const attemptId = asId(AttemptId, `attempt-${i}`);
    const said = (n: number) => `${texts[(i * 7 + n) % texts.length]} (${i}.${n})`;
    facts.push(
      {
        kind: 'assignment',
        value: {
          ...assignment,
          id,
          courseId: asId(CourseId, `course-${i % 5}`),
          title: `Assignment ${i}`,
          rubricId: null,
        },
      },
      { kind: 'attempt', value: { ...attempt, id: attemptId, assignmentId: id } },
      {
        kind: 'marking',
        value: {
          ...marking,
          id: asId(MarkingId, `marking-${i}`),
          attemptId,
          assignmentId: id,
          at: instantOf(NOW - (i + 1) * (DAY_MS / 4)),
          overall: said(0),
          criteria: Array.from({ length: REMARKS_EACH - 1 }, (_, n) => ({
            criterionId: asId(CriterionId, `criterion-${n}`),
            points: null,
            level: null,
            comment: said(n + 1),
          })),
        },
      },
    );
  }
  return { ...small, facts: facts.map((fact, index) => ({ ...fact, seq: index + 1 })) };
}

interface Act {
  /** What is clicked: the first of these with this text. */
  readonly click?: { readonly selector: string; readonly text: string };
  readonly key?: { readonly key: string; readonly ctrlKey: boolean };
}
/** What is to be seen: at least so many of an element, a text, or a text no more. */
interface Seen {
  readonly selector?: string;
  readonly atLeast?: number;
  readonly text?: string;
  readonly gone?: string;
}

/** Does something in the page and counts the time until what it brings about is on the screen. */
function timed(page: Page, act: Act, seen: Seen): Promise<number> {
  return page.evaluate(
    ({ click, key }: Act, { selector, atLeast = 1, text = '', gone }: Seen) =>
      new Promise<number>((resolve) => {
        const target =
          click === undefined
            ? undefined
            : [...document.querySelectorAll<HTMLElement>(click.selector)].find((one) =>
                one.textContent.startsWith(click.text),
              );
        const startedAt = performance.now();
        target?.click();
        if (key !== undefined) window.dispatchEvent(new KeyboardEvent('keydown', { ...key, bubbles: true }));
        const isSeen = () => {
          const all = document.body.textContent;
          if (gone !== undefined && all.includes(gone)) return false;
          if (!all.includes(text)) return false;
          return selector === undefined || document.querySelectorAll(selector).length >= atLeast;
        };
        const look = () => {
          if (!isSeen()) requestAnimationFrame(look);
          // The frame after the one in which it is there has been drawn.
          else requestAnimationFrame(() => resolve(performance.now() - startedAt));
        };
        look();
      }),
    act,
    seen,
  );
}

function shown(name: string, times: readonly number[]): void {
  const sorted = times.toSorted((x, y) => x - y);
  const at = (share: number) =>
    sorted[Math.min(sorted.length - 1, Math.floor(sorted.length * share))].toFixed(0);
  console.log(`  ${name.padEnd(58)} median ${at(0.5).padStart(4)} ms, p95 ${at(0.95).padStart(4)} ms`);
}

const folder = mkdtempSync(join(tmpdir(), 'juncture-bench-'));
createDesk(folder, await largeDesk(), CODE);
const server = await listen({
  desk: openDesk(folder),
  clock: steppedClock(NOW),
  appFolder: join(process.cwd(), 'dist', 'app'),
  port: PORT,
});
const browser = await launchBrowser();
try {
  const page = await browser.newPage();
  await page.setViewport({ width: 1280, height: 800 });
  await page.goto(`http://127.0.0.1:${PORT}/#student=ines-tarrow&code=${CODE}`);
  await page.waitForFunction(
    (text) => document.body.textContent.includes(text),
    { timeout: 120_000 },
    `${ASSIGNMENTS} assignments with ${ASSIGNMENTS * REMARKS_EACH} remarks not read yet.`,
  );
  console.log(
    `Arrivals with ${ASSIGNMENTS * REMARKS_EACH} remarks over ${ASSIGNMENTS} assignments, in the browser; ${RUNS} runs (bar: 100 ms)`,
  );
  const times: Record<string, number[]> = { leave: [], arrive: [], read: [], undo: [], key: [] };
  const link = (href: string): Act => ({ click: { selector: `header a[href="${href}"]`, text: '' } });
  const key = (name: string, ctrlKey: boolean): Act => ({ key: { key: name, ctrlKey } });
  const rest = () => new Promise((resolve) => setTimeout(resolve, 400));
  const arrivals: Seen = { selector: 'main h2 a', atLeast: SHOWN_AT_ONCE };
  const allRead = `all ${REMARKS_EACH} remarks read`;
  for (let run = 0; run <= RUNS; run++) {
    const measure = async (name: string, act: Act, seen: Seen) => {
      const ms = await timed(page, act, seen);
      // The first round warms up.
      if (run > 0) times[name].push(ms);
      await rest();
    };
    await measure('leave', link('/shelf'), { text: 'Save the workspace as a ZIP' });
    await measure('arrive', link('/'), arrivals);
    const markRead: Act = { click: { selector: 'main li button', text: 'Mark as read' } };
    await measure('read', markRead, { text: allRead });
    await measure('undo', key('z', true), { gone: allRead });
    await measure('key', key('.', false), { selector: '[data-slip][aria-current]' });
    await timed(page, link('/'), arrivals);
    await rest();
  }
  shown('from the Shelf to Arrivals, by click', times.arrive);
  shown('from Arrivals to the Shelf, by click', times.leave);
  shown('“Mark as read” of an assignment of 50 remarks, saved', times.read);
  shown('taking that back, by key', times.undo);
  shown('the next remark not read, in its place, by key', times.key);
} finally {
  await browser.close();
  await server.stop();
  rmSync(folder, { recursive: true, force: true });
}
