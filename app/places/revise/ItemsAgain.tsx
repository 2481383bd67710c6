import { Link } from 'react-router';
import { itemRows, WHOLE_ITEM, type ItemRow } from '#core/assignment/items.ts';
import type { AssignmentView } from '#core/assignment/view.ts';
import { SectionTitle } from '../../shared/controls/Controls.tsx';
import { StationNotice } from '../../shared/line/StationNotice.tsx';
import { assignmentAddress } from '../../shared/page/addresses.ts';
import type { AssignmentOutlet } from '../../shared/page/assignment-outlet.ts';
import { useKeptText } from '../../shared/remark/kept-text.ts';
import { saidBy } from '../../shared/remark/said.ts';
import * as words from '../../words/en.ts';
import { answerItem } from '../../workspace/commands/draft.ts';
import { useWorkspace } from '../../workspace/use-workspace.ts';

/** The items of an activity, each answered again beside the old answer and what was said about it. */
export function ItemsAgain({ outlet: { view } }: { outlet: AssignmentOutlet }) {
  const rows = itemRows(view);
  const isWhole = rows.every(({ item }) => item.id === WHOLE_ITEM);
  return (
    <div className="mx-auto grid max-w-4xl grid-cols-1 gap-5 p-6 max-md:p-4">
      <StationNotice view={view} station="revise" />
      <div>
        <SectionTitle>{words.items.title}</SectionTitle>
        <p className="text-sm text-quiet">{words.items.lead}</p>
      </div>
      {isWhole && (
        <p className="text-quiet">
          {words.items.none}{' '}
          <Link
            to={assignmentAddress(view.assignment.id, 'rubric')}
            className="font-semibold text-accent hover:underline"
          >
            {words.items.putIn}
          </Link>
        </p>
      )}
      <ol className="grid gap-5">
        {rows.map((row) => (
          <Item key={row.item.id} view={view} row={row} />
        ))}
      </ol>
    </div>
  );
}

function Item({ view, row }: { view: AssignmentView; row: ItemRow }) {
  const workspace = useWorkspace();
  const { assignment, attempts, submission } = view;
  const { item, before, result, remarks, answer } = row;
  const attempt = attempts.length + 1;
  const [text, type, leave] = useKeptText(
    `item/${assignment.id}/${attempt}/${item.id}`,
    answer,
    (typed, typing) => answerItem(workspace, assignment.id, attempt, item.id, typed, typing),
  );
  return (
    <li className="rounded-lg border border-rule bg-surface p-4">
      <div className="flex flex-wrap items-baseline justify-between gap-x-4">
        <h3 className="font-semibold">{item.title}</h3>
        <span className="text-sm text-quiet">
          {result?.points != null && item.possible !== null
            ? words.assignment.of(result.points, item.possible)
            : ''}
        </span>
      </div>
      {item.description !== '' && <p className="mt-1 font-serif">{item.description}</p>}
      <dl className="mt-2 text-sm">
        {before !== '' && (
          <>
            <dt className="text-quiet">{words.items.before}</dt>
            <dd className="mb-1.5 font-serif text-base">{before}</dd>
          </>
        )}
        {remarks.map((remark) => (
          <div key={remark.id}>
            <dt className="text-quiet">{words.items.said(remark.author.name)}</dt>
            <dd className="mb-1.5 text-base">{saidBy(remark)}</dd>
          </div>
        ))}
      </dl>
      <label className="mt-1 block">
        <span className="text-sm font-semibold">{words.items.answer}</span>
        <textarea
          rows={3}
          value={text}
          readOnly={submission !== null}
          aria-label={words.items.answerTo(item.title)}
          onChange={(event) => type(event.target.value)}
          onBlur={leave}
          className="mt-0.5 block w-full resize-y rounded-md border border-rule bg-paper px-3 py-2"
        />
      </label>
    </li>
  );
}
