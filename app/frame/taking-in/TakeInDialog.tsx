import { tellNotTaken } from '../../shared/page/notify.ts';
import { useWorkspace, useWorkspaceState } from '../../workspace/use-workspace.ts';
import { useState } from 'react';
import { useNavigate } from 'react-router';
import type { FileRole } from '#core/model/work.ts';
import { aboutSubject, subjectsFor, type PendingFile } from '#core/taking-in/pending.ts';
import { assignmentAddress } from '../../shared/page/addresses.ts';
import { Button } from '../../shared/controls/Controls.tsx';
import { Dialog } from '../../shared/controls/Dialog.tsx';
import { Choice } from '../../shared/controls/Choice.tsx';
import * as words from '../../words/en.ts';
import type { FileAtHand } from '../../workspace/taking-in/taking-in.ts';
import { takingInNotices } from './notices.ts';
import { useTakingIn } from './use-take-in.ts';

/** Where each file that was read belongs: proposed, and confirmed or changed before anything is added. */
export function TakeInDialog() {
  const workspace = useWorkspace();
  const { takingIn } = workspace;
  const { pending, question } = useTakingIn((state) => state);
  const navigate = useNavigate();
  const [busy, setBusy] = useState(false);
  const close = () => takingIn.drop();
  const go = async () => {
    setBusy(true);
    try {
      const id = await takingIn.confirm(pending, takingInNotices);
      if (id !== null) void navigate(assignmentAddress(id));
    } catch (error) {
      // Nothing of it was taken: the files are still here to try again.
      tellNotTaken(error);
    } finally {
      setBusy(false);
    }
  };
  const unplaceable = pending.some((file) => file.holds === 'remarks' && file.about === null);
  return (
    <>
      <Dialog
        open={pending.length > 0 && question === null}
        onClose={close}
        title={words.takeIn.title}
        lead={words.takeIn.lead}
      >
        <ul className="grid gap-4">
          {pending.map((file) => (
            <Pending
              key={file.hash}
              file={file}
              pending={pending}
              onChange={(next) => takingIn.change(file.hash, next)}
            />
          ))}
        </ul>
        {unplaceable && <p className="mt-4 text-sm">{words.takeIn.nothingToPlaceOn}</p>}
        <div className="sticky -bottom-5 -mx-5 mt-5 -mb-5 flex gap-3 border-t border-rule bg-surface px-5 py-4">
          <Button look="main" disabled={busy || unplaceable} onClick={() => void go()}>
            {words.takeIn.go(pending.length)}
          </Button>
          <Button onClick={close}>{words.takeIn.none}</Button>
        </div>
      </Dialog>
      {question !== null && <Password key={`${question.name} ${question.wrong}`} />}
    </>
  );
}

const PAPER_ROLES: readonly FileRole[] = ['marked', 'sent', 'brief', 'attachment'];

function Pending({
  file,
  pending,
  onChange,
}: {
  file: FileAtHand;
  pending: readonly FileAtHand[];
  onChange: (next: Partial<PendingFile>) => void;
}) {
  const { content } = file;
  const kind = content.kind === 'paper' ? content.paper.kind : content.kind;
  const count =
    content.kind === 'paper' ? content.paper.marks.length : content.kind === 'remarks' ? content.count : null;
  return (
    <li className="border-t border-rule pt-3">
      <p className="break-words">
        <b>{file.name}</b>{' '}
        <span className="text-sm text-quiet">
          {words.takeIn.kinds[kind]}
          {count !== null && ` · ${words.takeIn.found(count)}`}
        </span>
      </p>
      <div className="mt-2 grid items-start gap-x-4 gap-y-2 sm:grid-cols-[5fr_3fr]">
        {file.holds === 'remarks' || file.holds === 'transcript' ? (
          <About file={file} pending={pending} onChange={onChange} />
        ) : (
          <Place file={file} pending={pending} onChange={onChange} />
        )}
        {file.holds === 'paper' && (
          <Choice
            label={words.takeIn.isA}
            of={words.takeIn.ofFile(file.name)}
            value={file.role}
            options={PAPER_ROLES.map((role) => [role, words.takeIn.roles[role]])}
            onChange={(role) => onChange({ role: role as FileRole })}
          />
        )}
      </div>
    </li>
  );
}

interface PendingProps {
  readonly file: PendingFile;
  readonly pending: readonly PendingFile[];
  readonly onChange: (next: Partial<PendingFile>) => void;
}

function Place({ file, pending, onChange }: PendingProps) {
  const assignments = useWorkspaceState((state) => state.records.assignments);
  const others = pending.filter(
    ({ hash, holds, place }) =>
      hash !== file.hash && holds === 'paper' && (place === null || !('beside' in place)),
  );
  const value =
    file.place === null
      ? ''
      : 'assignment' in file.place
        ? `a:${file.place.assignment}`
        : `f:${file.place.beside}`;
  const likely = file.likely;
  return (
    <div>
      <Choice
        label={words.takeIn.belongsTo}
        of={words.takeIn.ofFile(file.name)}
        value={value}
        options={[
          ['', words.takeIn.newAssignment],
          ...others.map(({ hash, name }): [string, string] => [`f:${hash}`, words.takeIn.withFile(name)]),
          ...[...assignments.values()].map(({ id, title }): [string, string] => [`a:${id}`, title]),
        ]}
        onChange={(next) =>
          onChange({
            place:
              next === ''
                ? null
                : next.startsWith('a:')
                  ? { assignment: next.slice(2) }
                  : { beside: next.slice(2) },
          })
        }
      />
      {likely !== null && value.slice(2) === likely.id && (
        <p className="mt-1 text-sm text-quiet">
          {likely.because === 'text' ? words.takeIn.byText : words.takeIn.byName}
        </p>
      )}
    </div>
  );
}

function About({ file, pending, onChange }: PendingProps) {
  const files = useWorkspaceState((state) => state.records.files);
  const subjects = subjectsFor(file, pending, files.values());
  if (subjects.length === 0) return null;
  return (
    <Choice
      label={words.takeIn.about}
      of={words.takeIn.ofFile(file.name)}
      value={file.about ?? ''}
      options={subjects.map(({ hash, name }) => [hash, name])}
      onChange={(next) => {
        const subject = subjects.find(({ hash }) => hash === next);
        if (subject !== undefined) onChange(aboutSubject(file, subject));
      }}
    />
  );
}

function Password() {
  const question = useTakingIn((state) => state.question);
  const [typed, setTyped] = useState('');
  if (question === null) return null;
  const { name, wrong, answer } = question;
  return (
    <Dialog
      open
      onClose={() => answer(null)}
      title={words.takeIn.passwordTitle}
      lead={words.unreadable[wrong ? 'wrong password' : 'locked PDF'](name, '')}
    >
      <form
        onSubmit={(event) => {
          event.preventDefault();
          answer(typed);
        }}
      >
        <label className="block text-sm font-semibold">
          {words.takeIn.password}
          <input
            type="password"
            autoFocus
            autoComplete="off"
            value={typed}
            onChange={(event) => setTyped(event.target.value)}
            className="mt-1 block w-full rounded-md border border-rule-strong bg-paper px-3 py-2 font-normal"
          />
        </label>
        <p className="mt-2 text-sm text-quiet">{words.takeIn.unlockLead}</p>
        <div className="mt-4 flex gap-3">
          <Button look="main" type="submit" disabled={typed === ''}>
            {words.takeIn.unlock}
          </Button>
          <Button onClick={() => answer(null)}>{words.takeIn.none}</Button>
        </div>
      </form>
    </Dialog>
  );
}
