import { ArrowRight } from 'lucide-react';
import { Link } from 'react-router';
import { assignmentOfWay, stationOf } from '#core/assignment/line.ts';
import type { AssignmentView } from '#core/assignment/view.ts';
import type { Way } from '#core/line/station-facts.ts';
import type { Station } from '#core/line/stations.ts';
import * as words from '../../words/en.ts';
import { assignmentAddress } from '../page/addresses.ts';

/** Why a station is not simply gone through, and the ways on from it; nothing where there is nothing to explain. */
export function StationNotice({ view, station }: { view: AssignmentView; station: Station }) {
  const { why, ways } = stationOf(view, station);
  if (why === null) return null;
  return (
    <div className="rounded-lg border border-dashed border-rule-strong/70 p-4">
      <p className="max-w-prose">{words.stations.reasons[why]}</p>
      {ways.length > 0 && (
        <p className="mt-2 flex flex-wrap gap-x-6 gap-y-1">
          {ways.map((way) => (
            <Link
              key={`${way.of} ${way.to}`}
              to={assignmentAddress(assignmentOfWay(view, way), way.to === 'page' ? '' : way.to)}
              className="inline-flex items-center gap-1 font-semibold text-accent hover:underline"
            >
              {wayShown(view, way)}
              <ArrowRight size="1em" aria-hidden />
            </Link>
          ))}
        </p>
      )}
    </div>
  );
}

function wayShown({ stages }: AssignmentView, { of, to }: Way): string {
  const other = of === 'final' ? stages.final : of === 'stage' ? stages.draft : null;
  return other === null ? words.stations.ways.toThis(to) : words.stations.ways.toStage(to, other.title);
}

/** A station that is nothing but the way to where it happens. */
export function StationElsewhere({ view, station }: { view: AssignmentView; station: Station }) {
  return (
    <div className="mx-auto grid max-w-2xl gap-3 p-8 max-md:p-4">
      <h2 className="font-serif text-[1.12rem] font-semibold">
        {words.stations.meanings[stationOf(view, station).means]}
      </h2>
      <StationNotice view={view} station={station} />
    </div>
  );
}
