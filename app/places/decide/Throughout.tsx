import { useState } from 'react';
import { isSameQuote, placesElsewhere } from '#core/anchors/elsewhere.ts';
import type { AssignmentView } from '#core/assignment/view.ts';
import { quotedWords, type Remark } from '#core/model/remark.ts';
import { wordsToSeek } from '#core/saying/seek.ts';
import type { Span } from '#core/text/span.ts';
import { CheckBox } from '../../shared/controls/CheckBox.tsx';
import { Fold } from '../../shared/controls/Fold.tsx';
import * as words from '../../words/en.ts';
import { setElsewhere } from '../../workspace/commands/decide.ts';
import type { ReadPaper } from '../../workspace/storage/records.ts';
import { useWorkspace } from '../../workspace/use-workspace.ts';

/** So much of the text is shown around a place. */
const AROUND_CHARACTERS = 40;

/** Other places of the paper that a remark holds for: found by words, offered one by one. */
export function Throughout({
  view,
  remark,
  marked,
}: {
  view: AssignmentView;
  remark: Remark;
  marked: ReadPaper | null;
}) {
  const workspace = useWorkspace();
  const [typed, setTyped] = useState<string | null>(null);
  const taken = view.judgements.get(remark.id)?.elsewhere ?? [];
  const text = marked === null || remark.paperHash !== marked.hash ? null : marked.paper.text;
  const sought = typed ?? taken.at(0)?.exact ?? wordsToSeek(remark).at(0) ?? '';
  const places = text === null || sought.trim() === '' ? [] : placesElsewhere(text, sought, ownPlace(remark));
  if (text === null) return null;
  const isTaken = (quote: (typeof taken)[number]) => taken.some((one) => isSameQuote(one, quote));
  return (
    <Fold
      className="mt-3 border-t border-dashed border-rule pt-2 text-sm"
      label={
        places.length > 0
          ? words.deciding.elsewhereFound(sought.trim(), places.length, taken.length)
          : words.deciding.elsewhere
      }
    >
      <label className="mt-1 flex items-center gap-2 text-quiet">
        {words.deciding.elsewhereWords}
        <input
          type="text"
          value={sought}
          onChange={(event) => setTyped(event.target.value)}
          className="min-w-0 flex-1 rounded border border-rule bg-paper px-1.5 py-1 text-ink"
        />
      </label>
      {sought.trim() !== '' && places.length === 0 && (
        <p className="mt-1 text-quiet">{words.deciding.elsewhereNone}</p>
      )}
      <ul className="mt-1">
        {places.map(({ span, quote }) => {
          const before = text.slice(Math.max(0, span.from - AROUND_CHARACTERS), span.from);
          const after = text.slice(span.to, span.to + AROUND_CHARACTERS);
          return (
            <li key={span.from} className="border-t border-rule py-1">
              <label className="flex items-start gap-2">
                <CheckBox
                  checked={isTaken(quote)}
                  onChange={(on) =>
                    void setElsewhere(
                      workspace,
                      remark,
                      on ? [...taken, quote] : taken.filter((one) => !isSameQuote(one, quote)),
                    )
                  }
                />
                <span className="min-w-0">
                  <span className="text-quiet">… {before}</span>
                  <b>{text.slice(span.from, span.to)}</b>
                  <span className="text-quiet">{after} …</span>
                </span>
              </label>
            </li>
          );
        })}
      </ul>
    </Fold>
  );
}

/** Where a remark hangs; the places that were taken beside it may be taken back. */
function ownPlace(remark: Remark): Span[] {
  const { textAt } = remark;
  const exact = quotedWords(remark)?.split(' … ').at(0) ?? '';
  return textAt === null ? [] : [{ from: textAt, to: textAt + exact.length }];
}
