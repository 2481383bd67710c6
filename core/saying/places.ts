import { locateQuoteSurely } from '../anchors/locate.ts';
import { squeeze } from '../text/squeeze.ts';
import type { Span } from '../text/span.ts';
import type { Paper } from '../paper/paper.ts';

/** A place of the work that a remark names in words. */
export interface NamedPlace {
  /** As the remark says it. */
  readonly said: string;
  /** In the paper's text; null where only a page is known. */
  readonly span: Span | null;
  /** From 1; null where the words name none. */
  readonly page: number | null;
}

const ORDINALS = [
  'first',
  'second',
  'third',
  'fourth',
  'fifth',
  'sixth',
  'seventh',
  'eighth',
  'ninth',
  'tenth',
];
const ORDINAL = `(${ORDINALS.join('|')}|last|final|opening|closing)`;
const UNIT = '(paragraph|sentence|section)';
/** A quotation shorter than this stands in too many places to be one. */
const LEAST_QUOTED = 8;

const NUMBER_WORDS = [
  'zero',
  'one',
  'two',
  'three',
  'four',
  'five',
  'six',
  'seven',
  'eight',
  'nine',
  'ten',
  'eleven',
  'twelve',
];
/** A number in figures or in words; a spoken comment says "three point two". */
const NUMBER = `(?:\\d{1,4}|${NUMBER_WORDS.slice(1).join('|')})`;
const DOTTED = `${NUMBER}(?: ?(?:\\.|point|dot) ?${NUMBER})*`;

/** "three point two" as "3.2". */
function inFigures(said: string): string {
  return said
    .toLowerCase()
    .split(/ ?(?:\.|point|dot) ?/)
    .map((part) => {
      const at = NUMBER_WORDS.indexOf(part);
      return at < 0 ? part : String(at);
    })
    .join('.');
}

interface Numbered {
  readonly unit: string;
  /** From 0; -1 for the last. */
  readonly index: number;
  readonly said: string;
}

function numberedIn(text: string): Numbered[] {
  const found: Numbered[] = [];
  for (const match of text.matchAll(new RegExp(`\\b${ORDINAL} ${UNIT}\\b`, 'gi'))) {
    const word = match[1].toLowerCase();
    const at = ORDINALS.indexOf(word);
    found.push({
      unit: match[2].toLowerCase(),
      index: at >= 0 ? at : word === 'opening' ? 0 : -1,
      said: match[0],
    });
  }
  for (const match of text.matchAll(new RegExp(`\\b(paragraph|sentence|para\\.?) (${NUMBER})\\b`, 'gi'))) {
    const unit = match[1].toLowerCase();
    found.push({
      unit: unit.startsWith('para') ? 'paragraph' : unit,
      index: Number(inFigures(match[2])) - 1,
      said: match[0],
    });
  }
  return found;
}

/** The number that a heading or a caption bears: "3.2 The southern transect", "Figure 2. ...". */
function numberOf(text: string, label: RegExp): string | null {
  return label.exec(text)?.[1] ?? null;
}

const HEADING_NUMBER = /^(?:section |chapter )?(\d+(?:\.\d+)*)\b/i;
const CAPTION = { figure: /^fig(?:ure|\.)? ?(\d+)\b/i, table: /^table ?(\d+)\b/i };

/**
 * The places that a remark names in words (second paragraph, section 3, page 4, quoted words, a heading's title), found
 * in the paper it is about; what is named but not found is left out. To be offered, never used unasked.
 * @param pages how many pages the paper has; 0 for one without
 */
export function placesNamed(text: string, paper: Paper, pages: number): NamedPlace[] {
  const places: NamedPlace[] = [];
  const spanOfBlock = (block: number): Span => ({
    from: paper.starts[block],
    to: paper.starts[block] + paper.blocks[block].text.length,
  });
  const put = (said: string, block: number | undefined) => {
    if (block !== undefined) places.push({ said, span: spanOfBlock(block), page: null });
  };
  const indexes = paper.blocks.map((_, index) => index);
  const paragraphs = indexes.filter((i) => paper.blocks[i].kind === 'paragraph');
  const headings = indexes.filter((i) => paper.blocks[i].kind === 'heading');
  // The first heading of a paper is mostly its title.
  const sections = headings.filter((i) => paper.blocks[i].level > paper.blocks[headings[0]].level);
  for (const { unit, index, said } of numberedIn(text)) {
    if (unit === 'paragraph') put(said, paragraphs.at(index));
    if (unit === 'section') put(said, (sections.length > 0 ? sections : headings).at(index));
  }
  for (const match of text.matchAll(new RegExp(`\\b(?:section|chapter|part) (${DOTTED})\\b`, 'gi'))) {
    const number = inFigures(match[1]);
    const numbered = headings.find((i) => numberOf(paper.blocks[i].text, HEADING_NUMBER) === number);
    const counted = number.includes('.')
      ? undefined
      : (sections.length > 0 ? sections : headings).at(Number(number) - 1);
    put(match[0], numbered ?? counted);
  }
  for (const match of text.matchAll(new RegExp(`\\b(fig(?:ure|\\.)|table) ?(${NUMBER})\\b`, 'gi'))) {
    const number = inFigures(match[2]);
    const label = match[1].toLowerCase().startsWith('t') ? CAPTION.table : CAPTION.figure;
    put(
      match[0],
      indexes.find((i) => numberOf(paper.blocks[i].text, label) === number),
    );
  }
  for (const match of text.matchAll(new RegExp(`\\b(?:page|p\\.) ?(${NUMBER})\\b`, 'gi'))) {
    const page = Number(inFigures(match[1]));
    if (page >= 1 && page <= pages) places.push({ said: match[0], span: null, page });
  }
  const squeezed = squeeze(paper.text);
  for (const match of text.matchAll(/["“‘]([^"”’]{2,300})["”’]/g)) {
    const exact = match[1].replace(/[.,;]$/, '');
    if (exact.length < LEAST_QUOTED) continue;
    const span = locateQuoteSurely(squeezed, { exact, prefix: '', suffix: '' }, null);
    if (span !== null) places.push({ said: match[0], span, page: null });
  }
  for (const heading of headings.slice(1)) {
    const title = paper.blocks[heading].text.replace(/^[\d.]+\s*/, '');
    const named = new RegExp(
      `\\b(?:in|under|of|to|section|your) (?:the |your )?["“‘]?${escaped(title)}\\b`,
      'i',
    ).exec(text);
    if (title.length > 3 && named !== null) put(title, heading);
  }
  const once = new Map(places.map((place) => [`${place.span?.from ?? ''}/${place.page ?? ''}`, place]));
  return [...once.values()];
}

function escaped(text: string): string {
  return text.replace(/[.*+?^${}()|[\]\\]/g, '\\$&');
}
