import * as v from 'valibot';
import type { FileFact } from '#core/model/facts.ts';
import { instantOf } from '#core/model/ids.ts';
import { wordKeysOf } from '#core/text/words.ts';
import { readDiscussion, type Discussion } from '#formats/posts/read-posts.ts';
import { readPaper } from '#formats/read-paper.ts';
import { attemptsIn, markingsIn } from '../desk/record.ts';
import { Demand } from './demand.ts';
import { fill } from './fill.ts';
import { asSentence, judgeDemands, type Found, type Judged } from './judge-demands.ts';
import { bytesOf, put, type Marked } from './marked.ts';
import { othersTexts, remarksTexts } from './others.ts';
import { nothingSaid, overallOf, remarksFile, sentPaper, type Rules, type Said } from './said.ts';

/** Papers, posts and answers to items: what is looked for in their text. */

/** Comments of a criterion: what is missing and hangs on no words of its own. */
function commentsOf(found: readonly Found<Demand>[]): Map<string, string[]> {
  const comments = new Map<string, string[]>();
  for (const { demand, met, quote } of found)
    if (!met && quote === null && demand.criterion !== null)
      comments.set(demand.criterion, [...(comments.get(demand.criterion) ?? []), demand.missing]);
  return comments;
}

const wonBy = (found: readonly Found<Demand>[]) =>
  found.filter(({ met }) => met).map(({ demand: { criterion, points } }) => ({ criterion, points }));

/** What is missing and hangs on neither words nor a criterion: it is said of all of it. */
const restOf = (found: readonly Found<Demand>[]) =>
  found.flatMap(({ demand, met, quote }) =>
    !met && quote === null && demand.criterion === null ? [demand.missing] : [],
  );

/** Remarks on words: what was met, where there is something to say of it, and what is missing of them. */
function remarksOn(found: readonly Found<Demand>[]): { readonly quote: string; readonly text: string }[] {
  return found.flatMap(({ demand, met, quote }) => {
    const text = met ? demand.met : demand.missing;
    return quote === null || text === '' ? [] : [{ quote, text }];
  });
}

function textSaid(
  given: Marked,
  rules: Rules<'paper' | 'posts' | 'items'>,
  judged: Judged<Demand>,
  files: readonly FileFact[],
): Said {
  if (judged.found === null) return nothingSaid(given.desk.state.markingRules.words[judged.fault]);
  const { found } = judged;
  const met = found.filter((one) => one.met).length;
  return {
    isWork: true,
    won: wonBy(found),
    overall: [overallOf(rules, met, found.length), ...restOf(found)].join(' '),
    comments: commentsOf(found),
    files,
  };
}

/** This work and its draft stages. */
function worksOf({ desk: { state }, assignment }: Marked): ReadonlySet<string> {
  const stages = state.facts.flatMap((fact) =>
    fact.kind === 'assignment' && fact.value.draftOf === assignment.id ? [fact.value.id] : [],
  );
  return new Set([assignment.id, ...stages]);
}

/** Texts that were marked on the way to this one: earlier attempts, and those of its draft stages. */
async function textsBefore(given: Marked, works: ReadonlySet<string>): Promise<string[]> {
  const files = attemptsIn(given.desk.state)
    .filter(({ id, assignmentId }) => id !== given.attempt.id && works.has(assignmentId))
    .flatMap((attempt) => attempt.files.filter(({ role }) => role === 'paper'));
  return Promise.all(
    files.map(async ({ hash }) => (await readPaper(await bytesOf(given, hash), null)).paper.text),
  );
}

export async function paperSaid(given: Marked, rules: Rules<'paper'>): Promise<Said> {
  const sent = sentPaper(given);
  const { paper } = await readPaper(await bytesOf(given, sent.hash), null);
  const { markingRules } = given.desk.state;
  const max = given.assignment.requirements.wordsMax;
  const words = wordKeysOf(paper.text).length;
  if (max !== null && words > max)
    return { ...nothingSaid(fill(markingRules.words.tooLong, { max, words })), isWork: true };
  const works = worksOf(given);
  const judged = judgeDemands(
    {
      text: paper.text,
      before: (await textsBefore(given, works)).join('\n'),
      remarks: await remarksTexts(given, works),
      others: await othersTexts(given),
    },
    rules.demands,
    markingRules.text,
  );
  const remarks = judged.found === null ? [] : remarksOn(judged.found);
  const files = await remarksFile(
    given,
    sent,
    remarks.map(({ quote, text }) => ({ text, selector: { kind: 'quote', exact: quote } })),
    'passage',
  );
  return textSaid(given, rules, judged, files);
}

