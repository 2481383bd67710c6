import { readdirSync, readFileSync } from 'node:fs';
import * as v from 'valibot';
import { blocksOfLines, paperOf, type Block, type Paper } from '#core/paper/paper.ts';

/** How a remark was answered by whoever wrote the new text, from paper and remarks alone. */
const hows = ['beside', 'elsewhere', 'reworded', 'none'] as const;

const Rewrite = v.object({
  /** The feedback that it answers, by its name among the demo's. */
  paper: v.string(),
  edits: v.array(v.object({ find: v.string(), put: v.string() })),
  answers: v.array(
    v.object({
      remark: v.string(),
      how: v.picklist(hows),
      /** Words of the new text that answer it; empty for what was only taken out. */
      words: v.array(v.string()),
    }),
  ),
});
export type Rewrite = v.InferOutput<typeof Rewrite>;

const folder = new URL('./rewrites/', import.meta.url);

export function readRewrites(): Rewrite[] {
  return readdirSync(folder)
    .filter((name) => name.endsWith('.json'))
    .toSorted()
    .map((name) => v.parse(Rewrite, JSON.parse(readFileSync(new URL(name, folder), 'utf8'))));
}

/** A paper with these edits made in it; each must find its words exactly once. */
export function rewritten(paper: Paper, edits: Rewrite['edits']): Paper {
  let blocks: readonly Block[] = paper.blocks;
  for (const { find, put } of edits) {
    const holding = blocks.filter(({ text }) => text.includes(find));
    if (holding.length !== 1) throw new Error(`“${find}” stands in ${holding.length} blocks`);
    blocks = blocks.flatMap((block) => {
      if (block !== holding[0]) return [block];
      const [first, ...rest] = block.text.replace(find, () => put).split('\n');
      return [{ ...block, text: first }, ...blocksOfLines(rest.join('\n'))];
    });
  }
  return paperOf(blocks);
}
