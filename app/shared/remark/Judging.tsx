import { Select } from '../controls/Select.tsx';
import type { Remark } from '#core/model/remark.ts';
import { stances } from '#core/model/work.ts';
import type { RemarkPart } from '#core/saying/remark-parts.ts';
import type { AssignmentView } from '#core/assignment/view.ts';
import * as words from '../../words/en.ts';
import { noteOnRemark } from '../../workspace/commands/decide.ts';
import { useWorkspace } from '../../workspace/use-workspace.ts';
import { fieldOf, sayInHand, usePartInHand } from './in-hand.ts';
import { useKeptText } from './kept-text.ts';

/** What the remark says, or the part of it that is in hand: as the student corrected it, else as it is proposed. */
export function StanceChoice({ view, remark }: { view: AssignmentView; remark: Remark }) {
  const workspace = useWorkspace();
  const part = usePartInHand(view, remark);
  const judgement = view.judgements.get(remark.id);
  const saying = view.sayings.get(remark.id);
  const proposed = part?.said ?? judgement?.taken?.stance ?? saying?.stance ?? null;
  const chosen = part === null ? (judgement?.stance ?? '') : part.corrected ? part.stance : '';
  const shown =
    proposed === null
      ? words.slip.saysNotKnown
      : words.slip.saysProposed(words.stances[proposed], part !== null || saying?.sure === true);
  return (
    <Select
      look="quiet"
      label={words.slip.saysLabel}
      value={chosen}
      options={[
        ['', shown],
        ...stances.map((stance, index) => [stance, `${index + 1} ${words.stances[stance]}`] as const),
      ]}
      onChange={(value) =>
        void sayInHand(workspace, view, remark, stances.find((stance) => stance === value) ?? null)
      }
    />
  );
}

/** The student's own note on a remark, or on the part of it that is in hand. */
export function NoteField({ view, remark }: { view: AssignmentView; remark: Remark }) {
  const part = usePartInHand(view, remark);
  const from = part?.from ?? null;
  return <Note key={`${remark.id} ${from ?? ''}`} view={view} remark={remark} part={part} />;
}

function Note({ view, remark, part }: { view: AssignmentView; remark: Remark; part: RemarkPart | null }) {
  const workspace = useWorkspace();
  const from = part?.from ?? null;
  const [text, setText, leave] = useKeptText(
    fieldOf('note', remark, from),
    (part ?? view.judgements.get(remark.id))?.note ?? '',
    (note, typing) => noteOnRemark(workspace, remark, from, note, typing),
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
