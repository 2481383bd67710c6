import fc from 'fast-check';
import { strToU8, zipSync } from 'fflate';
import { describe, expect, it } from 'vitest';
import { instantOfWall, wallTimeOf } from '#core/model/zoned.ts';
import { instantOf } from '#core/model/ids.ts';
import { coursesOfGradebook, readGradebook } from '../oneroster/read-gradebook.ts';
import { writeCsv } from '../table/csv.ts';
import { courseOfTable, type GradeTable } from './grade-table.ts';
import { readGrades, tableIn } from './read-grades.ts';

const ZONE = 'Europe/London';

function table(text: string): GradeTable {
  const found = tableIn('', text);
  if (found === null) throw new Error('no table');
  return found;
}
const read = (text: string) => {
  const found = table(text);
  return courseOfTable(found, found.fields, ZONE);
};

describe('scores in a plain table', () => {
  it('matches its columns by their names, whatever their order and separator', () => {
    const { course, problems } = read(
      'Category;Assignment;Score;Points possible;Due date;Weight %;Comments\n' +
        'Labs;Dip wells;17,5;20;07.10.2026;30;"Good, but\nunits"\n' +
        'Reports;Skarn Moss;;40;2026-11-20 17:00;70;\n',
    );
    expect(problems).toEqual([]);
    expect(course.categories).toEqual([
      { key: 'labs', title: 'Labs', weight: '30' },
      { key: 'reports', title: 'Reports', weight: '70' },
    ]);
    expect(course.items[0]).toMatchObject({
      title: 'Dip wells',
      category: 'labs',
      score: '17.5',
      possible: '20',
      dueAt: '2026-10-07T22:59:00.000Z',
      words: 'Good, but\nunits',
    });
    expect(course.items[1]).toMatchObject({ score: null, dueAt: '2026-11-20T17:00:00.000Z' });
  });

  it('takes bare “points” for those got, unless another column has the score', () => {
    expect(table('Work,Points,Of\nA,3,4\n').fields).toEqual(['title', 'score', 'possible']);
    expect(table('Work,Score,Points\nA,3,4\n').fields).toEqual(['title', 'score', 'possible']);
    expect(table('Work,Points\nA,3\n').fields).toEqual(['title', 'score']);
  });

  it('reads “17/20”, per cent, letters and excused work', () => {
    const { course, problems } = read('Title\tScore\nA\t17/20\nB\t85 %\nC\tB+\nD\texcused\nE\t–\n');
    expect(problems).toEqual([]);
    expect(
      course.items.map(({ score, possible, result, excused }) => [score, possible, result, excused]),
    ).toEqual([
      ['17', '20', null, false],
      ['85', '100', null, false],
      [null, null, 'B+', false],
      [null, null, null, true],
      [null, null, null, false],
    ]);
  });

  it('says by row and column what it can’t use, and uses the rest', () => {
    const { course, problems } = read(
      'Assignment,Score,Possible,Due\nA,4x,20,soon\n,5,10,\nB,-2,10,\nC,12,10,\nC,3,10,\n',
    );
    expect(problems.map(({ kind, where, said }) => [kind, where, said])).toEqual([
      ['no number', 'row 2, Score', '4x'],
      ['no date', 'row 2, Due', 'soon'],
      ['no title', 'row 3', '5, 10'],
      ['below 0', 'row 4, Score', '-2'],
      ['above possible', 'row 5, Score', '12 / 10'],
      ['twice', 'row 6', 'C'],
    ]);
    expect(course.items.map(({ key, score }) => [key, score])).toEqual([
      ['a', null],
      ['b', null],
      ['c', '12'],
      ['c (2)', '3'],
    ]);
  });

  it('tells month first from day first where a row does, and says where none does', () => {
    const due = (cells: string[]) =>
      read(`Assignment,Due\n${cells.map((cell, i) => `A${i},${cell}`).join('\n')}\n`);
    expect(due(['10/13/2026', '09/02/2026']).course.items[1].dueAt?.slice(0, 10)).toBe('2026-09-02');
    expect(due(['13/10/2026', '09/02/2026']).course.items[1].dueAt?.slice(0, 10)).toBe('2026-02-09');
    expect(due(['09/02/2026']).problems.map(({ kind }) => kind)).toEqual(['day or month']);
  });

  it('takes thousands of rows as they went out', () => {
    const rows = Array.from({ length: 5000 }, (_, i) => [`Work ${i + 1}`, String(i % 21), '20']);
    const { course, problems } = read(writeCsv([['Assignment', 'Score', 'Possible'], ...rows]));
    expect(problems).toEqual([]);
    expect(course.items.map(({ title, score, possible }) => [title, score, possible])).toEqual(rows);
  });

  it('is no table of scores with one column or no rows', () => {
    expect(tableIn('', 'only words')).toBeNull();
    expect(tableIn('', 'Assignment,Score\n')).toBeNull();
    expect(() => readGrades([{ name: 'x.csv', bytes: strToU8('hello') }])).toThrow('no scores');
  });

  it('is pasted from a page too', () => {
    const html =
      '<table><tr><th>Assignment</th><th>Score</th></tr><tr><td>A</td><td>3&nbsp;of 4</td></tr></table>';
    const found = tableIn(html, '');
    expect(found?.fields).toEqual(['title', 'score']);
    expect(found && courseOfTable(found, found.fields, ZONE).course.items[0]).toMatchObject({
      score: '3',
      possible: '4',
    });
  });
});

