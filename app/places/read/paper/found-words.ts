import { useEffect, useRef, type RefObject } from 'react';
import { keptSpans } from '#core/paper/layout.ts';
import { foldedText, placesOfWords, type Folded } from '#core/text/find.ts';
import type { ReadPaper } from '../../../workspace/storage/records.ts';
import type { TextState } from '#formats/layout-segments.ts';

/** Words that are looked for in a paper, and which of the places where they stand is meant. */
export interface Finding {
  readonly wanted: string;
  readonly page: number;
  /** Which of those on the page, from 0. */
  readonly nth: number;
}

/** A page drew its words anew. */
export const WORDS_DRAWN = 'juncture:words-drawn';

/** The text of a paper as it is shown, to look for words in. */
export function textToSearch(paper: ReadPaper, state: TextState): Folded {
  const { layout } = paper;
  if (layout === null) return foldedText(paper.paper.text);
  if (state === 'changes') return foldedText(layout.text);
  return foldedText(
    keptSpans(layout, state)
      .map(({ from, to }) => layout.text.slice(from, to))
      .join(''),
  );
}

/** Every place where words stand in a paper, in its order. */
export function findingsIn(paper: ReadPaper, text: Folded, wanted: string): Finding[] {
  const counts = new Map<number, number>();
  return placesOfWords(text, wanted).map(({ from }) => {
    const page =
      paper.layout === null ? Math.max(1, paper.pageStarts.findLastIndex((start) => start <= from) + 1) : 1;
    const nth = counts.get(page) ?? 0;
    counts.set(page, nth + 1);
    return { wanted, page, nth };
  });
}

/** The places where words stand on what is drawn of a page, in the order in which it holds them. */
function rangesIn(page: Element, wanted: string): Range[] {
  const nodes: Text[] = [];
  const starts: number[] = [];
  let text = '';
  const walker = document.createTreeWalker(page, NodeFilter.SHOW_TEXT);
  for (let node = walker.nextNode(); node !== null; node = walker.nextNode()) {
    // What is not the paper's own, such as the numbers of remarks, is not looked in.
    if (!(node instanceof Text) || node.parentElement?.closest('.textLayer, [data-from]') == null) continue;
    nodes.push(node);
    starts.push(text.length);
    text += node.data;
  }
  const at = (offset: number) =>
    Math.max(
      0,
      starts.findLastIndex((start) => start <= offset),
    );
  return placesOfWords(foldedText(text), wanted).map(({ from, to }) => {
    const range = document.createRange();
    const [first, last] = [at(from), at(to - 1)];
    range.setStart(nodes[first], from - starts[first]);
    range.setEnd(nodes[last], to - starts[last]);
    return range;
  });
}

/** Shows where words stand on what is drawn, and brings the place that is meant into sight, once. */
export function useFoundWords(
  scroller: RefObject<HTMLElement | null>,
  finding: Finding | null,
  toPage: (page: number) => void,
): void {
  const brought = useRef<Finding | null>(null);
  const go = useRef(toPage);
  useEffect(() => {
    go.current = toPage;
  });
  useEffect(() => {
    const element = scroller.current;
    if (finding === null || element === null) return;
    const show = () => {
      const all: Range[] = [];
      const here: Range[] = [];
      for (const page of element.querySelectorAll<HTMLElement>('[data-page]')) {
        const ranges = rangesIn(page, finding.wanted);
        all.push(...ranges);
        if (Number(page.dataset.page) !== finding.page) continue;
        const meant = ranges.at(finding.nth);
        if (meant !== undefined) here.push(meant);
      }
      CSS.highlights.set('found', new Highlight(...all));
      CSS.highlights.set('found-here', new Highlight(...here));
      if (brought.current === finding) return;
      const [meant] = here;
      if ((meant as Range | undefined) === undefined) return;
      brought.current = finding;
      const place = meant.getBoundingClientRect();
      const frame = element.getBoundingClientRect();
      if (place.top < frame.top + 20 || place.bottom > frame.bottom - 20)
        element.scrollBy({ top: place.top - frame.top - element.clientHeight * 0.35 });
      if (place.left < frame.left || place.right > frame.right)
        element.scrollBy({ left: place.left - frame.left - 40 });
    };
    if (brought.current !== finding && element.querySelector(`[data-page="${finding.page}"]`) === null)
      go.current(finding.page);
    show();
    element.addEventListener(WORDS_DRAWN, show);
    return () => {
      element.removeEventListener(WORDS_DRAWN, show);
      CSS.highlights.delete('found');
      CSS.highlights.delete('found-here');
    };
  }, [scroller, finding]);
}
