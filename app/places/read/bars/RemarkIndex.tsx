import { Toggles } from '../../../shared/controls/Toggles.tsx';
import type { Remark } from '#core/model/remark.ts';
import { Empty } from '../../../shared/controls/Controls.tsx';
import { RemarkLines } from '../../../shared/remark/RemarkLines.tsx';
import * as words from '../../../words/en.ts';
import type { AssignmentView } from '#core/assignment/view.ts';
import { filterFields, groupsBy, type FilterField } from '../../../shared/remark/filter.ts';

/** The remarks as a list, in groups with counts; each line leads to its place. */
export function RemarkIndex({
  view,
  remarks,
  by,
  onBy,
  onOpen,
}: {
  view: AssignmentView;
  remarks: readonly Remark[];
  by: FilterField;
  onBy: (by: FilterField) => void;
  /** One was chosen, to be seen in its place. */
  onOpen: () => void;
}) {
  const said = words.reading.filter;
  return (
    <div className="mx-auto max-w-4xl p-6 max-md:p-4">
      <div className="flex flex-wrap items-center gap-2 text-sm">
        <span className="text-quiet">{said.groupBy}</span>
        <Toggles
          label={said.groupBy}
          options={filterFields
            .filter(
              (field) => field === by || field !== 'channel' || groupsBy(view, remarks, field).length > 1,
            )
            .map((field) => [field, said.fields[field]] as const)}
          chosen={by}
          onChoose={onBy}
        />
      </div>
      {remarks.length === 0 && (
        <div className="mt-5">
          <Empty>{said.none}</Empty>
        </div>
      )}
      {groupsBy(view, remarks, by).map(({ value, label, remarks: own }) => (
        <section key={value} className="mt-6 [contain-intrinsic-size:auto_20rem] [content-visibility:auto]">
          <h2 className="flex items-baseline gap-2 font-serif text-[1.1rem] font-semibold">
            {by === 'color' && value !== '' && (
              <span
                aria-hidden
                className="h-3.5 w-3.5 self-center rounded-sm border border-rule-strong"
                style={{ background: own[0].color ?? undefined }}
              />
            )}
            {label}
            <span className="font-sans text-sm font-normal text-quiet">{own.length}</span>
          </h2>
          <RemarkLines view={view} remarks={own} onOpen={onOpen} />
        </section>
      ))}
    </div>
  );
}