const json = {
  classes: [
    {
      sourcedId: 'c1',
      status: 'active',
      title: 'Bog Hydrology',
      classCode: 'MIRE 210',
      classType: 'scheduled',
      terms: [],
    },
  ],
  categories: [{ sourcedId: 'k1', status: 'active', title: 'Labs', weight: 30 }],
  lineItems: [
    {
      sourcedId: 'l1',
      status: 'active',
      title: 'Dip wells',
      class: { sourcedId: 'c1' },
      category: { sourcedId: 'k1' },
      dueDate: '2026-10-07T18:00:00+01:00',
      resultValueMax: 20,
    },
    { sourcedId: 'l2', status: 'active', title: 'Quiz', class: { sourcedId: 'c1' }, resultValueMax: 10 },
    {
      sourcedId: 'gone',
      status: 'tobedeleted',
      title: 'Old',
      class: { sourcedId: 'c1' },
      resultValueMax: 10,
    },
  ],
  results: [
    {
      sourcedId: 'r1',
      status: 'active',
      lineItem: { sourcedId: 'l1' },
      student: { sourcedId: 's1' },
      scoreStatus: 'fully graded',
      score: 17.5,
      scoreDate: '2026-10-12',
      comment: 'Mind units.',
    },
    {
      sourcedId: 'r2',
      status: 'active',
      lineItem: { sourcedId: 'l2' },
      student: { sourcedId: 's1' },
      scoreStatus: 'exempt',
      scoreDate: '2026-10-12',
    },
    {
      sourcedId: 'r3',
      status: 'active',
      lineItem: { sourcedId: 'l1' },
      student: { sourcedId: 's2' },
      scoreStatus: 'fully graded',
      score: 3,
      scoreDate: '2026-10-12',
    },
    {
      sourcedId: 'r4',
      status: 'active',
      lineItem: { sourcedId: 'nowhere' },
      student: { sourcedId: 's1' },
      scoreStatus: 'fully graded',
      score: 3,
      scoreDate: '2026-10-12',
    },
    {
      sourcedId: 'r5',
      status: 'active',
      lineItem: { sourcedId: 'l1' },
      student: { sourcedId: 's1' },
      scoreStatus: 'wrong',
      scoreDate: '',
    },
  ],
};
const csv = {
  'classes.csv':
    'sourcedId,status,dateLastModified,title,grades,courseSourcedId,classCode,classType,location,schoolSourcedId,termSourcedIds\nc1,,,Bog Hydrology,,x,MIRE 210,scheduled,,s,t\n',
  'categories.csv': 'sourcedId,status,dateLastModified,title,weight\nk1,active,,Labs,30\n',
  'lineItems.csv':
    'sourcedId,status,dateLastModified,title,description,assignDate,dueDate,classSourcedId,categorySourcedId,gradingPeriodSourcedId,resultValueMin,resultValueMax\n' +
    'l1,active,,Dip wells,,,2026-10-07T17:00:00Z,c1,k1,,0,20\nl2,active,,Quiz,,,,c1,,,0,10\ngone,tobedeleted,,Old,,,,c1,,,0,10\n',
  'results.csv':
    'sourcedId,status,dateLastModified,lineItemSourcedId,studentSourcedId,scoreStatus,score,scoreDate,comment\n' +
    'r1,active,,l1,s1,fully graded,17.5,2026-10-12,Mind units.\nr2,active,,l2,s1,exempt,,2026-10-12,\nr3,active,,l1,s2,fully graded,3,2026-10-12,\nr4,active,,nowhere,s1,fully graded,3,2026-10-12,\nr5,active,,l1,s1,wrong,,,\n',
};

