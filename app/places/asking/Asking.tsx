import { Link } from 'react-router';
import { toast } from 'sonner';
import { askList, type AskedPerson } from '#core/asks/ask-list.ts';
import { quotedWords, type Remark } from '#core/model/remark.ts';
import type { Query } from '#core/model/work.ts';
import { Button, Empty } from '../../shared/Controls.tsx';
import { useKeptText } from '../../shared/kept-text.ts';
import { usePlaceTitle } from '../../shared/place-title.ts';
import { words } from '../../words/en.ts';
import { markQueryPut, wordQuery } from '../../workspace/decide.ts';
import type { RecordMaps } from '../../workspace/records.ts';
import { useWorkspace, whenSaved } from '../../workspace/workspace.ts';

/** Everything to be asked, by person, as a text to take along. */
export function Asking() {
  usePlaceTitle(words.places.asks);
  const records = useWorkspace((state) => state.records);
  const people = askList([...records.queries.values()]);
  return (
    <div className="mx-auto max-w-3xl p-6 max-md:p-4">
      <h1 className="font-serif text-xl font-semibold">{words.asks.title}</h1>
      <p className="mb-6 max-w-prose text-quiet">{words.asks.lead}</p>
      {people.length === 0 ? (
        <Empty>{words.asks.empty}</Empty>
      ) : (
        people.map((person) => <PersonList key={person.person} person={person} records={records} />)
      )}
    </div>
  );
}

function contextOf(remark: Remark | undefined): string {
  if (remark === undefined) return '';
  const quote = quotedWords(remark);
  const wrote = words.asks.youWrote(remark.text);
  return quote === null ? wrote : `${words.asks.aboutWords(quote)}, ${wrote}`;
}

/** The list for one person as plain text. */
function asText({ person, queries }: AskedPerson, records: RecordMaps): string {
  const open = queries.filter((query) => query.putAt === null);
  const byAssignment = new Map<string, Query[]>();
  for (const query of open)
    byAssignment.set(query.assignmentId, [...(byAssignment.get(query.assignmentId) ?? []), query]);
  const parts = [...byAssignment].map(([assignmentId, list]) => {
    const title = records.assignments.get(assignmentId)?.title ?? '';
    const asked = list.map(
      (query, i) =>
        `${i + 1}. ${query.text || words.asks.unworded}\n   (${contextOf(records.remarks.get(query.remarkId))})`,
    );
    return [words.asks.regarding(title), ...asked].join('\n');
  });
  return [words.asks.greeting(person), ...parts].join('\n\n');
}

function PersonList({ person, records }: { person: AskedPerson; records: RecordMaps }) {
  const copy = async () => {
    try {
      // What was typed last may still be on its way into the workspace.
      await whenSaved();
      const { records: now } = useWorkspace.getState();
      const current = askList([...now.queries.values()]).find((p) => p.person === person.person) ?? person;
      await navigator.clipboard.writeText(asText(current, now));
      toast(words.asks.copied);
    } catch {
      toast.error(words.asks.copyFailed);
    }
  };
  return (
    <section className="mb-8">
      <div className="mb-2 flex items-center justify-between">
        <h2 className="font-serif text-lg font-semibold">{person.person}</h2>
        <Button onClick={() => void copy()}>{words.asks.copy}</Button>
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
  const [text, setText, leave] = useKeptText(query.id, query.text, (next, typing) =>
    wordQuery(query.assignmentId, query.id, next, typing),
  );
  const remark = records.remarks.get(query.remarkId);
  const title = records.assignments.get(query.assignmentId)?.title ?? '';
  return (
    <li className="border-t border-rule py-3">
      <Link
        to={`/a/${encodeURIComponent(query.assignmentId)}/read?remark=${encodeURIComponent(query.remarkId)}`}
        className="text-sm text-quiet hover:underline"
      >
        {words.asks.about(title)} · {contextOf(remark)}
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
      <label className="mt-1.5 inline-flex items-center gap-2 text-sm">
        <input
          type="checkbox"
          className="h-4 w-4 accent-accent"
          checked={query.putAt !== null}
          onChange={(event) => void markQueryPut(query.assignmentId, query.id, event.target.checked)}
        />
        {words.asks.asked}
      </label>
    </li>
  );
}
