import { jsonIn, refusedAs } from '../malformed.ts';
import * as v from 'valibot';
import { locateQuoteSurely } from '#core/anchors/locate.ts';
import { quoteOf } from '#core/text/quotation.ts';
import { squeeze } from '#core/text/squeeze.ts';
import { Author } from '#core/model/facts.ts';
import { Instant } from '#core/model/ids.ts';
import type { Target } from '#core/model/remark.ts';
import type { Mark, MarkedPaper } from '../marked-paper.ts';
import { LayoutWriter } from '../text/layout-writer.ts';
import { UnreadableFile } from '../unreadable.ts';

const PLAIN = { bold: false, italic: false };

/** Posts of a discussion with the comments on them, as the course desk sends them (docs/course-desk.md). */
const Discussion = v.object({
  type: v.literal('discussion'),
  title: v.string(),
  posts: v.array(
    v.object({
      id: v.string(),
      author: Author,
      at: Instant,
      /** The post that it answers. */
      answers: v.nullable(v.string()),
      text: v.string(),
      comments: v.array(
        v.object({
          id: v.string(),
          author: Author,
          at: v.nullable(Instant),
          /** Words of the post that it is about; null: all of it. */
          quote: v.nullable(v.string()),
          text: v.string(),
        }),
      ),
    }),
  ),
});

/** A discussion, post by post. */
export type Discussion = v.InferOutput<typeof Discussion>;

/**
 * A discussion as its file has it.
 * @throws UnreadableFile 'damaged posts'
 */
export function readDiscussion(bytes: Uint8Array): Discussion {
  const json = refusedAs('damaged posts', () => jsonIn(new TextDecoder().decode(bytes)));
  const parsed = v.safeParse(Discussion, json);
  if (!parsed.success) throw new UnreadableFile('damaged posts', v.getDotPath(parsed.issues[0]) ?? '');
  return parsed.output;
}

/** Day and time as they stand over a post. */
function moment(at: string): string {
  return `${at.slice(0, 10)}, ${at.slice(11, 16)} UTC`;
}

/**
 * A discussion as a text to read, post after post; comments are marks on the words of a post, or on all of it.
 * @throws UnreadableFile 'damaged posts'
 */
export function readPosts(bytes: Uint8Array): MarkedPaper {
  const { title, posts } = readDiscussion(bytes);
  const writer = new LayoutWriter();
  writer.beginBlock({ kind: 'heading', level: 1, cell: null });
  writer.append(title, PLAIN, []);
  const authors = new Map(posts.map(({ id, author }) => [id, author.name]));
  const placed = posts.map((post) => {
    writer.beginBlock({ kind: 'heading', level: 3, cell: null });
    const answered = post.answers === null ? undefined : authors.get(post.answers);
    const to = answered === undefined ? '' : `, to ${answered}`;
    const headFrom = writer.position;
    writer.append(`${post.author.name}${to}, ${moment(post.at)}`, PLAIN, []);
    const head = { from: headFrom, to: writer.position };
    let from: number | null = null;
    for (const line of post.text.split(/\n+/)) {
      writer.beginBlock({ kind: 'paragraph', level: 0, cell: null });
      from ??= writer.position;
      writer.append(line, PLAIN, []);
    }
    return { post, head, span: { from: from ?? writer.position, to: writer.position } };
  });
  const written = writer.finish();
  const marks = placed.flatMap(({ post, head, span }) => {
    const place = written.map.toPaper(span);
    const text = written.paper.text.slice(place.from, place.to);
    return post.comments.map((comment): Mark => {
      const found =
        comment.quote === null
          ? null
          : locateQuoteSurely(squeeze(text), { exact: comment.quote, prefix: '', suffix: '' }, 0);
      // One about the whole post hangs on its head.
      const anchor =
        found === null
          ? written.map.toPaper(head)
          : { from: place.from + found.from, to: place.from + found.to };
      const words: Target = {
        kind: 'words',
        page: null,
        quads: [],
        rect: null,
        quote: quoteOf(written.paper.text, anchor),
      };
      const lost = comment.quote !== null && found === null;
      return {
        sourceId: comment.id,
        kind: 'post comment',
        author: comment.author.name,
        byMachine: comment.author.role === 'machine',
        at: comment.at,
        color: null,
        text: comment.text,
        subject: null,
        targets: lost ? [{ kind: 'unplaced', said: comment.quote ?? '' }] : [words],
        anchor: lost ? null : { ...anchor, exactly: true },
        replies: [],
        state: null,
        change: null,
      };
    });
  });
  const { paper, layout } = written;
  return { kind: 'posts', pages: [], pageStarts: [], paper, layout, marks, unknownKinds: [], attached: [] };
}
