import { useState, type ReactNode } from 'react';
import * as words from '../../words/en.ts';

/** A list with a field above it that leaves what has the words that are looked for. */
export function FoundList<Item>({
  label,
  items,
  textsOf,
  keyOf,
  row,
}: {
  label: string;
  items: readonly Item[];
  /** What is looked in. */
  textsOf: (item: Item) => readonly string[];
  keyOf: (item: Item) => string;
  row: (item: Item) => ReactNode;
}) {
  const [wanted, setWanted] = useState('');
  const shown = items.filter((item) => holds(wanted, textsOf(item)));
  return (
    <>
      <div className="my-2 flex items-center gap-3 text-sm">
        <input
          type="search"
          aria-label={words.marks.findIn(label)}
          placeholder={words.marks.find}
          value={wanted}
          onChange={({ target }) => setWanted(target.value)}
          className="w-60 rounded border border-rule bg-surface px-2 py-1 placeholder:text-quiet"
        />
        <span role="status" className="text-quiet">
          {words.marks.count(shown.length, items.length)}
        </span>
      </div>
      {shown.length === 0 ? (
        <p className="text-quiet">{words.marks.noneFound}</p>
      ) : (
        <ul className="max-h-96 overflow-auto rounded-md border border-rule" tabIndex={0} aria-label={label}>
          {shown.map((item) => (
            <li key={keyOf(item)} className="border-b border-rule px-3 py-2 last:border-b-0">
              {row(item)}
            </li>
          ))}
        </ul>
      )}
    </>
  );
}

/** Whether every word that is looked for stands in one of some texts. */
function holds(wanted: string, texts: readonly string[]): boolean {
  const text = texts.join('\n').toLowerCase();
  return wanted
    .toLowerCase()
    .split(/\s+/)
    .every((word) => text.includes(word));
}
