import type { Paper } from '../paper/paper.ts';
import type { Span } from '../text/span.ts';

/** What each opening mark is closed by. Some close for one language what they open for another. */
const CLOSED_BY: Readonly<Record<string, string>> = {
  '“': '”',
  '„': '“”',
  '”': '”',
  '«': '»',
  '»': '«»',
  '‹': '›',
  '›': '‹',
  '‘': '’',
  '‚': '‘’',
  '"': '"',
  "'": "'",
  '「': '」',
  '『': '』',
};
const MARKS = /[“”„«»‹›‘’‚"'「」『』]/g;
/** What may stand before an opening mark, and what never stands behind one. */
const OPENS_AFTER = /^$|[\s([{—–/“”„«»‹›‘‚"'-]/;
const SPACE = /\s/;
const LETTER_OR_NUMBER = /[\p{L}\p{N}]/u;

interface Open {
  readonly mark: string;
  readonly at: number;
}

/**
 * The words of a text in quotation marks, without the marks, outermost first: straight, curly, low and high, pointed and
 * cornered marks, one within another, and over paragraphs where each begins with the mark anew. What is opened and never
 * closed is no quotation.
 * @returns in order, none within another
 */
export function quotedSpans(text: string): Span[] {
  const found: Span[] = [];
  // Quotations that stand open at the end of a paragraph, and may go on in the next.
  let goingOn: Open | null = null;
  let from = 0;
  for (const paragraph of text.split('\n')) {
    let open: Open[] = goingOn !== null && paragraph.startsWith(goingOn.mark) ? [goingOn] : [];
    const isContinued = open.length > 0;
    for (const { 0: mark, index } of paragraph.matchAll(MARKS)) {
      if (isContinued && index === 0) continue;
      const before = paragraph.charAt(index - 1);
      const after = paragraph.charAt(index + 1);
      // An apostrophe, or feet and inches.
      const isWithinWord = LETTER_OR_NUMBER.test(before) && LETTER_OR_NUMBER.test(after);
      if (isWithinWord && /['’]/.test(mark)) continue;
      const closes = open.findLastIndex((one) => CLOSED_BY[one.mark].includes(mark));
      const mayOpen =
        (OPENS_AFTER.test(before) || mark === '「' || mark === '『') &&
        !SPACE.test(after) &&
        after !== '' &&
        mark in CLOSED_BY;
      const mayClose = closes >= 0 && !SPACE.test(before) && index > 0;
      if (mayClose && !(mayOpen && mark === open[closes].mark && SPACE.test(before))) {
        const { at } = open[closes];
        open = open.slice(0, closes);
        if (open.length === 0 && from + index > at + 1) found.push({ from: at + 1, to: from + index });
      } else if (mayOpen) open.push({ mark, at: from + index });
    }
    // A single mark that is left open is an apostrophe; others may go on.
    goingOn = open.find(({ mark }) => !/['’‘"]/.test(mark)) ?? null;
    from += paragraph.length + 1;
  }
  return found;
}

/** Plain text and Markdown set a quotation off by this. */
const SET_OFF = /^>\s?/;

/** The blocks of a paper that are set off as quotations, by their look or by a mark before them. */
export function setOffBlocks({ blocks, starts }: Paper): Span[] {
  const paragraphs = blocks.filter(({ kind }) => kind === 'paragraph');
  // What most paragraphs look like sets none of them off.
  const hasLook = paragraphs.filter(({ quoted }) => quoted === true).length * 2 <= paragraphs.length;
  return blocks.flatMap((block, i) =>
    (hasLook && block.quoted === true) || SET_OFF.test(block.text)
      ? [{ from: starts[i], to: starts[i] + block.text.length }]
      : [],
  );
}
