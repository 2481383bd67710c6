import type { LookKind, LookLine } from './line.ts';
import { byWeight } from './look-over.ts';

/** What lines are shown under, the weightiest first. */
const lookGroups = ['since', 'citations', 'figures', 'words'] as const;
/** One of them. */
export type LookGroup = (typeof lookGroups)[number];

const GROUP: Readonly<Record<LookKind, LookGroup>> = {
  'no answer': 'since',
  'changed here, not there': 'since',
  'struck, still elsewhere': 'since',
  'cited, not listed': 'citations',
  'quotation without citation': 'citations',
  'year differs': 'citations',
  'quotation without page': 'citations',
  'citation without year': 'citations',
  'listed, not cited': 'citations',
  'text and table differ': 'figures',
  'not there': 'figures',
  'never named': 'figures',
  spelling: 'words',
  'repeated word': 'words',
  capital: 'words',
  'unpaired mark': 'words',
  'two spellings': 'words',
};

/** Lines by their groups, those without a line left out; the weightiest first. */
export function grouped(
  lines: readonly LookLine[],
): { readonly group: LookGroup; readonly lines: LookLine[] }[] {
  return lookGroups
    .map((group) => ({ group, lines: byWeight(lines.filter(({ kind }) => GROUP[kind] === group)) }))
    .filter((one) => one.lines.length > 0);
}
