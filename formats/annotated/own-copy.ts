import { quotedWords, type Remark, type Reply } from '#core/model/remark.ts';
import type { Mark, MarkReply } from '../marked-paper.ts';

/** The entry in a PDF's information that says that it is a copy of a paper with remarks, written here. */
export const OWN_COPY = 'JunctureCopy';

const bare = (text: string | null) => (text ?? '').normalize('NFKC').replace(/[\s\u00ad-]/g, '');

/** What stays the same of a remark in a copy, whatever its people are called there. */
function keyOf({ text, at, targets }: Pick<Mark, 'text' | 'at' | 'targets'>): string {
  return JSON.stringify([bare(text), at, bare(quotedWords({ targets }))]);
}

/**
 * What somebody added to a copy that was written here: new marks, and new answers to known ones, each as a mark of its own.
 * @param known the remarks that the copy was written of
 */
export function marksAdded(marks: readonly Mark[], known: readonly Remark[]): Mark[] {
  const byId = new Map<string, Remark>(known.map((remark) => [remark.id, remark]));
  const byWords = new Map(known.map((remark) => [keyOf(remark), remark]));
  return marks.flatMap((mark) => {
    const same = byId.get(mark.sourceId ?? '') ?? byWords.get(keyOf(mark));
    if (same === undefined) return [mark];
    const said = new Set(repliesIn(same.replies).map(({ text }) => bare(text)));
    return repliesIn(mark.replies)
      .filter(
        ({ text, at }) => !said.has(bare(text)) && !byWords.has(keyOf({ text, at, targets: mark.targets })),
      )
      .map(({ author, at, text }): Mark => ({
        ...mark,
        sourceId: null,
        author,
        byMachine: false,
        at,
        text,
        replies: [],
        state: null,
        change: null,
      }));
  });
}

function repliesIn<Of extends MarkReply | Reply>(replies: readonly Of[]): Of[] {
  return replies.flatMap((reply) => [reply, ...repliesIn(reply.replies as readonly Of[])]);
}
