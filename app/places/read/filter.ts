import { pageOf, type Remark } from '#core/model/remark.ts';
import { isDecided, isRead } from '#core/tally/tally.ts';
import * as words from '../../words/en.ts';
import { criterionFor, type AssignmentView } from '#core/assignment/view.ts';

/** Which remarks are shown, and how a list of them is grouped. */

export const filterFields = [
  'page',
  'channel',
  'criterion',
  'color',
  'kind',
  'author',
  'decision',
  'read',
] as const;
export type FilterField = (typeof filterFields)[number];

/** For each field the value that a remark must have; none for a field that doesn't filter. */
export type Filter = Readonly<Record<string, string>>;

const NONE = '';

/** What a remark is in a field, for comparing; '' for what it has none of. */
export function valueOf(view: AssignmentView, remark: Remark, field: FilterField): string {
  const judgement = view.judgements.get(remark.id);
  switch (field) {
    case 'page':
      return String(pageOf(remark) ?? NONE);
    case 'channel':
      return remark.channel;
    case 'criterion':
      return criterionFor(view, remark)?.id ?? NONE;
    case 'color':
      return remark.color ?? NONE;
    case 'kind':
      return remark.kind;
    case 'author':
      return `${remark.author.name}\n${remark.author.role}`;
    case 'decision':
      return judgement?.decision ?? (isDecided(judgement) ? 'carry' : NONE);
    case 'read':
      return isRead(remark, view.readings.get(remark.id)) ? 'read' : NONE;
  }
}

/** The same as it is told. */
function labelOf(view: AssignmentView, field: FilterField, value: string): string {
  const said = words.reading.filter;
  switch (field) {
    case 'page':
      return value === NONE ? said.noPage : words.slip.page(Number(value));
    case 'channel':
      return Object.entries(words.channels).find(([key]) => key === value)?.[1] ?? value;
    case 'criterion':
      return view.rubric?.criteria.find(({ id }) => id === value)?.title ?? said.noCriterion;
    case 'color':
      return value === NONE ? said.noColor : value;
    case 'kind':
      return value;
    case 'author': {
      const [name, role] = value.split('\n');
      const known = Object.entries(words.shelf.roles).find(([key]) => key === role)?.[1] ?? role;
      return `${name}, ${known}`;
    }
    case 'decision':
      return value === NONE
        ? said.undecided
        : (Object.entries(words.decisions).find(([key]) => key === value)?.[1] ?? value);
    case 'read':
      return value === NONE ? words.slip.notRead : said.read;
  }
}

export function passes(view: AssignmentView, remark: Remark, filter: Filter): boolean {
  return filterFields.every((field) => !(field in filter) || valueOf(view, remark, field) === filter[field]);
}

export interface Group {
  readonly value: string;
  readonly label: string;
  readonly remarks: readonly Remark[];
}

/** Remarks by their value of a field: pages and criteria in their order, others the most first. */
export function groupsBy(view: AssignmentView, remarks: readonly Remark[], field: FilterField): Group[] {
  const byValue = new Map<string, Remark[]>();
  for (const remark of remarks) {
    const value = valueOf(view, remark, field);
    const group = byValue.get(value);
    if (group === undefined) byValue.set(value, [remark]);
    else group.push(remark);
  }
  const place = (value: string): number => {
    if (value === NONE) return Infinity;
    if (field === 'page') return Number(value);
    return view.rubric?.criteria.findIndex(({ id }) => id === value) ?? 0;
  };
  const ordered = field === 'page' || field === 'criterion';
  return [...byValue]
    .map(([value, own]) => ({ value, label: labelOf(view, field, value), remarks: own }))
    .sort((x, y) => (ordered ? place(x.value) - place(y.value) : y.remarks.length - x.remarks.length));
}
