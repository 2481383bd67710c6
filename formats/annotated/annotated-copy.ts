import { pageOf, quotedWords } from '#core/model/remark.ts';
import type { PdfToWrite } from '../pdf/write-pdf.ts';
import { entryBlocks, type EntryToWrite } from './entries.ts';
import type { Ground } from './ground.ts';
import { saidBy, type RemarkOut, type ReplyOut } from './remark-out.ts';
import type { AnnotatedToWrite, BookmarkToWrite } from './write-annotated-pdf.ts';

/** What is said on the pages around an annotated paper, in the language of whoever asked for it. */
export interface CopyWords {
  /** Heads the list of all remarks. */
  readonly list: string;
  /** Where a remark stands and whose it is. @param page null: on none */
  head(remark: RemarkOut, page: number | null): string;
  reply(reply: ReplyOut): string;
  /** Of the link over a number. */
  link(remark: RemarkOut): string;
  readonly criterion: string;
  readonly state: string;
  readonly byPage: string;
  page(number: number): string;
  readonly onNoPage: string;
  readonly byCriterion: string;
  readonly noCriterion: string;
}

/** The page of the paper that a remark is marked on, from 1; null for none. */
function pageOn(ground: Pick<Ground, 'places'> | null, { id, targets }: RemarkOut): number | null {
  const place = ground?.places.get(id)?.at(0);
  return place === undefined ? pageOf({ targets }) : place.page + 1;
}

/** The list of remarks that stands behind an annotated paper. */
export function entriesOf(
  ground: Pick<Ground, 'places'> | null,
  remarks: readonly RemarkOut[],
  words: CopyWords,
): EntryToWrite[] {
  return remarks.map((remark) => ({
    id: remark.id,
    number: remark.number,
    head: words.head(remark, pageOn(ground, remark)),
    about: quotedWords(remark),
    text: saidBy(remark),
    replies: repliesIn(remark.replies).map((reply) => words.reply(reply)),
    facts: [
      ...(remark.criterion === null ? [] : [[words.criterion, remark.criterion] as const]),
      ...(remark.state === null ? [] : [[words.state, remark.state] as const]),
      ...remark.own,
    ],
  }));
}

function repliesIn(replies: readonly ReplyOut[]): ReplyOut[] {
  return replies.flatMap((reply) => [reply, ...repliesIn(reply.replies)]);
}

/** Remarks by page and by criterion. */
export function bookmarksOf(
  ground: Pick<Ground, 'places'> | null,
  remarks: readonly RemarkOut[],
  words: CopyWords,
): BookmarkToWrite[] {
  const below = (own: readonly RemarkOut[]): BookmarkToWrite[] =>
    own.map((remark) => ({ title: words.link(remark), to: { remarkId: remark.id }, below: [] }));
  const grouped = (titleOf: (remark: RemarkOut) => string, last: string) => {
    const groups = new Map<string, RemarkOut[]>();
    for (const remark of remarks) {
      const title = titleOf(remark);
      groups.set(title, [...(groups.get(title) ?? []), remark]);
    }
    const titles = [...groups.keys()].filter((title) => title !== last);
    return [...titles, ...(groups.has(last) ? [last] : [])].map((title) => {
      const own = groups.get(title) ?? [];
      return { title, to: { remarkId: own[0].id }, below: below(own) };
    });
  };
  if (remarks.length === 0) return [];
  const [first] = remarks;
  return [
    {
      title: words.byPage,
      to: { remarkId: first.id },
      below: grouped((remark) => {
        const page = pageOn(ground, remark);
        return page === null ? words.onNoPage : words.page(page);
      }, words.onNoPage),
    },
    {
      title: words.byCriterion,
      to: { remarkId: first.id },
      below: grouped((remark) => remark.criterion ?? words.noCriterion, words.noCriterion),
    },
  ];
}

/** A paper with all its remarks: a cover, the numbered pages, the list. */
export function annotatedCopy(
  ground: Pick<Ground, 'places'>,
  about: Pick<AnnotatedToWrite, 'title' | 'language' | 'at'>,
  cover: PdfToWrite['blocks'],
  remarks: readonly RemarkOut[],
  words: CopyWords,
): AnnotatedToWrite {
  const heading = {
    kind: 'heading' as const,
    level: 1,
    runs: [{ text: words.list, bold: false, italic: false }],
  };
  return {
    ...about,
    before: cover,
    behind: remarks.length === 0 ? [] : [heading, ...entryBlocks(entriesOf(ground, remarks, words))],
    remarks,
    linkSays: new Map(remarks.map((remark) => [remark.id, words.link(remark)])),
    bookmarks: bookmarksOf(ground, remarks, words),
  };
}
