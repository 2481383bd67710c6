import { useState } from 'react';
import { standing } from '#core/assignment/attempts.ts';
import { departuresFrom } from '#core/check/needs.ts';
import { stationOf } from '#core/assignment/line.ts';
import type { SentPost } from '#core/model/handed-in.ts';
import type { Draft, DraftContent } from '#core/model/work.ts';
import { textOfDraft } from '#core/paper/draft.ts';
import { assignmentAddress } from '../../shared/page/addresses.ts';
import type { AssignmentOutlet } from '../../shared/page/assignment-outlet.ts';
import { Button, Empty, SectionTitle } from '../../shared/controls/Controls.tsx';
import { Dialog } from '../../shared/controls/Dialog.tsx';
import { fileNameOf } from '../../shared/files/file-name.ts';
import { StationNotice } from '../../shared/line/StationNotice.tsx';
import { shownMoment } from '../../shared/shown/shown.ts';
import { useKeptText } from '../../shared/remark/kept-text.ts';
import * as words from '../../words/en.ts';
import {
  noteToInstructor,
  recordHandedIn,
  sendAttempt,
  sentFile,
  WORD_TYPE,
  type Going,
} from '../../workspace/commands/send.ts';
import { useNow, useWorkspace, useWorkspaceState } from '../../workspace/use-workspace.ts';
import { Departing } from './Departing.tsx';
import { GoingFile, ItemsGoing, PostGoing } from './Going.tsx';
import { HandedIn } from './HandedIn.tsx';
import { Rules } from './Rules.tsx';
import { writtenParts } from './written-parts.ts';

/** What goes with the next attempt, and the sending of it. */
export function Prepare({ outlet, draft }: { outlet: AssignmentOutlet; draft: Draft }) {
  const workspace = useWorkspace();
  const nowMs = useNow();
  const { view, content, text, live, answers } = outlet;
  const [asking, setAsking] = useState(false);
  const [busy, setBusy] = useState(false);
  const [note, typeNote, leaveNote] = useKeptText(`note/${draft.id}`, draft.note, (text, typing) =>
    noteToInstructor(workspace, draft, text, typing),
  );
  const stored = useWorkspaceState(({ records }) => records.files);
  // A text that was written elsewhere goes as it is, before all else.
  const hashes = [...(draft.paperFile === null ? [] : [draft.paperFile]), ...draft.files];
  const files = hashes.flatMap((hash) => stored.get(hash) ?? []);
  const parts = writtenParts(workspace, outlet, draft, fileNameOf.bind(null, workspace, view));
  if (draft.bodyHash !== null && content === null) return <Empty>{words.send.opening}</Empty>;
  const isOpen = stationOf(view, 'send').is === 'do';
  const unanswered = [...answers.values()].filter((answer) => !answer.answered).length;
  const post = view.kind === 'posts' && content !== null ? postOf(draft, content) : null;
  const items = view.kind === 'items' ? Object.keys(draft.items).length : 0;
  const departures = departuresFrom(view.assignment, {
    text: content !== null ? textOfDraft(content) : (text?.paper.text ?? null),
    files:
      view.kind === 'paper'
        ? [...files, ...parts.filter(({ role }) => role === 'paper')].map(({ name }) => name)
        : [],
    atMs: nowMs,
    isFirst: standing(view.attempts).length === 0,
  });
  const isText = content !== null || draft.paperFile !== null;
  const ready = (!isText || live !== null) && (files.length > 0 || content !== null || items > 0);
  const go = async (by: (going: Going) => Promise<void>) => {
    setAsking(false);
    setBusy(true);
    try {
      leaveNote();
      const written = await Promise.all(parts.map((part) => part.write()));
      const kept = files.map((file) => sentFile('paper', file));
      await by({ kind: view.kind, content, kept, written, post });
    } finally {
      setBusy(false);
    }
  };
  const send = () => go((going) => sendAttempt(workspace, draft, going));
  return (
    <>
      {view.refusal !== null && view.refusal.state.kind === 'refused' && (
        <p role="alert" className="rounded-lg border border-dashed border-rule-strong p-4 font-semibold">
          {words.send.refused(view.refusal.state.reason)}
        </p>
      )}
      <section>
        <SectionTitle>{words.send.goes}</SectionTitle>
        {post !== null && <PostGoing post={post} />}
        {view.kind === 'items' && <ItemsGoing view={view} />}
        <ul className="mt-2">
          {files.map((file) => (
            <GoingFile
              key={file.hash}
              name={file.name}
              is={words.send.keptFile(words.sizeOf(file.size))}
              save={words.assignment.saveFile}
              mediaType={file.mediaType}
              bytesOf={() => workspace.fileBytes(file.hash)}
            />
          ))}
          {parts.map(({ role, name, is, save, write }) => (
            <GoingFile
              key={name}
              changeAt={role === 'response' ? assignmentAddress(view.assignment.id, 'response') : null}
              name={name}
              is={is}
              save={save}
              mediaType={WORD_TYPE}
              disabled={!ready}
              bytesOf={async () => (await write()).bytes}
            />
          ))}
        </ul>
        <Departing
          departures={departures}
          note={note}
          shown={(at) => shownMoment(at, view.course?.zone)}
          onPropose={(proposed) => typeNote(note.trim() === '' ? proposed : `${note.trim()}\n\n${proposed}`)}
        />
        <label className="mt-3 block">
          <b>{words.send.note}</b>
          <textarea
            rows={3}
            value={note}
            placeholder={words.send.notePlaceholder}
            onChange={(event) => typeNote(event.target.value)}
            onBlur={leaveNote}
            className="mt-1 block w-full resize-y rounded-md border border-rule bg-surface px-3 py-2 placeholder:text-quiet"
          />
        </label>
      </section>
      <section>
        <SectionTitle>{words.send.rules}</SectionTitle>
        <Rules view={view} />
        {unanswered > 0 && <p className="mt-1 text-quiet">{words.send.warnings(unanswered)}</p>}
        {!view.byDesk ? (
          <div className="mt-3 grid gap-3">
            <StationNotice view={view} station="send" />
            <HandedIn
              disabled={!ready || busy}
              onRecord={(how) => void go((going) => recordHandedIn(workspace, draft, going, how))}
            />
          </div>
        ) : (
          <Button
            look="main"
            className="mt-4"
            disabled={!isOpen || !ready || busy}
            onClick={() => setAsking(true)}
          >
            {busy ? words.send.sending : words.send.send}
          </Button>
        )}
      </section>
      <Sure view={view} open={asking} onSend={() => void send()} onClose={() => setAsking(false)} />
    </>
  );
}

/** The last question before it goes. */
function Sure({
  view,
  open,
  onSend,
  onClose,
}: {
  view: AssignmentOutlet['view'];
  open: boolean;
  onSend: () => void;
  onClose: () => void;
}) {
  return (
    <Dialog open={open} onClose={onClose} title={words.send.sure} lead={words.send.sureLead}>
      <div className="mb-4">
        <Rules view={view} />
      </div>
      <div className="flex gap-3">
        <Button look="main" onClick={onSend}>
          {words.send.send}
        </Button>
        <Button onClick={onClose}>{words.send.cancel}</Button>
      </div>
    </Dialog>
  );
}

function postOf(draft: Draft, content: DraftContent): SentPost {
  const place = draft.post ?? { answers: null, betters: null };
  return { ...place, text: textOfDraft(content) };
}
