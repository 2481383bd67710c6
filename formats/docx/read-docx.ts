import type { Block } from '#core/paper/paper.ts';
import { readMarkedDocx } from './read-marked-docx.ts';

/** The text of a Word file, changes accepted, and the number of pages that the file states. */
export interface WordText {
  readonly blocks: readonly Block[];
  /** The number of pages that the file itself states; null where it states none. */
  readonly pages: number | null;
}

/**
 * Reads the text of a Word file (.docx) as it stands with tracked changes accepted: headings, list items and paragraphs,
 * those of tables too.
 * @throws UnreadableFile
 */
export function readDocx(bytes: Uint8Array): WordText {
  const { paper, statedPages } = readMarkedDocx(bytes);
  return { blocks: paper.blocks, pages: statedPages };
}
