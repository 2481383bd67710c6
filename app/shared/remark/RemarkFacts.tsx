import { behindOf, criterionFor, hundredths, tenths, type AssignmentView } from '#core/assignment/view.ts';
import { quotedWords, type Remark } from '#core/model/remark.ts';
import { stancesIn } from '#core/saying/remark-parts.ts';
import * as words from '../../words/en.ts';
import { SmallPlace } from './SmallPlace.tsx';

/** In a list what a remark says, about which criterion and words, with its points; a small picture of a mark without words. */
export function RemarkFacts({ view, remark }: { view: AssignmentView; remark: Remark }) {
  const behind = behindOf(view, remark.id);
  const quote = quotedWords(remark);
  const facts = [
    stancesIn(remark, view)
      .map((stance) => words.stances[stance])
      .join(' + '),
    criterionFor(view, remark)?.title ?? '',
    behind === null || behind.share === 0
      ? ''
      : words.rubric.behindShort(
          behind.loss.named.has(remark.id)
            ? hundredths(behind.share)
            : words.rubric.about(tenths(behind.share)),
        ),
  ].filter(Boolean);
  return (
    <>
      <p className="truncate text-sm text-quiet">
        {facts.join(' · ')}
        {quote !== null && <span className="font-serif italic"> “{quote}”</span>}
      </p>
      {remark.text === '' && remark.change === null && <SmallPlace remark={remark} />}
    </>
  );
}
