import { quoteOf } from '#core/text/quotation.ts';
import type { Span } from '#core/text/span.ts';
import type { Change, Target } from '#core/model/remark.ts';
import {
  layoutMap,
  paperOfLayout,
  type Layout,
  type LayoutBlock,
  type LayoutChange,
  type LayoutMap,
  type LayoutNote,
  type LayoutPicture,
  type LayoutStyle,
} from '#core/paper/layout.ts';
import type { Paper } from '#core/paper/paper.ts';
import { foldSpaces, normaliseText } from '#core/text/normalise.ts';
import type { Instant } from '#core/model/ids.ts';
import type { Anchor, Mark } from '../marked-paper.ts';

/** How words look. */
export interface TextStyle {
  readonly bold: boolean;
  readonly italic: boolean;
  readonly script?: LayoutStyle['script'];
  readonly link?: string | null;
}

/** Who changed what: words under one are one tracked change as long as nothing else stands between them. */
export interface TrackedChange {
  readonly kind: Change['kind'];
  readonly author: string;
  readonly at: Instant | null;
  /** For a move: which end of it this is, and what joins both. */
  readonly move?: { readonly end: 'from' | 'to'; readonly name: string | null };
}

/** A stretch of the text under a tracked change. */
export interface TrackedSpan extends Span {
  readonly change: TrackedChange;
}

type LayoutLook = Omit<LayoutStyle, keyof Span>;

type BlockStart = Pick<LayoutBlock, 'kind' | 'level' | 'cell' | 'quoted'> & { readonly ordered?: boolean };

/** Writes a paper down piece by piece as it is read, with what was changed and where things hang. */
export class LayoutWriter {
  /** Joined once, at the end: a text that is looked at while it grows is copied whole each time. */
  private readonly pieces: string[] = [];
  private length = 0;
  private endsInSpace = false;
  /** Where the last words end; what follows them so far is line feeds. */
  private wordsEnd = 0;
  private readonly blocks: LayoutBlock[] = [];
  private readonly pictures: LayoutPicture[] = [];
  private readonly notes: LayoutNote[] = [];
  private readonly tracked: TrackedSpan[] = [];
  /** Which of the tracked spans is the last of a change. */
  private readonly lastOfChange = new Map<string, number>();
  private styles: LayoutStyle[] = [];
  private open: { start: BlockStart; from: number } | null = null;
  private waiting: number[] = [];

  /** Where the next character will stand. */
  get position(): number {
    return this.length;
  }

  private write(piece: string): void {
    this.pieces.push(piece);
    this.length += piece.length;
  }

  beginBlock(start: BlockStart): void {
    this.endBlock();
    if (this.length > 0) this.write('\n');
    this.endsInSpace = false;
    this.open = { start, from: this.length };
    this.styles = [];
  }

  get isOpen(): boolean {
    return this.open !== null;
  }

  /** Names the block that is open otherwise, when what it is shows only within it. */
  restyle(start: Partial<BlockStart>): void {
    if (this.open !== null) this.open.start = { ...this.open.start, ...start };
  }

  endBlock(): void {
    if (this.open === null) return;
    const { start, from } = this.open;
    this.blocks.push({ ordered: false, ...start, from, to: this.length, styles: this.styles, picture: null });
    this.open = null;
    const { cell } = start;
    for (const picture of this.waiting.splice(0)) {
      const at = this.length;
      this.blocks.push({
        kind: 'picture',
        level: 0,
        ordered: false,
        cell,
        from: at,
        to: at,
        styles: [],
        picture,
      });
    }
  }

  append(raw: string, style: TextStyle, changes: readonly TrackedChange[]): void {
    if (this.open === null) return;
    let piece = foldSpaces(raw);
    if (piece.startsWith(' ') && (this.length === this.open.from || this.endsInSpace)) piece = piece.slice(1);
    if (piece === '') return;
    const from = this.length;
    this.write(piece);
    const to = this.length;
    this.endsInSpace = piece.endsWith(' ');
    const look = {
      bold: style.bold,
      italic: style.italic,
      script: style.script ?? null,
      link: style.link ?? null,
    };
    if (look.bold || look.italic || look.script !== null || look.link !== null) {
      const last = this.styles.at(-1);
      if (last?.to === from && sameLook(last, look)) this.styles[this.styles.length - 1] = { ...last, to };
      else this.styles.push({ from, to, ...look });
    }
    for (const change of changes) this.track(change, from, to);
    this.wordsEnd = to;
  }

