import type { FileFact } from '#core/model/facts.ts';
import type { Channel } from '#core/model/channels.ts';
import { hashOf } from '#formats/hash.ts';
import { writeQuizResults } from '#formats/qti/write-quiz.ts';
import { writeWebAnnotations } from '#formats/web-annotation/write-web-annotation.ts';
import { buildMarkedDocx } from './build-marked-docx.ts';
import { buildMarkedPdf, type DemoRemark } from './build-marked-pdf.ts';
import { itemOf } from '#server/desk/quiz.ts';
import { blocksOfMarkdown } from './markdown.ts';
import {
  readDiscussions,
  readFeedback,
  readMatches,
  readMedia,
  readPaperText,
  readQuizzes,
  type FeedbackGiven,
  type FileGiven,
} from './scenario.ts';

/** The files that come back in the demo, made from its data. */

const PDF = 'application/pdf';
const DESK = 'hollowmere';
const DOCX = 'application/vnd.openxmlformats-officedocument.wordprocessingml.document';

/** Where a file is put, and what of a marking is known that it needs. */
export interface FileContext {
  readonly files: Map<string, Uint8Array>;
  readonly marker: string;
  readonly at: string;
  /** What was sent, for a report. */
  readonly sent: FileFact | null;
  /** Files of the same marking, for remarks about them. */
  readonly before: readonly FileFact[];
  readonly instantOf: (day: number, time: string) => string;
  readonly roleOf: (name: string) => 'instructor' | 'peer' | 'self';
}

async function put(
  { files }: Pick<FileContext, 'files'>,
  bytes: Uint8Array,
  given: Pick<FileFact, 'role' | 'name' | 'mediaType'> & Partial<FileFact>,
): Promise<FileFact> {
  const own = new Uint8Array(bytes);
  const hash = await hashOf(own);
  files.set(hash, own);
  return { size: own.length, hash, aboutHash: null, announced: {}, ...given };
}

function titleOf(markdown: string): string {
  return /^# (.*)$/m.exec(markdown)?.[1] ?? '';
}

/** What was handed in, as a PDF without any mark. */
export async function sentPdf(
  text: string,
  name: string,
  at: string,
  context: Pick<FileContext, 'files'>,
): Promise<FileFact> {
  const markdown = readPaperText(text);
  const blocks = blocksOfMarkdown(markdown);
  const bytes = await buildMarkedPdf(titleOf(markdown), blocks, [], '', new Date(at));
  return put(context, bytes, { role: 'paper', name, mediaType: PDF });
}

function withHues(all: readonly FeedbackGiven[]): DemoRemark[] {
  const hues = all.flatMap(({ hues: own }) => Object.entries(own));
  return all
    .flatMap(({ remarks }) => remarks)
    .map(({ id, kind, quote, quotes, beside, near, criterion, text }) => {
      const hue = hues.find(([, ids]) => ids.includes(id))?.[0] as DemoRemark['hue'];
      return {
        id,
        kind,
        text,
        ...(quote !== undefined && { quote }),
        ...(quotes !== undefined && { quotes }),
        ...(beside !== undefined && { beside }),
        ...(near !== undefined && { near }),
        ...(criterion !== undefined && { criterion }),
        ...(hue !== undefined && { hue }),
      };
    });
}

function about(name: string, { before }: FileContext): FileFact {
  const found = before.find((file) => file.name === name);
  if (found === undefined) throw new Error(`no file ${name} for remarks to be about`);
  return found;
}

/** The line of a marking's files that gives one of this kind. */
type Given<Kind extends FileGiven['kind'], One = FileGiven> = One extends { readonly kind: string }
  ? Kind extends One['kind']
    ? One
    : never
  : never;

const counted = (channel: Channel, count: number) => ({ announced: count > 0 ? { [channel]: count } : {} });

async function markedPdf(given: Given<'marked pdf'>, context: FileContext): Promise<FileFact[]> {
  const { name } = given;
  const markdown = readPaperText(given.text);
  const remarks = withHues(given.remarks.map(readFeedback));
  const bytes = await buildMarkedPdf(
    titleOf(markdown),
    blocksOfMarkdown(markdown),
    remarks,
    context.marker,
    new Date(context.at),
  );
  return [
    await put(context, bytes, {
      role: 'marked',
      name,
      mediaType: PDF,
      ...counted('passage', remarks.length),
    }),
  ];
}

async function markedDocx(given: Given<'marked docx'>, context: FileContext): Promise<FileFact[]> {
  const { name } = given;
  const [feedback] = given.remarks.map(readFeedback);
  const blocks = blocksOfMarkdown(readPaperText(given.text));
  const remarks = feedback.remarks.map(({ id, quote, near, text, replies }) => ({
    id,
    text,
    ...(quote !== undefined && { quote }),
    ...(near !== undefined && { near }),
    ...(replies !== undefined && { replies }),
  }));
  const changes = feedback.changes.map(({ id, kind, quote, after, with: words }) => ({
    id,
    kind,
    ...(quote !== undefined && { quote }),
    ...(after !== undefined && { after }),
    ...(words !== undefined && { with: words }),
  }));
  const bytes = buildMarkedDocx(blocks, remarks, changes, context.marker, new Date(context.at));
  // What is put in place of other words is a deletion and an insertion.
  const marks = changes.reduce((sum, { kind }) => sum + (kind === 'replace' ? 2 : 1), remarks.length);
  return [await put(context, bytes, { role: 'marked', name, mediaType: DOCX, ...counted('passage', marks) })];
}

