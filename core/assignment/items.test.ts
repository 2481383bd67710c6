import { expect, it } from 'vitest';
import type { AssignmentView } from './view.ts';
import { itemRows, WHOLE_ITEM } from './items.ts';
import { exampleAssignment } from '../model/example.ts';
import { fromDecimal } from '../scores/fraction.ts';
import type { DecimalString } from '../model/ids.ts';

const decimal = (text: string) => text as DecimalString;
const criterion = (id: string, possible: string) => ({
  id,
  title: id,
  description: '',
  possible: decimal(possible),
  weight: null,
  levels: [],
});

/** Of a view only what the rows are made of. */
const viewOf = (given: object): AssignmentView =>
  ({
    assignment: exampleAssignment({ title: 'Lab', brief: 'Read six wells.', possible: decimal('10') }),
    rubric: null,
    attempts: [],
    draft: null,
    criteria: [],
    remarks: [],
    score: null,
    ...given,
  }) as unknown as AssignmentView;

it('those that lost points come first, each with its old and its new answer', () => {
  const attempts = [
    { attempt: { id: 'a', items: { rim: '31 cm', depth: '62 cm' } }, marking: null, withdrawn: null },
  ];
  const rows = itemRows(
    viewOf({
      rubric: { criteria: [criterion('rim', '5'), criterion('depth', '5')] },
      attempts,
      criteria: [
        { criterion: { id: 'rim' }, got: fromDecimal(decimal('5')), possible: fromDecimal(decimal('5')) },
        { criterion: { id: 'depth' }, got: fromDecimal(decimal('1')), possible: fromDecimal(decimal('5')) },
      ],
      draft: { items: { depth: '62 mm' } },
    }),
  );
  expect(rows.map(({ item, before, answer, lost }) => [item.id, before, answer, lost])).toEqual([
    ['depth', '62 cm', '62 mm', true],
    ['rim', '31 cm', '', false],
  ]);
});

it('an activity without items is answered as a whole, with everything that was said', () => {
  const remarks = [{ id: 'r', criterionId: null }];
  const [row, ...more] = itemRows(
    viewOf({ remarks, score: fromDecimal(decimal('7')), draft: { items: { [WHOLE_ITEM]: 'All anew.' } } }),
  );
  expect(more).toEqual([]);
  expect(row).toMatchObject({ answer: 'All anew.', before: '', lost: true, remarks });
  expect(row.item).toMatchObject({ title: 'Lab', description: 'Read six wells.' });
});
