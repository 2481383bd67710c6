import * as v from 'valibot';
import type { Instant } from '#core/model/ids.ts';
import type { ImportedCourse, ImportedItem, ImportProblem } from '../grades/imported.ts';
import { readCsv } from '../table/csv.ts';
import { decimalOf, OrCategory, OrClass, OrLineItem, OrResult } from './records.ts';

/** Gradebooks as 1EdTech OneRoster 1.2 has them: JSON as the service answers, or the CSV files of the bulk exchange. */

export interface Gradebook {
  readonly classes: readonly OrClass[];
  readonly categories: readonly OrCategory[];
  readonly lineItems: readonly OrLineItem[];
  readonly results: readonly OrResult[];
  /** Whose results are in it. */
  readonly students: readonly string[];
  readonly problems: readonly ImportProblem[];
}

/** A file of a gradebook, with the name that its problems are told by. */
export interface GradebookFile {
  readonly name: string;
  readonly text: string;
}

interface Raw {
  readonly where: string;
  readonly record: unknown;
}

const KINDS = ['classes', 'categories', 'lineItems', 'results'] as const;
type Kind = (typeof KINDS)[number];
/** Other names that the service gives the same. */
const SINGLE: Readonly<Record<string, Kind | undefined>> = {
  class: 'classes',
  category: 'categories',
  lineItem: 'lineItems',
  result: 'results',
};

function rawFromJson({ name, text }: GradebookFile): Partial<Record<Kind, Raw[]>> | null {
  let json: unknown;
  try {
    json = JSON.parse(text);
  } catch {
    return null;
  }
  if (typeof json !== 'object' || json === null) return null;
  const found: Partial<Record<Kind, Raw[]>> = {};
  for (const [key, value] of Object.entries(json)) {
    const kind = KINDS.find((one) => one === key) ?? SINGLE[key];
    if (kind === undefined) continue;
    const list: unknown[] = Array.isArray(value) ? value : [value];
    found[kind] = list.map((record, i) => ({ where: `${name}, ${key} ${i + 1}`, record }));
  }
  return Object.keys(found).length === 0 ? null : found;
}

type Row = Readonly<Record<string, string | undefined>>;

function instant(cell: string | undefined): string | null {
  if (cell === undefined || cell === '') return null;
  const ms = Date.parse(cell);
  return Number.isNaN(ms) ? cell : new Date(ms).toISOString();
}
function numeric(cell: string | undefined): number | string | null {
  if (cell === undefined || cell === '') return null;
  return Number.isNaN(Number(cell)) ? cell : Number(cell);
}
const reference = (cell: string | undefined) => (cell ? { sourcedId: cell } : null);

/** How the columns of each CSV file (bulk exchange, 1.2) are the members of the record. */
const FROM_ROW: Readonly<Record<Kind, (row: Row) => object>> = {
  classes: (row) => ({
    title: row.title,
    classCode: row.classCode ?? '',
    classType: row.classType === '' ? undefined : row.classType,
    terms: (row.termSourcedIds ?? '').split(',').flatMap((id) => reference(id.trim()) ?? []),
  }),
  categories: (row) => ({ title: row.title, weight: numeric(row.weight) ?? undefined }),
  lineItems: (row) => ({
    title: row.title,
    description: row.description ?? '',
    assignDate: instant(row.assignDate),
    dueDate: instant(row.dueDate),
    class: reference(row.classSourcedId),
    category: reference(row.categorySourcedId),
    resultValueMin: numeric(row.resultValueMin),
    resultValueMax: numeric(row.resultValueMax),
  }),
  results: (row) => ({
    lineItem: reference(row.lineItemSourcedId),
    student: reference(row.studentSourcedId),
    scoreStatus: row.scoreStatus,
    score: numeric(row.score),
    scoreDate: row.scoreDate ?? '',
    comment: row.comment ?? '',
  }),
};

/** Columns by which each file is known, whatever its name. */
const KNOWN_BY: readonly (readonly [Kind, string])[] = [
  ['results', 'lineItemSourcedId'],
  ['lineItems', 'classSourcedId'],
  ['classes', 'termSourcedIds'],
  ['categories', 'title'],
];

function rawFromCsv({ name, text }: GradebookFile): Partial<Record<Kind, Raw[]>> | null {
  const grid = readCsv(text);
  if (grid === null || !grid.rows[0].includes('sourcedId')) return null;
  const [header, ...rows] = grid.rows;
  const kind = KNOWN_BY.find(([, column]) => header.includes(column))?.[0];
  if (kind === undefined) return null;
  return {
    [kind]: rows.map((cells, i): Raw => {
      const row: Row = Object.fromEntries(header.map((column, c) => [column, cells[c]]));
      const status = row.status === '' || row.status === undefined ? 'active' : row.status;
      return {
        where: `${name}, row ${i + 2}`,
        record: { sourcedId: row.sourcedId, status, ...FROM_ROW[kind](row) },
      };
    }),
  };
}

