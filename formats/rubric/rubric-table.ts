import type { Level, Rubric } from '#core/model/facts.ts';
import { decimalIn, type DecimalString } from '#core/model/ids.ts';
import type { DraftCriterion, RubricDraft } from '#core/rubric/draft.ts';
import { lowestFirst } from '../case/rubric.ts';
import { withoutEmptyRows, type Grid } from '../table/grid.ts';
import { pointsIn } from './points.ts';

/**
 * A rubric as a table: criteria in the first column, levels in the first row, what a level asks where they meet, its points
 * beside its name or with what it asks.
 */

/** What of a table was not as it should be, and where; the rest was used. */
interface TableProblem {
  readonly kind: 'merged cells' | 'no points' | 'not points' | 'no title';
  readonly where: string;
}

/** A rubric that was found in a table, and what in the table was odd. */
export interface ReadRubricTable {
  readonly draft: RubricDraft;
  readonly problems: readonly TableProblem[];
}

/** In a cell: it is meant to be empty. */
const NOTHING = '–';
/** Longer texts in the first row are no names of levels. */
const LONGEST_NAME = 80;

type Role = 'possible' | 'weight' | 'description' | 'beside' | 'level';
const ROLES: readonly (readonly [Role, RegExp])[] = [
  [
    'possible',
    /^(?:(?:max(?:imum)?|total|possible|available)\.? ?)?(?:points?|pts\.?|marks?)(?: possible)?$|^out of$|^max(?:imum)?$/i,
  ],
  ['weight', /^weight(?:ing)?(?: ?\(?(?:%|in %|percent)\)?)?$/i],
  ['description', /^(?:long )?description$|^about$|^details$/i],
  ['beside', /^(?:comments?|feedback|remarks?|notes?|score|your score|level reached)$/i],
];
const CORNER = /^(?:criteri(?:on|a)|standards?|aspects?|categor(?:y|ies))$/i;

/** Reads a rubric from a table; null where it is none: no criterion with a level or points. */
export function rubricFromTable(given: Grid, title: string): ReadRubricTable | null {
  const { grid, named } = titleRow(withoutEmptyRows(given));
  const { rows, merged } = grid;
  if (rows.length === 0 || rows[0].length < 2) return null;
  const headed = CORNER.test(rows[0][0]) || rows[0].slice(1).every((cell) => cell.length <= LONGEST_NAME);
  const header = headed ? rows[0] : rows[0].map((_, i) => (i === 0 ? '' : `Level ${i}`));
  const body = rows
    .map((cells, row) => ({ cells, row }))
    .slice(headed ? 1 : 0)
    .filter(({ cells }) => !/^(?:total|sum)\b/i.test(cells[0]));
  const columns = header.map((cell, column) => ({ column, role: roleOf(cell, column, body) }));
  const levels = columns.filter(({ role }) => role === 'level');
  const problems: TableProblem[] = [];
  const whereOf = (cells: readonly string[], row: number) =>
    cells[0] === ''
      ? `row ${row + 1}`
      : `“${pointsIn(cells[0])?.rest.split('\n')[0] ?? cells[0].split('\n')[0]}”`;
  for (const { row, column } of merged) {
    if (row >= rows.length) continue;
    const where = `${whereOf(rows[row], row)}, ${column === 0 ? 'its first cell' : (header[column] ?? '')}`;
    problems.push({ kind: 'merged cells', where });
  }
  const level = levels.map(({ column }) => levelReader(header[column], column, body));
  const hasPossible = columns.some(({ role }) => role === 'possible');
  const criteria = body.map(({ cells, row }): DraftCriterion => {
    const where = whereOf(cells, row);
    const read = level.flatMap((one) => one(cells) ?? []);
    const cell = (role: Role) => {
      const found = columns.find((one) => one.role === role);
      return found === undefined ? '' : cells[found.column];
    };
    const inTitle = hasPossible ? null : pointsIn(cells[0]);
    const [name, ...more] = (inTitle?.rest ?? cells[0]).split('\n');
    if (name === '') problems.push({ kind: 'no title', where });
    const possibleCell = cell('possible');
    const told = possibleCell === NOTHING ? null : (pointsIn(possibleCell)?.points ?? null);
    if (told === null && possibleCell !== '' && possibleCell !== NOTHING)
      problems.push({ kind: 'not points', where });
    const weightCell = cell('weight').replace(/\s*%$/, '');
    const weight = decimalIn(weightCell);
    if (weight === null && weightCell !== '') problems.push({ kind: 'not points', where });
    const most = largest(read.map((one) => one.level.points));
    const possible = told ?? inTitle?.points ?? (possibleCell === NOTHING ? null : most);
    if (possible === null && possibleCell !== NOTHING) problems.push({ kind: 'no points', where });
    if (most !== null)
      for (const { level: one, said } of read)
        if (one.points === null && !said)
          problems.push({ kind: 'no points', where: `${where}, ${one.title}` });
    return {
      title: name,
      description: [...more, cell('description')].filter(Boolean).join('\n'),
      possible,
      weight,
      levels: read.map(({ level: one }) => one),
    };
  });
  const useful = criteria.filter(
    ({ title: of, levels: own, possible }) => of !== '' || own.length > 0 || possible !== null,
  );
  if (useful.every(({ levels: own, possible }) => own.length === 0 && possible === null)) return null;
  const falling = useful.some(({ levels: own }) => own.length > 1 && lowestFirst(own)[0] !== own[0]);
  return {
    draft: {
      title: named ?? title,
      criteria: useful.map((criterion) => ({
        ...criterion,
        levels: falling ? criterion.levels.toReversed() : criterion.levels,
      })),
      unscaled: false,
    },
    problems,
  };
}

