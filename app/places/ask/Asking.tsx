import { CheckBox } from '../../shared/controls/CheckBox.tsx';
import { useNow, useWorkspace, useWorkspaceState } from '../../workspace/use-workspace.ts';
import type { Workspace } from '../../workspace/workspace.ts';
import { Link } from 'react-router';
import { toast } from 'sonner';
import { asksTheStudent } from '#core/asks/asks-student.ts';
import { askList, type AskedPerson } from '#core/asks/ask-list.ts';
import { quotedWords, type Remark } from '#core/model/remark.ts';
import type { Query } from '#core/model/work.ts';
import { Button, Empty, SectionTitle } from '../../shared/controls/Controls.tsx';
import { useKeptText } from '../../shared/remark/kept-text.ts';
import { usePlaceTitle } from '../../shared/page/place-title.ts';
import * as words from '../../words/en.ts';
import { isPastTerm } from '../../shared/page/past-term.ts';
import { useAllViews } from '../../workspace/state/use-views.ts';
import {
  answerQuery,
  markQueryPut,
  proposedQueries,
  removeQuery,
  takeUpQuery,
  wordQuery,
} from '../../workspace/commands/queries.ts';
import { actOnAnswer } from '../../workspace/commands/decide.ts';
import type { RecordMaps } from '../../workspace/storage/records.ts';
import { assignmentAddress, remarkAddress } from '../../shared/page/addresses.ts';

/** Everything to be asked, by person, as a text to take along; and what the records give reason to ask. */
export function Asking() {
  const workspace = useWorkspace();
  usePlaceTitle(words.places.asks);
  const records = useWorkspaceState((state) => state.records);
  const people = askList([...records.queries.values()]);
  return (
    <div className="mx-auto max-w-3xl p-6 max-md:p-4">
      <h1 className="font-serif text-xl font-semibold">{words.asks.title}</h1>
      <p className="mb-6 max-w-prose text-quiet">{words.asks.lead}</p>
      {people.length === 0 ? (
        <Empty>{words.asks.empty}</Empty>
      ) : (
        <>
          {people.length > 1 && (
            <Button className="mb-5" onClick={() => void copy(workspace, null)}>
              {words.asks.copyAll}
            </Button>
          )}
          {people.map((person) => (
            <PersonList key={person.person} person={person} records={records} />
          ))}
        </>
      )}
      <WaitsForYou />
      <Proposed />
    </div>
  );
}

function contextOf(remark: Remark | undefined): string {
  if (remark === undefined) return '';
  const quote = quotedWords(remark);
  const wrote = words.asks.youWrote(remark.text);
  return quote === null ? wrote : `${words.asks.aboutWords(quote)}, ${wrote}`;
}

function remarkOf(query: Query, records: RecordMaps): Remark | undefined {
  return query.about === null ? undefined : records.remarks.get(query.about.remarkId);
}

/** The list for one person as plain text. */
function asText({ person, queries }: AskedPerson, records: RecordMaps): string {
  const open = queries.filter((query) => query.putAt === null);
  const byAssignment = new Map<string, Query[]>();
  for (const query of open)
    byAssignment.set(query.assignmentId, [...(byAssignment.get(query.assignmentId) ?? []), query]);
  const parts = [...byAssignment].map(([assignmentId, list]) => {
    const title = records.assignments.get(assignmentId)?.title ?? '';
    const asked = list.map((query, i) => {
      const context = contextOf(remarkOf(query, records));
      const said = `${i + 1}. ${query.text || words.asks.unworded}`;
      return context === '' ? said : `${said}\n   (${context})`;
    });
    return [words.asks.regarding(title), ...asked].join('\n');
  });
  return [words.asks.greeting(person), ...parts].join('\n\n');
}

/** Copies the list for one person, or for all. */
async function copy(workspace: Workspace, person: string | null): Promise<void> {
  try {
    // What was typed last may still be on its way into the workspace.
    await workspace.whenSaved();
    const { records } = workspace;
    const lists = askList([...records.queries.values()]).filter(
      (one) => person === null || one.person === person,
    );
    await navigator.clipboard.writeText(lists.map((one) => asText(one, records)).join('\n\n\n'));
    toast(words.asks.copied);
  } catch {
    toast.error(words.asks.copyFailed);
  }
}

function PersonList({ person, records }: { person: AskedPerson; records: RecordMaps }) {
  const workspace = useWorkspace();
  return (
    <section className="mb-8">
      <div className="mb-2 flex items-center justify-between">
        <h2 className="font-serif text-lg font-semibold">{person.person}</h2>
        <Button onClick={() => void copy(workspace, person.person)}>{words.asks.copy}</Button>
      </div>
      <ul>
        {person.queries.map((query) => (
          <QueryRow key={query.id} query={query} records={records} />
        ))}
      </ul>
    </section>
  );
}

