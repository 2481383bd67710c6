import fc from 'fast-check';
import { expect, it } from 'vitest';
import * as v from 'valibot';
import { inReadingOrder, Remark } from './remark.ts';

interface Given {
  readonly page: number | null;
  readonly top: number;
  readonly left: number;
  readonly textAt: number | null;
}

const remarkAt = ({ page, top, left, textAt }: Given, order: number): Remark =>
  v.parse(Remark, {
    id: `remark-${order}`,
    assignmentId: 'report',
    attemptId: 'report/1',
    markingId: 'report/1/m',
    channel: 'passage',
    author: { name: 'Dr Aune Keld', role: 'instructor' },
    at: null,
    kind: 'highlight',
    color: null,
    text: 'Which well?',
    criterionId: null,
    targets: [
      {
        kind: 'words',
        page,
        quads: [],
        rect: page === null ? null : [left, top - 10, left + 80, top],
        quote: { exact: 'well', prefix: '', suffix: '' },
      },
    ],
    replies: [],
    state: null,
    change: null,
    order,
    textAt,
    fileHash: null,
    paperHash: null,
  });

const texts = (remarks: readonly Remark[]) => inReadingOrder(remarks).map(({ textAt }) => textAt);

it('reads one column after the other, and by height where the text does not tell of all', () => {
  const columns = [
    { page: 1, top: 700, left: 50, textAt: 10 },
    { page: 1, top: 700, left: 300, textAt: 900 },
    { page: 1, top: 300, left: 50, textAt: 400 },
    { page: 1, top: 320, left: 300, textAt: 1200 },
    { page: 2, top: 760, left: 50, textAt: 2000 },
  ];
  expect(texts(columns.map(remarkAt))).toEqual([10, 400, 900, 1200, 2000]);
  const oneUnknown = [...columns, { page: 1, top: 500, left: 50, textAt: null }];
  expect(texts(oneUnknown.map(remarkAt))).toEqual([10, 900, null, 1200, 400, 2000]);
  const oneElsewhere = [...columns, { page: 2, top: 500, left: 50, textAt: null }];
  expect(texts(oneElsewhere.map(remarkAt))).toEqual([10, 400, 900, 1200, 2000, null]);
});

it('keeps the order of the file for a paper without pages', () => {
  const given = [7, 3, null, 5].map((textAt) => ({ page: null, top: 0, left: 0, textAt }));
  expect(texts(given.map(remarkAt))).toEqual([7, 3, null, 5]);
});

it('gives the same order however the remarks are given', () => {
  const given = fc.record({
    page: fc.option(fc.integer({ min: 1, max: 3 })),
    top: fc.constantFrom(100, 200, 300),
    left: fc.constantFrom(50, 300),
    textAt: fc.option(fc.integer({ min: 0, max: 20 }), { freq: 12 }),
  });
  fc.assert(
    fc.property(
      fc.array(given, { maxLength: 14 }).chain((list) => {
        const remarks = list.map(remarkAt);
        return fc.tuple(
          fc.constant(remarks),
          fc.shuffledSubarray(remarks, { minLength: remarks.length, maxLength: remarks.length }),
        );
      }),
      ([remarks, shuffled]) => {
        expect(inReadingOrder(shuffled)).toEqual(inReadingOrder(remarks));
      },
    ),
  );
});
