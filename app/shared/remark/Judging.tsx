import { Select } from '../controls/Select.tsx';
import type { Remark } from '#core/model/remark.ts';
import { stances, type Judgement } from '#core/model/work.ts';
import { stanceOf } from '#core/saying/saying-of.ts';
import * as words from '../../words/en.ts';
import { noteOnRemark, setStance } from '../../workspace/commands/decide.ts';
import { useWorkspace } from '../../workspace/use-workspace.ts';
import { useKeptText } from './kept-text.ts';

/** What the remark says: as the student corrected it, else as the rules propose. */
export function StanceChoice({ remark, judgement }: { remark: Remark; judgement: Judgement | undefined }) {
  const workspace = useWorkspace();
  const proposed = stanceOf(remark, judgement === undefined ? undefined : { ...judgement, stance: null });
  return (
    <Select
      look="quiet"
      label={words.slip.saysLabel}
      value={judgement?.stance ?? ''}
      options={[
        ['', words.slip.saysProposed(words.stances[proposed])],
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
