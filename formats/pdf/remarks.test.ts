import { describe, expect, it } from 'vitest';
import type { Rubric } from '#core/model/facts.ts';
import { paperOf } from '#core/paper/paper.ts';
import type { Mark, MarkedPdf } from './marked-pdf.ts';
import { remarksOfMarkedPdf, type MarkedPaperContext } from './remarks.ts';

const mark = (more: Partial<Mark>): Mark => ({
  sourceId: null,
  kind: 'highlight',
  page: 1,
  rect: [10, 20, 30, 40],
  quads: [[10, 40, 30, 40, 10, 20, 30, 20]],
  quote: { exact: 'wet', prefix: '', suffix: '' },
  text: 'Say why.',
  author: 'Dr Aune Keld',
  at: null,
  color: null,
  subject: null,
  anchor: { from: 0, to: 3, exactly: true },
  ...more,
});
const pdf = (...marks: Mark[]): MarkedPdf => ({
  pages: [],
  paper: paperOf([{ kind: 'paragraph', level: 0, text: 'wet and cold' }]),
  marks,
  unknownKinds: [],
});
const rubric: Rubric = {
  id: 'r' as never,
  title: 'Report',
  criteria: [{ id: 'c-method' as never, title: 'Method', possible: null, levels: [] }],
};
const context: MarkedPaperContext = {
  assignmentId: 'a' as never,
  attemptId: 'attempt' as never,
  markingId: 'm' as never,
  fileHash: '0'.repeat(64) as never,
  marker: { name: 'Dr Aune Keld', role: 'instructor' },
  rubric,
};
const ids = (...marks: Mark[]) =>
  remarksOfMarkedPdf(pdf(...marks), context).remarks.map((r) => r.id as string);

describe('remarks of a marked PDF', () => {
  it('are named by the annotation’s own name, whatever becomes of the file', () => {
    const [first] = ids(mark({ sourceId: 'keld-1', text: 'one', page: 2 }));
    const [again] = ids(mark({ sourceId: 'keld-1', text: 'one, corrected', page: 3 }));
    expect(again).toBe(first);
  });

  it('are named by what and where they are, where the file names none', () => {
    const [a, b, c] = ids(mark({}), mark({ text: 'Say when.' }), mark({ page: 2 }));
    expect(new Set([a, b, c]).size).toBe(3);
    expect(ids(mark({ rect: [10.2, 20.1, 30, 40] }))).toEqual([a]);
  });

  it('keep two equal ones apart', () => {
    expect(new Set(ids(mark({}), mark({}), mark({}))).size).toBe(3);
  });

  it('link to the criterion that their subject names, in any case', () => {
    const { remarks } = remarksOfMarkedPdf(
      pdf(mark({ subject: 'method' }), mark({ subject: 'Highlight' }), mark({})),
      context,
    );
    expect(remarks.map((r) => r.criterionId)).toEqual(['c-method', null, null]);
  });

  it('are the marker’s, unless they name somebody else', () => {
    const { remarks } = remarksOfMarkedPdf(
      pdf(mark({}), mark({ author: '' }), mark({ author: 'P. Wray' })),
      context,
    );
    expect(remarks.map((r) => r.author.name)).toEqual(['Dr Aune Keld', 'Dr Aune Keld', 'P. Wray']);
  });

  it('hang on a point where they hang on no words, and say where they are near', () => {
    const near = { from: 0, to: 12, exactly: false };
    const { remarks, anchors } = remarksOfMarkedPdf(
      pdf(mark({ quote: null, anchor: near }), mark({ anchor: null })),
      context,
    );
    expect(remarks[0].target).toEqual({ kind: 'point', page: 1, rect: [10, 20, 30, 40] });
    expect(anchors).toEqual({ [remarks[0].id]: near });
  });

  it('may be marks without words', () => {
    expect(remarksOfMarkedPdf(pdf(mark({ text: '' })), context).remarks[0].text).toBe('');
  });
});
