import { useMemo, useState } from 'react';
import type { AssignmentView } from '#core/assignment/view.ts';
import { needsOf } from '#core/check/needs.ts';
import { asksOf, contradicting, metBy, proposedBy, type Counts } from '#core/look/requirement.ts';
import { askedBy, metSaid } from '#core/look/says.ts';
import type { Requirement } from '#core/model/look.ts';
import type { Paper } from '#core/paper/paper.ts';
import { Button, SectionTitle } from '../../shared/controls/Controls.tsx';
import { Dialog } from '../../shared/controls/Dialog.tsx';
import { LineButton } from './LineButton.tsx';
import { RemoveButton } from '../../shared/controls/RemoveButton.tsx';
import { needTold } from '../../shared/line/needs-told.ts';
import * as words from '../../words/en.ts';
import { changeLook, lookChoiceOf } from '../../workspace/commands/look.ts';
import { usePaper } from '../../workspace/state/papers.ts';
import { useWorkspace, useWorkspaceState } from '../../workspace/use-workspace.ts';

const NOTHING: Counts = { figures: 0, tables: 0, uncited: 0 };

/** What is asked of the text, and whether it is there: what the course states, what the brief says in words, what was set by hand. */
export function Asked({
  view,
  paper,
  counts,
}: {
  view: AssignmentView;
  /** null: there is no draft yet. */
  paper: Paper | null;
  /** null until the draft was looked over. */
  counts: Counts | null;
}) {
  const workspace = useWorkspace();
  const { assignment, files } = view;
  const choice = useWorkspaceState(({ records }) => lookChoiceOf(records.settings, assignment.id));
  const brief = usePaper(files.find(({ role }) => role === 'brief')?.hash ?? null);
  const text = `${assignment.brief}\n${brief?.paper.text ?? ''}`;
  const needs = useMemo(() => (paper === null ? null : needsOf(assignment, paper.text)), [assignment, paper]);
  const proposals = useMemo(
    () => proposedBy(text, assignment.requirements, choice),
    [text, assignment.requirements, choice],
  );
  const against = contradicting([...choice.asked, ...proposals.map(({ asks }) => asks)]);
  const change = (to: (now: typeof choice) => typeof choice) =>
    void changeLook(workspace, assignment.id, words.look.undo.asked, to);
  const add = (asks: Requirement) => change((now) => ({ ...now, asked: [...now.asked, asks] }));
  const isEmpty = needs?.length === 0 && choice.asked.length === 0 && proposals.length === 0;
  return (
    <section>
      <SectionTitle>{words.check.requirements}</SectionTitle>
      {needs === null && <p className="mt-1">{words.check.noDraft}</p>}
      {isEmpty && <p className="mt-1">{words.check.noRequirements}</p>}
      <ul className="mt-1">
        {(needs ?? []).map((need) => (
          <li key={`${need.kind} ${need.kind === 'reading' ? need.name : ''}`} className="py-1">
            {needTold(need)}
          </li>
        ))}
        {choice.asked.map((asks, i) => (
          <li key={askedBy(asks)} className="flex items-baseline gap-2 py-1">
            <span className="flex-1">
              {paper === null ? askedBy(asks) : metSaid(asks, metBy(paper, asks, counts ?? NOTHING))}
            </span>
            <RemoveButton
              beside="line"
              label={words.look.takeOut(askedBy(asks))}
              onClick={() => change((now) => ({ ...now, asked: now.asked.filter((_, j) => j !== i) }))}
            />
          </li>
        ))}
      </ul>
      {against !== null && (
        <p className="mt-1 text-sm">{words.look.contradicts(askedBy(against[0]), askedBy(against[1]))}</p>
      )}
      {proposals.length > 0 && (
        <div className="mt-2 rounded-lg border border-dashed border-rule-strong/70 p-3">
          <h3 className="text-sm font-semibold">{words.look.readFromBrief}</h3>
          <p className="text-sm text-quiet">{words.look.readLead}</p>
          <ul className="mt-1">
            {proposals.map(({ asks, sentence }) => (
              <li
                key={`${askedBy(asks)} ${sentence}`}
                className="border-t border-rule py-1.5 first:border-t-0"
              >
                <b>{askedBy(asks)}</b>
                <p className="font-serif text-sm text-quiet">{words.look.saying(sentence)}</p>
                <span className="flex gap-4 text-sm">
                  <LineButton label={`${words.look.asked}: ${askedBy(asks)}`} onClick={() => add(asks)}>
                    {words.look.asked}
                  </LineButton>
                  <LineButton
                    label={`${words.look.notMeant}: ${askedBy(asks)}`}
                    onClick={() => change((now) => ({ ...now, notAsked: [...now.notAsked, sentence] }))}
                  >
                    {words.look.notMeant}
                  </LineButton>
                </span>
              </li>
            ))}
          </ul>
        </div>
      )}
      <AddOwn onAdd={add} />
    </section>
  );
}

/** What is asked, typed as a brief would say it. */
function AddOwn({ onAdd }: { onAdd: (asks: Requirement) => void }) {
  const [isOpen, setOpen] = useState(false);
  const [typed, setTyped] = useState('');
  const [isUnclear, setUnclear] = useState(false);
  return (
    <>
      <LineButton onClick={() => setOpen(true)}>{words.look.addOwn}</LineButton>
      <Dialog
        open={isOpen}
        onClose={() => setOpen(false)}
        title={words.look.addTitle}
        lead={words.look.addLead}
      >
        <form
          onSubmit={(event) => {
            event.preventDefault();
            const found = asksOf(typed);
            setUnclear(found.length === 0);
            if (found.length === 0) return;
            for (const asks of found) onAdd(asks);
            setTyped('');
            setOpen(false);
          }}
        >
          <label className="grid gap-1">
            <span className="text-sm">{words.look.addField}</span>
            <input
              value={typed}
              onChange={({ target }) => setTyped(target.value)}
              className="min-h-9 rounded-md border border-rule-strong bg-surface px-2"
            />
          </label>
          {isUnclear && (
            <p role="alert" className="mt-2 text-sm">
              {words.look.notUnderstood}
            </p>
          )}
          <Button type="submit" look="main" className="mt-4">
            {words.look.addIt}
          </Button>
        </form>
      </Dialog>
    </>
  );
}
