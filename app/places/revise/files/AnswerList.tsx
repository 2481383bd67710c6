import { revise } from '../../../words/revising.ts';
import { isAbout } from '#core/saying/remark-parts.ts';
import clsx from 'clsx';
import { MapPin } from 'lucide-react';
import type { Remark } from '#core/model/remark.ts';
import type { StoredFile } from '#core/model/work.ts';
import { CheckBox } from '../../../shared/controls/CheckBox.tsx';
import { Button } from '../../../shared/controls/Controls.tsx';
import type { AssignmentOutlet } from '../../../shared/page/assignment-outlet.ts';
import { DecisionSign } from '../../../shared/remark/Decisions.tsx';
import { useKeptText } from '../../../shared/remark/kept-text.ts';
import { saidBy } from '../../../shared/remark/said.ts';
import * as words from '../../../words/en.ts';
import { answerInWords, withoutPlaces } from '../../../workspace/commands/answer.ts';
import { tickTask } from '../../../workspace/commands/plan.ts';
import { useWorkspace } from '../../../workspace/use-workspace.ts';
import { RemarkList } from '../RemarkList.tsx';
import { isPicture } from './pictures.ts';

interface Answering {
  readonly outlet: AssignmentOutlet;
  /** The new file that is looked at; null while there is none. */
  readonly shown: StoredFile | null;
  readonly focusedId: string | null;
  readonly onFocus: (id: string) => void;
  readonly drawingFor: string | null;
  readonly onDraw: (id: string | null) => void;
  readonly canChange: boolean;
}

/** The remarks, each with what was done about it: in words, or as a place in the new picture. */
export function AnswerList(props: Answering) {
  return (
    <aside aria-label={revise.slips} className="bg-paper p-4 md:min-h-0 md:overflow-auto">
      <RemarkList work={props.outlet.work} answers={props.outlet.answers}>
        {(remark) => <AnswerSlip key={remark.id} remark={remark} {...props} />}
      </RemarkList>
    </aside>
  );
}

function AnswerSlip({
  remark,
  outlet: { work },
  shown,
  focusedId,
  onFocus,
  drawingFor,
  onDraw,
  canChange,
}: Answering & { remark: Remark }) {
  const workspace = useWorkspace();
  const { assignment, tasks, given, judgements, numberByRemark } = work;
  const known = given.get(remark.id);
  const [text, type, leave] = useKeptText(`answer/${remark.id}`, known?.words ?? '', (typed, typing) =>
    answerInWords(workspace, assignment.id, { remarkId: remark.id, partId: null }, typed, typing),
  );
  const task = tasks.find((planned) => isAbout(planned.task.about, remark.id))?.task ?? null;
  const focused = focusedId === remark.id;
  const number = numberByRemark.get(remark.id) ?? 0;
  const places = known?.regions.length ?? 0;
  const canDraw = canChange && shown !== null && isPicture(shown.mediaType);
  return (
    <li
      data-remark={remark.id}
      className={clsx(
        'rounded-lg border border-l-[3px] bg-surface px-3 py-2',
        focused ? 'border-ink shadow-(--shadow)' : 'border-rule',
        task === null ? 'border-l-rule-strong' : 'border-l-act',
      )}
      onFocus={() => onFocus(remark.id)}
    >
      <div className="flex items-center gap-2.5 text-sm text-quiet">
        {task === null ? (
          <DecisionSign judgement={judgements.get(remark.id)} />
        ) : (
          <label className="inline-flex items-center gap-1.5">
            <CheckBox
              label={`${revise.tick}: ${task.title}`}
              checked={task.done}
              onChange={(done) => void tickTask(workspace, task, done)}
            />
            {task.minutes} {words.plan.minutesShort}
          </label>
        )}
        {places > 0 && (
          <span className="ml-auto inline-flex items-center gap-1 font-semibold text-ink">
            <MapPin size="1em" aria-hidden />
            {words.newFiles.places(places)}
          </span>
        )}
        <span aria-hidden className={places > 0 ? '' : 'ml-auto'}>
          {number}
        </span>
      </div>
      <button
        type="button"
        onClick={() => onFocus(remark.id)}
        aria-expanded={focused}
        className="mt-0.5 block w-full text-left"
      >
        <span className={clsx('block', !focused && 'line-clamp-3')}>{saidBy(remark)}</span>
      </button>
      <label className="mt-1.5 block text-sm">
        <span className="text-quiet">{words.newFiles.whatWasDone}</span>
        <textarea
          rows={focused ? 3 : 1}
          value={text}
          readOnly={!canChange}
          aria-label={words.newFiles.whatWasDoneAbout(number)}
          onChange={(event) => type(event.target.value)}
          onBlur={leave}
          className="mt-0.5 block w-full resize-y rounded-md border border-rule bg-paper px-2 py-1 text-base"
        />
      </label>
      {focused && canDraw && (
        <div className="mt-1 flex flex-wrap gap-x-4">
          <Button
            look="quiet"
            className="px-0"
            aria-pressed={drawingFor === remark.id}
            onClick={() => onDraw(drawingFor === remark.id ? null : remark.id)}
          >
            {drawingFor === remark.id ? words.newFiles.noPlace : words.newFiles.showPlace}
          </Button>
          {places > 0 && (
            <Button
              look="quiet"
              className="px-0"
              onClick={() =>
                void withoutPlaces(workspace, assignment.id, { remarkId: remark.id, partId: null })
              }
            >
              {words.newFiles.withoutPlaces}
            </Button>
          )}
        </div>
      )}
    </li>
  );
}
