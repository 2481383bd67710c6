/** B0: splitting into words and interning them, against a walk by one regular expression with a map. */
import { newVocabulary, wordsOf } from '#core/text/words.ts';
import { realText } from './real-text.ts';
import { inTurn, row, theRatio } from './measure.ts';

const WORD = /[\p{L}\p{N}]+(?:['’.,-][\p{L}\p{N}]+)*/gu;

/** The lower bound: each word of the input read once, in small letters, and given a number. */
function walkByExpression(text: string): number {
  const ids = new Map<string, number>();
  let sum = 0;
  for (const { 0: word } of text.matchAll(WORD)) {
    const key = word.toLowerCase();
    const known = ids.get(key);
    if (known === undefined) ids.set(key, ids.size);
    sum += known ?? 0;
  }
  return sum + ids.size;
}

/** The same text in letters of another script, one for one. */
const inScript = (text: string, first: number) =>
  text.replaceAll(/[a-z]/gi, (letter) =>
    String.fromCharCode(first + (letter.toLowerCase().charCodeAt(0) - 97)),
  );

const english = realText(400_000);
const texts: readonly (readonly [string, string])[] = [
  ['Latin, as it stands', english],
  ['Latin, with curly quotes', english.replaceAll("'", '’')],
  ['Greek letters', inScript(english, 0x3b1)],
  ['Cyrillic letters', inScript(english, 0x430)],
];

console.log('B0  splitting into words and interning them; bar 1.5 × a walk by one regular expression');
for (const [name, text] of texts) {
  const [own, peer] = inTurn(15, [() => wordsOf(text, newVocabulary()), () => walkByExpression(text)]);
  console.log(row(name, { own, peer, ratio: theRatio(own, peer) }));
}

console.log('    ten times the text in one string: the time grows by (bar: linear, 10)');
const scripts: readonly (readonly [string, string])[] = [
  ...texts.map(([name, text]) => [name, text] as const),
  ['Hebrew letters', inScript(english, 0x5d0).replaceAll(/[\u05eb-\u05f0]/g, 'ש')],
  ['Thai, hardly a space', 'ปีที่แล้วน้ำขึ้นสูงมากในทุ่งนา'.repeat(12_000)],
  ['Han, no space at all', '昨年の水位は高かったので泥炭地の保全が必要になった'.repeat(14_000)],
];
for (const [name, text] of scripts) {
  const small = text.slice(0, text.length / 10);
  const [ten, one] = inTurn(7, [() => wordsOf(text, newVocabulary()), () => wordsOf(small, newVocabulary())]);
  console.log(row(name, { ten, one, ratio: theRatio(ten, one) }));
}
const whole = realText(2_000_000);
const [millions] = inTurn(3, [() => wordsOf(whole, newVocabulary())]);
console.log(row('two million words in one string', { ms: millions }));
