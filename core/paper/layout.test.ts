import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { layoutMap, paperOfLayout, type Layout, type LayoutChange } from './layout.ts';

/** A layout of paragraphs in which [words put in] and {words taken out} are changes. */
function layoutOf(...paragraphs: string[]): Layout {
  let text = '';
  const blocks: Layout['blocks'][number][] = [];
  const changes: LayoutChange[] = [];
  for (const paragraph of paragraphs) {
    if (text !== '') text += '\n';
    const from = text.length;
    for (const part of paragraph.split(/(\[[^\]]*\]|\{[^}]*\})/)) {
      const start = text.length;
      const kind = part.startsWith('[') ? 'insertion' : part.startsWith('{') ? 'deletion' : null;
      text += kind === null ? part : part.slice(1, -1);
      if (kind !== null) changes.push({ kind, moved: false, from: start, to: text.length });
    }
    blocks.push({
      kind: 'paragraph',
      level: 0,
      ordered: false,
      from,
      to: text.length,
      styles: [],
      cell: null,
      picture: null,
    });
  }
  return { text, blocks, changes, pictures: [], notes: [] };
}

describe('a changed paper', () => {
  const layout = layoutOf(
    'The {old }bog [still ]holds {a lot of} water.',
    '{All of this went.}',
    'It [rained.]',
  );

  it('reads with its changes, and as it read before', () => {
    expect(paperOfLayout(layout, 'accepted').text).toBe('The bog still holds water.\nIt rained.');
    expect(paperOfLayout(layout, 'original').text).toBe(
      'The old bog holds a lot of water.\nAll of this went.\nIt',
    );
  });

  it('knows where words of the paper are in it, and where its words are in the paper', () => {
    const paper = paperOfLayout(layout, 'accepted');
    const map = layoutMap(layout, paper);
    const span = (text: string, words: string) => ({
      from: text.indexOf(words),
      to: text.indexOf(words) + words.length,
    });
    expect(map.toLayout(span(paper.text, 'still'))).toEqual(span(layout.text, 'still'));
    expect(map.toPaper(span(layout.text, 'rained.'))).toEqual(span(paper.text, 'rained.'));
    const gone = map.toPaper(span(layout.text, 'a lot of'));
    expect(gone.from).toBe(gone.to);
    expect(paper.text.slice(0, gone.from)).toBe('The bog still holds');
  });

  it('brings any words there and back', () => {
    const word = fc.constantFrom('peat', 'moss', '[new]', '{old}', '[wet peat]', '{dry}');
    const paragraph = fc.array(word, { minLength: 1, maxLength: 8 }).map((words) => words.join(' '));
    fc.assert(
      fc.property(fc.array(paragraph, { minLength: 1, maxLength: 4 }), fc.nat(), (paragraphs, seed) => {
        const any = layoutOf(...paragraphs);
        const paper = paperOfLayout(any, 'accepted');
        const map = layoutMap(any, paper);
        const words = [...paper.text.matchAll(/\S+/g)];
        if (words.length === 0) return;
        const { index, 0: found } = words[seed % words.length];
        const span = { from: index, to: index + found.length };
        const there = map.toLayout(span);
        expect(any.text.slice(there.from, there.to).replace(/\s+/g, ' ')).toContain(found);
        expect(map.toPaper(there)).toEqual(span);
      }),
    );
  });

  it('stays in step where a character comes in pieces, also across a change', () => {
    const any = layoutOf('Cafe\u0301 {e}\u0301t\u00e9 of\ufb01ce', 'bog');
    const paper = paperOfLayout(any, 'accepted');
    expect(paper.text.split('\n')[1]).toBe('bog');
    const map = layoutMap(any, paper);
    const at = paper.text.indexOf('bog');
    expect(map.toLayout({ from: at, to: at + 3 })).toEqual({
      from: any.text.indexOf('bog'),
      to: any.text.length,
    });
    expect(map.toPaper({ from: 0, to: 5 })).toEqual({ from: 0, to: 4 });
  });
});
