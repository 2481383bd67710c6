import { describe, expect, it } from 'vitest';
import { exampleRubric } from '#core/model/example.ts';
import type { Target } from '#core/model/remark.ts';
import type { Mark } from './marked-paper.ts';
import { channelOn, remarksOfMarks, type MarkContext } from './remarks.ts';

const words: Target = {
  kind: 'words',
  page: 1,
  quads: [[10, 40, 30, 40, 10, 20, 30, 20]],
  rect: [10, 20, 30, 40],
  quote: { exact: 'wet', prefix: '', suffix: '' },
};
const note: Target = { kind: 'point', page: 1, rect: [10, 20, 30, 40], shape: [], drawn: false };
const mark = (more: Partial<Mark>): Mark => ({
  sourceId: null,
  kind: 'highlight',
  author: 'Dr Aune Keld',
  byMachine: false,
  at: null,
  color: null,
  text: 'Say why.',
  subject: null,
  targets: [words],
  anchor: { from: 0, to: 3, exactly: true },
  replies: [],
  state: null,
  change: null,
  ...more,
});
const rubric = exampleRubric([{ id: 'c-method', title: 'Method' }]);
const context: MarkContext = {
  assignmentId: 'a' as never,
  attemptId: 'attempt' as never,
  markingId: 'm' as never,
  fileHash: '0'.repeat(64) as never,
  paperHash: '0'.repeat(64) as never,
  marker: { name: 'Dr Aune Keld', role: 'instructor' },
  channel: 'passage',
  people: [{ name: 'Joss Amble', role: 'peer' }],
  rubric,
};
const ids = (...marks: Mark[]) => remarksOfMarks(marks, context).remarks.map((r) => r.id as string);

describe('remarks of a marked PDF', () => {
  it('are named by the annotation’s own name, whatever becomes of the file', () => {
    const [first] = ids(mark({ sourceId: 'keld-1', text: 'one' }));
    const [again] = ids(
      mark({ sourceId: 'keld-1', text: 'one, corrected', targets: [{ ...words, page: 3 }] }),
    );
    expect(again).toBe(first);
  });

  it('are named by what and where they are, where the file names none', () => {
    const [a, b, c] = ids(mark({}), mark({ text: 'Say when.' }), mark({ targets: [{ ...words, page: 2 }] }));
    expect(new Set([a, b, c]).size).toBe(3);
    expect(ids(mark({ targets: [{ ...words, rect: [10.2, 20.1, 30, 40] }] }))).toEqual([a]);
  });

  it('keep two equal ones apart', () => {
    expect(new Set(ids(mark({}), mark({}), mark({}))).size).toBe(3);
  });

  it('link to the criterion that their subject names, in any case', () => {
    const { remarks } = remarksOfMarks(
      [mark({ subject: 'method' }), mark({ subject: 'Highlight' }), mark({})],
      context,
    );
    expect(remarks.map((r) => r.criterionId)).toEqual(['c-method', null, null]);
  });

  it('are the marker’s, unless they name somebody else', () => {
    const { remarks } = remarksOfMarks(
      [mark({}), mark({ author: '' }), mark({ author: 'P. Wray' })],
      context,
    );
    expect(remarks.map((r) => r.author.name)).toEqual(['Dr Aune Keld', 'Dr Aune Keld', 'P. Wray']);
  });

  it('hang on a point where they hang on no words, and say where they are near', () => {
    const near = { from: 0, to: 12, exactly: false };
    const { remarks, anchors } = remarksOfMarks(
      [mark({ targets: [note], anchor: near }), mark({ anchor: null })],
      context,
    );
    expect(remarks[0].targets).toEqual([note]);
    expect(anchors).toEqual({ [remarks[0].id]: near });
  });

  it('may be marks without words', () => {
    expect(remarksOfMarks([mark({ text: '' })], context).remarks[0].text).toBe('');
  });

  it('are in the channel of what they are on, and a machine’s where a machine wrote them', () => {
    const onMedia = ['image/png', 'audio/mpeg', 'application/pdf', 'text/plain'].map((type) =>
      channelOn(type, null),
    );
    expect(onMedia).toEqual(['region', 'recording', 'passage', 'passage']);
    const byRole = (['quiz', 'posts', 'report', 'marked'] as const).map((role) =>
      channelOn('application/pdf', role),
    );
    expect(byRole).toEqual(['question', 'post', 'overlap', 'passage']);
    const [peer] = remarksOfMarks([mark({ author: 'Joss Amble' })], context).remarks;
    expect(peer.author).toEqual({ name: 'Joss Amble', role: 'peer' });
    const [remark] = remarksOfMarks([mark({ byMachine: true, author: 'Spell checker' })], {
      ...context,
      channel: 'region',
    }).remarks;
    expect([remark.channel, remark.author.role]).toEqual(['region', 'machine']);
  });
});
