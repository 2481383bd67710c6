import { describe, expect, it } from 'vitest';
import { paperOf } from '../paper/paper.ts';
import { squeeze } from '../text/squeeze.ts';
import { locateQuote, locateQuoteSurely } from './locate.ts';
import { followPassages, type OutcomeKind } from './outcome.ts';

/** A paper of one paragraph, and the span that square brackets mark in it; lines are paragraphs. */
function marked(text: string) {
  const from = text.indexOf('[');
  const to = text.indexOf(']') - 1;
  const bare = text.replace('[', '').replace(']', '');
  const paper = paperOf(bare.split('\n').map((one) => ({ kind: 'paragraph' as const, level: 0, text: one })));
  expect(paper.text).toBe(bare);
  return { paper, span: { from, to } };
}

function followed(older: string, newer: string) {
  const before = marked(older);
  const { paper, span } = marked(newer);
  const [{ kind, place, kept, confidence }] = followPassages(before.paper, paper, [before.span]);
  return { kind, place, kept, confidence, expected: span };
}

const words = (start: string, count: number) =>
  Array.from({ length: count }, (_, n) => `${start}${n}`).join(' ');
const SENTENCE = 'Ash elm oak fir yew box.';
const OTHER = 'Rye oat fig pea nut hop.';

const cases: readonly (readonly [string, string, string, OutcomeKind, number, number])[] = [
  [
    'words that stand, with their marks',
    'one [two, three] four',
    'zero one [two, three] four',
    'added to',
    1,
    1,
  ],
  ['quotation marks that stand', 'one [“two three”] four', 'no one [“two three”] four', 'added to', 1, 1],
  ['a mark lost before the words', 'one [“two three”] four', 'one “[two three] four', 'reworded', 1, 1],
  ['a mark lost after the words', 'one [two three;] four', 'one [two three] four', 'reworded', 1, 1],
  ['a mark changed after the words', 'one [two three;] four', 'one [two three], four', 'reworded', 1, 1],
  ['the last words of a text', 'one [two three]', 'no one [two three]', 'added to', 1, 1],
  ['a capital', 'one [two three] four', 'one [Two three] four', 'reworded', 1, 1],
  ['a word put in within', 'one [two three] four', 'one [two new three] four', 'reworded', 1, 1],
  [
    'words put in right before and after',
    'one [two three] four',
    'one new [two three] new four',
    'added to',
    1,
    1,
  ],
  ['a word changed beside them', 'one [two three] four five', 'one [two three] new five', 'untouched', 1, 1],
  [
    'changes before and after that leave them out',
    'one two [three four five] six seven',
    'one new [three new five] new seven',
    'reworded',
    2 / 3,
    5 / 6,
  ],
  [
    'a word put in before what was reworded',
    'one [two three four] five',
    'one new [two new four] five',
    'reworded',
    2 / 3,
    5 / 6,
  ],
  [
    'a word put in after what was reworded',
    'one [two three four] five',
    'one [two new four] new five',
    'reworded',
    2 / 3,
    5 / 6,
  ],
  ['a word taken out within', 'one [two three four] five', 'one [two four] five', 'reworded', 2 / 3, 5 / 6],
  [
    'the last word changed',
    'one [two three four five] six',
    'one [two three four new] six',
    'reworded',
    0.75,
    0.875,
  ],
  [
    'the first word changed',
    '[one two three four] five',
    '[new two three four] five',
    'reworded',
    0.75,
    0.875,
  ],
  ['a quarter kept', 'no [two three four five] six', 'no [two a b c] six', 'reworded', 0.25, 0.625],
  [
    'less than a quarter kept',
    'no [one two three four five] six',
    'no [one a b c d] six',
    'reworded',
    0.2,
    0.5,
  ],
  ['all taken out', 'one [two three] four five', 'one[] four five', 'gone', 0, 1],
  ['all taken out at the start', '[one two] three four', '[]three four', 'gone', 0, 1],
  ['all taken out at the end', 'one two [three four]', 'one two[]', 'gone', 0, 1],
  ['five words for one', 'no [one two three four five] six', 'no [a] six', 'gone', 0, 0.7],
  ['four words for one', 'no [one two three four] six', 'no [a] six', 'reworded', 0, 0.5],
  ['one of many words replaced by one', `no ${words('a', 4)} [five] six`, 'no [new] six', 'gone', 0, 0.7],
  ['one of two words replaced by one', 'no one [five] six', 'no [new] six', 'reworded', 0, 0.5],
  [
    'a sentence that became two',
    'One [two three] four five six seven eight. Nine ten.',
    'One [two three] four five. Six seven eight. Nine ten.',
    'split',
    1,
    1,
  ],
  [
    'words that two paragraphs hold now',
    'One two. [Three four five six seven eight] nine.',
    'One two. [Three four five.\nSix seven eight] nine.',
    'split',
    1,
    1,
  ],
  [
    'a sentence joined with the one behind it',
    'One [two three] four five. Six seven eight. Nine ten.',
    'One [two three] four five, and six seven eight. Nine ten.',
    'joined',
    1,
    1,
  ],
  [
    'a sentence joined with the one before it',
    'One two three four. Five [six seven] eight. Nine ten.',
    'One two three four while five [six seven] eight. Nine ten.',
    'joined',
    1,
    1,
  ],
  [
    'a sentence whose neighbour was split',
    'One [two three] four. Five six seven eight nine ten.',
    'One [two three] four. Five six seven. Eight nine ten.',
    'untouched',
    1,
    1,
  ],
  [
    'words scattered among new ones, found by the rare among them',
    `no [ash elm oak fir yew box] six. ${words('a', 30)}.`,
    `no. ${words('a', 30)}. New [elm more fir than yew and box] there.`,
    'reworded',
    4 / 6,
    0.5 + 1 / 6,
  ],
  [
    'a change of fifteen words around one',
    `no [five] ${words('a', 14)} six`,
    `no [${words('b', 15)}] six`,
    'reworded',
    0,
    0.5,
  ],
  [
    'a change of sixteen words around one',
    `no [five] ${words('a', 15)} six`,
    `no [${words('b', 15)}] six`,
    'unsure',
    0,
    0.4,
  ],
  [
    'nineteen words around two',
    `no ${words('a', 17)} [five six] end`,
    `no [${words('b', 15)}] end`,
    'unsure',
    0,
    0.4,
  ],
  [
    'eighteen words around two',
    `no ${words('a', 16)} [five six] end`,
    `no [${words('b', 15)}] end`,
    'reworded',
    0,
    0.5,
  ],
  [
    'a sentence that moved',
    `${SENTENCE} [${OTHER}] One two three four five six seven eight.`,
    `${SENTENCE} One two three four five six seven eight. [Rye oat fig pea nut hop].`,
    'moved',
    1,
    1,
  ],
  [
    'half of a sentence that moved',
    `${SENTENCE} Rye [oat fig pea] nut hop. One two three four five six seven eight.`,
    `${SENTENCE} One two three four five six seven eight. Rye [oat fig pea] nut hop.`,
    'moved',
    1,
    1,
  ],
  [
    'a sentence that moved, less a word',
    `${SENTENCE} [${OTHER}] One two three four five six seven eight nine.`,
    `${SENTENCE} One two three four five six seven eight nine. [Rye oat fig pea nut new hop].`,
    'moved',
    1,
    1,
  ],
  [
    'more than what moved',
    `Ash elm [oak. ${OTHER} One] two three four five six seven eight.`,
    `Ash elm oak. One two three four five six seven eight. [Rye oat fig pea nut hop].`,
    'moved',
    6 / 8,
    6 / 8,
  ],
  [
    'two of eight words moved',
    `Ash elm yew [oak box fir ivy may asp. Rye oat] fig pea nut hop. One two three four five six seven eight.`,
    `Ash elm yew [oak box fir ivy may asp]. One two three four five six seven eight. Rye oat fig pea nut hop.`,
    'reworded',
    0.75,
    0.875,
  ],
  [
    'a sentence that stands in two new places',
    `${SENTENCE} [${OTHER}] One two three four five six seven eight.\nLast of all.`,
    `${SENTENCE} One two three four five six seven eight. [Rye oat fig pea nut hop].\nLast of all. ${OTHER}`,
    'unsure',
    1,
    0.5,
  ],
  [
    'what gave way to a sentence from elsewhere',
    `No [five six seven] end of it. ${SENTENCE} One two three four five six seven eight nine ten eleven.`,
    `No[] Ash elm oak fir yew box end of it. One two three four five six seven eight nine ten eleven.`,
    'gone',
    0,
    1,
  ],
];

