import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { CLASS_BITS, wordClass, wordTable } from './word-classes.ts';
import { newVocabulary, wordKey, wordsOf } from './words.ts';

const segmenter = new Intl.Segmenter('en', { granularity: 'word' });

/** The platform's words over the whole text at once, joined by one apostrophe or hyphen. */
function wordsOfPlatform(text: string): string[] {
  const spans: [number, number][] = [];
  for (const { segment, index, isWordLike } of segmenter.segment(text)) {
    if (isWordLike !== true) continue;
    const last = spans.at(-1);
    if (last !== undefined && index === last[1] + 1 && /^[-\u2010\u2011'\u2019]$/.test(text[last[1]]))
      last[1] = index + segment.length;
    else spans.push([index, index + segment.length]);
  }
  return spans.map(([from, to]) => text.slice(from, to));
}

function found(text: string): string[] {
  const vocabulary = newVocabulary();
  const words = wordsOf(text, vocabulary);
  const list = Array.from(words.from, (from, i) => text.slice(from, words.to[i]));
  const wordById = [...vocabulary.idByWord.keys()];
  expect(Array.from(words.ids, (id) => wordById[id])).toEqual(list.map(wordKey));
  return list;
}

const SCRIPTS = [
  "The peat—it’s 3,000.5 m deep; N7_b “can't” e.g. ﬁeld co-operate: a.b 1.2.3 x:y",
  'Το νερό ανέβηκε ΟΔΟΣ 12 ὕδωρ· Болото осушили в 1902-м году; ЁЛКА',
  'ปีที่แล้วน้ำขึ้นสูงมาก ทุ่งนาแห้ง',
  '昨年の水位は高かった。カタカナ_テスト 泥炭地の保全',
  'המים עלו ש"ח צה״ל بلغ منسوب الماء ١٢٫٥ مترًا',
  '한국어 물의 높이 🇳🇴🇸🇪 👩‍🌾🌱 a‍❤b é̂ x‌y a\u00adb\u2060c\u200b \r\n\u2028',
];
const scraps = fc.oneof(
  fc.constantFrom(...Array.from(SCRIPTS.join(' '))),
  fc.constantFrom(...SCRIPTS.join(' ').split(/(?<= )/)),
  fc.string({ unit: 'binary', maxLength: 4 }),
  fc.integer({ min: 0, max: 0x2700 }).map((unit) => String.fromCharCode(unit)),
  fc.integer({ min: 0xd800, max: 0xdfff }).map((unit) => String.fromCharCode(unit)),
);

describe('words', () => {
  it('are those of the platform’s segmenter in any script, cut anywhere', () => {
    fc.assert(
      fc.property(fc.array(scraps, { maxLength: 40 }), fc.nat(60), fc.nat(60), (parts, front, back) => {
        const whole = parts.join('');
        const text = whole.slice(front, whole.length - back);
        expect(found(text)).toEqual(wordsOfPlatform(text));
      }),
      { numRuns: 3000 },
    );
  });

  it('are those of the segmenter around every character that the table knows', () => {
    const contexts = [
      '*',
      'a*',
      '*a',
      'a*a',
      '1*1',
      'a*1',
      '1*a',
      '_*',
      '_*_a',
      'a*\u0301b',
      ' *',
      '*\u0301',
      '.*a',
    ];
    for (let unit = 0; unit < wordTable.length; unit++) {
      if ((wordTable[unit] & CLASS_BITS) === wordClass.complex) continue;
      const text = contexts.map((context) => context.replace('*', String.fromCharCode(unit))).join('\n');
      expect(found(text), `U+${unit.toString(16)}`).toEqual(wordsOfPlatform(text));
    }
  });

  it('are those of the segmenter in long texts of any script, with and without spaces', () => {
    for (const script of SCRIPTS)
      for (const between of ['', ' ']) {
        const text = Array.from({ length: 120 }, (_, i) => script.slice(i % 7)).join(between);
        expect(found(text)).toEqual(wordsOfPlatform(text));
      }
  });

  it('may be longer than what the segmenter is given at a time', () => {
    const long = 'א'.repeat(20_000);
    expect(found(`${long} b`)).toEqual([long, 'b']);
  });
});
