import type { Query } from '../model/work.ts';

/** Somebody to ask, with all that is to be asked of them. */
export interface AskedPerson {
  readonly person: string;
  readonly queries: readonly Query[];
}

/** Everything to be asked, by person; those with something still to be asked first. */
export function askList(queries: readonly Query[]): AskedPerson[] {
  const byPerson = new Map<string, Query[]>();
  for (const query of queries) byPerson.set(query.person, [...(byPerson.get(query.person) ?? []), query]);
  const open = (list: readonly Query[]) => list.some((query) => query.putAt === null);
  return [...byPerson]
    .map(([person, list]) => ({ person, queries: list }))
    .sort(
      (x, y) => Number(open(y.queries)) - Number(open(x.queries)) || x.person.localeCompare(y.person, 'en'),
    );
}
