import type { Assignment, Attempt, Marking } from '#core/model/facts.ts';
import { escapeXml as safe } from '#formats/xml/escape-xml.ts';
import type { KeptQuestion, KeptQuiz, Sitting } from './quiz.ts';
import { placesIn } from './sittings.ts';

/** The desk's own plain pages, on which a quiz is taken: forms alone, so that they work by keyboard and without a script. */

const STYLE = `
  body { font: 1.125rem/1.55 Georgia, 'Times New Roman', serif; color: #1d2521; background: #f7f6f1; margin: 0; }
  main { max-width: 40rem; margin: 0 auto; padding: 1.5rem 1rem 4rem; }
  h1 { font-size: 1.35rem; margin: 0 0 .25rem; }
  p, ul, ol { margin: .6rem 0; }
  a { color: #15503f; }
  button { font: inherit; padding: .55rem 1.1rem; border: 1px solid #1d2521; border-radius: .3rem; background: #fff; color: inherit; cursor: pointer; min-height: 2.75rem; }
  button.main { background: #15503f; border-color: #15503f; color: #fff; }
  input[type=text], textarea, select { font: inherit; color: inherit; background: #fff; border: 1px solid #5b645f; border-radius: .3rem; padding: .45rem .6rem; box-sizing: border-box; max-width: 100%; }
  input[type=text], textarea { width: 100%; }
  input[type=radio], input[type=checkbox] { width: 1.2rem; height: 1.2rem; margin: 0 .6rem 0 0; flex: none; }
  label.choice { display: flex; align-items: center; padding: .5rem 0; min-height: 1.75rem; }
  fieldset { border: 0; padding: 0; margin: 1rem 0; min-width: 0; }
  legend { padding: 0; font-size: 1.2rem; white-space: pre-line; }
  :focus-visible { outline: 3px solid #b3541e; outline-offset: 2px; }
  .quiet { color: #4c544f; font-size: 1rem; }
  .row { display: flex; flex-wrap: wrap; gap: .75rem; margin: 1.25rem 0; }
  .numbers { display: flex; flex-wrap: wrap; gap: .4rem; list-style: none; padding: 0; }
  .numbers button { padding: .3rem .5rem; min-width: 2.75rem; }
  .numbers button[aria-current] { border-width: 3px; font-weight: bold; }
  .placed { display: flex; flex-wrap: wrap; justify-content: space-between; align-items: center; gap: .5rem 1rem; padding: .4rem 0; border-top: 1px solid #c9cbc2; }
  table { border-collapse: collapse; width: 100%; }
  th, td { text-align: left; padding: .4rem .6rem .4rem 0; border-top: 1px solid #c9cbc2; vertical-align: top; }
  @media (prefers-color-scheme: dark) {
    body { color: #e9ebe4; background: #161b19; }
    a { color: #8fd3ba; }
    button, input[type=text], textarea, select { background: #222926; border-color: #98a29c; }
    button.main { background: #8fd3ba; border-color: #8fd3ba; color: #10201a; }
    .quiet { color: #b3bab4; }
    .placed, th, td { border-color: #46504b; }
  }
`;

interface PageGiven {
  readonly title: string;
  readonly deskName: string;
  readonly body: string;
  /** The script that keeps what is typed and tells the time. */
  readonly script?: boolean;
}

function page({ title, deskName, body, script = false }: PageGiven): string {
  return `<!doctype html><html lang="en"><head><meta charset="utf-8"><meta name="viewport" content="width=device-width, initial-scale=1"><title>${safe(title)} – ${safe(deskName)}</title><link rel="icon" href="/sign.svg"><style>${STYLE}</style>${script ? '<script type="module" src="/sitting.js"></script>' : ''}</head><body><main><p class="quiet">${safe(deskName)}, course desk</p>${body}</main></body></html>`;
}

const addressOf = ({ id }: Sitting, to: string | number) => `/desk/sittings/${id}/${to}`;

const back = (assignmentId: string, to: string) =>
  `<p><a href="/a/${encodeURIComponent(assignmentId)}/${to}">Back to Juncture</a></p>`;

/** A sentence in place of a page that there is none for. */
export function sorryPage(deskName: string, sentence: string, assignmentId: string | null): string {
  const way = assignmentId === null ? '<p><a href="/">Back to Juncture</a></p>' : back(assignmentId, 'send');
  return page({ title: 'Not here', deskName, body: `<h1>${safe(sentence)}</h1>${way}` });
}

export interface BeginGiven {
  readonly deskName: string;
  /** The zone in which times are told. */
  readonly zone: string;
  readonly assignment: Assignment;
  readonly quiz: KeptQuiz;
  /** Attempts that count already. */
  readonly used: number;
  /** Why none can be begun; null where one can. */
  readonly barred: string | null;
  /** One is going on. */
  readonly open: Sitting | undefined;
  readonly closes: string | null;
}

