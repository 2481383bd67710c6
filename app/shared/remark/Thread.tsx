import { useWorkspace } from '../../workspace/use-workspace.ts';
import { useState } from 'react';
import type { Remark, Reply } from '#core/model/remark.ts';
import type { AssignmentView } from '#core/assignment/view.ts';
import type { RemarkPart } from '#core/saying/remark-parts.ts';
import * as words from '../../words/en.ts';
import { replyToRemark } from '../../workspace/commands/decide.ts';
import { fieldOf, usePartInHand } from './in-hand.ts';
import { useKeptText } from './kept-text.ts';
import { shownDay } from '../shown/shown.ts';

/** What was answered within the file, and the state that it was given there. */
export function Thread({ remark, open }: { remark: Remark; open: boolean }) {
  const count = countReplies(remark.replies);
  return (
    <div className="mt-1.5 text-sm">
      <p className="text-quiet">
        {[
          count > 0 && words.reading.replies(count),
          remark.state !== null && words.reading.state(remark.state),
        ]
          .filter(Boolean)
          .join(' · ')}
      </p>
      {open && count > 0 && <Replies replies={remark.replies} />}
    </div>
  );
}

function countReplies(replies: readonly Reply[]): number {
  return replies.reduce((sum, reply) => sum + 1 + countReplies(reply.replies), 0);
}

function Replies({ replies }: { replies: readonly Reply[] }) {
  return (
    <ul className="mt-1 border-l border-rule-strong pl-3">
      {replies.map((reply, index) => (
        <li key={index} className="mt-1">
          <b>{reply.author.name}</b>
          {reply.at !== null && <span className="text-quiet"> · {shownDay(reply.at, undefined)}</span>}
          <p className="whitespace-pre-wrap">{reply.text}</p>
          {reply.replies.length > 0 && <Replies replies={reply.replies} />}
        </li>
      ))}
    </ul>
  );
}

/** What the student answers to a remark, or to the part of it that is in hand: a line to open it, then a field. */
export function ReplyField({ view, remark }: { view: AssignmentView; remark: Remark }) {
  const part = usePartInHand(view, remark);
  return <OwnReply key={`${remark.id} ${part?.from ?? ''}`} view={view} remark={remark} part={part} />;
}

function OwnReply({ view, remark, part }: { view: AssignmentView; remark: Remark; part: RemarkPart | null }) {
  const workspace = useWorkspace();
  const from = part?.from ?? null;
  const [text, setText, leave] = useKeptText(
    fieldOf('reply', remark, from),
    (part ?? view.judgements.get(remark.id))?.reply ?? '',
    (reply, typing) => replyToRemark(workspace, remark, from, reply, typing),
  );
  const [opened, setOpened] = useState(false);
  if (!opened && text === '')
    return (
      <button
        type="button"
        className="mt-1.5 text-sm font-semibold text-accent hover:underline"
        onClick={() => setOpened(true)}
      >
        {words.slip.toReply}
      </button>
    );
  return (
    <label className="mt-2 block text-sm">
      <span className="text-quiet">{words.slip.reply}</span>
      <textarea
        aria-label={words.slip.reply}
        // It was asked for just now.
        autoFocus={opened}
        rows={2}
        value={text}
        onChange={(event) => setText(event.target.value)}
        onBlur={() => {
          leave();
          setOpened(false);
        }}
        className="mt-0.5 block w-full resize-y rounded-md border border-rule bg-paper px-2.5 py-1.5"
      />
      <span className="mt-0.5 block text-[0.8rem] text-quiet">{words.slip.replyHint}</span>
    </label>
  );
}
