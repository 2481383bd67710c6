import 'fake-indexeddb/auto';
import { deleteDB } from 'idb';
import { afterEach, beforeEach, describe, expect, it } from 'vitest';
import { recordsIn } from '#core/assignment/records.ts';
import { blankAssignment, blankCourse } from '#core/model/blank.ts';
import {
  exampleAssignment,
  exampleCourse,
  exampleRubric,
  exampleMarking,
  exampleAttempt,
  exampleRemark,
} from '#core/model/example.ts';
import { asId, AssignmentId, CategoryId, CourseId, type DecimalString } from '#core/model/ids.ts';
import { draftOfRubric } from '#core/rubric/draft.ts';
import { add, fromDecimal, multiply, subtract, toShown, ZERO, type Fraction } from '#core/scores/fraction.ts';
import { isRead } from '#core/tally/tally.ts';
import { courseOfTable } from '#formats/grades/grade-table.ts';
import { tableIn } from '#formats/grades/read-grades.ts';
import { viewOf, type AssignmentView } from '#core/assignment/view.ts';
import {
  aimAt,
  clearIfs,
  courseUndo,
  putCourse,
  putOwnAssignment,
  putOwnRubric,
  putScore,
  removeCourse,
  removeOwnAssignment,
  removeOwnRubric,
  setIf,
  tickAim,
  type TypedScore,
} from './by-hand.ts';
import { linkRemarks } from './decide.ts';
import { ifsOf, missingByCriterion, standingOf, type Standing } from '#core/assignment/standing.ts';
import { confirmSuggestion, suggestionsIn } from '../state/suggestions.ts';
import { takeInGrades } from './take-in-grades.ts';
import { openWorkspace, type Workspace } from '../workspace.ts';
import { databaseName } from '../identity.ts';

let workspace: Workspace;

const identity = { kind: 'files alone' } as const;
const NOW = Date.parse('2026-11-02T10:00:00.000Z');
const points = (value: string) => fromDecimal(value as DecimalString);
const records = () => workspace.records;
const dec = (text: string) => text as never;

beforeEach(async () => {
  workspace = await openWorkspace(identity);
});
afterEach(async () => {
  workspace.close();
  await deleteDB(databaseName(identity));
});

const course = {
  ...blankCourse(asId(CourseId, 'hand/c'), 'Peat and People', 'UTC'),
  scheme: 'weighted' as const,
  categories: [
    { id: asId(CategoryId, 'essays'), title: 'Essays', weight: dec('60'), drop: 0, extraCredit: false },
    { id: asId(CategoryId, 'talks'), title: 'Talks', weight: dec('40'), drop: 0, extraCredit: false },
  ],
};
const essay = {
  ...blankAssignment(asId(AssignmentId, 'hand/essay'), course.id, 'Essay'),
  categoryId: course.categories[0].id,
  possible: dec('20'),
};
const typed = (given: Partial<TypedScore> = {}): TypedScore => ({
  score: null,
  groupScore: null,
  result: null,
  overall: '',
  criteria: [],
  handedInAt: null,
  ...given,
});

function view(id: string): AssignmentView {
  const found = viewOf(recordsIn(records()), id, NOW);
  if (found === null) throw new Error(`no ${id}`);
  return found;
}
function standing(id: string = course.id): Standing {
  const found = standingOf(recordsIn(records()), id, (each) => viewOf(recordsIn(records()), each, NOW));
  if (found === null) throw new Error('no standing');
  return found;
}
const ifGrade = () => ifsOf(records().ifScores, standing())?.grade.grade ?? null;
const percent = (x: Fraction | null) => (x === null ? null : toShown(multiply(x, { n: 100n, d: 1n }), 2));

