import { readdirSync, readFileSync } from 'node:fs';
import { describe, expect, it } from 'vitest';
import { decodeModel, encodeModel } from '../model.ts';
import { judgedByOthers, measured, shown } from './measure.ts';
import { nearDuplicates } from './near-duplicates.ts';
import { learn } from './train.ts';
import { readVoice, textOf } from './voices.ts';

const FOLDER = new URL('./voices/', import.meta.url);
const remarks = readdirSync(FOLDER)
  .filter((name) => name.endsWith('.txt'))
  .sort()
  .flatMap((name) => readVoice(name.replace('.txt', ''), readFileSync(new URL(name, FOLDER), 'utf8')));

describe('voices', () => {
  it('are many, and no two of them say nearly the same', () => {
    expect(new Set(remarks.map(({ voice }) => voice)).size).toBeGreaterThanOrEqual(36);
    expect(remarks.length).toBeGreaterThanOrEqual(3000);
    const said = remarks.map((remark) => ({ by: remark.voice, text: textOf(remark) }));
    expect(nearDuplicates(said)).toEqual([]);
  });

  it('find near-duplicates where there are some', () => {
    const said = [
      { by: 'x', text: 'Explain why you left out well 7, please.' },
      { by: 'y', text: 'Please explain why you left out well 7!' },
      { by: 'y', text: 'Say where the water came from.' },
    ];
    expect(nearDuplicates(said)).toEqual([[said[0].text, said[1].text]]);
    expect(nearDuplicates([said[0], { ...said[1], by: 'x' }])).toEqual([]);
  });

  it('are read line by line, and a line without a label is named', () => {
    const [remark] = readVoice('v', '# who speaks\np Lovely opening, | f/m=2 but no source. That’s two off.');
    expect(textOf(remark)).toBe('Lovely opening, but no source. That’s two off.');
    expect(remark.parts[1]).toMatchObject({ stance: 'fix', doubt: 'must-fix', points: 2, promise: null });
    expect(() => readVoice('v', 'p Fine.\nwithout one')).toThrow('voice v, line 2');
  });
});

describe('the model', () => {
  const bytes = new Uint8Array(readFileSync(new URL('../saying.model', import.meta.url)));

  it('is what is learnt from the voices, byte for byte', { timeout: 240_000 }, () => {
    const { callsFrom, promisesFrom, sureFrom, stance } = decodeModel(bytes);
    const anew = encodeModel({ ...learn(remarks, stance.temperature), callsFrom, promisesFrom, sureFrom });
    expect(Buffer.compare(anew, bytes)).toBe(0);
  });

  it('reads voices well that it did not learn from', { timeout: 240_000 }, () => {
    const { callsFrom, promisesFrom, sureFrom, stance } = decodeModel(bytes);
    const calibration = { callsFrom, promisesFrom, sureFrom, temperature: stance.temperature };
    const figures = measured(judgedByOthers(remarks, 3, calibration));
    console.log(shown('a third of the voices left out at a time', figures));
    // With two thirds of the voices; `npm run train-saying` leaves out one at a time.
    expect(figures.macroF1).toBeGreaterThanOrEqual(0.7);
    expect(figures.callsForChange).toBeGreaterThanOrEqual(0.84);
    expect(figures.hints.precision).toBeGreaterThanOrEqual(0.85);
    expect(figures.hints.recall).toBeGreaterThanOrEqual(0.8);
  });
});
