import { describe, expect, it } from 'vitest';
import { recordsIn } from '#core/assignment/records.ts';
import {
  exampleAssignment,
  exampleJudgement,
  exampleRemark,
  exampleRubric,
  wordsTarget,
} from '#core/model/example.ts';
import type { Remark } from '#core/model/remark.ts';
import { viewOf, type AssignmentView } from '#core/assignment/view.ts';
import { emptyRecords } from '../../workspace/storage/records.ts';
import { groupsBy, passes } from './filter.ts';

const remarks = [
  exampleRemark({ id: 'x', criterionId: 'c-1', color: '#ffcc00', targets: [wordsTarget('here', 2)] }),
  exampleRemark({ id: 'y', criterionId: 'c-2', targets: [wordsTarget('there', 10)] }),
  exampleRemark({
    id: 'z',
    author: { name: 'Joss Amble', role: 'peer' },
    targets: [wordsTarget('again', 2)],
  }),
];

function view(): AssignmentView {
  const records = {
    ...emptyRecords(),
    assignments: new Map([['a', exampleAssignment({ rubricId: 'r' })]]),
    rubrics: new Map([['r', exampleRubric([{ title: 'Aim' }, { title: 'Way' }])]]),
    remarks: new Map(remarks.map((remark): [string, Remark] => [remark.id, remark])),
    judgements: new Map([
      ['x', exampleJudgement('x', { decision: 'act' })],
      ['y', exampleJudgement('y', { carry: true })],
    ]),
  };
  const found = viewOf(recordsIn(records), 'a', 0);
  if (found === null) throw new Error('no view');
  return found;
}
const groups = (field: Parameters<typeof groupsBy>[2]) =>
  groupsBy(view(), remarks, field).map(({ label, remarks: own }) => [label, own.length]);

describe('remarks in groups', () => {
  it('stand by page and criterion in their order, by others the most first, each with its count', () => {
    expect(groups('page')).toEqual([
      ['page 2', 2],
      ['page 10', 1],
    ]);
    expect(groups('criterion')).toEqual([
      ['Aim', 1],
      ['Way', 1],
      ['on no criterion', 1],
    ]);
    expect(groups('channel')).toEqual([['In the paper', 3]]);
    expect(groups('author')).toEqual([
      ['Dr Aune Keld, instructor', 2],
      ['Joss Amble, peer', 1],
    ]);
    expect(groups('color')).toEqual([
      ['without a colour', 2],
      ['amber', 1],
    ]);
    expect(groups('decision')).toEqual([
      ['Act', 1],
      ['Carry', 1],
      ['undecided', 1],
    ]);
    expect(groups('read')).toEqual([['not read yet', 3]]);
  });
});

describe('a filter', () => {
  it('lets through what has all that it wants, and everything where it wants nothing', () => {
    const left = (filter: Record<string, string>) =>
      remarks.filter((remark) => passes(view(), remark, filter)).map(({ id }) => id);
    expect(left({})).toEqual(['x', 'y', 'z']);
    expect(left({ page: '2' })).toEqual(['x', 'z']);
    expect(left({ page: '2', decision: 'act' })).toEqual(['x']);
    expect(left({ criterion: '' })).toEqual(['z']);
    expect(left({ page: '3' })).toEqual([]);
    expect(left({ author: 'Joss Amble\npeer' })).toEqual(['z']);
    expect(left({ words: 'THERE say' })).toEqual(['y']);
    expect(left({ words: 'joss why' })).toEqual(['z']);
  });
});
