import { useWorkspace } from '../../workspace/use-workspace.ts';
import { Button, SectionTitle } from '../../shared/controls/Controls.tsx';
import * as words from '../../words/en.ts';
import type { AssignmentView } from '#core/assignment/view.ts';
import type { AwaitedFile } from '#core/assignment/papers.ts';
import { useFetching } from '../../workspace/desk/downloads.ts';

/** Files that came back and aren't here: how large they are, how far they have come, and why they stopped. */
export function Awaited({ view }: { view: AssignmentView }) {
  const differing = filesThatDiffer(view);
  if (view.awaited.length === 0 && differing.length === 0) return null;
  return (
    <section>
      {view.awaited.length > 0 && (
        <>
          <SectionTitle>{words.assignment.awaited}</SectionTitle>
          <ul className="mt-2">
            {view.awaited.map((file) => (
              <Row key={file.fact.hash} file={file} />
            ))}
          </ul>
        </>
      )}
      {differing.map(({ name, announced, found }) => (
        <p key={name} className="mt-2 border-l-2 border-rule-strong pl-3">
          {words.assignment.differs(name, announced, found)}
        </p>
      ))}
    </section>
  );
}

/** Files that were said to hold another number of remarks than was found in them. */
function filesThatDiffer({ attempts, remarks, doubles, awaited }: AssignmentView) {
  const all = [...remarks, ...[...doubles.values()].flat()];
  const missing = new Set(awaited.map(({ fact }) => fact.hash));
  const latest = attempts.flatMap(({ marking }) => marking?.files ?? []);
  return latest.flatMap(({ hash, name, announced: said }) => {
    const announced = Object.values(said).reduce((sum, count) => sum + count, 0);
    const found = all.filter(({ fileHash }) => fileHash === hash).length;
    return missing.has(hash) || announced === 0 || announced === found ? [] : [{ name, announced, found }];
  });
}

function Row({ file: { marking, fact } }: { file: AwaitedFile }) {
  const workspace = useWorkspace();
  const fetching = useFetching(fact.hash);
  const percent = (received: number) => Math.floor((100 * received) / Math.max(1, fact.size));
  const fetch = () => void workspace.downloads.fetchNow(marking, fact);
  return (
    <li className="flex flex-wrap items-center justify-between gap-x-4 gap-y-1 border-t border-rule py-2">
      <div className="min-w-0">
        <p>{words.assignment.fileSize(fact.name, words.sizeOf(fact.size))}</p>
        <p role="status" className="text-sm text-quiet">
          {fetching === undefined
            ? words.assignment.onTheWay
            : fetching.kind === 'loading'
              ? words.assignment.fetching(percent(fetching.received))
              : fetching.kind === 'later'
                ? words.assignment.leftForLater
                : fetching.kind === 'failed'
                  ? words.assignment.fetchFailed[fetching.because]
                  : words.unreadable[fetching.reason](fact.name, fetching.detail)}
        </p>
      </div>
      {fetching?.kind === 'loading' ? (
        <Button onClick={() => workspace.downloads.leaveForLater(fact.hash)}>{words.assignment.later}</Button>
      ) : (
        fetching !== undefined && (
          <Button onClick={fetch}>
            {fetching.kind === 'failed' && fetching.received > 0
              ? words.assignment.goOnFetching(percent(fetching.received))
              : words.assignment.fetch}
          </Button>
        )
      )}
    </li>
  );
}