/** Before a sitting: what it is, what the rules are, and the button that begins it. */
export function beginPage(given: BeginGiven): string {
  const { deskName, zone, assignment, quiz, used, barred, open, closes } = given;
  const facts = [
    `${quiz.items.length} questions, ${assignment.possible ?? '?'} points.`,
    quiz.minutes === null
      ? 'There is no time limit but the closing time.'
      : `You have ${quiz.minutes} minutes from the moment you begin. When they are over, what you have answered counts, also if this window is closed.`,
    `This is attempt ${used + 1} of ${assignment.attemptsAllowed}.`,
    ...(closes === null ? [] : [`It can be taken until ${momentOf(closes, zone)}.`]),
    'Every answer is kept as soon as you give it. You can go back to any question until you end.',
  ];
  const action = `/desk/quizzes/${encodeURIComponent(assignment.id)}/sittings`;
  const body =
    open !== undefined
      ? `<p>You began at ${timeOf(open.begunAt, zone)}; there is time until ${timeOf(open.endsAt, zone)}.</p><form method="post" action="${action}"><button class="main">Go on</button></form>`
      : barred === null
        ? `<ul>${facts.map((fact) => `<li>${safe(fact)}</li>`).join('')}</ul><form method="post" action="${action}"><button class="main">Begin attempt ${used + 1}</button></form>`
        : `<p>${safe(barred)}</p>`;
  return page({
    title: assignment.title,
    deskName,
    body: `<h1>${safe(assignment.title)}</h1>${body}${back(assignment.id, 'send')}`,
  });
}

export interface QuestionGiven {
  readonly deskName: string;
  /** The desk's time: the browser's clock may be another. */
  readonly now: string;
  /** The zone in which times are told. */
  readonly zone: string;
  readonly assignment: Assignment;
  readonly quiz: KeptQuiz;
  readonly sitting: Sitting;
  /** From 1. */
  readonly number: number;
}

const answerOf = ({ answers }: Sitting, { id }: KeptQuestion) =>
  (answers as Readonly<Partial<Record<string, string[]>>>)[id] ?? [];

const isAnswered = (sitting: Sitting, question: KeptQuestion) =>
  answerOf(sitting, question).some((one) => one.trim() !== '');

/** The names under which a question's answer stands in its form. */
export const answerField = 'answer';
/** The answer as the page had it: what was not changed on a page is not kept anew, another page may know it better. */
export const seenField = 'seen';
export const placeField = (choice: string) => `place ${choice}`;
export const partnerField = (choice: string) => `partner ${choice}`;

/** One question, with its answer as it stands, and the way to every other. */
export function questionPage(given: QuestionGiven): string {
  const { assignment, quiz, sitting, number } = given;
  const question = quiz.items[number - 1];
  const last = number === quiz.items.length;
  const numbers = quiz.items
    .map(
      (one, index) =>
        `<li><button name="to" value="${index + 1}"${index + 1 === number ? ' aria-current="true"' : ''} aria-label="Question ${index + 1}, ${isAnswered(sitting, one) ? 'answered' : 'not answered'}">${index + 1}${isAnswered(sitting, one) ? ' ✓' : ''}</button></li>`,
    )
    .join('');
  const body = `<h1>Question ${number} of ${quiz.items.length}</h1>
${clock(given)}
<form method="post" action="${addressOf(sitting, number)}" data-keep>
<input type="hidden" name="${seenField}" value="${safe(JSON.stringify(answerOf(sitting, question)))}">
<fieldset><legend>${safe(question.prompt)}</legend><p class="quiet">${safe(question.possible)} ${question.possible === '1' ? 'point' : 'points'}</p>${fieldsOf(question, answerOf(sitting, question))}</fieldset>
<p class="quiet" role="status" data-kept></p>
<div class="row"><button class="main" name="to" value="${last ? 'review' : number + 1}">${last ? 'Keep and look over' : 'Keep and go on'}</button>${number > 1 ? `<button name="to" value="${number - 1}">Back</button>` : ''}${last ? '' : '<button name="to" value="review">Look over and end</button>'}</div>
<nav aria-label="All questions"><ul class="numbers">${numbers}</ul></nav>
</form>`;
  return page({
    title: `Question ${number}, ${assignment.title}`,
    deskName: given.deskName,
    body,
    script: true,
  });
}

function clock({ sitting, zone, now }: Pick<QuestionGiven, 'sitting' | 'zone' | 'now'>): string {
  return `<p class="quiet" data-now="${now}" data-ends="${sitting.endsAt}" data-over="${addressOf(sitting, 'review')}">There is time until ${timeOf(sitting.endsAt, zone)}.<span role="status" data-left></span></p>`;
}

