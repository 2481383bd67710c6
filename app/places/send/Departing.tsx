import type { Departure } from '#core/check/needs.ts';
import type { Instant } from '#core/model/ids.ts';
import { Button } from '../../shared/controls/Controls.tsx';
import { noteFor } from '../../shared/line/needs-told.ts';
import * as words from '../../words/en.ts';

/** Where what goes departs from what is asked: the note that explains it is proposed, for the student to finish. */
export function Departing({
  departures,
  note,
  shown,
  onPropose,
}: {
  departures: readonly Departure[];
  note: string;
  shown: (at: Instant) => string;
  onPropose: (note: string) => void;
}) {
  const proposed = noteFor(departures, shown);
  if (proposed === '' || note.includes(proposed.trim())) return null;
  return (
    <div className="mt-3 rounded-lg border border-dashed border-rule-strong/70 p-4">
      <p>{words.needs.departs(departures.length)}</p>
      <p className="mt-1 font-serif">{proposed}</p>
      <Button className="mt-2" onClick={() => onPropose(proposed)}>
        {words.needs.propose}
      </Button>
    </div>
  );
}
