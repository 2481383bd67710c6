import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { paperOf } from '../paper/paper.ts';
import { answerFinderOf, type Sought } from './find.ts';
import { LIKELY } from './propose.ts';

const LINES = [
  '# The gauge',
  'The gauge was read each morning. It stood on a post beside the weir. The post leaned after the frost.',
  'Two readings were left out. Nobody knows why the float stuck.',
  '# The bed',
  'Gravel covers the bed of the stream. It was sieved by hand into five sizes.',
  'The largest stones came from the bank. A flood had undercut it.',
];
const paper = (lines: readonly string[]) =>
  paperOf(
    lines.map((line) =>
      line.startsWith('# ')
        ? { kind: 'heading', level: 1, text: line.slice(2) }
        : { kind: 'paragraph', level: 0, text: line },
    ),
  );
const OLD = paper(LINES);
const edited = (find: string, put: string) => paper(LINES.map((line) => line.replace(find, put)));

const remark = (id: string, text: string, ...about: string[]): Sought => ({
  id,
  text,
  calls: true,
  passages: about.map((words) => {
    const from = OLD.text.indexOf(words);
    if (from < 0) throw new Error(`no “${words}”`);
    return { from, to: from + words.length };
  }),
});
const proposed = (newer: ReturnType<typeof paper>, ...remarks: Sought[]) => {
  const found = answerFinderOf(OLD).find(newer, remarks);
  return remarks.map(({ id }) =>
    (found.get(id)?.proposals ?? []).map(({ places, where, likely }) => ({
      words: places.map(({ from, to }) => newer.text.slice(from, to)),
      where,
      isLikely: likely >= LIKELY,
    })),
  );
};

describe('what may answer a remark', () => {
  it('is nothing in a text that is the same', () => {
    expect(proposed(OLD, remark('a', 'Which one?', 'the float'))).toEqual([[]]);
  });

  it('is what its words became, before all else', () => {
    const newer = edited('by hand into five sizes', 'with a shaker into seven sizes');
    const [[first]] = proposed(newer, remark('a', 'How?', 'by hand into five sizes'));
    expect(first).toMatchObject({ where: 'in its words', isLikely: true });
    expect(first.words[0]).toContain('with a shaker into seven');
  });

  it('is the gap that its words left', () => {
    const newer = edited(' Nobody knows why the float stuck.', '');
    const [[first]] = proposed(newer, remark('a', 'Cut this.', 'Nobody knows why the float stuck.'));
    expect(first).toEqual({ words: [''], where: 'in its words', isLikely: true });
  });

  it('is a sentence behind the one that it is about', () => {
    const newer = edited('were left out.', 'were left out. They were those of the 3rd and the 9th.');
    const [[first]] = proposed(newer, remark('a', 'Which?', 'Two readings were left out'));
    expect(first).toEqual({
      words: ['They were those of the 3rd and the 9th.'],
      where: 'beside it',
      isLikely: true,
    });
  });

  it('is far away where rare words are shared', () => {
    const newer = edited(
      'undercut it.',
      'undercut it. The post had been straightened with a spirit level after the frost.',
    );
    const [[first]] = proposed(
      newer,
      remark('a', 'Did you put the post straight again?', 'leaned after the frost'),
    );
    expect(first.where).toBe('elsewhere');
    expect(first.words[0]).toContain('spirit level');
  });

  it('belongs to the remark that has more of a claim to it', () => {
    const newer = edited('beside the weir.', 'beside the weir. A carpenter had set it in concrete.');
    const [near, far] = proposed(
      newer,
      remark('near', 'How was it set?', 'It stood on a post beside the weir.'),
      remark('far', 'Who put it there?', 'The gauge was read each morning.'),
    );
    expect(near[0].isLikely).toBe(true);
    expect(far.some(({ isLikely }) => isLikely)).toBe(false);
  });

  it('is each of two circled passages together, and all places of what is asked for throughout', () => {
    const lines = LINES.map((line) =>
      line.replace('each morning', 'at seven').replace('five sizes', '5 sizes'),
    );
    const [[both]] = proposed(paper(lines), remark('a', 'Say it in figures.', 'each morning', 'five sizes'));
    expect(both.words).toEqual(['at seven', '5 sizes']);
  });

  it('comes out the same from a finder that has seen other texts, in any order of the remarks', () => {
    const texts = [
      OLD,
      edited('by hand', 'with a shaker'),
      edited('were left out.', 'were left out. They were high.'),
      edited('A flood had', 'The frost had'),
    ];
    const remarks = [
      remark('a', 'How?', 'by hand into five sizes'),
      remark('b', 'Which?', 'Two readings were left out'),
      remark('c', 'Did the frost do it?'),
    ];
    fc.assert(
      fc.property(
        fc.array(fc.constantFrom(...texts), { minLength: 1, maxLength: 5 }),
        fc.shuffledSubarray(remarks, { minLength: 3, maxLength: 3 }),
        (versions, order) => {
          const finder = answerFinderOf(OLD);
          for (const version of versions) {
            const live = finder.find(version, order);
            const afresh = answerFinderOf(OLD).find(version, remarks);
            for (const { id } of remarks) expect(live.get(id)).toEqual(afresh.get(id));
          }
        },
      ),
      { numRuns: 40 },
    );
  });
});
