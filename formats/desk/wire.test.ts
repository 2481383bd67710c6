import { describe, expect, it } from 'vitest';
import type { Fact } from '#core/model/facts.ts';
import {
  exampleAssignment,
  exampleAttempt,
  exampleCourse,
  exampleFile,
  exampleMarking,
} from '#core/model/example.ts';
import { factOfWire, wireOfFact } from './wire.ts';

const AT = '2026-11-02T10:00:00.000Z';
const course = exampleCourse({
  termEndsAt: '2026-12-18T18:00:00.000Z',
  scheme: 'weighted',
  categories: [
    { id: 'labs', title: 'Labs', weight: '12.5', drop: 1, extraCredit: false },
    { id: 'bonus', title: 'Bonus', weight: null, drop: 0, extraCredit: true },
  ],
  handingIn: 'The field office',
  people: [{ name: 'Joss Amble', role: 'peer' }],
});
const assignment = exampleAssignment({
  possible: '12.5',
  opensAt: AT,
  closesAt: '2026-12-01T10:00:00.000Z',
  extendedTo: AT,
  attemptsAllowed: 3,
  policy: { kind: 'recover', share: '0.5' },
  late: { graceHours: 2, pointsPerDay: '0.5', maxPoints: null },
  categoryId: 'labs',
  extraCredit: true,
  draftOf: 'final',
  withdrawableUntil: AT,
  brief: 'Read the wells.',
  materials: [exampleFile({ role: 'brief' })],
});
const marking = exampleMarking({
  score: '11.25',
  overall: 'Good.',
  criteria: [{ criterionId: 'k', points: '3', level: null, comment: 'Say why.' }],
  files: [
    exampleFile({ announced: { passage: 3 } }),
    exampleFile({ role: 'report', aboutHash: 'b'.repeat(64) }),
  ],
  complete: false,
});
const facts: Fact[] = [
  { seq: 1, kind: 'course', value: course },
  { seq: 2, kind: 'assignment', value: assignment },
  { seq: 3, kind: 'attempt', value: exampleAttempt({ outside: true }) },
  { seq: 4, kind: 'marking', value: marking },
  {
    seq: 5,
    kind: 'withdrawal',
    value: { attemptId: marking.attemptId, assignmentId: marking.assignmentId, at: marking.at },
  },
  { seq: 6, kind: 'assignment', value: exampleAssignment({ possible: null, dueAt: null }) },
];

describe('the desk’s record on the wire', () => {
  it.each(facts)('brings fact $seq, a $kind, through unchanged', (fact) => {
    const sent: unknown = JSON.parse(JSON.stringify(wireOfFact(fact, 'ines')));
    expect(factOfWire(sent)).toEqual({ fact });
  });

  it('speaks OneRoster where that has a record', () => {
    expect(wireOfFact(facts[1], 'ines').value).toMatchObject({
      lineItem: {
        title: 'Report',
        dueDate: AT,
        class: { sourcedId: 'c' },
        category: { sourcedId: 'labs' },
        resultValueMax: 12.5,
      },
    });
    expect(wireOfFact(facts[3], 'ines').value).toMatchObject({
      result: { scoreStatus: 'partially graded', score: 11.25, student: { sourcedId: 'ines' } },
    });
    expect(wireOfFact(facts[0], 'ines').value).toMatchObject({
      academicSession: { type: 'term', endDate: '2026-12-18' },
      categories: [{ title: 'Labs', weight: 12.5 }, { title: 'Bonus' }],
    });
  });

  it('names what it can’t read, and where', () => {
    const wrong = { ...wireOfFact(facts[3], 'ines') } as { value: unknown };
    wrong.value = { ...marking, result: { score: 'eleven' }, words: {} };
    expect(factOfWire(wrong)).toMatchObject({ unread: { seq: 4, kind: 'marking' } });
    const problem = factOfWire(wrong);
    expect('unread' in problem ? problem.unread.problem : '').toContain('value.result');
    expect(factOfWire({ seq: 9, kind: 'prize', value: {} })).toMatchObject({
      unread: { seq: 9, kind: 'prize' },
    });
    expect(factOfWire('nonsense')).toMatchObject({ unread: { seq: null, kind: '' } });
    const infinite = { ...wireOfFact(facts[3], 'ines') } as { value: { result: object } };
    infinite.value = { ...infinite.value, result: { ...infinite.value.result, score: 1e21 } };
    expect(factOfWire(infinite)).toMatchObject({ unread: { seq: 4 } });
  });
});
