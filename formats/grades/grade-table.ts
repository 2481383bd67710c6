import { decimalIn, type DecimalString, type Instant } from '#core/model/ids.ts';
import { instantOfWall } from '#core/model/zoned.ts';
import type { Grid } from '../table/grid.ts';
import type { ImportedCourse, ImportedItem, ImportProblem } from './imported.ts';

/** Scores in a plain table: a row for each assignment, columns in any order and by any name. */

/** What a column can be. */
export const gradeFields = [
  'title',
  'category',
  'score',
  'possible',
  'result',
  'due',
  'weight',
  'extra credit',
  'excused',
  'words',
  'left out',
] as const;
/** One of these. */
export type GradeField = (typeof gradeFields)[number];

const NAMES: readonly (readonly [GradeField, RegExp])[] = [
  ['title', /^(?:assignment|title|name|item|task|activity|work)(?: (?:name|title))?$/i],
  ['category', /^(?:category|group|type|kind|section)$/i],
  [
    'possible',
    /^(?:(?:points?|marks?|max(?:imum)?) (?:possible|available)|possible|of|out of|max(?:imum)?(?: (?:points?|marks?|score))?|total)$/i,
  ],
  ['score', /^(?:(?:your |my )?(?:score|points? (?:earned|got)|earned|got|mark|result in points))$/i],
  ['result', /^(?:grade|letter|result|pass(?:ed)?|level)$/i],
  ['due', /^(?:due|deadline|due (?:date|on|at|by))$/i],
  ['weight', /^(?:category )?weight(?:ing)?(?: ?\(?%\)?)?$/i],
  ['extra credit', /^(?:extra(?: credit)?|bonus)$/i],
  ['excused', /^(?:excused|exempt)$/i],
  ['words', /^(?:comments?|feedback|overall(?: words)?|remarks?|notes?)$/i],
];

/** A table whose first row names its columns, and what each column seems to be. */
export interface GradeTable {
  readonly header: readonly string[];
  readonly rows: readonly (readonly string[])[];
  readonly fields: readonly GradeField[];
}

/** Takes the first row as the names of the columns and guesses what each holds; two columns never hold the same. */
export function gradeTableOf({ rows }: Grid): GradeTable {
  const [header, ...body] = rows;
  const used = new Set<GradeField>();
  const fields = header.map((name): GradeField => {
    const found = NAMES.find(([field, pattern]) => !used.has(field) && pattern.test(name.trim()))?.[0];
    if (found === undefined) return 'left out';
    used.add(found);
    return found;
  });
  // Bare "points" are those there are where another column has the score, else those that were got.
  const bare = header.findIndex(
    (name, i) => fields[i] === 'left out' && /^(?:points?|marks?|pts\.?)$/i.test(name.trim()),
  );
  if (bare >= 0) fields[bare] = used.has('score') && !used.has('possible') ? 'possible' : 'score';
  if (!used.has('title')) {
    const texts = header.findIndex(
      (_, i) => fields[i] === 'left out' && body.some((row) => /\p{L}/u.test(row[i])),
    );
    if (texts >= 0) fields[texts] = 'title';
  }
  return { header, rows: body, fields };
}

const YES = /^(?:yes|y|true|1|x|✓|extra|bonus|excused|exempt)$/i;
const OF = /^(-?\d+(?:[.,]\d+)?)\s*(?:\/|of|out of)\s*(\d+(?:[.,]\d+)?)$/i;
const PERCENT = /^(-?\d+(?:[.,]\d+)?)\s*%$/;
/** What stands in a cell where there is nothing. */
const NOTHING = /^(?:|-|–|—|n\/?a|not graded|not marked|none)$/i;

const EXCUSED = /^(?:excused|exempt)$/i;
/** A step of a scale, as in "B +" or "pass". */
const STEP = /^\p{L}[\p{L} +-]*$/u;

/** How days are written in the column of due times. */
type DayOrder = 'day first' | 'month first' | 'unsure';

function dayOrder(cells: readonly string[]): DayOrder {
  const pairs = cells.flatMap((cell) => {
    const match = /^(\d{1,2})[./-](\d{1,2})[./-]\d{2,4}/.exec(cell);
    return match === null ? [] : [[Number(match[1]), Number(match[2])] as const];
  });
  if (pairs.some(([first]) => first > 12) || cells.some((cell) => /^\d{1,2}\./.test(cell)))
    return 'day first';
  if (pairs.some(([, second]) => second > 12)) return 'month first';
  return pairs.some(([first, second]) => first !== second) ? 'unsure' : 'day first';
}

/** Due at the end of the day where no time is told. */
const END_OF_DAY = '23:59';

function instantIn(cell: string, order: DayOrder, zone: string): Instant | null {
  if (/T\d\d:\d\d.*(?:Z|[+-]\d\d:?\d\d)$/.test(cell)) {
    const ms = Date.parse(cell);
    return Number.isNaN(ms) ? null : (new Date(ms).toISOString() as Instant);
  }
  const match =
    /^(\d{4})[-/.](\d{1,2})[-/.](\d{1,2})(?:[T ,]+(\d{1,2}:\d\d))?/.exec(cell) ??
    /^(\d{1,2})[./-](\d{1,2})[./-](\d{2,4})(?:[T ,]+(\d{1,2}:\d\d))?/.exec(cell);
  if (match === null) return null;
  const [, a, b, c, time = END_OF_DAY] = match as unknown as [string, string, string, string, string?];
  const [year, month, day] = a.length === 4 ? [a, b, c] : order === 'month first' ? [c, a, b] : [c, b, a];
  const full = year.length === 2 ? `20${year}` : year;
  return instantOfWall(
    `${full}-${month.padStart(2, '0')}-${day.padStart(2, '0')}T${time.padStart(5, '0')}`,
    zone,
  );
}

