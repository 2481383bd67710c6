import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import type { Level, Rubric } from '#core/model/facts.ts';
import { exampleRubric } from '#core/model/example.ts';
import { draftOfRubric, rubricOfDraft, type RubricDraft } from '#core/rubric/draft.ts';
import { caseFromRubric, readCaseRubrics, rubricFromCase } from '../case/rubric.ts';
import { sample } from '../samples/sample.ts';
import { readCsv, writeCsv } from '../table/csv.ts';
import { pointsIn } from './points.ts';
import { readRubrics, rubricsFromPaste } from './read-rubric.ts';
import { rubricFromTable, tableOfRubric } from './rubric-table.ts';

/** Text as it may stand in a cell: words with marks and lines, no white space around. */
const text = fc
  .array(
    fc.constantFrom('One', 'question', 'is', 'asked,', 'with “place”;', 'and\nperiod', '12', '= sum', 'ä'),
    {
      minLength: 1,
      maxLength: 6,
    },
  )
  .map((words) => words.join(' '));
const names = ['Starting', 'Developing', 'Sound', 'Excellent'];
const tenths = fc.integer({ min: 1, max: 400 }).map((n) => String(n / 10));
const levels = fc
  .tuple(
    fc.subarray(names, { minLength: 1 }),
    fc.boolean(),
    fc.array(fc.tuple(tenths, fc.boolean(), text), { minLength: 4, maxLength: 4 }),
  )
  .map(([titles, scored, parts]): Level[] => {
    const rising = parts.map(([points]) => points).sort((x, y) => Number(x) - Number(y));
    return titles.map((title, i) => ({
      title,
      description: parts[i][2],
      points: (scored ? rising[i] : null) as Level['points'],
      pointsFrom: (scored && parts[i][1] ? '0.05' : null) as Level['pointsFrom'],
    }));
  });
const rubric: fc.Arbitrary<Rubric> = fc
  .array(fc.tuple(text, levels), { minLength: 1, maxLength: 5 })
  .map((criteria) =>
    exampleRubric(
      criteria.map(([description, own], i) => ({
        title: `Criterion ${i + 1}`,
        description: description.replaceAll('\n', ' '),
        possible: own.at(-1)?.points ?? null,
        weight: i % 2 === 0 ? null : '12.5',
        levels: own,
      })),
      { title: 'Field report' },
    ),
  );

const toHtml = (rows: readonly (readonly string[])[]) =>
  `<table>${rows
    .map(
      (row) =>
        `<tr>${row
          .map(
            (cell) =>
              `<td>${cell.replaceAll('&', '&amp;').replaceAll('<', '&lt;').replaceAll('\n', '<br>')}</td>`,
          )
          .join('')}</tr>`,
    )
    .join('')}</table>`;

