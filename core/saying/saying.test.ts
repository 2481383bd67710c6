import { describe, expect, it } from 'vitest';
import { exampleRemark, wordsTarget } from '../model/example.ts';
import { paperOf } from '../paper/paper.ts';
import { abbreviationsOf } from './abbreviations.ts';
import { placesNamed } from './places.ts';
import { suggestedWording } from './wording.ts';

describe('suggested wording', () => {
  const of = (text: string, kind = 'highlight', exact = 'utilise the probe') =>
    suggestedWording(exampleRemark({ text, kind, targets: [wordsTarget(exact)] }));

  it.each([
    ['Use “use” instead of “utilise”.', 'utilise', 'use', 'likely'],
    ['Replace "a lot of" with "fourteen".', 'a lot of', 'fourteen', 'likely'],
    ['“Effect” should be “affect”', 'Effect', 'affect', 'likely'],
    ['its, not it’s', null, null, null],
    ['use rather than utilise', 'utilise', 'use', 'likely'],
    ['Should read: “use the probe”', 'utilise the probe', 'use the probe', 'likely'],
    ['Explain why you left well 7 out.', null, null, null],
  ])('is read from %j', (text, before, after, confidence) => {
    expect(of(text)).toEqual(before === null ? null : { before, after, confidence });
  });

  it('is a short note on struck words, with less confidence', () => {
    expect(of('use the probe', 'strikeout')).toEqual({
      before: 'utilise the probe',
      after: 'use the probe',
      confidence: 'perhaps',
    });
    expect(of('Why this?', 'strikeout')).toBeNull();
    expect(of('Cut.', 'strikeout')).toMatchObject({ after: '', confidence: 'likely' });
    expect(of('', 'strikeout')).toMatchObject({ after: '', confidence: 'likely' });
  });

  it('is sure only where the mark itself is a change', () => {
    const change = { kind: 'insertion', before: '', after: 'mean ' };
    expect(suggestedWording(exampleRemark({ text: '', kind: 'insertion', change }))).toEqual({
      before: '',
      after: 'mean ',
      confidence: 'sure',
    });
    const moved = { kind: 'move', before: 'x', after: 'x' };
    expect(suggestedWording(exampleRemark({ change: moved }))).toBeNull();
  });
});

describe('places named in words', () => {
  const paper = paperOf([
    { kind: 'heading', level: 1, text: 'Rewetting Skarn Moss' },
    { kind: 'paragraph', level: 0, text: 'The ditches were blocked in March, and the water rose.' },
    { kind: 'heading', level: 2, text: 'Method' },
    { kind: 'paragraph', level: 0, text: 'We read twelve wells twice a week. The water rose.' },
    { kind: 'heading', level: 2, text: 'Discussion' },
    { kind: 'paragraph', level: 0, text: 'A wet summer would have done the same.' },
  ]);
  const words = (text: string) =>
    placesNamed(text, paper, 6).map(({ span, page }) =>
      span === null ? page : paper.text.slice(span.from, span.to),
    );

  it('are found in the paper', () => {
    expect(words('The second paragraph is thin.')).toEqual([paper.blocks[3].text]);
    expect(words('Your last paragraph says it best.')).toEqual([paper.blocks[5].text]);
    expect(words('In paragraph 1 you say the opposite.')).toEqual([paper.blocks[1].text]);
    expect(words('Section 2 comes too early.')).toEqual(['Discussion']);
    expect(words('More detail in the Method, please.')).toEqual(['Method']);
    expect(words('You say “twelve wells twice a week”: which?')).toEqual(['twelve wells twice a week']);
    expect(words('See page 4, and p. 5.')).toEqual([4, 5]);
  });

  it('are left out where they are not there, or stand there twice', () => {
    expect(words('The ninth paragraph; page 12; “no such words here”.')).toEqual([]);
    expect(words('“water rose” is said twice.')).toEqual([]);
    expect(words('A good piece of work.')).toEqual([]);
  });
});

describe('abbreviations', () => {
  const remark = (id: string, text: string, name = 'Pascoe Wray') =>
    exampleRemark({ id, text, author: { name, role: 'instructor' } });

  it('are short marks that repeat in one hand and are no words', () => {
    const found = abbreviationsOf([
      remark('1', 'awk'),
      remark('2', 'frag.'),
      remark('3', 'Frag: no verb'),
      remark('4', 'Yes'),
      remark('5', 'Yes'),
      remark('6', 'sp'),
      remark('7', 'sp', 'Lindiwe Strand'),
      remark('8', 'MS'),
      remark('9', 'MS'),
    ]);
    expect(found.map(({ written, remarkIds }) => [written, remarkIds])).toEqual([
      ['frag.', ['2', '3']],
      ['MS', ['8', '9']],
    ]);
  });
});
