import { Empty } from '../../shared/Controls.tsx';
import { usePlaceTitle } from '../../shared/place-title.ts';
import { useTakeIn } from '../../shared/use-take-in.ts';
import { words } from '../../words/en.ts';
import { useAllViews, type AssignmentView } from '../../workspace/assignment-view.ts';
import { useWorkspace } from '../../workspace/workspace.ts';
import { CameBackCard } from './CameBackCard.tsx';
import { OpenAgain, Waiting, DueNext } from './Sidelines.tsx';

function unread({ tally }: AssignmentView): number {
  return tally.byChannel.reduce((sum, c) => sum + c.received - c.read + c.announced, 0);
}

/** Unread first, then the newest. */
function cameBack(views: readonly AssignmentView[]): AssignmentView[] {
  return views
    .filter((view) => view.latestMarking !== null)
    .sort(
      (x, y) =>
        Number(unread(y) > 0) - Number(unread(x) > 0) ||
        (y.latestMarking?.at ?? '').localeCompare(x.latestMarking?.at ?? ''),
    );
}

/** The first screen: what came back, what is open for another attempt, waiting, and due. */
export function Arrivals() {
  usePlaceTitle(words.places.arrivals);
  const views = useAllViews();
  const identity = useWorkspace((state) => state.identity);
  const connection = useWorkspace((state) => state.connection);
  const back = cameBack(views);
  const notRead = back.filter((view) => unread(view) > 0);
  return (
    <div className="mx-auto grid grid-cols-1 max-w-[84rem] gap-8 p-7 max-md:p-4 lg:grid-cols-[minmax(0,1fr)_21rem]">
      <section aria-labelledby="came-back">
        <h1 id="came-back" className="font-serif text-xl font-semibold">
          {words.arrivals.title}
        </h1>
        {back.length > 0 && (
          <p className="mb-3 text-sm text-quiet">
            {words.arrivals.lead(
              notRead.length,
              notRead.reduce((sum, view) => sum + unread(view), 0),
            )}
          </p>
        )}
        {back.length === 0 ? (
          <div className="mt-4">
            <Empty>
              {identity?.kind === 'files alone'
                ? words.arrivals.emptyAlone
                : connection === 'asking'
                  ? words.arrivals.asking
                  : words.arrivals.empty}
            </Empty>
          </div>
        ) : (
          <ul className="grid gap-2.5">
            {back.map((view) => (
              <CameBackCard key={view.assignment.id} view={view} unread={unread(view)} />
            ))}
          </ul>
        )}
      </section>
      <aside className="grid content-start gap-8">
        {identity?.kind === 'student' && (
          <>
            <OpenAgain views={views} />
            <Waiting views={views} />
            <DueNext views={views} />
          </>
        )}
        <ChooseFile />
      </aside>
    </div>
  );
}

function ChooseFile() {
  const takeIn = useTakeIn();
  return (
    <label className="block rounded-lg border border-dashed border-rule-strong/70 p-4 text-center text-sm text-quiet focus-within:outline-2 focus-within:outline-accent hover:border-ink">
      {words.arrivals.drop}
      <span className="block font-semibold text-accent">{words.arrivals.choose}</span>
      <input
        type="file"
        multiple
        className="sr-only"
        onChange={(event) => {
          takeIn([...(event.target.files ?? [])]);
          event.target.value = '';
        }}
      />
    </label>
  );
}
