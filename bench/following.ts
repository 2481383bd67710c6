/** B1 to B4 and C1, C2: the difference of two texts, and remarks followed over it; and what may answer them. */
import { followerOf } from '#core/anchors/outcome.ts';
import { answerFinderOf } from '#core/answers/find.ts';
import { countChanges, differenceOf } from '#core/difference/difference.ts';
import type { Paper } from '#core/paper/paper.ts';
import { newVocabulary, wordsOf } from '#core/text/words.ts';
import { editedText, type KnownPassage } from './edited-text.ts';
import { inTurn, row, theRatio } from './measure.ts';
import { peer } from './peers.ts';
import { realText } from './real-text.ts';

const WORDS = 40_000;
const REMARKS = 1500;
const source = realText(400_000);

const readBoth = (older: Paper, newer: Paper) => {
  const vocabulary = newVocabulary();
  return [wordsOf(older.text, vocabulary), wordsOf(newer.text, vocabulary)] as const;
};

const fastMyers = await peer<{ diff: (a: Int32Array, b: Int32Array) => Iterable<unknown> }>(
  'fast-myers-diff@3.2.0',
);
const fastDiff = await peer<{ default: (a: string, b: string) => unknown }>('fast-diff@1.3.0');

console.log(
  'B1, B2  difference of 40,000 words; bars 1.6 × reading them at 5 %, 2.2 × at 20 %; peers 8, 50, 200 times slower',
);
for (const share of [0.05, 0.2, 0.5]) {
  const { older, newer } = editedText(source, WORDS, share, 1, 7);
  const [a, b] = readBoth(older, newer);
  const characters = (ids: Int32Array) => String.fromCodePoint(...Array.from(ids, (id) => id + 0x4e00));
  const [textA, textB] = [characters(a.ids.slice(0)), characters(b.ids.slice(0))];
  const [own, lb] = inTurn(15, [() => differenceOf(a, b), () => readBoth(older, newer)]);
  const [myers, fast] = inTurn(share > 0.2 ? 1 : 3, [
    () => [...fastMyers.diff(a.ids, b.ids)],
    () => fastDiff.default(textA, textB),
  ]);
  const { kept, moved } = countChanges(differenceOf(a, b));
  console.log(
    row(`${share * 100} % of the sentences edited`, {
      own,
      'with reading': theRatio(own + lb, lb),
      fastest: theRatio(Math.min(myers, fast), own),
      kept: `${kept} words, ${moved} moved`,
    }),
  );
}

{
  const { older } = editedText(source, WORDS, 0, 1, 7);
  const other = editedText(source.slice(source.length / 2), WORDS, 0, 1, 8).older;
  const [a, b] = readBoth(older, other);
  const [own, lb] = inTurn(5, [() => differenceOf(a, b), () => readBoth(older, other)]);
  console.log('B4  two unrelated texts; bar 20 × reading, and half a second');
  console.log(row('40,000 words each', { own, ratio: theRatio(own, lb) }));
}

console.log(
  'C1, C2  1,500 remarks; bars 3.5 × the difference; located 98.5, 96.5 at 50 %; class 98.5, 97; gone 96; wrongly lost 1 %',
);
for (const share of [0.05, 0.2, 0.5]) {
  const edited = editedText(source, WORDS, share, REMARKS, 11);
  const { older, newer, passages } = edited;
  const follower = followerOf(older);
  const spans = passages.map(({ passage }) => passage);
  const [a, b] = readBoth(older, newer);
  const [own, difference] = inTurn(21, [() => follower.follow(newer, spans), () => differenceOf(a, b)]);
  const outcomes = follower.follow(newer, spans);
  const tally = new Map<string, number>();
  const add = (what: string, is = true) => tally.set(what, (tally.get(what) ?? 0) + Number(is));
  passages.forEach((known: KnownPassage, index) => {
    const { kind, place } = outcomes[index];
    // Where a neighbour went too or something came in, what stands there may as well be what it became.
    const isPlainlyGone = known.kinds.every((one) => one === 'gone');
    if (isPlainlyGone || known.place !== null) add(known.place === null ? 'of gone' : 'of there');
    add('class', known.kinds.includes(kind));
    if (!known.kinds.includes(kind)) add(`${known.edit} → ${kind}`);
    if (known.place === null) add('seen gone', isPlainlyGone && kind === 'gone');
    else {
      const { from, to } = known.place;
      const isHere = place.from <= to && place.to >= from;
      add('located', kind !== 'gone' && isHere);
      add('lost', kind === 'gone');
      add('wrong', !isHere && kind !== 'unsure' && kind !== 'gone');
    }
    add('unsure', kind === 'unsure');
  });
  const percent = (what: string, of: string) =>
    `${(((tally.get(what) ?? 0) / (tally.get(of) ?? 1)) * 100).toFixed(1)} %`;
  tally.set('all', REMARKS);
  console.log(
    row(`${share * 100} % edited`, {
      own,
      ratio: theRatio(own, difference),
      located: percent('located', 'of there'),
      class: percent('class', 'all'),
      gone: percent('seen gone', 'of gone'),
      lost: percent('lost', 'of there'),
      'wrong place': percent('wrong', 'of there'),
      unsure: percent('unsure', 'all'),
    }),
  );
  const misses = [...tally].filter(([what]) => what.includes('→')).sort((x, y) => y[1] - x[1]);
  console.log(
    `      most often wrong: ${misses
      .slice(0, 5)
      .map(([what, n]) => `${what} ${n}`)
      .join(', ')}`,
  );
  const finder = answerFinderOf(older);
  const sought = passages.map(({ passage }, index) => ({
    id: String(index),
    text: older.text.slice(passage.from, passage.to),
    calls: true,
    passages: [passage],
  }));
  finder.find(newer, sought);
  const [found] = inTurn(15, [() => finder.find(newer, sought)]);
  console.log(row('  and what may answer them; bar 300 ms', { found }));
}