/** Points that are a share of others, to at most six decimal places. */
function shareOf(percent: DecimalString, possible: DecimalString): DecimalString {
  return String(Number(((Number(percent) * Number(possible)) / 100).toFixed(6))) as DecimalString;
}

/** A course as a table tells of it, and what in the table was odd. */
export interface CourseOfTable {
  readonly course: ImportedCourse;
  readonly problems: readonly ImportProblem[];
}

/**
 * The course that a table tells of. What can't be read is said by row and column, and the rest used; a row without a title is
 * left out.
 * @param fields what each column is
 * @param zone in which its times are
 */
export function courseOfTable(
  { header, rows }: GradeTable,
  fields: readonly GradeField[],
  zone: string,
): CourseOfTable {
  const problems: ImportProblem[] = [];
  const due = fields.indexOf('due');
  const order = due < 0 ? 'day first' : dayOrder(rows.map((row) => row[due]));
  if (order === 'unsure')
    problems.push({
      kind: 'day or month',
      where: header[due],
      said: rows.map((row) => row[due]).find(Boolean) ?? '',
    });
  const seen = new Set<string>();
  const categories = new Map<string, ImportedCategory>();
  const items = rows.flatMap((row, at): ImportedItem[] => {
    const cells = cellsOf(header, fields, row, at, problems);
    const { cell } = cells;
    const key = keyOf(cells, seen);
    if (key === null) return [];
    const given = scoreIn(cells);
    const category = categoryOf(cells, categories);
    return [
      {
        key,
        title: cell('title'),
        category,
        opensAt: null,
        dueAt: due < 0 ? null : dueOf(cells, order, zone),
        extraCredit: YES.test(cell('extra credit')),
        excused: YES.test(cell('excused')) || EXCUSED.test(cell('score')),
        ...given,
        complete: true,
        markedAt: null,
        words: cell('words'),
      },
    ];
  });
  return { course: { key: '', title: '', code: '', categories: [...categories.values()], items }, problems };
}

type ImportedCategory = ImportedCourse['categories'][number];

/** The cells of a row by what they are, and how what is odd about one is said. */
interface Cells {
  readonly row: readonly string[];
  readonly cell: (field: GradeField) => string;
  /** A number in `text`, by itself a whole cell; null where there is none. */
  readonly number: (field: GradeField, text?: string) => DecimalString | null;
  readonly odd: (kind: ImportProblem['kind'], said: string, field?: GradeField) => void;
}

function cellsOf(
  header: readonly string[],
  fields: readonly GradeField[],
  row: readonly string[],
  at: number,
  problems: ImportProblem[],
): Cells {
  const column = (field: GradeField) => fields.indexOf(field);
  const cell = (field: GradeField) => (column(field) < 0 ? '' : row[column(field)]);
  const odd: Cells['odd'] = (kind, said, field) => {
    // The header is the first row.
    const inRow = `row ${at + 2}`;
    const of = field === undefined ? '' : `, ${header[column(field)] || `column ${column(field) + 1}`}`;
    problems.push({ kind, where: inRow + of, said });
  };
  const number: Cells['number'] = (field, text = cell(field)) => {
    if (NOTHING.test(text)) return null;
    const read = decimalIn(text.replace(/\s*(?:points?|pts?\.?|%)$/i, ''));
    if (read === null) odd('no number', text, field);
    return read;
  };
  return { row, cell, number, odd };
}

/** A key that no other row has; null for a row without a title. */
function keyOf({ row, cell, odd }: Cells, seen: Set<string>): string | null {
  const title = cell('title');
  if (title === '') {
    odd('no title', row.filter(Boolean).join(', '));
    return null;
  }
  let key = title.toLowerCase();
  if (seen.has(key)) {
    odd('twice', title);
    for (let n = 2; seen.has(key); n++) key = `${title.toLowerCase()} (${n})`;
  }
  seen.add(key);
  return key;
}

/** What was given for a row, and of how much: a number, a share, "of", or a step of a scale. */
function scoreIn({ cell, number, odd }: Cells): Pick<ImportedItem, 'possible' | 'score' | 'result'> {
  const given = cell('score');
  const of = OF.exec(given);
  const percent = PERCENT.exec(given);
  const possible =
    number('possible') ??
    (of !== null ? number('score', of[2]) : percent !== null ? ('100' as DecimalString) : null);
  const isStep = STEP.test(given) && !NOTHING.test(given);
  const points =
    of !== null
      ? number('score', of[1])
      : percent !== null
        ? shareOf(number('score', percent[1]) ?? ('0' as DecimalString), possible ?? ('100' as DecimalString))
        : isStep
          ? null
          : number('score');
  const score = points !== null && Number(points) < 0 ? null : points;
  if (points !== null && score === null) odd('below 0', points, 'score');
  if (score !== null && possible !== null && Number(score) > Number(possible))
    odd('above possible', `${score} / ${possible}`, 'score');
  const step = isStep && !EXCUSED.test(given) ? given : null;
  return { possible, score, result: NOTHING.test(cell('result')) ? step : cell('result') };
}

/** The category that a row names, kept among the others; null where it names none. */
function categoryOf({ cell, number }: Cells, categories: Map<string, ImportedCategory>): string | null {
  const title = cell('category');
  if (title === '') return null;
  const key = title.toLowerCase();
  const known = categories.get(key);
  categories.set(key, { key, title: known?.title ?? title, weight: known?.weight ?? number('weight') });
  return key;
}

function dueOf({ cell, odd }: Cells, order: DayOrder, zone: string): Instant | null {
  if (NOTHING.test(cell('due'))) return null;
  const at = instantIn(cell('due'), order, zone);
  if (at === null) odd('no date', cell('due'), 'due');
  return at;
}