const gaps: readonly (readonly [string, string, string, OutcomeKind, number, number])[] = [
  ['with its neighbours', 'one []two three', 'one[] two three', 'untouched', 1, 1],
  ['with something put in', 'one []two three', 'one[] new two three', 'added to', 1, 0.8],
  ['at the start', '[]one two', '[]one two', 'untouched', 1, 1],
  ['at the start, with something put in', '[]one two', 'new []one two', 'added to', 1, 0.8],
  ['at the end', 'one two[]', 'one two[]', 'untouched', 1, 1],
  ['at the end, with something put in', 'one two[]', 'one two[] new', 'added to', 1, 0.8],
  ['whose left neighbour went', 'one two []three four', 'one []three four', 'reworded', 0.5, 0.5],
  ['whose right neighbour went', 'one two []three four', 'one two[] four', 'reworded', 0.5, 0.5],
  ['whose left neighbour went from the start', 'one []two three', '[]two three', 'reworded', 0.5, 0.5],
  ['whose neighbours both went', 'one two []three four', 'one[] four', 'gone', 0, 0.6],
  ['whose neighbours were replaced', 'one two []three four', 'one [new] four', 'gone', 0, 0.6],
  ['between marks, without a word', 'one [,] two', 'one[] two', 'untouched', 1, 1],
];

