import { readFile } from 'node:fs/promises';
import { basename } from 'node:path';
import * as v from 'valibot';
import type { Advice, AdviceReason } from '#core/overlap/advice.ts';
import { overlapOf } from '#core/overlap/compare-sources.ts';
import { findMatches } from '#core/overlap/find-matches.ts';
import { relations } from '#core/model/source.ts';
import type { SourceWork } from '#core/overlap/source-work.ts';
import { inOrderOfCredit, percentOf, sharesOf, usualCounting } from '#core/overlap/shares.ts';
import { indexSources, USUAL_RUN } from '#core/overlap/source-index.ts';
import { titlePageOf } from '#core/overlap/title-page.ts';
import type { Paper } from '#core/paper/paper.ts';
import { hashedWordsOf } from '#core/text/words.ts';
import { readSource } from '#formats/sources/read-source.ts';
import { AtFile } from './follow.ts';
import { bytesOf } from './inspect.ts';

/** What a draft shares with sources, as docs/command-line.md describes it. */

/** An option that can't be used; the message says which and why. */
export class UnusableOption extends Error {}

interface ToldMatch {
  readonly source: string;
  readonly draftStart: number;
  readonly draftEnd: number;
  readonly sourceStart: number;
  readonly sourceEnd: number;
  readonly words: number;
  readonly identity: number;
  readonly quoted: boolean;
  readonly cited: boolean;
  readonly advice: Advice;
  readonly reason: AdviceReason;
}

interface ToldOverlap {
  readonly words: number;
  readonly matchedWords: number;
  readonly percent: number;
  readonly sources: readonly { readonly name: string; readonly words: number; readonly percent: number }[];
  readonly matches: readonly ToldMatch[];
}

const About = v.array(
  v.object({
    file: v.string(),
    authors: v.optional(v.nullable(v.array(v.string()))),
    year: v.optional(v.nullable(v.union([v.string(), v.number()]))),
    title: v.optional(v.nullable(v.string())),
    relation: v.optional(v.nullable(v.picklist(relations))),
  }),
);
type About = v.InferOutput<typeof About>;

const FEWEST = 4;
const MOST = 25;

function leastWords(given: string | null): number {
  if (given === null) return usualCounting.least;
  const least = Number(given);
  if (!Number.isInteger(least) || least < FEWEST || least > MOST)
    throw new UnusableOption(`--min-words is a whole number from ${FEWEST} to ${MOST}`);
  return least;
}

async function aboutIn(path: string | null): Promise<About> {
  if (path === null) return [];
  let value: unknown;
  try {
    value = JSON.parse(await readFile(path, 'utf8'));
  } catch (error) {
    if (error instanceof SyntaxError) throw new AtFile(path, new UnusableOption('it is not JSON'));
    throw new AtFile(path, error);
  }
  const read = v.safeParse(About, value);
  if (read.success) return read.output;
  const [issue] = read.issues;
  const at = v.getDotPath(issue) ?? 'the list';
  throw new AtFile(path, new UnusableOption(`${at}: ${issue.message}`));
}

async function paperAt(path: string): Promise<Paper> {
  try {
    return await readSource(await bytesOf(path), null);
  } catch (error) {
    throw new AtFile(path, error);
  }
}

interface Source {
  readonly path: string;
  readonly paper: Paper;
  readonly work: SourceWork;
}

function workAt(path: string, paper: Paper, about: About): SourceWork {
  const page = titlePageOf(paper, path);
  const given = about.find(({ file }) => file === path || basename(file) === basename(path));
  return {
    title: given?.title ?? page.title,
    authors: given?.authors?.join('; ') ?? page.authors,
    year: given?.year === undefined || given.year === null ? page.year : String(given.year),
    relation: given?.relation ?? 'published',
  };
}

/** A source that wasn't compared, and why. */
interface LeftOut {
  readonly path: string;
  /** UnreadableFile, or the error of the file system. */
  readonly why: unknown;
}

/**
 * What a draft has in common with sources. A source that can't be read is left out and named.
 * @throws AtFile for a draft or a description that can't be read; UnusableOption
 */
export async function overlapOfFiles(
  draft: string,
  files: readonly string[],
  options: { readonly minWords: string | null; readonly about: string | null },
): Promise<{ overlap: ToldOverlap; leftOut: readonly LeftOut[] }> {
  const least = leastWords(options.minWords);
  const about = await aboutIn(options.about);
  const paper = await paperAt(draft);
  const sources: Source[] = [];
  const leftOut: LeftOut[] = [];
  for (const path of files)
    try {
      const read = await paperAt(path);
      sources.push({ path, paper: read, work: workAt(path, read, about) });
    } catch (error) {
      if (!(error instanceof AtFile)) throw error;
      leftOut.push({ path, why: error.cause });
    }
  return { overlap: compared(paper, sources, least), leftOut };
}

/** Numbers to four places. */
const rounded = (share: number) => Math.round(share * 10_000) / 10_000;

function compared(paper: Paper, sources: readonly Source[], least: number): ToldOverlap {
  const words = hashedWordsOf(paper.text);
  const ofSources = sources.map((source) => hashedWordsOf(source.paper.text));
  const index = indexSources(
    ofSources.map(({ ids }) => ids),
    Math.min(USUAL_RUN, least),
  );
  const { matches, mask } = overlapOf(
    paper,
    words,
    findMatches(index, words.ids, least),
    sources.map(({ work }) => work),
    (source) => ofSources[source],
  );
  const countable = sources.map(({ path, work }) => ({
    id: path,
    relation: work.relation,
    isSetAside: false,
  }));
  const credited = inOrderOfCredit(
    matches.map((match) => ({ ...match, isSetAside: false })),
    countable,
  );
  const shares = sharesOf(words.ids.length, mask, credited, countable, { ...usualCounting, least });
  return {
    words: shares.words,
    matchedWords: shares.matched,
    percent: percentOf(shares.matched, shares.words),
    sources: sources.map(({ path }, i) => ({
      name: path,
      words: shares.bySource[i],
      percent: percentOf(shares.bySource[i], shares.words),
    })),
    matches: matches.map((match) => ({
      source: sources[match.source].path,
      draftStart: match.place.from,
      draftEnd: match.place.to,
      sourceStart: match.sourcePlace.from,
      sourceEnd: match.sourcePlace.to,
      words: match.words,
      identity: rounded(match.identity),
      quoted: match.quoted,
      cited: match.cited,
      advice: match.advice,
      reason: match.reason,
    })),
  };
}