describe('a OneRoster gradebook', () => {
  const fromJson = readGradebook([{ name: 'all.json', text: JSON.stringify(json) }]);
  const zip = zipSync(Object.fromEntries(Object.entries(csv).map(([name, text]) => [name, strToU8(text)])));
  const fromCsv = readGrades([{ name: 'roster.zip', bytes: zip }]);

  it('is the same from JSON and from the CSV files of a ZIP', () => {
    if (fromJson === null || fromCsv.kind !== 'gradebook') throw new Error('no gradebook');
    expect(fromCsv.gradebook.students).toEqual(['s1', 's2']);
    const [course] = coursesOfGradebook(fromJson, 's1');
    expect(coursesOfGradebook(fromCsv.gradebook, 's1')).toEqual([course]);
    expect(course).toMatchObject({
      title: 'Bog Hydrology',
      code: 'MIRE 210',
      categories: [{ key: 'k1', title: 'Labs', weight: '30' }],
    });
    expect(
      course.items.map(({ key, score, excused, words, dueAt }) => [key, score, excused, words, dueAt]),
    ).toEqual([
      ['l1', '17.5', false, 'Mind units.', '2026-10-07T17:00:00.000Z'],
      ['l2', null, true, '', null],
    ]);
    expect(coursesOfGradebook(fromJson, 's2')[0].items[0].score).toBe('3');
  });

  it('says which records it could not use', () => {
    expect(fromJson?.problems.map(({ kind, where, said }) => [kind, where, said])).toEqual([
      ['unreadable record', 'all.json, results 5', 'scoreStatus'],
      ['no such assignment', 'result r4', 'nowhere'],
    ]);
  });

  it('is none in JSON of other things', () => {
    expect(readGradebook([{ name: 'x', text: '{"a": 1}' }])).toBeNull();
    expect(readGradebook([{ name: 'x', text: '[1]' }])).toBeNull();
  });
});

describe('times on a wall', () => {
  it('are the moments whose clocks show them, in any zone and season', () => {
    const zone = fc.constantFrom(
      'Europe/London',
      'America/St_Johns',
      'Pacific/Auckland',
      'UTC',
      'Asia/Kathmandu',
    );
    const minute = fc.integer({
      min: Date.parse('2025-01-01') / 60_000,
      max: Date.parse('2028-01-01') / 60_000,
    });
    fc.assert(
      fc.property(minute, zone, (at, where) => {
        const wall = wallTimeOf(instantOf(at * 60_000), where);
        const found = instantOfWall(wall, where);
        expect(found && wallTimeOf(found, where)).toBe(wall);
        expect(Math.abs(Date.parse(found ?? '') - at * 60_000)).toBeLessThanOrEqual(3_600_000);
      }),
    );
  });

  it('count from before where the clocks leap, take the first where they show it twice, and are none where there is none', () => {
    expect(instantOfWall('2026-03-29T01:30', 'Europe/London')).toBe('2026-03-29T01:30:00.000Z');
    expect(instantOfWall('2026-10-25T01:30', 'Europe/London')).toBe('2026-10-25T00:30:00.000Z');
    expect(instantOfWall('2026-02-30T10:00', 'UTC')).toBeNull();
    expect(instantOfWall('soon', 'UTC')).toBeNull();
  });
});
