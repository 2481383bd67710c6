import { describe, expect, it } from 'vitest';
import markingRules from '#demo/marking-rules.json' with { type: 'json' };
import report from '#demo/papers/skarn-moss-report.md?raw';
import { sentencesOf } from './sentences.ts';
import { textJudgeFor } from './soundness.ts';

const judge = textJudgeFor(report, { ...markingRules.text, sample: '' });
const sound = (text: string) => sentencesOf(text).every((sentence) => judge.isSound(sentence));

describe('sentences', () => {
  it('end at full stops, not at figures, initials or colons', () => {
    const text = 'The mean was 96.5 mm. A. Keld read it: twice! Hask et al. agree? Yes (2018).';
    expect(sentencesOf(text).map((s) => s.text)).toEqual([
      'The mean was 96.5 mm.',
      'A. Keld read it: twice!',
      'Hask et al. agree?',
      'Yes (2018).',
    ]);
  });

  it('take headings for themselves, and know where they stand', () => {
    const text = '2 Method\nTwelve wells were read. “Why?” she asked.';
    const sentences = sentencesOf(text);
    expect(sentences.map((s) => s.text)).toEqual([
      '2 Method',
      'Twelve wells were read.',
      '“Why?” she asked.',
    ]);
    for (const { from, to, text: own } of sentences) expect(text.slice(from, to).trim()).toBe(own);
  });

  it('of nothing are none', () => {
    expect(sentencesOf('')).toEqual([]);
    expect(sentencesOf(' \n ')).toEqual([]);
  });
});

describe('what is a sentence', () => {
  it.each([
    'The wells show that the water table rose, but a wet summer may have raised it as well.',
    'Hask, Oddie and Venn (2018) report rises of 90 to 140 mm in the first season.',
    'No statistical test was done.',
    'Well S4 showed nearly no change.',
  ])('is one: %s', (text) => expect(sound(text)).toBe(true));

  it.each([
    'wells the show that water the table rose but.',
    'The of wells show the and water table rose.',
    'Control, rainfall, season, test, summer, winter, transect, figures, sources, limits.',
    'The water table rose because of the',
    'Rain summer winter weather season control transect cause other.',
  ])('is none: %s', (text) => expect(sound(text)).toBe(false));

  it('every sentence of the report itself is one', () => {
    const paragraphs = report.split('\n').filter((line) => line !== '' && !line.startsWith('#'));
    const unsound = sentencesOf(paragraphs.slice(1, -4).join('\n')).filter((s) => !judge.isSound(s));
    expect(unsound.map((s) => s.text)).toEqual([]);
  });
});

describe('the new text as a whole', () => {
  const fault = (text: string) => judge.faultOf(sentencesOf(text));

  it('has no fault where nothing is new, or what is new reads well', () => {
    expect(fault(report.replaceAll('#', ''))).toBeNull();
    expect(
      fault('The wet summer could explain a part of the rise as well. One season is not enough to decide.'),
    ).toBeNull();
  });

  it('is repeated where sentences stand twice', () => {
    const one = 'The wet summer could explain a part of the rise as well.';
    expect(fault(`${one} ${one}`)).toBe('repeated');
  });

  it('is unreadable where most of it is no sentence', () => {
    expect(
      fault('The of wells the show and water the table rose. Rain the summer of the and winter by the.'),
    ).toBe('unreadable');
  });
});
