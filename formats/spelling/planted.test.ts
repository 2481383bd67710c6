import { readdirSync, readFileSync } from 'node:fs';
import { createRequire } from 'node:module';
import { dirname, join } from 'node:path';
import { describe, expect, it } from 'vitest';
import { LastLook } from '#core/look/look-over.ts';
import type { LookLine } from '#core/look/line.ts';
import { countWords } from '#core/text/words.ts';
import { readText } from '../text/read-text.ts';
import { spellerOf } from './english.ts';

/** Papers with faults that were planted before the rules were written (core/look/planted/README.md). */

const FOLDER = new URL('../../core/look/planted/', import.meta.url);
const require = createRequire(import.meta.url);
const dictionary = (name: string) => {
  const entry = require.resolve(name);
  const read = (file: string) => readFileSync(join(dirname(entry), file), 'utf8');
  return { affixes: read('index.aff'), words: read('index.dic') };
};
const speller = spellerOf([dictionary('dictionary-en'), dictionary('dictionary-en-gb')]);
/** As the marks name kinds, which are longer or shorter than in the lines. */
const KIND: Readonly<Record<string, string>> = { 'figure not there': 'not there' };

interface Planted {
  readonly kind: string;
  readonly words: string;
  readonly at: number;
}

const MARK = /⟦([^|]+)\|([^⟧]*)⟧/g;
/** A line leads to the fault where it is in its paragraph's sentence or beside it. */
const NEAR = 90;
const CONTEXT = 40;

function looked(name: string) {
  const marked = readFileSync(new URL(name, FOLDER), 'utf8').normalize('NFKC');
  const { paper } = readText(new TextEncoder().encode(marked.replace(MARK, '$2')));
  let before = '';
  let read = 0;
  const planted = [...marked.matchAll(MARK)].map(({ 0: whole, 1: kind, 2: words, index }) => {
    before += marked.slice(read, index);
    read = index + whole.length;
    const context = before.slice(before.lastIndexOf('\n') + 1).slice(-CONTEXT);
    before += words;
    const at = paper.text.indexOf(context + words) + context.length;
    return { kind: KIND[kind] ?? kind, words, at };
  });
  const { lines } = new LastLook(speller).lookOver(paper);
  const left = [...lines];
  const missed: Planted[] = [];
  for (const one of planted) {
    const found = left.findIndex(
      ({ kind, place }) =>
        kind === one.kind && place.from <= one.at + one.words.length + NEAR && place.to >= one.at - NEAR,
    );
    if (found < 0) missed.push(one);
    else left.splice(found, 1);
  }
  return { name, planted, missed, extra: left, words: countWords(paper.text) };
}

const told = ({ kind, words, beside }: LookLine) => `${kind}: ${words.slice(0, 60)} [${beside}]`;
const names = readdirSync(FOLDER).filter((name) => name.endsWith('.txt'));

describe('the last look on papers with planted faults', () => {
  for (const [which, some] of [
    ['that were open while the rules were written', names.slice(0, 6)],
    ['that were kept apart', names.slice(6)],
  ] as const)
    it(`finds at least nine in ten in those ${which}, and tells at most one false line in a thousand words`, () => {
      const papers = some.map(looked);
      const planted = papers.reduce((sum, paper) => sum + paper.planted.length, 0);
      const missed = papers.flatMap(({ name, missed: own }) =>
        own.map(({ kind, words }) => `${name} ${kind}: ${words}`),
      );
      const extra = papers.flatMap(({ name, extra: own }) => own.map((line) => `${name} ${told(line)}`));
      const words = papers.reduce((sum, paper) => sum + paper.words, 0);
      console.log(`${planted - missed.length} of ${planted} found, ${extra.length} false in ${words} words`);
      expect((planted - missed.length) / planted, missed.join('\n')).toBeGreaterThanOrEqual(0.9);
      expect((1000 * extra.length) / words, extra.join('\n')).toBeLessThanOrEqual(1);
    });
});