describe('a rubric', () => {
  it('comes out the same from CASE, CSV and a pasted table', () => {
    fc.assert(
      fc.property(rubric, (given) => {
        const wanted: RubricDraft = draftOfRubric(given);
        expect(rubricFromCase(caseFromRubric(given))).toEqual(given);
        const [fromCase] = readCaseRubrics(JSON.stringify({ CFRubrics: [caseFromRubric(given)] })) ?? [];
        expect(draftOfRubric(fromCase)).toEqual(wanted);
        const table = tableOfRubric(given);
        const csv = readCsv(writeCsv(table));
        expect(csv === null ? null : rubricFromTable(csv, '')?.draft).toEqual(wanted);
        expect(rubricsFromPaste(toHtml(table), '', '')[0].draft).toEqual(wanted);
        const tabs = table
          .map((row) =>
            row.map((cell) => (/["\n\t]/.test(cell) ? `"${cell.replaceAll('"', '""')}"` : cell)).join('\t'),
          )
          .join('\n');
        expect(rubricsFromPaste('', tabs, '')[0].draft).toEqual(wanted);
      }),
    );
  });

  it('keeps points of a criterion that has no levels, in CASE too', () => {
    const given = exampleRubric([{ possible: '8' }, { title: 'Style' }]);
    expect(rubricFromCase(caseFromRubric(given))).toEqual(given);
  });

  it('is turned where CASE lists the highest level first, and is one of several in a file', () => {
    const one = caseFromRubric(
      exampleRubric([
        {
          possible: '4',
          levels: [
            { title: 'Poor', description: '', points: '1' },
            { title: 'Good', description: '', points: '4' },
          ],
        },
      ]),
    );
    const falling = {
      ...one,
      CFRubricCriteria: one.CFRubricCriteria.map((criterion) => ({
        ...criterion,
        CFRubricCriterionLevels: criterion.CFRubricCriterionLevels.map((level) => ({
          ...level,
          position: -(level.position ?? 0),
        })),
      })),
    };
    const both = readCaseRubrics(JSON.stringify([one, falling]));
    expect(both).toHaveLength(2);
    expect(both?.[1].criteria[0].levels.map(({ title }) => title)).toEqual(['Poor', 'Good']);
    expect(readCaseRubrics('{"title": "nothing"}')).toBeNull();
    expect(readCaseRubrics('no json')).toBeNull();
  });

  it('keeps the ids of criteria that were there, by title or place, when it is edited', () => {
    const before = exampleRubric([
      { id: 'q', title: 'Question' },
      { id: 'm', title: 'Method' },
    ]);
    const draft = draftOfRubric(before);
    const [question, method] = draft.criteria;
    const edited = rubricOfDraft(
      { ...draft, criteria: [method, { ...question, title: 'Aim' }, { ...question, title: 'New' }] },
      'own/a',
      'a' as never,
      before,
    );
    expect(edited.criteria.map(({ id }) => id)).toEqual(['m', 'own/a/1', 'own/a/2']);
    const renamed = rubricOfDraft(
      { ...draft, criteria: [{ ...question, title: 'Aim' }, method] },
      'own/a',
      'a' as never,
      before,
    );
    expect(renamed.criteria.map(({ id }) => id)).toEqual(['q', 'm']);
  });
});

describe('a rubric in a document of another program', () => {
  const read = (name: string) => readRubrics(sample(name), 'Rubric')[0];

  it.each(['rubric.docx', 'rubric.odt', 'rubric.html'])(
    'is read from %s, and what is odd in it is said',
    (name) => {
      const { draft, problems } = read(name);
      expect(draft.criteria.map(({ title, possible }) => [title, possible])).toEqual([
        ['Question', '6'],
        ['Method', '8'],
        ['Figures', '5'],
        ['Style', null],
      ]);
      const [question, method, figures, style] = draft.criteria;
      expect(question.description).toBe('What is asked, and how narrowly.');
      expect(question.levels.map(({ points, pointsFrom }) => [pointsFrom, points])).toEqual([
        [null, '1.5'],
        ['3', '4'],
        [null, '6'],
      ]);
      expect(question.levels[2]).toMatchObject({
        title: 'Excellent',
        description: 'One question with place and period.',
      });
      expect(method.levels.map(({ points }) => points)).toEqual([null, '6', '8']);
      expect(method.levels[1].description).toBe('It could be repeated');
      expect(figures.levels.at(-1)).toMatchObject({ points: '5', description: 'All figures are right.' });
      expect(style.levels.map(({ description }) => description)).toEqual([
        'Hard to read.',
        'Clear.',
        'A pleasure.',
      ]);
      expect(problems).toEqual([
        { kind: 'merged cells', where: '“Figures”, Starting' },
        { kind: 'no points', where: '“Method”, Starting' },
        { kind: 'no points', where: '“Figures”, Starting' },
        { kind: 'no points', where: '“Style”' },
      ]);
    },
  );

  it('says that a file has none', () => {
    expect(() => readRubrics(new TextEncoder().encode('Dear all, see you.'), 'x')).toThrow('no rubric');
    expect(() => readRubrics(sample('dams-plain.pdf'), 'x')).toThrow('no rubric');
    expect(() => readRubrics(new Uint8Array(), 'x')).toThrow('empty');
  });
});

describe('a table', () => {
  it('has points in its names of levels, the highest first, with decimal commas and semicolons', () => {
    const csv = 'Kriterium;Sehr gut (4,5);Gut (3);Schwach (1,5)\nFrage;Eng;Klar;Fehlt\nWeg;Ganz;Meist;Kaum\n';
    const read = rubricFromTable(readCsv(csv) ?? { rows: [], merged: [] }, 'T');
    expect(read?.draft.criteria[0].levels.map(({ title, points }) => [title, points])).toEqual([
      ['Schwach', '1.5'],
      ['Gut', '3'],
      ['Sehr gut', '4.5'],
    ]);
    expect(read?.draft.criteria[1].possible).toBe('4.5');
    expect(read?.problems).toEqual([]);
  });

  it('says which points are no numbers, and which row has no title', () => {
    const read = rubricFromTable(
      readCsv('Criterion,Points,Good\nAim,six,Clear\n,4,Fine\n') ?? { rows: [], merged: [] },
      '',
    );
    expect(read?.problems.map(({ kind, where }) => [kind, where])).toEqual([
      ['not points', '“Aim”'],
      ['no points', '“Aim”'],
      ['no title', 'row 3'],
    ]);
  });

  it('is no rubric without criteria', () => {
    expect(rubricFromTable({ rows: [['A']], merged: [] }, '')).toBeNull();
    expect(
      rubricFromTable(
        {
          rows: [
            ['Name', 'Day'],
            ['', ''],
          ],
          merged: [],
        },
        '',
      ),
    ).toBeNull();
  });

  it.each([
    ['6–8 points', '8', '6', ''],
    ['(4) Clear aim', '4', null, 'Clear aim'],
    ['5 pts: All right', '5', null, 'All right'],
    ['Sound (6.5)', '6.5', null, 'Sound'],
    ['Sound, 3 points', '3', null, 'Sound'],
    ['8 to 6', '8', '6', ''],
  ])('reads points in “%s”', (cell, points, from, rest) => {
    expect(pointsIn(cell)).toEqual({ points, from, rest });
  });

  it.each(['12 sources are cited', 'Two readings a week', '2019 and later', ''])(
    'reads no points in “%s”',
    (cell) => {
      expect(pointsIn(cell)).toBeNull();
    },
  );
});
