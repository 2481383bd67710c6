import { readdirSync, readFileSync } from 'node:fs';
import { describe, expect, it } from 'vitest';
import { paperOf, type Block } from '../paper/paper.ts';
import { hashedWordsOf, wordRange } from '../text/words.ts';
import type { Span } from '../text/span.ts';
import { adviceFor, surroundingsOf, UNMARKED, type Advice, type AdviceReason } from './advice.ts';
import type { Relation } from '../model/source.ts';
import type { SourceWork } from './source-work.ts';

const LABELLED = new URL('labelled/', import.meta.url);
const papers = readdirSync(LABELLED).filter((name) => name.endsWith('.txt'));

interface Labelled {
  readonly name: string;
  readonly number: number;
  readonly label: Advice;
  readonly advice: Advice;
  readonly reason: AdviceReason;
  readonly words: number;
  readonly relation: Relation;
  readonly quoted: boolean;
}

const MATCH = /\{\{(\d+) (\S+) (\S+)\|([^}]*)\}\}/g;

function blockOf(line: string): Block {
  const heading = /^(#+) (.*)$/.exec(line);
  return heading === null
    ? { kind: 'paragraph', level: 0, text: line }
    : { kind: 'heading', level: heading[1].length, text: heading[2] };
}

function labelled(name: string): Labelled[] {
  const lines = readFileSync(new URL(name, LABELLED), 'utf8').split('\n');
  const sources = new Map<string, SourceWork>();
  for (const line of lines) {
    const found = /^source (\S+) \|(.*)\|(.*)\|(.*)\|(.*)$/.exec(line);
    if (found === null) continue;
    const [authors, year, title, relation] = found.slice(2).map((part) => part.trim());
    sources.set(found[1], {
      authors,
      year: year === '' ? null : year,
      title,
      relation: relation as Relation,
    });
  }
  const body = lines.filter((line) => !line.startsWith('source ')).join('\n');
  const paper = paperOf(body.replace(MATCH, '$4').split('\n').map(blockOf));
  const words = hashedWordsOf(paper.text);
  const around = surroundingsOf(paper, words, [...sources.values()]);
  let from = 0;
  return [...body.matchAll(MATCH)].map(([, number, id, label, text]) => {
    const at = paper.text.indexOf(text, from);
    const source = sources.get(id);
    if (at < 0 || source === undefined) throw new Error(`${name} ${number}`);
    from = at;
    const place: Span = { from: at, to: at + text.length };
    const range = wordRange(words, place.from, place.to);
    return {
      name,
      number: Number(number),
      label: label as Advice,
      ...adviceFor(place, source, 1, around),
      words: range.to - range.from,
      relation: source.relation,
    };
  });
}

const all = papers.flatMap(labelled);
const wrong = (some: readonly Labelled[]) =>
  some
    .filter(({ label, advice }) => label !== advice)
    .map(
      ({ name, number, label, advice, reason }) => `${name} ${number}: ${label}, not ${advice} (${reason})`,
    );

describe('the advice for a match', () => {
  it('is that of a careful reader for nine in ten of those that were looked at', () => {
    const open = all.filter(({ number }) => number % 2 === 1);
    expect(open).toHaveLength(40);
    expect(wrong(open).length, wrong(open).join('\n')).toBeLessThanOrEqual(4);
  });

  it('is so for nine in ten of those that were kept apart', () => {
    const apart = all.filter(({ number }) => number % 2 === 0);
    expect(apart).toHaveLength(40);
    expect(wrong(apart).length).toBeLessThanOrEqual(4);
  });

  it('never lets twelve unmarked words of somebody else stand', () => {
    const stands = all.filter(
      ({ advice, words, quoted, relation, reason }) =>
        advice === 'stands' &&
        words >= UNMARKED &&
        !quoted &&
        relation !== 'brief' &&
        reason !== 'list of references',
    );
    expect(stands).toEqual([]);
  });
});