describe('what became of', () => {
  it.each(cases)('%s', (_, older, newer, kind, kept, confidence) => {
    const { expected, ...outcome } = followed(older, newer);
    expect(outcome).toEqual({
      kind,
      place: expected,
      kept: expect.closeTo(kept, 10) as number,
      confidence: expect.closeTo(confidence, 10) as number,
    });
  });

  it.each(gaps)('a gap %s', (_, older, newer, kind, kept, confidence) => {
    const { expected, ...outcome } = followed(older, newer);
    expect(outcome).toEqual({ kind, place: expected, kept, confidence });
  });
});

describe('a quotation', () => {
  const far = (start: string) => words(start, 2000);
  const quote = { exact: 'here it is', prefix: 'left ', suffix: ' right' };

  it('is taken where its context agrees, however far that is', () => {
    const text = `here it is ${far('a')} left here it is right ${far('b')} here it is`;
    const from = text.indexOf('left') + 5;
    expect(locateQuote(squeeze(text), quote, 0)).toEqual({ from, to: from + 10 });
    expect(locateQuote(squeeze(text), quote, text.length)).toEqual({ from, to: from + 10 });
  });

  it('is taken nearby where its whole context agrees there, though it does elsewhere too', () => {
    const text = `left here it is right ${far('a')} left here it is right`;
    const last = text.lastIndexOf('here');
    expect(locateQuote(squeeze(text), quote, text.length)).toEqual({ from: last, to: last + 10 });
    expect(locateQuote(squeeze(text), quote, 0)).toEqual({ from: 5, to: 15 });
  });

  it('is taken at the nearest of places that are alike', () => {
    const bare = { exact: 'here', prefix: '', suffix: '' };
    const text = 'here and here and here';
    expect([0, 4, 6, 13, 16, 90].map((near) => locateQuote(squeeze(text), bare, near)?.from)).toEqual([
      0, 0, 9, 9, 18, 18,
    ]);
  });

  it('without words is nowhere', () => {
    expect(locateQuote(squeeze('one two'), { exact: ' ', prefix: 'one', suffix: 'two' }, 0)).toBeNull();
    expect(locateQuoteSurely(squeeze('one two'), { exact: '', prefix: '', suffix: '' }, 0)).toBeNull();
  });

  it('is sure where one place fits best, or an offset of this text tells which', () => {
    const text = squeeze('left here it is right and here it is and here it is.');
    expect(locateQuoteSurely(text, quote, null)).toEqual({ from: 5, to: 15 });
    const bare = { ...quote, prefix: '', suffix: '' };
    expect(locateQuoteSurely(text, bare, null)).toBeNull();
    expect(locateQuoteSurely(text, bare, 50)).toEqual({ from: 41, to: 51 });
    // The last character of the text is the last offset that can have been counted in it.
    expect(locateQuoteSurely(text, bare, 51)).toEqual({ from: 41, to: 51 });
    expect(locateQuoteSurely(text, bare, 52)).toBeNull();
    expect(locateQuoteSurely(squeeze(''), bare, 0)).toBeNull();
  });
});
