/** The last look at a draft of 40,000 words: the first time, and after one paragraph changed. */
import { LastLook } from '#core/look/look-over.ts';
import { sinceMarked } from '#core/look/since-marked.ts';
import { paperOf, type Block, type Paper } from '#core/paper/paper.ts';
import { countWords } from '#core/text/words.ts';
import { readPaper } from '#formats/read-paper.ts';
import { englishSpeller } from '#server/dictionaries.ts';
import { readFileSync, readdirSync } from 'node:fs';

const WORDS = 40_000;
const CHANGES = 20;
const FOLDER = 'core/look/planted';
const MARK = /⟦[^|]+\|([^⟧]*)⟧/g;

/** A draft of real sentences: the planted papers again and again, each paragraph told from its copies by a number. */
async function longDraft(): Promise<Block[]> {
  const blocks: Block[] = [];
  for (const name of readdirSync(FOLDER).filter((one) => one.endsWith('.txt'))) {
    const text = readFileSync(`${FOLDER}/${name}`, 'utf8').replace(MARK, '$1');
    const { paper } = await readPaper(new TextEncoder().encode(text), null);
    blocks.push(...paper.blocks.filter(({ cell }) => cell === undefined));
  }
  const long: Block[] = [];
  for (let copy = 0, words = 0; words < WORDS; copy++)
    for (const block of blocks) {
      if (words >= WORDS) break;
      long.push({
        ...block,
        text: block.kind === 'heading' ? block.text : `${block.text} So ${copy} it was.`,
      });
      words += countWords(block.text) + 4;
    }
  return long;
}

const time = <Value>(work: () => Value): { ms: number; value: Value } => {
  const startedAt = performance.now();
  const value = work();
  return { ms: performance.now() - startedAt, value };
};

const blocks = await longDraft();
const paper = paperOf(blocks);
const speller = await englishSpeller();
const look = new LastLook(speller);
const first = time(() => look.lookOver(paper));
console.log(
  `last look at ${countWords(paper.text)} words: first ${first.ms.toFixed(0)} ms (bar 1500), ${first.value.lines.length} lines`,
);
const again: number[] = [];
let changed: Paper = paper;
for (let n = 0; n < CHANGES; n++) {
  const at = Math.floor(((n + 1) * blocks.length) / (CHANGES + 2));
  changed = paperOf(
    blocks.map((block, i) => (i === at ? { ...block, text: `${block.text} And ${n} again.` } : block)),
  );
  again.push(time(() => look.lookOver(changed)).ms);
}
again.sort((x, y) => x - y);
console.log(
  `a changed paragraph: median ${again[CHANGES / 2].toFixed(0)} ms, most ${again[CHANGES - 1].toFixed(0)} ms (bar 100)`,
);
console.log(
  `held against the marked version: ${time(() => sinceMarked(paper, changed, [{ words: 'dough', instead: '' }])).ms.toFixed(0)} ms`,
);
