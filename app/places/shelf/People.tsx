import { useWorkspace, useWorkspaceState } from '../../workspace/use-workspace.ts';
import { authorRoles, type AuthorRole } from '#core/model/facts.ts';
import { Choice } from '../../shared/controls/Choice.tsx';
import { Button, SectionTitle } from '../../shared/controls/Controls.tsx';
import { undoAndTell } from '../../shared/page/notify.ts';
import * as words from '../../words/en.ts';
import { joinPeople, PEOPLE_HISTORY, setPersonRole } from '../../workspace/commands/correct.ts';

/** Everybody who wrote remarks, by the names in the files: two names can be one person, and a role can be wrong. */
export function People() {
  const workspace = useWorkspace();
  const remarks = useWorkspaceState((state) => state.records.remarks);
  const people = useWorkspaceState((state) => state.records.people);
  const count = new Map<string, number>();
  for (const { author } of remarks.values()) count.set(author.name, (count.get(author.name) ?? 0) + 1);
  const names = [...count.keys()].sort((x, y) => (count.get(y) ?? 0) - (count.get(x) ?? 0));
  if (names.length === 0) return null;
  return (
    <section className="mt-8">
      <div className="flex flex-wrap items-baseline justify-between gap-3">
        <SectionTitle>{words.shelf.people}</SectionTitle>
        <Button
          look="quiet"
          className="min-h-0 px-1 text-sm"
          onClick={() => void undoAndTell(workspace, PEOPLE_HISTORY)}
        >
          {words.undo.undo}
        </Button>
      </div>
      <p className="text-sm text-quiet">{words.shelf.peopleLead}</p>
      <ul className="mt-2">
        {names.map((name) => (
          <li key={name} className="grid gap-3 border-t border-rule py-3 md:grid-cols-[1fr_14rem_16rem]">
            <p>
              <b>{name}</b>{' '}
              <span className="text-sm text-quiet">{words.takeIn.found(count.get(name) ?? 0)}</span>
            </p>
            <Choice
              label={words.shelf.role(name)}
              value={people.get(name)?.role ?? ''}
              options={[
                ['', words.shelf.asSaid],
                ...authorRoles.map((role): [string, string] => [role, words.shelf.roles[role]]),
              ]}
              onChange={(role) =>
                void setPersonRole(workspace, name, role === '' ? null : (role as AuthorRole))
              }
            />
            <Choice
              label={words.shelf.samePerson(name)}
              value={people.get(name)?.sameAs ?? ''}
              options={[
                ['', words.shelf.nobodyElse],
                ...names.filter((other) => other !== name).map((other): [string, string] => [other, other]),
              ]}
              onChange={(other) => void joinPeople(workspace, name, other === '' ? null : other)}
            />
          </li>
        ))}
      </ul>
    </section>
  );
}
