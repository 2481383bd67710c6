import { quotedWords, type Remark } from '../model/remark.ts';
import type { Task } from '../model/work.ts';
import type { Span } from '../text/span.ts';
import { stemsOf } from '../text/stems.ts';
import { likenessOf, THEME_LIKENESS } from './likeness.ts';

/** Tasks that ask for one thing, as far as it can be told from their remarks. */

/** Why tasks belong together, the surest reason first. */
type TogetherReason = 'passage' | 'rule' | 'resource' | 'paragraph' | 'theme';

/** Tasks that could be one, and why. */
export interface Together {
  readonly reason: TogetherReason;
  /** Two or more, in the order given. */
  readonly tasks: readonly Task[];
}

/** A theme of more tasks than this is no longer one thing to do. */
const MOST_IN_GROUP = 8;

/**
 * Groups of open tasks that belong together; no task is in two.
 * @param paragraphOf which paragraph of the marked paper a remark is in; null where that is not known
 */
export function together(
  tasks: readonly Task[],
  remarkById: ReadonlyMap<string, Remark>,
  paragraphOf: (remark: Remark) => number | null,
): Together[] {
  const open = tasks.filter(({ done, about }) => !done && about.length > 0);
  const remarksOf = (task: Task) => task.about.flatMap(({ remarkId }) => remarkById.get(remarkId) ?? []);
  const taken = new Set<string>();
  const groups: Together[] = [];
  const put = (reason: TogetherReason, members: readonly Task[]) => {
    if (members.length < 2 || members.length > MOST_IN_GROUP) return;
    for (const { id } of members) taken.add(id);
    groups.push({ reason, tasks: members });
  };
  const byKey = (reason: TogetherReason, keysOf: (task: Task) => readonly string[]) => {
    const members = new Map<string, Task[]>();
    for (const task of open)
      for (const key of new Set(keysOf(task))) members.set(key, [...(members.get(key) ?? []), task]);
    for (const list of members.values())
      put(
        reason,
        list.filter(({ id }) => !taken.has(id)),
      );
  };
  byKey('passage', (task) => remarksOf(task).flatMap(passageOf));
  // What a report found is seldom marked by the very same words.
  for (const task of open) {
    const matched = remarksOf(task).filter(({ channel }) => channel === 'overlap');
    if (matched.length === 0 || taken.has(task.id)) continue;
    const isBeside = (other: Task) =>
      other.id !== task.id &&
      !taken.has(other.id) &&
      remarksOf(other).some((remark) => matched.some((match) => isAboutSame(match, remark)));
    put('passage', [task, ...open.filter(isBeside)]);
  }
  byKey('rule', (task) => remarksOf(task).flatMap(({ rule }) => rule ?? []));
  byKey('resource', (task) => remarksOf(task).flatMap(({ text }) => resourcesIn(text)));
  byKey('paragraph', (task) =>
    remarksOf(task).flatMap((remark) => {
      const paragraph = paragraphOf(remark);
      return paragraph === null ? [] : `${task.kind} ${remark.paperHash ?? ''} ${paragraph}`;
    }),
  );
  for (const list of themesOf(
    open.filter(({ id }) => !taken.has(id)),
    remarksOf,
  ))
    put('theme', list);
  const rank = new Map(tasks.map(({ id }, index) => [id as string, index]));
  return groups.sort((x, y) => (rank.get(x.tasks[0].id) ?? 0) - (rank.get(y.tasks[0].id) ?? 0));
}

/** The words that a remark is about, where they are in one paper and more than a word. */
function passageOf(remark: Remark): string[] {
  const words = quotedWords(remark);
  if (words === null || !/\s/.test(words) || remark.textAt === null) return [];
  return [`${remark.paperHash ?? ''} ${remark.textAt} ${words}`];
}

/** Half of the shorter of two passages in the other. */
const SAME_PASSAGE = 0.5;

function isAboutSame(match: Remark, remark: Remark): boolean {
  const [x, y] = [spanOf(match), spanOf(remark)];
  if (x === null || y === null || match.paperHash !== remark.paperHash) return false;
  const shared = Math.min(x.to, y.to) - Math.max(x.from, y.from);
  return shared > 0 && shared >= SAME_PASSAGE * Math.min(x.to - x.from, y.to - y.from);
}

function spanOf(remark: Remark): Span | null {
  const words = quotedWords(remark);
  if (words === null || remark.textAt === null) return null;
  return { from: remark.textAt, to: remark.textAt + words.length };
}

/** Sources that a remark sends one to: addresses, and numbered parts of what a course hands out. */
function resourcesIn(text: string): string[] {
  const links = text.match(/https?:\/\/[^\s)>"”]+/g) ?? [];
  const parts = [
    ...text.matchAll(
      /\b(handout|chapter|lecture|slide|guide|unit|worksheet|tutorial)s?\s+(\d+(?:\.\d+)?)\b/gi,
    ),
  ].map(([, what, number]) => `${what.toLowerCase()} ${number}`);
  return [...links.map((link) => link.replace(/[.,;]+$/, '')), ...parts];
}

/** Tasks whose remarks are about much the same: each is like the first of its group. */
function themesOf(tasks: readonly Task[], remarksOf: (task: Task) => readonly Remark[]): Task[][] {
  const alike = likenessOf(
    tasks.map((task) => new Set([task.title, ...remarksOf(task).map(({ text }) => text)].flatMap(stemsOf))),
  );
  const grouped = new Set<number>();
  const groups: Task[][] = [];
  for (let x = 0; x < tasks.length; x++) {
    if (grouped.has(x)) continue;
    const members = [x];
    for (let y = x + 1; y < tasks.length; y++)
      if (!grouped.has(y) && alike(x, y) >= THEME_LIKENESS) members.push(y);
    if (members.length < 2) continue;
    for (const member of members) grouped.add(member);
    groups.push(members.map((member) => tasks[member]));
  }
  return groups;
}

/** The name of a group: the same for the same tasks. */
export function togetherKey({ tasks }: Pick<Together, 'tasks'>): string {
  return tasks
    .map(({ id }) => id)
    .toSorted()
    .join(' ');
}