/** A first row with one text in it, over rows with more, is the name of the rubric. */
function titleRow(grid: Grid): { grid: Grid; named: string | null } {
  const { rows, merged } = grid;
  const [first] = rows;
  const alone = rows.length > 2 && first[0] !== '' && first.slice(1).every((cell) => cell === '');
  if (!alone || rows[1].slice(1).every((cell) => cell === '')) return { grid, named: null };
  return {
    named: first[0],
    grid: {
      rows: rows.slice(1),
      merged: merged.flatMap(({ row, column }) => (row === 0 ? [] : [{ row: row - 1, column }])),
    },
  };
}

interface Row {
  readonly cells: readonly string[];
  readonly row: number;
}

function roleOf(header: string, column: number, body: readonly Row[]): Role {
  if (column === 0) return 'beside';
  for (const [role, pattern] of ROLES) if (pattern.test(header.trim())) return role;
  return header === '' && body.every(({ cells }) => cells[column] === '') ? 'beside' : 'level';
}

/** How a column's cells are read as one level; `said`: the cell itself tells whether there are points. */
function levelReader(
  header: string,
  column: number,
  body: readonly Row[],
): (cells: readonly string[]) => { readonly level: Level; readonly said: boolean } | null {
  const filled = body.map(({ cells }) => cells[column]).filter((cell) => cell !== '');
  // A name such as "Year 2" is whole where every cell has its own points.
  const ownPoints = filled.every((cell) => cell.split('\n')[0] === NOTHING || pointsIn(cell) !== null);
  const named = filled.length > 0 && ownPoints ? null : pointsIn(header);
  const title = named === null ? header : named.rest === '' ? header : named.rest;
  return (cells) => {
    const cell = cells[column];
    if (cell === '' && (named === null || filled.length > 0)) return null;
    const [first, ...rest] = cell.split('\n');
    if (first === NOTHING)
      return {
        level: { title, description: rest.join('\n'), points: null, pointsFrom: null },
        said: true,
      };
    const own = pointsIn(cell);
    const points = own ?? named;
    return {
      level: {
        title,
        description: own === null ? cell : own.rest,
        points: points?.points ?? null,
        pointsFrom: points?.from ?? null,
      },
      said: false,
    };
  };
}

function largest(points: readonly (DecimalString | null)[]): DecimalString | null {
  return points.reduce(
    (most, one) => (one !== null && (most === null || Number(one) > Number(most)) ? one : most),
    null,
  );
}

/** A rubric as rows of a table, such that `rubricFromTable` reads the same again but for ids. */
export function tableOfRubric({ title, criteria }: Rubric): string[][] {
  const names = levelNames(criteria.map(({ levels }) => levels));
  return [
    [title],
    ['Criterion', 'Description', 'Points', 'Weight', ...names],
    ...criteria.map((criterion) => [
      criterion.title,
      criterion.description,
      criterion.possible ?? NOTHING,
      criterion.weight ?? '',
      ...names.map((name) => {
        const level = criterion.levels.find((one) => one.title === name);
        return level === undefined ? '' : `${shownPoints(level)}\n${level.description}`.trim();
      }),
    ]),
  ];
}

function shownPoints({ points, pointsFrom }: Level): string {
  if (points === null) return NOTHING;
  return pointsFrom === null ? points : `${pointsFrom} to ${points}`;
}

/** All names of levels, each after those that stand below it in any list; of what contradicts itself the first goes on. */
function levelNames(lists: readonly (readonly Level[])[]): string[] {
  const below = new Map<string, Set<string>>();
  for (const levels of lists)
    levels.forEach(({ title }, i) => {
      const known = below.get(title) ?? new Set<string>();
      if (i > 0 && levels[i - 1].title !== title) known.add(levels[i - 1].title);
      below.set(title, known);
    });
  const names: string[] = [];
  while (names.length < below.size) {
    const left = [...below].filter(([title]) => !names.includes(title));
    const free = left.find(([, needs]) => [...needs].every((need) => names.includes(need)));
    names.push((free ?? left[0])[0]);
  }
  return names;
}
