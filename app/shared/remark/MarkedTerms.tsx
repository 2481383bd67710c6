import type { AssignmentView } from '#core/assignment/view.ts';
import { meaningOfShort } from '#core/key/statements.ts';
import type { Remark } from '#core/model/remark.ts';
import { fieldOf } from '#core/terms/field.ts';
import { termsIn } from '#core/terms/terms-in.ts';
import type { Term } from '#core/terms/terms.ts';
import { useMemo, type ReactNode } from 'react';
import * as words from '../../words/en.ts';
import { useOwnTerms } from '../../workspace/state/use-terms.ts';
import { Explained } from '../controls/Explained.tsx';

/** Words of a remark; those that are terms of the trade say on demand what they mean. */
export function MarkedTerms({
  view,
  remark,
  text,
}: {
  view: AssignmentView;
  remark: Remark;
  /** All of its words, or some. */
  text: string;
}): ReactNode {
  const own = useOwnTerms();
  const found = useMemo(() => {
    // Where the hand says itself what its abbreviation means, the trade's meaning would be another.
    const isOwn = meaningOfShort(remark, view.markKeys, view.remarks) !== null;
    return termsIn(text, own).filter(({ from }) => !isOwn || from > 0);
  }, [remark, view.markKeys, view.remarks, text, own]);
  if (found.length === 0) return text;
  const pieces: ReactNode[] = [];
  let at = 0;
  for (const { from, to, term } of found) {
    pieces.push(text.slice(at, from));
    pieces.push(
      <Explained key={from} text={words.terms.title(term.term)} more={<TermTold view={view} term={term} />}>
        {text.slice(from, to)}
      </Explained>,
    );
    at = to;
  }
  return [...pieces, text.slice(at)];
}

function TermTold({ view, term }: { view: AssignmentView; term: Term }) {
  const field = fieldOf(view.course?.title ?? '');
  const example = (field === null ? undefined : term.byField[field]) ?? term.example;
  return (
    <>
      <p>{term.explanation}</p>
      {example !== '' && <p className="mt-1.5 text-quiet">{words.terms.example(example)}</p>}
    </>
  );
}
