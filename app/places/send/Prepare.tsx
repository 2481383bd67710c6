import { useState } from 'react';
import { standing } from '#core/assignment/attempts.ts';
import { departuresFrom } from '#core/check/needs.ts';
import { stationOf } from '#core/assignment/line.ts';
import { itemRows } from '#core/assignment/items.ts';
import type { SentPost } from '#core/model/handed-in.ts';
import type { Draft, DraftContent, StoredFile } from '#core/model/work.ts';
import { textOfDraft } from '#core/paper/draft.ts';
import type { AssignmentOutlet } from '../../shared/page/assignment-outlet.ts';
import { Button, Empty, SectionTitle } from '../../shared/controls/Controls.tsx';
import { Dialog } from '../../shared/controls/Dialog.tsx';
import { fileNameOf } from '../../shared/files/file-name.ts';
import { PreviewButton } from '../../shared/files/PreviewButton.tsx';
import { StationNotice } from '../../shared/line/StationNotice.tsx';
import { shownMoment } from '../../shared/shown/shown.ts';
import { offerFile } from '../../shared/page/notify.ts';
import { useKeptText } from '../../shared/remark/kept-text.ts';
import * as words from '../../words/en.ts';
import {
  noteToInstructor,
  recordHandedIn,
  sendAttempt,
  sentFile,
  type Going,
} from '../../workspace/commands/send.ts';
import { useNow, useWorkspace, useWorkspaceState } from '../../workspace/use-workspace.ts';
import { Departing } from './Departing.tsx';
import { HandedIn } from './HandedIn.tsx';
import { Rules } from './Rules.tsx';
import { writtenParts } from './written-parts.ts';

/** What goes with the next attempt, and the sending of it. */
export function Prepare({ outlet, draft }: { outlet: AssignmentOutlet; draft: Draft }) {
  const workspace = useWorkspace();
  const nowMs = useNow();
  const { view, content, live, answers } = outlet;
  const [asking, setAsking] = useState(false);
  const [busy, setBusy] = useState(false);
  const [note, typeNote, leaveNote] = useKeptText(`note/${draft.id}`, draft.note, (text, typing) =>
    noteToInstructor(workspace, draft, text, typing),
  );
  const stored = useWorkspaceState(({ records }) => records.files);
  const files = draft.files.flatMap((hash) => stored.get(hash) ?? []);
  const parts = writtenParts(outlet, draft, fileNameOf.bind(null, workspace, view));
  if (draft.bodyHash !== null && content === null) return <Empty>{words.revise.opening}</Empty>;
  const isOpen = stationOf(view, 'send').is === 'do';
  const unanswered = [...answers.values()].filter((answer) => !answer.answered).length;
  const post = view.kind === 'posts' && content !== null ? postOf(draft, content) : null;
  const items = view.kind === 'items' ? Object.keys(draft.items).length : 0;
  const departures = departuresFrom(view.assignment, {
    text: content === null ? null : textOfDraft(content),
    files:
      view.kind === 'paper'
        ? [...files, ...parts.filter(({ role }) => role === 'paper')].map(({ name }) => name)
        : [],
    atMs: nowMs,
    isFirst: standing(view.attempts).length === 0,
  });
  const ready = (content === null || live !== null) && (files.length > 0 || content !== null || items > 0);
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
        {post !== null && (
          <div className="mt-2">
            <p className="text-sm text-quiet">{words.posts.preview}</p>
            <p className="mt-1 rounded-lg border border-rule bg-surface p-4 font-serif whitespace-pre-line">
              {post.text}
            </p>
          </div>
        )}
        {view.kind === 'items' && <ItemsGoing view={view} />}
        <ul className="mt-2">
          {files.map((file) => (
            <KeptFile key={file.hash} file={file} />
          ))}
          {parts.map((part) => (
            <li
              key={part.name}
              className="flex flex-wrap items-baseline justify-between gap-x-4 border-t border-rule py-2.5 sm:flex-nowrap"
            >
              <span className="min-w-0">
                <b className="break-words">{part.name}</b>
                <span className="block text-sm text-quiet">{part.is}</span>
              </span>
              <span className="flex shrink-0 flex-wrap gap-x-4">
                <PreviewButton
                  name={part.name}
                  disabled={!ready}
                  bytesOf={async () => (await part.write()).bytes}
                />
                <Button
                  look="quiet"
                  className="px-1"
                  disabled={!ready}
                  onClick={() =>
                    void part.write().then(({ name, bytes, mediaType }) => offerFile(name, bytes, mediaType))
                  }
                >
                  {part.save}
                </Button>
              </span>
            </li>
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
      <Dialog
        open={asking}
        onClose={() => setAsking(false)}
        title={words.send.sure}
        lead={words.send.sureLead}
      >
        <div className="mb-4">
          <Rules view={view} />
        </div>
        <div className="flex gap-3">
          <Button look="main" onClick={() => void send()}>
            {words.send.send}
          </Button>
          <Button onClick={() => setAsking(false)}>{words.send.cancel}</Button>
        </div>
      </Dialog>
    </>
  );
}

function postOf(draft: Draft, content: DraftContent): SentPost {
  const place = draft.post ?? { answers: null, betters: null };
  return { ...place, text: textOfDraft(content) };
}

/** The answers that go, item by item. */
function ItemsGoing({ view }: { view: AssignmentOutlet['view'] }) {
  const rows = itemRows(view);
  const answered = rows.filter(({ answer }) => answer !== '');
  return (
    <>
      <p className="mt-2 mb-2 text-sm text-quiet">{words.items.answered(answered.length, rows.length)}</p>
      <dl>
        {answered.map(({ item, answer }) => (
          <div key={item.id} className="border-t border-rule py-2">
            <dt className="font-semibold">{item.title}</dt>
            <dd className="font-serif whitespace-pre-line">{answer}</dd>
          </div>
        ))}
      </dl>
    </>
  );
}

/** A file that goes just as it was brought in. */
function KeptFile({ file }: { file: StoredFile }) {
  const workspace = useWorkspace();
  return (
    <li className="flex flex-wrap items-baseline justify-between gap-x-4 border-t border-rule py-2.5 sm:flex-nowrap">
      <span className="min-w-0">
        <b className="break-words">{file.name}</b>
        <span className="block text-sm text-quiet">{words.send.keptFile(words.sizeOf(file.size))}</span>
      </span>
      <span className="flex shrink-0 flex-wrap gap-x-4">
        <PreviewButton name={file.name} bytesOf={() => workspace.fileBytes(file.hash)} />
        <Button
          look="quiet"
          className="px-1"
          onClick={() =>
            void workspace.fileBytes(file.hash).then((bytes) => {
              if (bytes !== null) offerFile(file.name, bytes, file.mediaType);
            })
          }
        >
          {words.assignment.saveFile}
        </Button>
      </span>
    </li>
  );
}
