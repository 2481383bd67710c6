import type { Outcome, OutcomeKind } from '#core/anchors/outcome.ts';
import { followerOf, mostChanged } from '#core/anchors/outcome.ts';
import { passagesOf } from '#core/anchors/passages.ts';
import { changesIn } from '#core/difference/changes.ts';
import { differenceOf } from '#core/difference/difference.ts';
import type { Paper } from '#core/paper/paper.ts';
import type { Span } from '#core/text/span.ts';
import { squeeze } from '#core/text/squeeze.ts';
import { newVocabulary, wordsOf } from '#core/text/words.ts';
import type { Mark } from '#formats/marked-paper.ts';
import { readRemarksOnto } from '#formats/place-remarks.ts';
import { readPaper } from '#formats/read-paper.ts';
import { recogniseNamed } from '#formats/recognise.ts';
import { bytesOf } from './inspect.ts';

/** Two texts beside one another, and remarks followed from one to the other (docs/command-line.md). */

interface Place {
  readonly start: number;
  readonly end: number;
}
const placeOf = ({ from, to }: Span): Place => ({ start: from, end: to });

interface Compared {
  readonly kept: number;
  readonly added: number;
  readonly removed: number;
  readonly moved: number;
  readonly changes: readonly { kind: string; old: Place; new: Place }[];
}

/** @throws UnreadableFile, or the error of the file system for a file that is not there */
export async function compare(older: string, newer: string): Promise<Compared> {
  const vocabulary = newVocabulary();
  const [a, b] = [await paperIn(older), await paperIn(newer)];
  const { changes, ...counts } = changesIn(
    differenceOf(wordsOf(a.text, vocabulary), wordsOf(b.text, vocabulary)),
  );
  return {
    ...counts,
    changes: changes.map((change) => ({
      kind: change.kind,
      old: placeOf(change.old),
      new: placeOf(change.new),
    })),
  };
}

interface FollowedRemark {
  readonly id: string;
  /** null for a remark that hangs on no words. */
  readonly outcome: OutcomeKind | null;
  readonly place: Place | null;
  readonly added: readonly Place[];
  readonly kept: number | null;
  readonly confidence: number | null;
}

/**
 * What became of the words of each remark.
 * @param remarks Web Annotation or XFDF about the older text, or a marked file of it
 * @throws UnreadableFile, or the error of the file system for a file that is not there
 */
export async function follow(older: string, newer: string, remarks: string): Promise<FollowedRemark[]> {
  const oldPaper = await paperIn(older);
  const newPaper = await paperIn(newer);
  const { marks, text } = await marksIn(remarks, older);
  const squeezed = squeeze(oldPaper.text);
  const follower = followerOf(oldPaper);
  return marks.map((mark, index) => {
    const isSame = text === null || text === oldPaper.text;
    const spans = passagesOf(mark.targets, isSame ? mark.anchor : null, squeezed);
    const outcomes = spans.length === 0 ? [] : follower.follow(newPaper, spans);
    return told(mark.sourceId ?? String(index), outcomes);
  });
}

function told(id: string, outcomes: readonly Outcome[]): FollowedRemark {
  const outcome = mostChanged(outcomes);
  if (outcome === null) return { id, outcome: null, place: null, added: [], kept: null, confidence: null };
  return {
    id,
    outcome: outcome.kind,
    place: placeOf(outcome.place),
    added: outcome.added.map(placeOf),
    kept: outcome.kept,
    confidence: outcome.confidence,
  };
}

/** What went wrong with one of several files. */
export class AtFile extends Error {
  constructor(
    readonly path: string,
    override readonly cause: unknown,
  ) {
    super(path);
  }
}

async function at<Value>(path: string, work: () => Promise<Value>): Promise<Value> {
  try {
    return await work();
  } catch (error) {
    throw new AtFile(path, error);
  }
}

export function paperIn(path: string): Promise<Paper> {
  return at(path, async () => (await readPaper(await bytesOf(path), null)).paper);
}

/** The marks in a file, and the text of its own that they hang in; null where they are about the older text itself. */
export function marksIn(
  path: string,
  older: string,
): Promise<{ marks: readonly Mark[]; text: string | null }> {
  return at(path, async () => {
    const bytes = await bytesOf(path);
    const { kind } = recogniseNamed(bytes, path);
    if (kind === 'xfdf' || kind === 'web annotation') {
      const paperBytes = await bytesOf(older);
      const paper = await readPaper(paperBytes, null);
      return { marks: await readRemarksOnto(bytes, { bytes: paperBytes, paper }, null), text: null };
    }
    const { marks, paper } = await readPaper(bytes, null);
    return { marks, text: paper.text };
  });
}