  /** Words under a change that follow others under the same one, perhaps after a new paragraph, go on with it. */
  private track(change: TrackedChange, from: number, to: number): void {
    const index = this.lastOfChange.get(keyOf(change));
    const last = index === undefined ? undefined : this.tracked.at(index);
    if (index !== undefined && last !== undefined && last.to >= this.wordsEnd)
      this.tracked[index] = { ...last, to };
    else this.push({ change, from, to });
  }

  private push(span: TrackedSpan): void {
    this.lastOfChange.set(keyOf(span.change), this.tracked.push(span) - 1);
  }

  /** Something about the whole block that is open, such as its formatting. */
  trackBlock(change: TrackedChange): void {
    if (this.open !== null && this.length > this.open.from)
      this.push({ change, from: this.open.from, to: this.length });
  }

  note(number: number): void {
    this.notes.push({ at: this.length, number });
  }

  /** A picture stands below the block that it comes in. */
  picture(picture: LayoutPicture): void {
    this.waiting.push(this.pictures.push(picture) - 1);
  }

  finish(): WrittenText {
    this.endBlock();
    const changes = this.tracked.map(({ change, from, to }): LayoutChange => ({
      from,
      to,
      kind: change.kind === 'move' ? (change.move?.end === 'from' ? 'deletion' : 'insertion') : change.kind,
      moved: change.kind === 'move',
    }));
    const layout: Layout = {
      text: this.pieces.join(''),
      blocks: this.blocks,
      changes,
      pictures: this.pictures,
      notes: this.notes,
    };
    const paper = paperOfLayout(layout, 'accepted');
    return { layout, paper, map: layoutMap(layout, paper), tracked: this.tracked };
  }
}

function sameLook(x: LayoutLook, y: LayoutLook): boolean {
  return x.bold === y.bold && x.italic === y.italic && x.script === y.script && x.link === y.link;
}

/** The same for whatever is one change, wherever it stands. */
function keyOf({ kind, author, at, move }: TrackedChange): string {
  return JSON.stringify([kind, author, at, move?.end, move?.name]);
}

/**
 * What was written: as it is shown, as it reads with its changes accepted, and how places of one become places of the
 * other.
 */
export interface WrittenText {
  readonly layout: Layout;
  readonly paper: Paper;
  readonly map: LayoutMap;
  readonly tracked: readonly TrackedSpan[];
}

/** What hangs on a span of the layout: its words as accepted, else as they were before they were taken out. */
export function targetOfSpan(
  { layout, paper, map }: WrittenText,
  span: Span,
): { target: Target; anchor: Anchor } {
  const place = map.toPaper(span);
  const accepted = quoteOf(paper.text, place);
  const quote =
    accepted.exact !== ''
      ? accepted
      : { ...accepted, exact: normaliseText(layout.text.slice(span.from, span.to)) };
  return {
    target: { kind: 'words', page: null, quads: [], rect: null, quote },
    anchor: { ...place, exactly: true },
  };
}

/** The tracked changes of a text as marks, each with where it begins in the layout. Both ends of a move are one. */
export function marksOfChanges(written: WrittenText): { mark: Mark; at: number }[] {
  const { layout, tracked } = written;
  const wordsOf = ({ from, to }: Span) => normaliseText(layout.text.slice(from, to));
  const ends = tracked.filter(({ change }) => change.move?.end === 'from');
  const marks: { mark: Mark; at: number }[] = [];
  for (const span of tracked) {
    const { change } = span;
    const words = wordsOf(span);
    if (words === '') continue;
    if (change.move?.end === 'from') continue;
    const { target, anchor } = targetOfSpan(written, span);
    const targets = [target];
    if (change.move?.end === 'to') {
      const from = ends.findIndex(
        (end) =>
          (change.move?.name !== null && end.change.move?.name === change.move?.name) ||
          (end.change.author === change.author && wordsOf(end) === words),
      );
      if (from >= 0) targets.push(targetOfSpan(written, ends.splice(from, 1)[0]).target);
    }
    marks.push({ mark: markOfChange(change, words, targets, anchor), at: span.from });
  }
  // The end that a move left, where no other end was found.
  for (const end of ends) {
    const { target, anchor } = targetOfSpan(written, end);
    marks.push({ mark: markOfChange(end.change, wordsOf(end), [target], anchor), at: end.from });
  }
  return marks;
}

function markOfChange(
  change: TrackedChange,
  words: string,
  targets: readonly Target[],
  anchor: Anchor,
): Mark {
  return {
    sourceId: null,
    kind: change.kind,
    author: change.author,
    byMachine: false,
    at: change.at,
    color: null,
    text: '',
    subject: null,
    targets,
    anchor,
    replies: [],
    state: null,
    change: {
      kind: change.kind,
      before: change.kind === 'insertion' ? '' : words,
      after: change.kind === 'deletion' ? '' : words,
    },
  };
}