function QueryRow({ query, records }: { query: Query; records: RecordMaps }) {
  const workspace = useWorkspace();
  const [text, setText, leave] = useKeptText(query.id, query.text, (next, typing) =>
    wordQuery(workspace, query.assignmentId, query.id, next, typing),
  );
  const remark = remarkOf(query, records);
  const title = records.assignments.get(query.assignmentId)?.title ?? '';
  return (
    <li className="border-t border-rule py-3">
      <Link
        to={remark === undefined ? assignmentAddress(query.assignmentId) : remarkAddress(remark)}
        className="text-sm text-quiet hover:underline"
      >
        {[words.asks.about(title), contextOf(remark)].filter(Boolean).join(' · ')}
      </Link>
      <textarea
        aria-label={words.asks.textLabel}
        placeholder={words.asks.noText}
        rows={2}
        value={text}
        onChange={(event) => setText(event.target.value)}
        onBlur={leave}
        className="mt-1.5 block w-full resize-y rounded-md border border-rule bg-surface px-3 py-2 placeholder:text-quiet"
      />
      <div className="mt-1.5 flex flex-wrap items-center justify-between gap-3 text-sm">
        <label className="inline-flex items-center gap-2">
          <CheckBox
            checked={query.putAt !== null}
            onChange={(put) => void markQueryPut(workspace, query.assignmentId, query.id, put)}
          />
          {words.asks.asked}
        </label>
        {remark === undefined && (
          <Button
            look="quiet"
            className="min-h-0 px-1 py-0"
            onClick={() => void removeQuery(workspace, query)}
          >
            {words.asks.removeQuery}
          </Button>
        )}
      </div>
      {query.putAt !== null && <Answer query={query} remark={remark} />}
    </li>
  );
}

/** What came back to a question, and the way on: to act on the remark that it was about. */
function Answer({ query, remark }: { query: Query; remark: Remark | undefined }) {
  const workspace = useWorkspace();
  const [text, setText, leave] = useKeptText(`answer/${query.id}`, query.answer, (next, typing) =>
    answerQuery(workspace, query.assignmentId, query.id, next, typing),
  );
  const { about } = query;
  const judgement = useWorkspaceState(({ records }) => records.judgements.get(about?.remarkId ?? ''));
  const decided =
    about?.partId == null
      ? judgement?.decision
      : judgement?.parts.find(({ id }) => id === about.partId)?.decision;
  return (
    <div className="mt-2 border-l-2 border-ask pl-3">
      <textarea
        aria-label={words.asks.answerLabel}
        placeholder={words.asks.noAnswer}
        rows={1}
        value={text}
        onChange={(event) => setText(event.target.value)}
        onBlur={leave}
        className="block field-sizing-content w-full resize-y rounded-md border border-rule bg-surface px-3 py-1.5 placeholder:text-quiet"
      />
      {about !== null &&
        remark !== undefined &&
        (decided === 'act' ? (
          <p className="mt-1 text-sm text-quiet">{words.asks.actedOn}</p>
        ) : (
          <Button
            look="quiet"
            className="min-h-0 px-0 py-1 text-sm"
            onClick={() => void actOnAnswer(workspace, remark, about)}
          >
            {words.asks.actOn}
          </Button>
        ))}
    </div>
  );
}

/** Remarks that ask the student something, without an answer so far. */
function WaitsForYou() {
  const atMs = useNow();
  const views = useAllViews().filter((view) => !isPastTerm(view, atMs));
  const waiting = views.flatMap((view) =>
    view.remarks.filter((remark) => asksTheStudent(view, remark)).map((remark) => ({ view, remark })),
  );
  if (waiting.length === 0) return null;
  return (
    <section className="mt-4 mb-8">
      <SectionTitle>{words.asks.waitsForYou}</SectionTitle>
      <p className="text-sm text-quiet">{words.asks.waitsForYouLead}</p>
      <ul className="mt-2">
        {waiting.map(({ view, remark }) => (
          <li
            key={remark.id}
            className="flex flex-wrap items-start justify-between gap-x-4 gap-y-1 border-t border-rule py-3"
          >
            <div className="min-w-0 flex-1">
              <p className="text-sm text-quiet">
                {remark.author.name} · {view.assignment.title}
              </p>
              <p className="line-clamp-3">{remark.text}</p>
            </div>
            <Link to={remarkAddress(remark)} className="font-semibold text-accent hover:underline">
              {words.asks.answerIt}
              <span className="sr-only">: {remark.text}</span>
            </Link>
          </li>
        ))}
      </ul>
    </section>
  );
}

/** Questions that nobody has taken up yet: promises without anything, points without a word. */
function Proposed() {
  const atMs = useNow();
  const workspace = useWorkspace();
  const views = useAllViews().filter((view) => !isPastTerm(view, atMs));
  const queries = useWorkspaceState((state) => state.records.queries);
  const proposed = views.flatMap((view) =>
    proposedQueries(view)
      .filter(({ id }) => !queries.has(id))
      .map((query) => ({ view, query })),
  );
  if (proposed.length === 0) return null;
  return (
    <section className="mt-4">
      <SectionTitle>{words.assignment.proposedQueries}</SectionTitle>
      <ul className="mt-2">
        {proposed.map(({ view, query }) => (
          <li
            key={query.id}
            className="flex flex-wrap items-start justify-between gap-x-4 gap-y-2 border-t border-rule py-3"
          >
            <div className="min-w-0 flex-1">
              <p className="text-sm text-quiet">
                {query.person} · {view.assignment.title}
              </p>
              <p>{query.text}</p>
            </div>
            <Button onClick={() => void takeUpQuery(workspace, view.assignment.id, query)}>
              {words.assignment.takeUp}
              <span className="sr-only">: {query.text}</span>
            </Button>
          </li>
        ))}
      </ul>
    </section>
  );
}
