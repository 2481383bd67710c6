import { revise } from '../../../words/revising.ts';
import { Check, FileCheck2, MapPin, X } from 'lucide-react';
import type { GivenAnswer, PickedPlace, RemarkRef } from '#core/model/work.ts';
import type { AssignmentOutlet } from '../../../shared/page/assignment-outlet.ts';
import * as words from '../../../words/en.ts';
import { withoutFile, withoutPlaces, withoutWords } from '../../../workspace/commands/answer.ts';
import { useWorkspace } from '../../../workspace/use-workspace.ts';
import type { TextSide } from './text-side.ts';

/** What the student took, showed, wrote or replied as the answer, piece by piece. */
export function GivenAnswers({
  of: ref,
  given,
  reply,
  outlet: { view, work, live },
  side,
  canChange,
}: {
  of: RemarkRef;
  given: GivenAnswer | undefined;
  reply: string;
  outlet: AssignmentOutlet;
  side: TextSide;
  canChange: boolean;
}) {
  const workspace = useWorkspace();
  const { id } = view.assignment;
  const text = live?.paper.text ?? '';
  const now = (pick: PickedPlace) => live?.picks.get(pick) ?? null;
  const isEmpty = given === undefined && reply === '';
  if (isEmpty) return null;
  return (
    <ul className="mt-1.5 grid gap-1 text-sm">
      {given?.words.trim() ? (
        <Piece icon={Check}>
          <span className="line-clamp-3">{given.words}</span>
        </Piece>
      ) : null}
      {reply === '' ? null : (
        <Piece icon={Check}>
          <span className="text-quiet">{revise.replied} </span>
          <span className="line-clamp-3">{reply}</span>
        </Piece>
      )}
      {given?.places.map((pick) => {
        const place = now(pick)?.place ?? null;
        const reads = place === null ? pick.exact : text.slice(place.from, place.to);
        return (
          <Piece
            key={`${pick.versionId} ${pick.from}`}
            icon={Check}
            onTakeAway={canChange ? () => void withoutWords(workspace, id, ref, pick) : null}
          >
            <button
              type="button"
              className="text-left hover:underline"
              disabled={place === null}
              onClick={() => {
                if (place !== null) side.show(place);
              }}
            >
              <span className="line-clamp-3 font-serif">
                {pick.exact === '' ? revise.takenOut : `“${reads}”`}
              </span>
              {now(pick)?.stands === false && (
                <span className="font-semibold">
                  {' '}
                  {place === null ? revise.goneSince : revise.changedSince}
                </span>
              )}
            </button>
          </Piece>
        );
      })}
      {given?.files.map((hash) => (
        <Piece
          key={hash}
          icon={FileCheck2}
          onTakeAway={canChange ? () => void withoutFile(workspace, id, ref, hash) : null}
        >
          {work.files.find((file) => file.hash === hash)?.name ??
            view.files.find((file) => file.hash === hash)?.name}
        </Piece>
      ))}
      {given !== undefined && given.regions.length > 0 && (
        <Piece icon={MapPin} onTakeAway={canChange ? () => void withoutPlaces(workspace, id, ref) : null}>
          {words.newFiles.places(given.regions.length)}
        </Piece>
      )}
    </ul>
  );
}

function Piece({
  icon: Icon,
  onTakeAway = null,
  children,
}: {
  icon: typeof Check;
  onTakeAway?: (() => void) | null;
  children: React.ReactNode;
}) {
  return (
    <li className="flex items-start gap-2">
      <Icon size="1em" aria-hidden className="mt-1 shrink-0 text-keep" />
      <span className="min-w-0 flex-1">{children}</span>
      {onTakeAway !== null && (
        <button
          type="button"
          aria-label={revise.takeAway}
          title={revise.takeAway}
          onClick={onTakeAway}
          className="shrink-0 rounded p-1 text-quiet hover:text-ink"
        >
          <X size="1em" aria-hidden />
        </button>
      )}
    </li>
  );
}