async function markedPicture(given: Given<'marked picture'>, context: FileContext): Promise<FileFact[]> {
  const { name } = given;
  return [
    await put(context, readMedia(`${given.media}.png`), { role: 'marked', name, mediaType: 'image/png' }),
  ];
}

async function regionRemarks(given: Given<'region remarks'>, context: FileContext): Promise<FileFact[]> {
  const { name } = given;
  const { regions } = readFeedback(given.remarks);
  const subject = about(given.about, context);
  const written = regions.map(({ id, box, text }) => ({
    id,
    text,
    selector: { kind: 'box' as const, box },
  }));
  const author = { name: context.marker, byMachine: false };
  return [await putRemarks(context, name, subject, written, author, 'region')];
}

async function peerRemarks(given: Given<'peer remarks'>, context: FileContext): Promise<FileFact[]> {
  const { name } = given;
  const { peer } = readFeedback(given.remarks);
  if (peer === undefined) throw new Error(`no peer in ${given.remarks}`);
  const written = peer.remarks.map(({ id, quote = '', text }) => ({
    id,
    text,
    selector: { kind: 'quote' as const, exact: quote },
  }));
  const subject = about(given.about, context);
  const author = { name: peer.author, byMachine: false };
  return [await putRemarks(context, name, subject, written, author, 'passage')];
}

async function quizAttempt(given: Given<'quiz'>, context: FileContext): Promise<FileFact[]> {
  const { name } = given;
  const quiz = readQuizzes()[given.quiz];
  const answers = quiz.attempts[given.attempt];
  const questions = quiz.items.map((question, index) => {
    const { response, score, feedback } = answers[index];
    const { id, possible } = question;
    return { id, number: index + 1, item: itemOf(question), possible, response, score, feedback };
  });
  const bytes = writeQuizResults({ title: quiz.title, questions }, context.at);
  const said = answers.filter(({ feedback }) => feedback !== '').length;
  return [
    await put(context, bytes, {
      role: 'quiz',
      name,
      mediaType: 'application/zip',
      ...counted('question', said),
    }),
  ];
}

async function posts(given: Given<'posts'>, context: FileContext): Promise<FileFact[]> {
  const { name } = given;
  return [await postsFile(given.posts, name, context)];
}

async function recording(given: Given<'recording'>, context: FileContext): Promise<FileFact[]> {
  const { name } = given;
  const sound = await put(context, readMedia(`${given.media}.ogg`), {
    role: 'recording',
    name,
    mediaType: 'audio/ogg',
    ...counted('recording', 1),
  });
  const transcript = await put(context, readMedia(`${given.media}.vtt`), {
    role: 'transcript',
    name: name.replace(/\.ogg$/, '.vtt'),
    mediaType: 'text/vtt',
    aboutHash: sound.hash,
  });
  return [sound, transcript];
}

async function report(given: Given<'report'>, context: FileContext): Promise<FileFact[]> {
  const { name } = given;
  if (context.sent === null) throw new Error(`nothing was sent for ${name} to be about`);
  const matches = readMatches()[given.matches];
  const written = matches.map(({ id, quote, text }) => ({
    id,
    text,
    selector: { kind: 'quote' as const, exact: quote },
  }));
  const author = { name: 'Hollowmere originality service', byMachine: true };
  const bytes = writeWebAnnotations(context.sent.name, written, author, { at: context.at, desk: DESK });
  return [
    await put(context, bytes, {
      role: 'report',
      name,
      mediaType: 'application/ld+json',
      aboutHash: context.sent.hash,
      ...counted('overlap', matches.length),
    }),
  ];
}

/** Makes what one line of a marking's files stands for; a recording brings its transcript along. */
export function returnedFiles(given: FileGiven, context: FileContext): Promise<FileFact[]> {
  switch (given.kind) {
    case 'marked pdf':
      return markedPdf(given, context);
    case 'marked docx':
      return markedDocx(given, context);
    case 'marked picture':
      return markedPicture(given, context);
    case 'region remarks':
      return regionRemarks(given, context);
    case 'peer remarks':
      return peerRemarks(given, context);
    case 'quiz':
      return quizAttempt(given, context);
    case 'posts':
      return posts(given, context);
    case 'recording':
      return recording(given, context);
    case 'report':
      return report(given, context);
  }
}

async function putRemarks(
  context: FileContext,
  name: string,
  subject: FileFact,
  written: Parameters<typeof writeWebAnnotations>[1],
  author: { readonly name: string; readonly byMachine: boolean },
  channel: Channel,
): Promise<FileFact> {
  const bytes = writeWebAnnotations(subject.name, written, author, { at: context.at, desk: DESK });
  return put(context, bytes, {
    role: 'remarks',
    name,
    mediaType: 'application/ld+json',
    aboutHash: subject.hash,
    announced: { [channel]: written.length },
  });
}

async function postsFile(key: string, name: string, context: FileContext): Promise<FileFact> {
  const { title, posts } = readDiscussions()[key];
  const discussion = {
    type: 'discussion',
    title,
    posts: posts.map(({ id, author, day, time, answers, text, comments }) => ({
      id,
      author: { name: author, role: context.roleOf(author) },
      at: context.instantOf(day, time),
      answers,
      text,
      comments: comments.map(({ id: commentId, quote, text: said }) => ({
        id: commentId,
        author: { name: context.marker, role: 'instructor' },
        at: context.at,
        quote,
        text: said,
      })),
    })),
  };
  const count = posts.reduce((sum, { comments }) => sum + comments.length, 0);
  return put(context, new TextEncoder().encode(JSON.stringify(discussion, null, 1)), {
    role: 'posts',
    name,
    mediaType: 'application/json',
    announced: { post: count },
  });
}