/** JSON of the service may tell times with an offset. */
function withInstants(record: unknown): unknown {
  if (typeof record !== 'object' || record === null) return record;
  return Object.fromEntries(
    Object.entries(record).map(([key, value]): [string, unknown] => [
      key,
      (key === 'dueDate' || key === 'assignDate') && typeof value === 'string' ? instant(value) : value,
    ]),
  );
}

/** Reads a gradebook from its files; null where none of them is one. Records that can't be read are said and left out. */
export function readGradebook(files: readonly GradebookFile[]): Gradebook | null {
  const raw: Record<Kind, Raw[]> = { classes: [], categories: [], lineItems: [], results: [] };
  let any = false;
  for (const file of files) {
    const found = rawFromJson(file) ?? rawFromCsv(file);
    if (found === null) continue;
    any = true;
    for (const kind of KINDS) raw[kind].push(...(found[kind] ?? []));
  }
  if (!any) return null;
  const problems: ImportProblem[] = [];
  const read = <T extends { readonly status: string }>(
    kind: Kind,
    schema: v.GenericSchema<unknown, T>,
  ): T[] =>
    raw[kind].flatMap(({ where, record }) => {
      const parsed = v.safeParse(schema, withInstants(record));
      if (parsed.success) return parsed.output.status === 'active' ? [parsed.output] : [];
      const [issue] = parsed.issues;
      problems.push({ kind: 'unreadable record', where, said: v.getDotPath(issue) ?? issue.message });
      return [];
    });
  const lineItems = read('lineItems', OrLineItem);
  const results = read('results', OrResult);
  const known = new Set(lineItems.map(({ sourcedId }) => sourcedId));
  for (const { lineItem, sourcedId } of results)
    if (!known.has(lineItem.sourcedId))
      problems.push({ kind: 'no such assignment', where: `result ${sourcedId}`, said: lineItem.sourcedId });
  return {
    classes: read('classes', OrClass),
    categories: read('categories', OrCategory),
    lineItems,
    results,
    students: [...new Set(results.map(({ student }) => student.sourcedId))].sort(),
    problems,
  };
}

/** The courses of a gradebook with one student's results; a class that no file describes is called by its id. */
export function coursesOfGradebook(
  { classes, categories, lineItems, results }: Gradebook,
  student: string | null,
): ImportedCourse[] {
  const itemsOf = new Map<string, OrLineItem[]>();
  for (const item of lineItems) {
    const items = itemsOf.get(item.class.sourcedId);
    if (items === undefined) itemsOf.set(item.class.sourcedId, [item]);
    else items.push(item);
  }
  const resultOf = new Map(
    results.flatMap((one) =>
      one.student.sourcedId === student ? [[one.lineItem.sourcedId, one] as const] : [],
    ),
  );
  const ids = new Set([...classes.map((one) => one.sourcedId), ...itemsOf.keys()]);
  return [...ids].flatMap((id): ImportedCourse[] => {
    const items = itemsOf.get(id);
    if (items === undefined) return [];
    const given = classes.find(({ sourcedId }) => sourcedId === id);
    const used = new Set(items.flatMap((item) => item.category?.sourcedId ?? []));
    return [
      {
        key: id,
        title: given?.title ?? id,
        code: given?.classCode ?? '',
        categories: [...used].map((key) => {
          const category = categories.find(({ sourcedId }) => sourcedId === key);
          return { key, title: category?.title ?? key, weight: decimalOf(category?.weight) };
        }),
        items: items.map((item) => importedItem(item, resultOf.get(item.sourcedId))),
      },
    ];
  });
}

function importedItem(item: OrLineItem, result: OrResult | undefined): ImportedItem {
  const marked =
    result !== undefined && result.scoreStatus !== 'not submitted' && result.scoreStatus !== 'exempt';
  return {
    key: item.sourcedId,
    title: item.title,
    category: item.category?.sourcedId ?? null,
    possible: decimalOf(item.resultValueMax),
    opensAt: item.assignDate ?? null,
    dueAt: item.dueDate ?? null,
    extraCredit: false,
    excused: result?.scoreStatus === 'exempt',
    score: marked ? decimalOf(result.score) : null,
    result: null,
    complete: result?.scoreStatus !== 'partially graded',
    markedAt: markedAt(result?.scoreDate),
    words: result?.comment ?? '',
  };
}

function markedAt(date: string | undefined): Instant | null {
  const ms = Date.parse(date ?? '');
  return Number.isNaN(ms) ? null : (new Date(ms).toISOString() as Instant);
}
