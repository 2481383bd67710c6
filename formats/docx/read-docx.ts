import { SaxesParser, type SaxesTagPlain } from 'saxes';
import type { Block } from '#core/paper/paper.ts';
import { MOST_FILE_BYTES, UnreadableFile } from '../unreadable.ts';
import { readZip } from '../zip/read-zip.ts';

const DOCUMENT = 'word/document.xml';
const STYLES = 'word/styles.xml';
const APP = 'docProps/app.xml';

export interface WordText {
  readonly blocks: readonly Block[];
  /** The number of pages that the file itself states; null where it states none. */
  readonly pages: number | null;
}

/**
 * Reads the text of a Word file (.docx, ECMA-376) as it stands with tracked changes accepted: headings, list items and
 * paragraphs, those of tables too.
 * @throws UnreadableFile
 */
export function readDocx(bytes: Uint8Array): WordText {
  if (bytes.length === 0) throw new UnreadableFile('empty');
  if (bytes.length > MOST_FILE_BYTES) throw new UnreadableFile('too large');
  if (bytes[0] !== 0x50 || bytes[1] !== 0x4b) throw new UnreadableFile('not a Word file');
  const parts = partsOf(bytes);
  const document = parts[DOCUMENT] as Uint8Array | undefined;
  if (document === undefined) throw new UnreadableFile('not a Word file');
  const styles = parts[STYLES] as Uint8Array | undefined;
  const app = parts[APP] as Uint8Array | undefined;
  try {
    const levels = styles === undefined ? new Map<string, number>() : headingLevels(textOf(styles));
    return {
      blocks: blocksOf(textOf(document), levels),
      pages: app === undefined ? null : pagesOf(textOf(app)),
    };
  } catch (error) {
    throw new UnreadableFile('damaged Word file', error instanceof Error ? error.message : '');
  }
}

function partsOf(bytes: Uint8Array) {
  try {
    return readZip(bytes, (name) => name === DOCUMENT || name === STYLES || name === APP);
  } catch (error) {
    if (error instanceof UnreadableFile) throw error;
    throw new UnreadableFile('damaged Word file', error instanceof Error ? error.message : '');
  }
}

function textOf(bytes: Uint8Array): string {
  return new TextDecoder().decode(bytes);
}

function parseXml(
  xml: string,
  on: { open?: (tag: SaxesTagPlain) => void; text?: (text: string) => void; close?: (name: string) => void },
): void {
  const parser = new SaxesParser();
  parser.on('error', (error) => {
    throw error;
  });
  parser.on('doctype', () => {
    throw new Error('a document type declaration has no place here');
  });
  parser.on('opentag', (tag) => on.open?.(tag));
  parser.on('text', (text) => on.text?.(text));
  parser.on('closetag', (tag) => on.close?.(tag.name));
  parser.write(xml).close();
}

/** Heading levels by style id: from the outline level, else from the built-in name "heading n" or "Title". */
function headingLevels(xml: string): Map<string, number> {
  const levels = new Map<string, number>();
  let style: string | null = null;
  parseXml(xml, {
    open: ({ name, attributes }) => {
      if (name === 'w:style') style = attributes['w:styleId'] ?? null;
      if (style === null) return;
      const value = (attributes['w:val'] as string | undefined) ?? '';
      const named = /^heading (\d)$/i.exec(value);
      if (name === 'w:name' && named !== null) levels.set(style, Number(named[1]));
      if (name === 'w:name' && value.toLowerCase() === 'title') levels.set(style, 1);
      if (name === 'w:outlineLvl' && Number(value) < 9) levels.set(style, Number(value) + 1);
    },
    close: (name) => {
      if (name === 'w:style') style = null;
    },
  });
  return levels;
}

interface OpenParagraph {
  text: string;
  level: number;
  inList: boolean;
}

function blocksOf(xml: string, levels: ReadonlyMap<string, number>): Block[] {
  const blocks: Block[] = [];
  // Text boxes put paragraphs inside paragraphs.
  const open: OpenParagraph[] = [];
  let inText = false;
  let fallbacks = 0;
  parseXml(xml, {
    open: ({ name, attributes }) => {
      const paragraph = open.at(-1);
      // A text box is written twice, the second time for old readers.
      if (name === 'mc:Fallback') fallbacks++;
      else if (name === 'w:p') open.push({ text: '', level: 0, inList: false });
      else if (paragraph === undefined) return;
      else if (name === 'w:pStyle') paragraph.level = levels.get(attributes['w:val']) ?? 0;
      else if (name === 'w:outlineLvl') paragraph.level = Math.min(9, Number(attributes['w:val']) + 1) % 10;
      else if (name === 'w:numPr') paragraph.inList = true;
      else if (name === 'w:t') inText = true;
      else if (name === 'w:tab' || name === 'w:br' || name === 'w:cr') paragraph.text += ' ';
      else if (name === 'w:noBreakHyphen') paragraph.text += '-';
    },
    text: (text) => {
      const paragraph = open.at(-1);
      if (inText && paragraph !== undefined) paragraph.text += text;
    },
    close: (name) => {
      if (name === 'w:t') inText = false;
      if (name === 'mc:Fallback') fallbacks--;
      if (name !== 'w:p') return;
      const paragraph = open.pop();
      if (paragraph === undefined || fallbacks > 0 || paragraph.text.trim() === '') return;
      const { text, level, inList } = paragraph;
      if (level > 0) blocks.push({ kind: 'heading', level, text });
      else blocks.push({ kind: inList ? 'item' : 'paragraph', level: 0, text });
    },
  });
  return blocks;
}

function pagesOf(xml: string): number | null {
  const pages = Number(/<Pages>(\d+)<\/Pages>/.exec(xml)?.[1]);
  return Number.isInteger(pages) && pages > 0 ? pages : null;
}
