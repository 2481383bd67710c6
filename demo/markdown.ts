import type { Block } from '#core/paper/paper.ts';

/** The blocks of a demo text: `#` headings and paragraphs, parted by empty lines. */
export function blocksOfMarkdown(markdown: string): Block[] {
  return markdown
    .split(/\n\s*\n/)
    .map((part) => part.trim().replaceAll('\n', ' '))
    .filter((part) => part !== '')
    .map((part): Block => {
      const heading = /^(#{1,3}) (.*)$/.exec(part);
      if (heading === null) return { kind: 'paragraph', level: 0, text: part };
      return { kind: 'heading', level: heading[1].length, text: heading[2] };
    });
}
