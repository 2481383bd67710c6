import { Select } from '../controls/Select.tsx';
import type { Remark } from '#core/model/remark.ts';
import { stances, type Judgement } from '#core/model/work.ts';
import type { AssignmentView } from '#core/assignment/view.ts';
import * as words from '../../words/en.ts';
import { noteOnRemark, setStance } from '../../workspace/commands/decide.ts';
import { useWorkspace } from '../../workspace/use-workspace.ts';
import { useKeptText } from './kept-text.ts';

/** What the remark says: as the student corrected it, else as it is proposed. */
export function StanceChoice({ view, remark }: { view: AssignmentView; remark: Remark }) {
  const workspace = useWorkspace();
  const judgement = view.judgements.get(remark.id);
  const saying = view.sayings.get(remark.id);
  const proposed = judgement?.taken?.stance ?? saying?.stance ?? null;
  const shown =
    proposed === null
      ? words.slip.saysNotKnown
      : words.slip.saysProposed(words.stances[proposed], saying?.sure === true);
  return (
    <Select
      look="quiet"
      label={words.slip.saysLabel}
      value={judgement?.stance ?? ''}
      options={[
        ['', shown],
        ...stances.map((stance, index) => [stance, `${index + 1} ${words.stances[stance]}`] as const),
      ]}
      onChange={(value) =>
        void setStance(workspace, remark, stances.find((stance) => stance === value) ?? null)
      }
    />
  );
}

/** The student's own note. */
export function NoteField({ remark, judgement }: { remark: Remark; judgement: Judgement | undefined }) {
  const workspace = useWorkspace();
  const [text, setText, leave] = useKeptText(`note/${remark.id}`, judgement?.note ?? '', (note, typing) =>
    noteOnRemark(workspace, remark, note, typing),
  );
  return (
    <textarea
      aria-label={words.slip.note}
      placeholder={words.slip.notePlaceholder}
      rows={text === '' ? 1 : 2}
      value={text}
      onChange={(event) => setText(event.target.value)}
      onBlur={leave}
      className="mt-2 block w-full resize-y rounded-md border border-rule bg-paper px-2.5 py-1.5 text-sm placeholder:text-quiet"
    />
  );
}
