import { describe, expect, it } from 'vitest';
import { stances, type Stance } from '../model/work.ts';
import heldOut from './labelled/held-out.json' with { type: 'json' };
import open from './labelled/open.json' with { type: 'json' };
import { promiseIn } from './promise.ts';
import { sentencesOf } from '../text/sentences.ts';
import { whatItSays } from './stance.ts';

interface Labelled {
  readonly text: string;
  readonly stance: Stance;
  readonly hint: boolean;
  readonly promise: string | null;
}

const say = (text: string) => whatItSays({ text, kind: 'text', change: null });

function precisionAndRecall(found: readonly boolean[], wanted: readonly boolean[]) {
  const both = found.filter((f, i) => f && wanted[i]).length;
  return {
    precision: both / Math.max(1, found.filter(Boolean).length),
    recall: both / Math.max(1, wanted.filter(Boolean).length),
  };
}

function measure(name: string, sentences: readonly Labelled[]) {
  const said = sentences.map(({ text }) => say(text));
  const table = stances.map((labelled) =>
    stances.map(
      (proposed) => sentences.filter((s, i) => s.stance === labelled && said[i].stance === proposed).length,
    ),
  );
  const each = stances.map((stance) =>
    precisionAndRecall(
      said.map((s) => s.stance === stance),
      sentences.map((s) => s.stance === stance),
    ),
  );
  const f1 = each.map(({ precision: p, recall: r }) => (p + r === 0 ? 0 : (2 * p * r) / (p + r)));
  const macroF1 = f1.reduce((x, y) => x + y, 0) / stances.length;
  const hints = precisionAndRecall(
    said.map((s) => s.hint !== null),
    sentences.map((s) => s.hint),
  );
  const places = sentences.map(({ text }) => promiseIn(text)?.place ?? null);
  const promises = precisionAndRecall(
    places.map((place) => place !== null),
    sentences.map((s) => s.promise !== null),
  );
  const rightPlace = sentences.filter((s, i) => s.promise !== null && places[i] === s.promise).length;
  const percent = (x: number) => x.toFixed(2);
  const rows = stances.map(
    (stance, i) =>
      `${stance.padEnd(9)}${table[i].map((n) => String(n || '.').padStart(5)).join('')}   precision ${percent(each[i].precision)}  recall ${percent(each[i].recall)}  F1 ${percent(f1[i])}`,
  );
  console.log(
    [
      `${name}: ${sentences.length} sentences, labelled (down) against proposed (across: ${stances.join(', ')})`,
      ...rows,
      `macro F1 ${percent(macroF1)}`,
      `hints: precision ${percent(hints.precision)}, recall ${percent(hints.recall)}`,
      `promises: precision ${percent(promises.precision)}, recall ${percent(promises.recall)}, right place ${rightPlace}`,
    ].join('\n'),
  );
  return { macroF1, hints, promises };
}

describe('what a remark says', () => {
  it('is proposed well enough on sentences that the rules were not written on', () => {
    measure('open half', open as Labelled[]);
    const { macroF1, promises } = measure('held-out half', heldOut as Labelled[]);
    expect(macroF1).toBeGreaterThanOrEqual(0.75);
    expect(promises.precision).toBeGreaterThanOrEqual(0.9);
  });

  it('takes the weightiest sentence for the whole remark', () => {
    expect(say('Lovely map. The scale is missing, and you must add it.').stance).toBe('must-fix');
    expect(say('Lovely map.').stance).toBe('praise');
    expect(say('').stance).toBe('note');
  });

  it('finds the hint for next time after praise, at any score', () => {
    const remark =
      'All twelve readings are within 3 mm of mine: well done. One thing for next time: keep to millimetres.';
    expect(say(remark)).toEqual({
      stance: 'advice',
      hint: 'One thing for next time: keep to millimetres.',
    });
  });

  it('keeps the hint of a remark that asks for a change, too', () => {
    const said = say('Explain why well 7 is left out. In the next report I will take points off for this.');
    expect(said.stance).toBe('fix');
    expect(said.hint).toBe('In the next report I will take points off for this.');
  });

  it('goes by the mark where there are no words', () => {
    const change = { kind: 'insertion', before: '', after: 'the' } as const;
    expect(whatItSays({ text: '', kind: 'insertion', change }).stance).toBe('polish');
    const longer = { ...change, after: 'a whole sentence that was put in' };
    expect(whatItSays({ text: '', kind: 'insertion', change: longer }).stance).toBe('fix');
    expect(whatItSays({ text: '', kind: 'strikeout', change: null }).stance).toBe('fix');
  });
});

describe('sentences', () => {
  it('are parted where one ends, and not after an abbreviation', () => {
    expect(sentencesOf('See p. 4 of Lund et al. for this. Then go on.')).toEqual([
      'See p. 4 of Lund et al. for this.',
      'Then go on.',
    ]);
    expect(sentencesOf('  ')).toEqual([]);
  });
});

describe('promises', () => {
  it('tell where more is said to be', () => {
    expect(promiseIn('Good start. See my notes in the file.')).toEqual({
      place: 'paper',
      sentence: 'See my notes in the file.',
    });
    expect(promiseIn('The rest is in the recording: listen to the second half.')?.place).toBe('recording');
    expect(promiseIn('We talked about this in class.')?.place).toBe('class');
  });

  it('are not made by pointing to a book, or by the student’s own notes', () => {
    expect(promiseIn('See Halvard, chapter 3, for notes on method.')).toBeNull();
    expect(promiseIn('Beautifully kept field notes.')).toBeNull();
    expect(promiseIn('Explain why the well is dry.')).toBeNull();
  });
});
