import { useState } from 'react';
import { Link } from 'react-router';
import type { AssignmentView } from '#core/assignment/view.ts';
import { grouped } from '#core/look/groups.ts';
import { lineKey, type LookLine } from '#core/look/line.ts';
import { saidOf } from '#core/look/says.ts';
import { citingStyles, type CitingStyle } from '#core/model/look.ts';
import { Button, SectionTitle } from '../../shared/controls/Controls.tsx';
import { LineButton } from './LineButton.tsx';
import { Dialog } from '../../shared/controls/Dialog.tsx';
import { Fold } from '../../shared/controls/Fold.tsx';
import { Select } from '../../shared/controls/Select.tsx';
import { placeAddress } from '../../shared/page/addresses.ts';
import * as words from '../../words/en.ts';
import { changeLook, lookChoiceOf, ownWord } from '../../workspace/commands/look.ts';
import type { ShownLook } from '../../workspace/state/last-look.ts';
import { useWorkspace, useWorkspaceState } from '../../workspace/use-workspace.ts';
import { looker } from '../../workers/look-client.ts';

/** What a careful friend would see before the draft goes: each line leads to its place, or is let be. */
export function LastLook({ view, look }: { view: AssignmentView; look: ShownLook | null }) {
  const workspace = useWorkspace();
  const { id } = view.assignment;
  const { style } = useWorkspaceState(({ records }) => lookChoiceOf(records.settings, id));
  return (
    <section>
      <SectionTitle>{words.look.title}</SectionTitle>
      <p role="status" className="mt-1 text-sm text-quiet">
        {look === null
          ? words.look.looking
          : look.lines.length === 0
            ? words.look.nothing
            : words.look.count(look.lines.length)}
      </p>
      {look?.otherLanguage === true && <p className="mt-1 text-sm">{words.look.otherLanguage}</p>}
      {grouped(look?.lines ?? []).map(({ group, lines }) => (
        <Fold
          key={group}
          defaultOpen
          className="mt-3 border-t border-rule pt-2"
          label={words.look.groupCount(words.look.group[group], lines.length)}
        >
          <ul>
            {lines.map((line) => (
              <Line key={`${lineKey(line)} ${line.place.from}`} view={view} line={line} />
            ))}
          </ul>
        </Fold>
      ))}
      {look !== null && look.ignored.length > 0 && <LetBe view={view} ignored={look.ignored} />}
      <div className="mt-3 text-sm">
        <Select
          look="quiet"
          label={words.look.style}
          value={style ?? ''}
          options={[
            ['', `${words.look.style}: ${words.look.asItShows}`],
            ...citingStyles.map((one) => [one, `${words.look.style}: ${words.look.styles[one]}`] as const),
          ]}
          onChange={(next) =>
            void changeLook(workspace, id, words.look.undo.style, (choice) => ({
              ...choice,
              style: next === '' ? null : (next as CitingStyle),
            }))
          }
        />
      </div>
    </section>
  );
}

function Line({ view, line }: { view: AssignmentView; line: LookLine }) {
  const workspace = useWorkspace();
  const [isAsking, setAsking] = useState(false);
  const { id } = view.assignment;
  const said = saidOf(line);
  return (
    <li className="border-b border-rule py-2 last:border-b-0">
      <Link to={placeAddress(id, line.place)} className="block hover:underline">
        {said}
      </Link>
      <span className="flex flex-wrap gap-x-3 text-sm">
        {line.kind === 'spelling' && (
          <>
            <Suggested word={line.beside} />
            <LineButton
              label={`${words.look.mine}: ${line.beside}`}
              onClick={() => void ownWord(workspace, id, line.beside)}
            >
              {words.look.mine}
            </LineButton>
          </>
        )}
        <LineButton label={`${words.look.ignore}: ${said}`} onClick={() => setAsking(true)}>
          {words.look.ignore}
        </LineButton>
      </span>
      {isAsking && <LetItBe view={view} line={line} onClose={() => setAsking(false)} />}
    </li>
  );
}

/** What may be meant by a word, looked for when it is asked. */
function Suggested({ word }: { word: string }) {
  const [found, setFound] = useState<readonly string[] | null>(null);
  if (found !== null) return <span role="status">{words.look.suggestions(found)}</span>;
  return (
    <LineButton
      label={`${words.look.suggest}: ${word}`}
      onClick={() => void looker.ask((worker) => worker.suggests(word)).then(setFound)}
    >
      {words.look.suggest}
    </LineButton>
  );
}

function LetItBe({ view, line, onClose }: { view: AssignmentView; line: LookLine; onClose: () => void }) {
  const workspace = useWorkspace();
  const [reason, setReason] = useState('');
  return (
    <Dialog open onClose={onClose} title={words.look.ignoreTitle} lead={words.look.ignoreLead}>
      <p className="mb-3 font-serif">{saidOf(line)}</p>
      <form
        onSubmit={(event) => {
          event.preventDefault();
          void changeLook(workspace, view.assignment.id, words.look.undo.ignored, (choice) => ({
            ...choice,
            ignored: [...choice.ignored, { of: lineKey(line), reason: reason.trim() }],
          }));
          onClose();
        }}
      >
        <label className="grid gap-1">
          <span className="text-sm">{words.look.reason}</span>
          <input
            value={reason}
            onChange={({ target }) => setReason(target.value)}
            className="min-h-9 rounded-md border border-rule-strong bg-surface px-2"
          />
        </label>
        <Button type="submit" look="main" className="mt-4">
          {words.look.ignoreIt}
        </Button>
      </form>
    </Dialog>
  );
}

function LetBe({ view, ignored }: { view: AssignmentView; ignored: ShownLook['ignored'] }) {
  const workspace = useWorkspace();
  return (
    <Fold className="mt-3 border-t border-rule pt-2" label={words.look.ignored(ignored.length)}>
      <ul>
        {ignored.map(({ line, reason }) => (
          <li
            key={`${lineKey(line)} ${line.place.from}`}
            className="border-b border-rule py-2 last:border-b-0"
          >
            <span className="text-quiet">{saidOf(line)}</span>
            <span className="flex flex-wrap items-baseline gap-x-3 text-sm">
              <span>{reason === '' ? words.look.noReason : reason}</span>
              <LineButton
                label={`${words.look.again}: ${saidOf(line)}`}
                onClick={() =>
                  void changeLook(workspace, view.assignment.id, words.look.undo.ignored, (choice) => ({
                    ...choice,
                    ignored: choice.ignored.filter(({ of }) => of !== lineKey(line)),
                  }))
                }
              >
                {words.look.again}
              </LineButton>
            </span>
          </li>
        ))}
      </ul>
    </Fold>
  );
}
