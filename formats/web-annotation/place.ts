import { locateQuoteSurely } from '#core/anchors/locate.ts';
import { quoteOf } from '#core/text/quotation.ts';
import { indexed, type Occurrences } from '#core/text/grams.ts';
import { squeeze, type Squeezed } from '#core/text/squeeze.ts';
import type { Span } from '#core/text/span.ts';
import type { Target } from '#core/model/remark.ts';
import type { Paper } from '#core/paper/paper.ts';
import type { Anchor, Mark, PageSize } from '../marked-paper.ts';
import { boundsOf } from '../pdf/bounds.ts';
import { fromView } from '../pdf/page-view.ts';
import type { Selector, WebRemark, WebTarget } from './read-web-annotation.ts';
import { regionOfSvg } from './svg-region.ts';

/** What annotations are put onto: a paper's text, a picture, or a recording. */
export type Ground =
  | { readonly kind: 'text'; readonly paper: Paper; readonly pages: readonly PageSize[] }
  | { readonly kind: 'picture'; readonly width: number; readonly height: number }
  | { readonly kind: 'recording' }
  /** What they are about isn't here. */
  | { readonly kind: 'nothing' };

/**
 * Web Annotations as marks on what they are about. The selectors of each target are tried in turn; a target whose place
 * is not found, or is found twice alike, stays unplaced and says what it looked for.
 */
export function marksOfWebRemarks(remarks: readonly WebRemark[], ground: Ground): Mark[] {
  const searched = ground.kind === 'text' ? searchedText(ground.paper) : null;
  return remarks.map((remark): Mark => {
    const placed = remark.targets.map((target) => place(target, ground, searched));
    return {
      sourceId: remark.id,
      kind: remark.motivation,
      author: remark.author,
      byMachine: remark.byMachine,
      at: remark.at,
      color: null,
      text: remark.text,
      subject: null,
      targets: placed.length === 0 ? [{ kind: 'whole' }] : placed.map(({ target }) => target),
      anchor: placed.find(({ anchor }) => anchor !== null)?.anchor ?? null,
      replies: remark.replies,
      state: null,
      change: null,
    };
  });
}

/** A paper's text, prepared for the quotations of many remarks. */
interface Searched {
  readonly squeezed: Squeezed;
  readonly occurrences: Occurrences;
}

function searchedText({ text }: Paper): Searched {
  const squeezed = squeeze(text);
  return { squeezed, occurrences: indexed(squeezed.text) };
}

interface Placed {
  readonly target: Target;
  readonly anchor: Anchor | null;
}

function place({ selectors, unknown }: WebTarget, ground: Ground, searched: Searched | null): Placed {
  if (selectors.length === 0)
    return { target: unknown ? { kind: 'unplaced', said: '' } : { kind: 'whole' }, anchor: null };
  if (ground.kind === 'text' && searched !== null) {
    const span = spanOf(selectors, ground.paper, searched);
    if (span !== null)
      return {
        target: { kind: 'words', page: null, quads: [], rect: null, quote: quoteOf(ground.paper.text, span) },
        anchor: { ...span, exactly: true },
      };
  }
  for (const selector of selectors) {
    const target = targetOn(selector, ground);
    if (target !== null) return { target, anchor: null };
  }
  return { target: { kind: 'unplaced', said: saidBy(selectors) }, anchor: null };
}

function targetOn(selector: Selector, ground: Ground): Target | null {
  if (ground.kind === 'text' && selector.kind === 'fragment')
    return placeOnPage(selector.value, ground.pages);
  if (ground.kind === 'picture' && selector.kind === 'fragment') {
    const box = /(?:^|&)xywh=(?:(pixel|percent):)?([\d.]+),([\d.]+),([\d.]+),([\d.]+)/.exec(selector.value);
    if (box === null) return null;
    const [x, y, width, height] = box.slice(2).map(Number);
    const [sx, sy] = box[1] === 'percent' ? [ground.width / 100, ground.height / 100] : [1, 1];
    return inPicture({ x: x * sx, y: y * sy, width: width * sx, height: height * sy, outline: null }, ground);
  }
  if (ground.kind === 'picture' && selector.kind === 'svg') {
    const region = regionOfSvg(selector.value);
    return region === null ? null : inPicture(region, ground);
  }
  if (ground.kind === 'recording' && selector.kind === 'fragment') {
    const time = /(?:^|&)t=(?:npt:)?([\d.:]*)(?:,([\d.:]+))?/.exec(selector.value);
    if (time === null) return null;
    const fromS = secondsOf(time[1]);
    const toS = (time.at(2) ?? '') === '' ? null : secondsOf(time[2]);
    return fromS === null ? null : { kind: 'time', fromS, toS };
  }
  return null;
}

/** A note without a place on its page stands at the page's upper left corner, so large. */
const NOTE = 20;

/** A page of a PDF, and what part of it is meant, counted from its upper left corner (RFC 8118, section 3). */
function placeOnPage(fragment: string, pages: readonly PageSize[]): Target | null {
  const number = Number(/(?:^|&)page=(\d+)/.exec(fragment)?.[1] ?? 0);
  const page = pages.at(number - 1);
  if (number < 1 || page === undefined) return null;
  const view = /(?:^|&)viewrect=([\d.]+),([\d.]+),([\d.]+),([\d.]+)/.exec(fragment);
  const [left, top, width, height] = view === null ? [0, 0, NOTE, NOTE] : view.slice(1).map(Number);
  const corners = [fromView(page, left, top), fromView(page, left + width, top + height)];
  return { kind: 'point', page: number, rect: boundsOf(corners.flat()), shape: [], drawn: false };
}

/** A region that lies wholly beside its picture is about another one. */
function inPicture(
  region: Omit<Extract<Target, { kind: 'region' }>, 'kind'>,
  { width, height }: { width: number; height: number },
): Target | null {
  return region.x < width && region.y < height && region.width > 0 && region.height > 0
    ? { kind: 'region', ...region }
    : null;
}

/** Seconds of a media fragment's time: 12.5, 1:02 or 1:00:02. */
function secondsOf(text: string): number | null {
  if (text === '') return 0;
  const seconds = text.split(':').reduce((sum, part) => sum * 60 + Number(part), 0);
  return Number.isFinite(seconds) ? seconds : null;
}

function spanOf(selectors: readonly Selector[], paper: Paper, searched: Searched): Span | null {
  const position = selectors.find((selector) => selector.kind === 'position');
  const quotes = selectors.filter((selector) => selector.kind === 'quote');
  for (const quote of quotes) {
    const span = locateQuoteSurely(
      searched.squeezed,
      quote,
      position === undefined ? null : position.start,
      searched.occurrences,
    );
    if (span !== null) return span;
  }
  for (const range of selectors.filter((selector) => selector.kind === 'range')) {
    const start = spanOf(range.start, paper, searched);
    const end = spanOf(range.end, paper, searched);
    if (start !== null && end !== null && end.from >= start.from) return { from: start.from, to: end.from };
  }
  // A bare position may have been counted in another text: where words are given too, only they decide.
  if (quotes.length === 0 && position !== undefined && position.end <= paper.text.length)
    return { from: position.start, to: position.end };
  return null;
}

function saidBy(selectors: readonly Selector[]): string {
  const quote = selectors.find((selector) => selector.kind === 'quote' && selector.exact !== '');
  if (quote?.kind === 'quote') return quote.exact;
  for (const selector of selectors) {
    if (selector.kind === 'fragment') return selector.value;
    if (selector.kind === 'position') return `${selector.start}–${selector.end}`;
  }
  return '';
}
