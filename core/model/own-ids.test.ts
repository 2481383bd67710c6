import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { asId, AssignmentId, CriterionId, LONGEST_ID, MarkingId, PartId, RemarkId } from './ids.ts';
import {
  addsUpQueryId,
  criterionRemarkId,
  draftIdOf,
  onlyAttemptId,
  overallRemarkId,
  ownAssignmentId,
  ownRubricId,
  promiseIdOf,
  queryIdOf,
  scoreReadingId,
  taskIdOf,
  typedMarkingId,
  unexplainedQueryId,
} from './own-ids.ts';

const makers: Readonly<Record<string, (id: string) => string>> = {
  overall: (id) => overallRemarkId(asId(MarkingId, id)),
  criterion: (id) => criterionRemarkId(asId(MarkingId, 'm'), asId(CriterionId, id)),
  score: (id) => scoreReadingId(asId(MarkingId, id)),
  promise: (id) => promiseIdOf(asId(RemarkId, id)),
  task: (id) => taskIdOf(asId(RemarkId, id), null),
  'task of a part': (id) => taskIdOf(asId(RemarkId, id), asId(PartId, 'p')),
  query: (id) => queryIdOf(asId(RemarkId, id)),
  'promise asked about': (id) => queryIdOf(promiseIdOf(asId(RemarkId, id))),
  'adds up': (id) => addsUpQueryId(asId(AssignmentId, id)),
  unexplained: (id) => unexplainedQueryId(asId(AssignmentId, id), id),
  rubric: (id) => ownRubricId(asId(AssignmentId, id)),
  draft: (id) => draftIdOf(asId(AssignmentId, id), 2),
  attempt: (id) => onlyAttemptId(asId(AssignmentId, id)),
  marking: (id) => typedMarkingId(onlyAttemptId(asId(AssignmentId, id))),
  assignment: (id) => ownAssignmentId('hand/course', id),
};

describe('an id that is made', () => {
  it.each(Object.entries(makers))(
    '%s: is one for ids as long as the school may send, one for each',
    (_, make) => {
      const id = fc.string({ minLength: 1, maxLength: LONGEST_ID });
      fc.assert(
        fc.property(id, id, (x, y) => {
          expect(make(x).length).toBeLessThanOrEqual(LONGEST_ID);
          expect(make(x) === make(y)).toBe(x === y);
        }),
      );
      // Long ones that differ at their end alone.
      const long = 'x'.repeat(LONGEST_ID - 1);
      expect(make(`${long}1`)).not.toBe(make(`${long}2`));
    },
  );

  it('is spelled as it always was, so that what is stored is found', () => {
    const remark = asId(RemarkId, 'm-1/overall');
    expect([
      overallRemarkId(asId(MarkingId, 'm-1')),
      taskIdOf(remark, null),
      queryIdOf(remark),
      promiseIdOf(remark),
      unexplainedQueryId(asId(AssignmentId, 'a'), null),
      onlyAttemptId(asId(AssignmentId, 'own/abc')),
    ]).toEqual([
      'm-1/overall',
      'task/m-1/overall',
      'query/m-1/overall',
      'promise/m-1/overall',
      'query/a/unexplained/whole',
      'own/abc/attempt-1',
    ]);
  });
});