describe('what is put in by hand', () => {
  it('makes a course with a score, its words known already, and each step can be undone', async () => {
    await putCourse(workspace, course);
    await putOwnAssignment(workspace, essay);
    expect(percent(standing().grade.grade)).toBeNull();
    await putScore(workspace, essay, typed({ score: dec('15.5'), overall: 'Say who dug the drains.' }), null);
    expect(percent(standing().grade.grade)).toBe('77.5');
    const { remarks, readings, state } = view(essay.id);
    expect(remarks.map((remark) => [remark.text, isRead(remark, readings.get(remark.id))])).toEqual([
      ['Say who dug the drains.', true],
    ]);
    expect(state.kind).toBe('finished');
    // Typed anew it is the same remark with other words, and nothing the school changed.
    await putScore(workspace, essay, typed({ score: dec('16'), overall: 'Say who dug them.' }), null);
    expect(view(essay.id).remarks).toHaveLength(1);
    expect(view(essay.id)).toMatchObject({
      score: points('16'),
      remarks: [{ before: null, text: 'Say who dug them.' }],
    });
    await putScore(workspace, essay, typed({ score: dec('16') }), null);
    expect(view(essay.id).remarks).toEqual([]);
    for (let i = 0; i < 3; i++) expect(await workspace.undoLast(essay.id)).toMatchObject({ kind: 'done' });
    expect(view(essay.id).attempts).toEqual([]);
    expect(await workspace.undoLast(courseUndo(course.id))).toMatchObject({ kind: 'done' });
    expect(records().assignments.size).toBe(0);
  });

  it('adds to a school’s marking what it leaves out, and changes nothing of it', async () => {
    const rubric = exampleRubric([{ id: 'aim', possible: '20' }], { id: 'own/a' });
    await workspace.save(async (writing) => {
      await writing.put('courses', exampleCourse({ scheme: 'points' }));
      await writing.put('assignments', exampleAssignment({ possible: '20' }));
      await writing.put('attempts', exampleAttempt());
      await writing.put('markings', exampleMarking({ score: '14', overall: 'Well.' }));
    });
    const assignment = view('a').assignment;
    await putOwnRubric(workspace, assignment, draftOfRubric(rubric));
    const [criterion] = view('a').rubric?.criteria ?? [];
    await putScore(
      workspace,
      assignment,
      typed({
        score: dec('3'),
        criteria: [{ criterionId: criterion.id, points: dec('12'), level: null, comment: 'Narrower.' }],
      }),
      null,
    );
    expect(view('a')).toMatchObject({ score: points('14'), latestMarking: { score: '14' } });
    expect(view('a').criteria.map(({ got }) => got && toShown(got, 2))).toEqual(['12']);
    expect(toShown(view('a').addsUp?.difference ?? ZERO, 2)).toBe('2');
    expect(view('a').remarks.map(({ text }) => text)).toContain('Narrower.');
    await removeOwnRubric(workspace, assignment);
    expect(view('a').rubric).toBeNull();
  });

  it('lets a course go and keeps its assignments, or an assignment with all that is its own', async () => {
    await putCourse(workspace, course);
    await putOwnAssignment(workspace, essay);
    await putScore(workspace, essay, typed({ score: dec('10'), overall: 'Hm.' }), null);
    await removeCourse(workspace, course);
    expect(view(essay.id)).toMatchObject({ course: null, assignment: { courseId: null } });
    await workspace.undoLast(courseUndo(course.id));
    expect(percent(standing().grade.grade)).toBe('50');
    await removeOwnAssignment(workspace, essay);
    expect(
      [records().assignments, records().attempts, records().markings, records().remarks].map(
        (all) => all.size,
      ),
    ).toEqual([0, 0, 0, 0]);
    await workspace.undoLast(courseUndo(course.id));
    expect(percent(standing().grade.grade)).toBe('50');
  });

  it('keeps a level aimed at with its ticks', async () => {
    await putOwnAssignment(workspace, essay);
    const rubric = exampleRubric([
      {
        levels: [
          { title: 'Low', description: 'An aim.', points: null },
          { title: 'High', description: 'An aim; a place.', points: null },
        ],
      },
    ]);
    await putOwnRubric(workspace, essay, draftOfRubric(rubric));
    const [criterion] = view(essay.id).rubric?.criteria ?? [];
    await aimAt(workspace, essay.id, criterion.id, 1);
    await tickAim(workspace, essay.id, criterion.id, 'a place', true);
    expect(view(essay.id).aims.get(criterion.id)).toMatchObject({ level: 1, ticked: ['a place'] });
    await tickAim(workspace, essay.id, criterion.id, 'a place', false);
    expect(view(essay.id).aims.get(criterion.id)?.ticked).toEqual([]);
    await aimAt(workspace, essay.id, criterion.id, null);
    expect(view(essay.id).aims.size).toBe(0);
  });
});

describe('Standing', () => {
  it('reckons “if” scores beside what is, each of a spell of typing undone together', async () => {
    await putCourse(workspace, course);
    await putOwnAssignment(workspace, essay);
    await setIf(workspace, essay, dec('1'), 'spell');
    await setIf(workspace, essay, dec('18'), 'spell');
    expect(standing().grade.grade).toBeNull();
    expect(percent(ifGrade())).toBe('90');
    await clearIfs(workspace, course.id, [essay.id]);
    expect(ifGrade()).toBeNull();
    await workspace.undoLast(courseUndo(course.id));
    expect(percent(ifGrade())).toBe('90');
    await workspace.undoLast(courseUndo(course.id));
    expect(ifGrade()).toBeNull();
  });

  it('tells where the missing points lie, adding up to all that is missing', async () => {
    const rubric = exampleRubric([
      { id: 'aim', title: 'Aim', possible: '12' },
      { id: 'way', title: 'Way', possible: '8' },
    ]);
    await putCourse(workspace, course);
    await putOwnAssignment(workspace, {
      ...essay,
      late: { graceHours: 0, pointsPerDay: dec('1'), maxPoints: null },
      dueAt: '2026-11-01T00:00:00.000Z' as never,
    });
    await putOwnRubric(workspace, essay, draftOfRubric(rubric));
    const [aim, way] = view(essay.id).rubric?.criteria ?? [];
    const result = (criterionId: never, points: string) => ({
      criterionId,
      points: dec(points),
      level: null,
      comment: '',
    });
    await putScore(
      workspace,
      view(essay.id).assignment,
      typed({
        score: dec('15'),
        criteria: [result(aim.id as never, '8'), result(way.id as never, '7')],
        handedInAt: '2026-11-01T05:00:00.000Z' as never,
      }),
      null,
    );
    const missing = missingByCriterion(standing());
    // 4 and 1 of 20 points lost by criterion, 1 for lateness, all of the whole grade.
    expect(missing.map(({ title, missing: share }) => [title, percent(share)])).toEqual([
      ['Aim', '20'],
      ['Way', '5'],
      ['', '5'],
    ]);
    const total = missing.reduce((sum, one) => add(sum, one.missing), ZERO);
    const { grade } = standing().grade;
    expect(percent(grade === null ? null : subtract({ n: 1n, d: 1n }, grade))).toBe(percent(total));
  });
});