function fieldsOf({ kind, choices, partners }: KeptQuestion, answer: readonly string[]): string {
  switch (kind) {
    case 'one':
    case 'several': {
      const type = kind === 'one' ? 'radio' : 'checkbox';
      return choices
        .map(
          ({ id, text }) =>
            `<label class="choice"><input type="${type}" name="${answerField}" value="${safe(id)}"${answer.includes(id) ? ' checked' : ''}>${safe(text)}</label>`,
        )
        .join('');
    }
    case 'order': {
      const places = placesIn(answer);
      return choices
        .map(({ id, text }) =>
          select(
            placeField(id),
            text,
            choices.map((_, index) => [String(index + 1), `place ${index + 1}`]),
            String(places.get(id) ?? ''),
          ),
        )
        .join('');
    }
    case 'pairs':
      return choices
        .map(({ id, text }) => {
          const chosen = answer.find((one) => one.startsWith(`${id} `))?.slice(id.length + 1) ?? '';
          return select(
            partnerField(id),
            text,
            partners.map((partner) => [partner.id, partner.text]),
            chosen,
          );
        })
        .join('');
    case 'number':
    case 'short':
      return `<label>Your answer<br><input type="text" name="${answerField}" maxlength="500" autocomplete="off" value="${safe(answer.at(0) ?? '')}"></label>`;
    case 'long':
      return `<label>Your answer<br><textarea name="${answerField}" rows="7" maxlength="10000">${safe(answer.at(0) ?? '')}</textarea></label>`;
  }
}

function select(
  name: string,
  label: string,
  options: readonly (readonly [string, string])[],
  chosen: string,
): string {
  const shown = options
    .map(
      ([value, text]) =>
        `<option value="${safe(value)}"${value === chosen ? ' selected' : ''}>${safe(text)}</option>`,
    )
    .join('');
  return `<label class="placed"><span>${safe(label)}</span><select name="${safe(name)}"><option value="">choose</option>${shown}</select></label>`;
}

/** All questions with what was answered, and the button that ends the sitting. */
export function reviewPage(given: Omit<QuestionGiven, 'number'>): string {
  const { assignment, quiz, sitting } = given;
  const open = quiz.items.filter((question) => !isAnswered(sitting, question)).length;
  const rows = quiz.items
    .map(
      (question, index) =>
        `<tr><th scope="row"><a href="${addressOf(sitting, index + 1)}">${index + 1}. ${safe(question.title)}</a></th><td>${isAnswered(sitting, question) ? (twice(question, sitting) ? 'two in one place' : 'answered') : 'not answered'}</td></tr>`,
    )
    .join('');
  const body = `<h1>Look over</h1>${clock(given)}<p>${open === 0 ? 'Every question is answered.' : open === 1 ? 'One question is not answered.' : `${open} questions are not answered.`}</p>
<table><caption class="quiet">${safe(assignment.title)}</caption><tbody>${rows}</tbody></table>
<form method="post" action="${addressOf(sitting, 'end')}"><div class="row"><button class="main">End and hand in</button></div></form><p class="quiet">After that nothing can be changed.</p>`;
  return page({ title: `Look over, ${assignment.title}`, deskName: given.deskName, body, script: true });
}

/** Two choices were given the same place. */
function twice(question: KeptQuestion, sitting: Sitting): boolean {
  const places = placesIn(answerOf(sitting, question));
  return new Set(places.values()).size < places.size;
}

/** After the end: what was handed in and what it came to so far. */
export function endedPage(
  { deskName, zone, assignment }: Pick<QuestionGiven, 'deskName' | 'zone' | 'assignment'>,
  attempt: Attempt,
  marking: Marking | undefined,
): string {
  const points = `${marking?.score ?? ''} of ${assignment.possible ?? '?'} points`;
  const told =
    marking === undefined
      ? 'It is being marked.'
      : marking.complete
        ? `${points}. What was said of each answer is in Juncture.`
        : `${points} so far. The answers in your own words are still being read; they follow in Juncture.`;
  const body = `<h1>Attempt ${attempt.number} is handed in</h1><p>Ended ${momentOf(attempt.at, zone)}. Receipt ${safe(attempt.receipt?.id ?? '')}.</p><p>${safe(told)}</p>${back(assignment.id, 'send')}`;
  return page({ title: `Handed in, ${assignment.title}`, deskName, body });
}

function momentOf(at: string, zone: string): string {
  return new Date(at).toLocaleString('en-GB', { timeZone: zone, dateStyle: 'medium', timeStyle: 'short' });
}

function timeOf(at: string, zone: string): string {
  return new Date(at).toLocaleTimeString('en-GB', { timeZone: zone, hour: '2-digit', minute: '2-digit' });
}
