import { colorOf } from '#core/key/signs.ts';
import { pageOf, quotedWords, type Remark } from '#core/model/remark.ts';
import { stancesIn } from '#core/saying/remark-parts.ts';
import { normaliseText } from '#core/text/normalise.ts';
import { decisionsIn, isDecided } from '#core/tally/decided.ts';
import { isRead } from '#core/tally/tally.ts';
import { stances } from '#core/model/work.ts';
import * as words from '../../words/en.ts';
import { criterionFor, type AssignmentView } from '#core/assignment/view.ts';

/** Which remarks are shown, and how a list of them is grouped. */

export const filterFields = [
  'page',
  'channel',
  'criterion',
  'says',
  'color',
  'kind',
  'author',
  'rule',
  'decision',
  'read',
] as const;
export type FilterField = (typeof filterFields)[number];

/** For each field the value that a remark must have; none for a field that doesn't filter. */
export type Filter = Readonly<Record<string, string>>;

const NONE = '';

/** What a remark is in a field, for comparing: several where it says or was decided several things; '' for what it has none of. */
function valuesOf(view: AssignmentView, remark: Remark, field: FilterField): readonly string[] {
  switch (field) {
    case 'page':
      return [String(pageOf(remark) ?? NONE)];
    case 'channel':
      return [remark.channel];
    case 'criterion':
      return [criterionFor(view, remark)?.id ?? NONE];
    case 'says': {
      const said = stancesIn(remark, view);
      return said.length > 0 ? said : [NONE];
    }
    case 'color':
      return [colorOf(remark) ?? NONE];
    case 'kind':
      return [remark.kind];
    case 'author':
      return [`${remark.author.name}\n${remark.author.role}`];
    case 'rule':
      return [remark.rule ?? NONE];
    case 'decision': {
      const judgement = view.judgements.get(remark.id);
      // What is decided in some of its parts is still to be decided.
      return [...decisionsIn(judgement), ...(isDecided(judgement) ? [] : [NONE])];
    }
    case 'read':
      return [isRead(remark, view.readings.get(remark.id)) ? 'read' : NONE];
  }
}

/** The same as it is told. */
function labelOf(
  view: AssignmentView,
  field: FilterField,
  value: string,
  meanings: readonly string[],
): string {
  const said = words.reading.filter;
  switch (field) {
    case 'page':
      return value === NONE ? said.noPage : words.slip.page(Number(value));
    case 'channel':
      return Object.entries(words.channels).find(([key]) => key === value)?.[1] ?? value;
    case 'criterion':
      return view.rubric?.criteria.find(({ id }) => id === value)?.title ?? said.noCriterion;
    case 'color':
      return value === NONE ? said.noColor : withMeaning(value, meanings);
    case 'kind':
      return withMeaning(words.slip.markOf(value), meanings);
    case 'says':
      return Object.entries(words.stances).find(([key]) => key === value)?.[1] ?? words.slip.saysNotKnown;
    case 'rule':
      return value === NONE ? said.noRule : value;
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

function withMeaning(name: string, meanings: readonly string[]): string {
  return meanings.length === 0 ? name : `${name} (${meanings.join('; ')})`;
}

/** What the key says that a colour or a kind of mark means in the hands of some remarks. */
function meaningsOf(view: AssignmentView, remarks: readonly Remark[], field: FilterField, value: string) {
  const kind = field === 'color' ? 'color' : field === 'kind' ? 'mark' : null;
  if (kind === null) return [];
  const authors = new Set(remarks.map(({ author }) => author.name));
  const entries = view.markKeys.filter(
    ({ author, sign, meaning }) =>
      authors.has(author) && sign.kind === kind && sign.name === value && meaning !== '',
  );
  return [...new Set(entries.map(({ meaning }) => meaning))];
}

/** Under this name a filter holds words that a remark has to have. */
export const FILTER_WORDS = 'words';

export function passes(view: AssignmentView, remark: Remark, filter: Filter): boolean {
  const wanted = FILTER_WORDS in filter ? filter[FILTER_WORDS] : '';
  if (!holdsWords(remark, wanted)) return false;
  return filterFields.every(
    (field) => !(field in filter) || valuesOf(view, remark, field).includes(filter[field]),
  );
}

/** Every word that is looked for stands in what the remark says, in what it is about, or in its author's name. */
function holdsWords(remark: Remark, wanted: string): boolean {
  const text = foldedText([remark.text, quotedWords(remark) ?? '', remark.author.name].join('\n'));
  return foldedText(wanted)
    .split(/\s+/)
    .every((word) => text.includes(word));
}

function foldedText(text: string): string {
  return normaliseText(text).toLowerCase();
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
    for (const value of valuesOf(view, remark, field)) {
      const group = byValue.get(value);
      if (group === undefined) byValue.set(value, [remark]);
      else group.push(remark);
    }
  }
  const place = (value: string): number => {
    if (value === NONE) return Infinity;
    if (field === 'page') return Number(value);
    if (field === 'says') return stances.findIndex((stance) => stance === value);
    return view.rubric?.criteria.findIndex(({ id }) => id === value) ?? 0;
  };
  const ordered = field === 'page' || field === 'criterion' || field === 'says';
  return [...byValue]
    .map(([value, own]) => ({
      value,
      label: labelOf(view, field, value, meaningsOf(view, own, field, value)),
      remarks: own,
    }))
    .sort((x, y) => (ordered ? place(x.value) - place(y.value) : y.remarks.length - x.remarks.length));
}
