import { sheetGroups, type SheetGroup } from '#core/check/response-sheet.ts';
import type { Piece } from '#core/difference/display.ts';
import type { SheetChoice } from '#core/model/look.ts';
import type { DraftContent } from '#core/model/work.ts';
import * as words from '../../words/en.ts';
import type { SheetEntry } from './response-sheet.ts';

/** The response sheet as a document: what can be changed as text, and saved in every form that a draft has. */

type Node = Record<string, unknown>;

/** Whom it is about and for; '' where nobody is known. */
export interface SheetNames {
  readonly assignment: string;
  readonly instructor: string;
  readonly student: string;
  /** In a group's work the group and who is in it. */
  readonly group: { readonly name: string; readonly members: readonly string[] } | null;
}

const textNode = (text: string, mark?: 'bold' | 'italic'): Node => ({
  type: 'text',
  text,
  ...(mark === undefined ? {} : { marks: [{ type: mark }] }),
});
const paragraphOf = (content: readonly Node[]): Node => ({ type: 'paragraph', content });
const paragraph = (text: string, mark?: 'bold' | 'italic') =>
  paragraphOf(text === '' ? [] : [textNode(text, mark)]);
const heading = (level: number, text: string): Node => ({
  type: 'heading',
  attrs: { level },
  content: [textNode(text)],
});

/** Where less of a passage is left than this, all of it is new, and nothing stands out. */
const LEAST_KEPT = 0.25;

/** New words are bold, so that they are seen on any paper. */
function pieceNodes(pieces: readonly Piece[]): Node[] {
  const units = (some: readonly Piece[]) => some.reduce((sum, { text }) => sum + text.length, 0);
  const isAnew = units(pieces.filter(({ kind }) => kind === 'kept')) < LEAST_KEPT * units(pieces);
  return pieces
    .filter(({ text }) => text !== '')
    .map(({ kind, text }) =>
      textNode(text.replaceAll('\n', ' '), kind === 'kept' || isAnew ? undefined : 'bold'),
    );
}

function shownNodes({ shown }: SheetEntry): Node[] {
  if (shown === null) return [];
  const after = pieceNodes(shown.after);
  return [
    ...(shown.before === ''
      ? []
      : [paragraphOf([textNode(words.response.before, 'italic'), textNode(shown.before)])]),
    ...(after.length === 0 ? [] : [paragraphOf([textNode(words.response.now, 'italic'), ...after])]),
  ];
}

const linesNodes = ({ lines }: SheetEntry) => lines.map((line) => paragraph(line));
const saidNode = ({ number, said, about }: SheetEntry): Node =>
  paragraphOf([textNode(words.response.said(number, said), 'bold'), textNode(` (${about})`)]);

function tableOf(entries: readonly SheetEntry[]): Node {
  const cell = (type: string, content: readonly Node[]): Node => ({
    type,
    content: content.length === 0 ? [paragraph('')] : content,
  });
  const row = (content: readonly Node[]): Node => ({ type: 'tableRow', content });
  // Where nothing is shown there is no column for it.
  const columns = entries.some(({ shown }) => shown !== null) ? 3 : 2;
  return {
    type: 'table',
    content: [
      row(words.response.columns.slice(0, columns).map((text) => cell('tableHeader', [paragraph(text)]))),
      ...entries.map((entry) =>
        row([
          cell('tableCell', [
            paragraph(words.response.said(entry.number, entry.said)),
            paragraph(entry.about, 'italic'),
          ]),
          cell('tableCell', linesNodes(entry)),
          ...(columns === 3 ? [cell('tableCell', shownNodes(entry))] : []),
        ]),
      ),
    ],
  };
}

/** What calls for nothing is counted, and not gone through. */
const NOT_GONE_THROUGH: ReadonlySet<SheetGroup> = new Set(['noted']);

function sections(
  entries: readonly SheetEntry[],
  by: SheetChoice['by'],
): { title: string; entries: SheetEntry[] }[] {
  const told = entries.filter(({ group }) => !NOT_GONE_THROUGH.has(group));
  if (by === 'what came of it')
    return sheetGroups
      .map((group) => ({
        title: words.response.group[group],
        entries: told.filter((entry) => entry.group === group),
      }))
      .filter((one) => one.entries.length > 0);
  const titles = [...new Set(told.map(({ criterion }) => criterion?.title ?? words.response.noCriterion))];
  return titles.map((title) => ({
    title,
    entries: told.filter(({ criterion }) => (criterion?.title ?? words.response.noCriterion) === title),
  }));
}

/** How many remarks there are of each group. */
function countOf(entries: readonly SheetEntry[]): Record<SheetGroup, number> {
  const count = Object.fromEntries(sheetGroups.map((group) => [group, 0])) as Record<SheetGroup, number>;
  for (const { group } of entries) count[group]++;
  return count;
}

/** The sheet as it is written, before the student changes anything in it. */
export function sheetDocument(
  all: readonly SheetEntry[],
  choice: Pick<SheetChoice, 'form' | 'by' | 'leftOut' | 'helped'>,
  { assignment, instructor, student, group }: SheetNames,
): DraftContent {
  const entries = all.filter(({ remark }) => !choice.leftOut.includes(remark.id));
  const helped = entries
    .filter(({ remark }) => choice.helped.includes(remark.id))
    .map(({ number }) => number);
  const counts = words.response.counts(countOf(all), all.length, all.length - entries.length);
  const isLetter = choice.form === 'letter';
  const parts = sections(entries, choice.by).flatMap((part) => [
    heading(2, part.title),
    ...(isLetter
      ? part.entries.flatMap((entry) => [saidNode(entry), ...linesNodes(entry), ...shownNodes(entry)])
      : [tableOf(part.entries)]),
  ]);
  const content = [
    heading(1, words.response.title(assignment)),
    ...(group === null ? [] : [paragraph(words.response.ofGroup(student, group.name, group.members))]),
    ...(isLetter
      ? [paragraph(words.response.greeting(instructor)), paragraph(words.response.opening(assignment))]
      : []),
    paragraph(counts),
    ...parts,
    ...(helped.length === 0 ? [] : [paragraph(words.response.helpedMost(helped))]),
    ...(isLetter ? [paragraph(words.response.closing(student))] : []),
  ];
  return { schema: 1, doc: { type: 'doc', content } };
}