export async function postSaid(given: Marked, rules: Rules<'posts'>): Promise<Said> {
  const { attempt, desk, course, assignment, nowMs } = given;
  if (attempt.post === null) throw new Error(`attempt ${attempt.id} has no post to mark`);
  const { text, answers, betters } = attempt.post;
  const thread = await threadOf(given);
  const others = thread.posts.filter(({ id }) => id !== betters);
  const judged = judgeDemands(
    {
      text,
      before: thread.posts.map((post) => post.text).join('\n'),
      remarks: thread.posts.flatMap(({ comments }) => comments.map((comment) => comment.text)),
      others: await othersTexts(given),
    },
    rules.demands,
    desk.state.markingRules.text,
  );
  const taken = others.find(({ id }) => id === answers);
  const takenUp = taken !== undefined && wordsShared(text, taken.text) >= rules.answering.leastWords;
  const found: Found<Demand>[] = [
    ...(judged.found ?? []),
    {
      demand: v.parse(Demand, {
        points: rules.answering.points,
        needs: [],
        missing: rules.answering.missing,
      }),
      met: takenUp,
      quote: null,
    },
  ];
  const by = { author: course.instructor, at: instantOf(nowMs) };
  const anew = {
    id: attempt.id,
    author: { name: desk.state.student.name, role: 'self' as const },
    at: attempt.at,
    answers,
    text,
    comments: (judged.found === null ? [] : remarksOn(found)).map(({ quote, text: comment }, index) => ({
      id: `${attempt.id}-${index + 1}`,
      ...by,
      quote,
      text: comment,
    })),
  };
  const discussion: Discussion = { ...thread, posts: [...thread.posts.map(withoutComments), anew] };
  const file = await put(given, new TextEncoder().encode(JSON.stringify(discussion, null, 1)), {
    role: 'posts',
    name: `${assignment.title.replace(/[\\/:*?"<>|]/g, '')}, attempt ${attempt.number}.json`,
    mediaType: 'application/json',
    announced: anew.comments.length === 0 ? {} : { post: anew.comments.length },
  });
  return textSaid(given, rules, judged.found === null ? judged : { fault: null, found }, [file]);
}

/** What was said of an earlier post came with that one's marking. */
function withoutComments(post: Discussion['posts'][number]): Discussion['posts'][number] {
  return { ...post, comments: [] };
}

/** The discussion as it came back last; an empty one where none did. */
async function threadOf(given: Marked): Promise<Discussion> {
  const files = markingsIn(given.desk.state, given.assignment).flatMap((marking) => marking.files);
  const last = files.findLast(({ role }) => role === 'posts');
  return last === undefined
    ? { type: 'discussion', title: given.assignment.title, posts: [] }
    : readDiscussion(await bytesOf(given, last.hash));
}

/** Words shorter than this are in any two texts. */
const TELLING_LETTERS = 5;

/** Different telling words that a post shares with the one it answers. */
function wordsShared(text: string, other: string): number {
  const known = new Set(wordKeysOf(other).filter((word) => word.length >= TELLING_LETTERS));
  return new Set(wordKeysOf(text).filter((word) => known.has(word))).size;
}

export function itemsSaid(given: Marked, rules: Rules<'items'>): Said {
  const { attempt, desk } = given;
  // What is not answered again stands as it was answered before.
  const earlier = attemptsIn(desk.state).filter(
    ({ assignmentId, number }) => assignmentId === attempt.assignmentId && number < attempt.number,
  );
  const answers = new Map([...earlier, attempt].flatMap(({ items }) => Object.entries(items)));
  const found = rules.demands.flatMap((demand): Found<Demand>[] => {
    const text = asSentence(answers.get(demand.criterion ?? '') ?? '');
    const judged = judgeDemands(
      { text, before: '', remarks: [], others: [] },
      [demand],
      desk.state.markingRules.text,
    );
    // An answer is one thing: what it lacks is said of the item.
    return judged.found === null
      ? [{ demand, met: false, quote: null }]
      : judged.found.map((one) => ({ ...one, quote: null }));
  });
  return textSaid(given, rules, { fault: null, found }, []);
}
