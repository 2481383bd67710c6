import { readFileSync } from 'node:fs';
import { expect, it } from 'vitest';
import { richBlocksOf } from '#core/paper/draft.ts';
import { normaliseText } from '#core/text/normalise.ts';
import { readAsDraft } from '#formats/read-as-draft.ts';
import { buildDesk } from './build-desk.ts';
import { blocksOfMarkdown } from './markdown.ts';

/** The papers that came back as PDFs, and what they were set from. */
const PAPERS: Readonly<Record<string, string>> = {
  'Skarn Moss report, marked.pdf': 'skarn-moss-report',
  'Falling-head sheet, marked.pdf': 'falling-head-sheet',
  'What a hedge remembers, marked.pdf': 'landscape-essay',
  'Ten days of rain, marked.pdf': 'rain-diary',
};

it('a draft begins with the headings and paragraphs of the paper that came back', async () => {
  const desk = await buildDesk('2026-11-02');
  const files = desk.facts.flatMap((fact) => (fact.kind === 'marking' ? fact.value.files : []));
  const tally = { heading: [0, 0], paragraph: [0, 0] };
  const missing: string[] = [];
  for (const [name, source] of Object.entries(PAPERS)) {
    const bytes = desk.files.get(files.find((file) => file.name === name)?.hash ?? '');
    if (bytes === undefined) throw new Error(`no file ${name}`);
    const { content } = await readAsDraft(new Uint8Array(bytes), null, null);
    const found = new Set(
      richBlocksOf(content).flatMap((block) =>
        block.kind === 'rows'
          ? []
          : [`${block.kind} ${normaliseText(block.runs.map(({ text }) => text).join(''))}`],
      ),
    );
    for (const block of blocksOfMarkdown(readFileSync(`demo/papers/${source}.md`, 'utf8'))) {
      const of = tally[block.kind === 'heading' ? 'heading' : 'paragraph'];
      of[1]++;
      if (found.has(`${block.kind} ${normaliseText(block.text)}`)) of[0]++;
      else missing.push(`${name}: ${block.kind} ${block.text.slice(0, 80)}`);
    }
  }
  console.log(`drafts from the demo's papers: ${JSON.stringify(tally)}\n${missing.join('\n')}`);
  expect(tally.paragraph[0] / tally.paragraph[1]).toBeGreaterThanOrEqual(0.95);
  expect(tally.heading[0] / tally.heading[1]).toBeGreaterThanOrEqual(0.9);
});
