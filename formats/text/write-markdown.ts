import type { RichBlock, Run } from '#core/paper/draft.ts';

/** Characters that mean something else in Markdown (CommonMark 0.31). */
const SPECIAL = /([\\`*_[\]<>#|~^])/g;

/**
 * A draft as Markdown (CommonMark, with tables and footnotes as they are widely read): headings, lists, quotations, links,
 * bold and italics. Pictures stand as their captions, each with its name.
 */
export function writeMarkdown(blocks: readonly RichBlock[]): string {
  const notes: string[] = [];
  const pieces: string[] = [];
  const counts = new Map<number, number>();
  for (const [index, block] of blocks.entries()) {
    const before = blocks.at(index - 1);
    const goesOn =
      index > 0 &&
      block.kind === 'item' &&
      before?.kind === 'item' &&
      before.list?.number === block.list?.number;
    pieces.push(goesOn ? '\n' : index === 0 ? '' : '\n\n', written(block, notes, counts));
  }
  const ends = notes.map((note, index) => `[^${index + 1}]: ${escaped(note)}`);
  return `${[pieces.join(''), ...ends].join('\n\n')}\n`;
}

function written(block: RichBlock, notes: string[], counts: Map<number, number>): string {
  switch (block.kind) {
    case 'heading':
      return `${'#'.repeat(Math.min(6, Math.max(1, block.level)))} ${inline(block.runs, notes)}`;
    case 'item': {
      const { number, ordered } = block.list ?? { number: 0, ordered: false };
      const count = (counts.get(number) ?? 0) + 1;
      counts.set(number, count);
      return `${'   '.repeat(block.level)}${ordered ? `${count}.` : '-'} ${inline(block.runs, notes)}`;
    }
    case 'quote':
      return `> ${inline(block.runs, notes)}`;
    case 'paragraph':
      return inline(block.runs, notes)
        .replace(/^(\d+)([.)])/, '$1\\$2')
        .replace(/^([-+])/, '\\$1');
    case 'picture':
      return `![${escaped(block.alt)}](${block.hash.slice(0, 12)})\n\n${inline(block.runs, notes)}`.trimEnd();
    case 'rows': {
      const [head, ...rows] = block.rows.map((cells) =>
        cells.map(({ blocks }) =>
          blocks
            .map((one) => written(one, notes, counts))
            .join(' ')
            .replaceAll('\n', ' '),
        ),
      );
      const line = (cells: readonly string[]) => `| ${cells.join(' | ')} |`;
      return [line(head), line(head.map(() => '---')), ...rows.map(line)].join('\n');
    }
  }
}

const escaped = (text: string) => text.replace(SPECIAL, '\\$1');

function inline(runs: readonly Run[], notes: string[]): string {
  return runs
    .map(({ text, bold, italic, link, note }) => {
      if (note !== undefined) return `[^${notes.push(note)}]`;
      const [, before, core, after] = /^(\s*)(.*?)(\s*)$/s.exec(text) ?? ['', '', text, ''];
      if (core === '') return text.replaceAll('\n', '  \n');
      const marks = `${bold ? '**' : ''}${italic ? '*' : ''}`;
      const shown = `${marks}${escaped(core).replaceAll('\n', '  \n')}${marks}`;
      return `${before}${link === undefined ? shown : `[${shown}](${link})`}${after}`;
    })
    .join('');
}