describe('scores out of a table', () => {
  const read = (text: string) => {
    const table = tableIn('', text);
    if (table === null) throw new Error('no table');
    return courseOfTable(table, table.fields, 'UTC').course;
  };

  it('stay apart however long the names of the course and of its work are', async () => {
    const imported = read('Assignment,Category,Score,Possible\nEssay,Texts,15,20\nTalk,Talks,8,10\n');
    const long = { ...imported, key: 'A course with a name that tells all of what it is about. '.repeat(3) };
    const id = await takeInGrades(workspace, long, null, 'Words on Peat', 'UTC');
    expect([...records().assignments.values()].map(({ title }) => title)).toEqual(['Essay', 'Talk']);
    expect(
      new Set(
        records()
          .courses.get(id)
          ?.categories.map((category) => category.id),
      ).size,
    ).toBe(2);
  });

  it('are taken in as one, changed by the same title, and undone as one', async () => {
    const id = await takeInGrades(
      workspace,
      read(
        'Assignment,Category,Weight,Score,Possible,Comments\nEssay,Texts,70,15.5,20,Well.\nTalk,Talks,30,,10,\n',
      ),
      null,
      'Words on Peat',
      'UTC',
    );
    expect(records().courses.get(id)).toMatchObject({
      title: 'Words on Peat',
      scheme: 'weighted',
      categories: [{ weight: '70' }, { weight: '30' }],
    });
    expect(percent(standing(id).grade.grade)).toBe('77.5');
    const words = [...records().remarks.values()];
    expect(words.map(({ text }) => text)).toEqual(['Well.']);
    // What came in is to be read; what was typed is known.
    expect(records().readings.size).toBe(0);
    const again = await takeInGrades(
      workspace,
      read('Assignment,Score,Possible\nessay,20,20\nTalk,8,10\n'),
      records().courses.get(id) ?? null,
      '',
      'UTC',
    );
    expect(again).toBe(id);
    expect(records().assignments.size).toBe(2);
    expect(percent(standing(id).grade.grade)).toBe('94');
    await workspace.undoLast(courseUndo(id));
    expect(percent(standing(id).grade.grade)).toBe('77.5');
    await workspace.undoLast(courseUndo(id));
    expect([records().courses.size, records().assignments.size, records().remarks.size]).toEqual([0, 0, 0]);
  });

  it('may be thousands', async () => {
    const rows = Array.from({ length: 3000 }, (_, i) => `Work ${i},${i % 11},10`);
    const id = await takeInGrades(
      workspace,
      read(`Assignment,Score,Possible\n${rows.join('\n')}\n`),
      null,
      'Long',
      'UTC',
    );
    expect(records().assignments.size).toBe(3000);
    expect(standing(id).grade.grade).not.toBeNull();
  });
});

describe('links to criteria', () => {
  it('are suggested, confirmed, and learnt from', async () => {
    const rubric = exampleRubric(
      [
        { id: 'sources', title: 'Sources cited with author, year and page' },
        { id: 'figures', title: 'Figures and tables' },
      ],
      { id: 'r' },
    );
    const remark = exampleRemark({
      id: 'x',
      text: 'Which sources? Cite author, year and page.',
      criterionId: null,
    });
    await workspace.save(async (writing) => {
      await writing.put('assignments', exampleAssignment({ rubricId: 'r' }));
      await writing.put('rubrics', rubric);
      await writing.put('attempts', exampleAttempt());
      await writing.put('markings', exampleMarking());
      await writing.put('remarks', remark);
    });
    expect([...suggestionsIn(records(), view('a')).values()].map(({ criterionId }) => criterionId)).toEqual([
      'sources',
    ]);
    await confirmSuggestion(workspace, view('a'), remark);
    expect(view('a').judgements.get('x')?.link).toEqual({ criterionId: 'sources' });
    expect(suggestionsIn(records(), view('a')).size).toBe(0);
    await linkRemarks(workspace, [remark], { criterionId: null });
    // Said to be on none, it is not suggested again.
    expect(suggestionsIn(records(), view('a')).size).toBe(0);
    await linkRemarks(workspace, [remark], null);
    expect(suggestionsIn(records(), view('a')).size).toBe(1);
  });
});
