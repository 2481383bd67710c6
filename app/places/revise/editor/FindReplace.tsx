import { revise } from '../../../words/revising.ts';
import type { Editor } from '@tiptap/react';
import { useEffect, useState } from 'react';
import { Button } from '../../../shared/controls/Controls.tsx';
import { placesOf, putInPlace, showFound, type FoundAt } from '../../../shared/editor/find.ts';

/** Looks words up in the draft, and puts others in their place, one by one or all at once. */
export function FindReplace({ editor, onClose }: { editor: Editor; onClose: () => void }) {
  const [wanted, setWanted] = useState('');
  const [instead, setInstead] = useState('');
  const [places, setPlaces] = useState<readonly FoundAt[]>([]);
  const [current, setCurrent] = useState(0);
  const look = (text: string, at: number) => {
    const found = placesOf(editor.state.doc, text);
    const next = found.length === 0 ? 0 : (at + found.length) % found.length;
    setPlaces(found);
    setCurrent(next);
    showFound(editor, found, next);
  };
  useEffect(
    () => () => {
      if (!editor.isDestroyed) showFound(editor, [], 0);
    },
    [editor],
  );
  const place = places.at(current);
  const field = 'min-w-0 rounded-md border border-rule bg-surface px-2 py-1 text-sm';
  return (
    <search
      className="flex flex-wrap items-center gap-2 border-b border-rule px-5 py-1.5 max-md:px-3"
      onKeyDown={(event) => {
        if (event.key === 'Escape') onClose();
      }}
    >
      <input
        autoFocus
        value={wanted}
        aria-label={revise.find}
        placeholder={revise.find}
        className={field}
        onChange={(event) => {
          setWanted(event.target.value);
          look(event.target.value, 0);
        }}
        onKeyDown={(event) => {
          if (event.key === 'Enter') look(wanted, current + (event.shiftKey ? -1 : 1));
        }}
      />
      <span role="status" className="text-sm text-quiet">
        {wanted === '' ? '' : revise.foundAt(places.length === 0 ? 0 : current + 1, places.length)}
      </span>
      <input
        value={instead}
        aria-label={revise.instead}
        placeholder={revise.instead}
        className={field}
        onChange={(event) => setInstead(event.target.value)}
      />
      <Button
        className="min-h-8 py-0 text-sm"
        disabled={place === undefined}
        onClick={() => {
          if (place === undefined) return;
          putInPlace(editor, [place], instead);
          look(wanted, current);
        }}
      >
        {revise.replaceOne}
      </Button>
      <Button
        className="min-h-8 py-0 text-sm"
        disabled={places.length === 0}
        onClick={() => {
          putInPlace(editor, places, instead);
          look(wanted, 0);
        }}
      >
        {revise.replaceAll(places.length)}
      </Button>
      <Button look="quiet" className="ml-auto text-sm" onClick={onClose}>
        {revise.closeFind}
      </Button>
    </search>
  );
}
