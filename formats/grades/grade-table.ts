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
  const column = (field: GradeField) => fields.indexOf(field);
  const due = column('due');
  const order = due < 0 ? 'day first' : dayOrder(rows.map((row) => row[due]));
  if (order === 'unsure')
    problems.push({
      kind: 'day or month',
      where: header[due],
      said: rows.map((row) => row[due]).find(Boolean) ?? '',
    });
  const seen = new Set<string>();
  const categories = new Map<string, { key: string; title: string; weight: DecimalString | null }>();
  const items = rows.flatMap((row, r): ImportedItem[] => {
    const cell = (field: GradeField) => (column(field) < 0 ? '' : row[column(field)]);
    const where = (field: GradeField) =>
      `row ${r + 2}, ${header[column(field)] || `column ${column(field) + 1}`}`;
    const number = (field: GradeField, text = cell(field)): DecimalString | null => {
      if (NOTHING.test(text)) return null;
      const read = decimalIn(text.replace(/\s*(?:points?|pts?\.?|%)$/i, ''));
      if (read === null) problems.push({ kind: 'no number', where: where(field), said: text });
      return read;
    };
    const title = cell('title');
    if (title === '') {
      problems.push({ kind: 'no title', where: `row ${r + 2}`, said: row.filter(Boolean).join(', ') });
      return [];
    }
    let key = title.toLowerCase();
    if (seen.has(key)) {
      problems.push({ kind: 'twice', where: `row ${r + 2}`, said: title });
      for (let n = 2; seen.has(key); n++) key = `${title.toLowerCase()} (${n})`;
    }
    seen.add(key);
    const of = OF.exec(cell('score'));
    const percent = PERCENT.exec(cell('score'));
    const possible = number('possible') ?? (of === null ? null : number('score', of[2]));
    const whole = possible ?? (percent === null ? null : ('100' as DecimalString));
    const letters = /^\p{L}[\p{L} +-]*$/u.test(cell('score')) && !NOTHING.test(cell('score'));
    const points =
      of !== null
        ? number('score', of[1])
        : percent !== null
          ? shareOf(number('score', percent[1]) ?? ('0' as DecimalString), whole ?? ('100' as DecimalString))
          : letters
            ? null
            : number('score');
    const score = points !== null && Number(points) < 0 ? null : points;
    if (points !== null && score === null)
      problems.push({ kind: 'below 0', where: where('score'), said: points });
    if (score !== null && whole !== null && Number(score) > Number(whole))
      problems.push({ kind: 'above possible', where: where('score'), said: `${score} / ${whole}` });
    const named = cell('category');
    if (named !== '') {
      const known = categories.get(named.toLowerCase());
      const weight = known?.weight ?? number('weight');
      categories.set(named.toLowerCase(), { key: named.toLowerCase(), title: known?.title ?? named, weight });
    }
    const dueAt = due < 0 || NOTHING.test(cell('due')) ? null : instantIn(cell('due'), order, zone);
    if (due >= 0 && dueAt === null && !NOTHING.test(cell('due')))
      problems.push({ kind: 'no date', where: where('due'), said: cell('due') });
    const excusedScore = /^(?:excused|exempt)$/i.test(cell('score'));
    return [
      {
        key,
        title,
        category: named === '' ? null : named.toLowerCase(),
        possible: whole,
        opensAt: null,
        dueAt,
        extraCredit: YES.test(cell('extra credit')),
        excused: YES.test(cell('excused')) || excusedScore,
        score,
        result: NOTHING.test(cell('result'))
          ? letters && !excusedScore
            ? cell('score')
            : null
          : cell('result'),
        complete: true,
        markedAt: null,
        words: cell('words'),
      },
    ];
  });
  return { course: { key: '', title: '', code: '', categories: [...categories.values()], items }, problems };
}
