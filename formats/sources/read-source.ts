import { blocksOfLines, paperOf, type Paper } from '#core/paper/paper.ts';
import type { PdfAssets } from '../pdf/open-pdf.ts';
import { readPaper } from '../read-paper.ts';
import { textOfHtml } from '../text/html-text.ts';
import { UnreadableFile } from '../unreadable.ts';

const HTML = /^\s*(?:<!doctype html|<html)/i;
/** A page says what it is within so many bytes. */
const BEGINNING = 512;
/** What pages of the web stay below, by far. */
const MOST_HTML_BYTES = 50 * 1024 * 1024;

/**
 * Reads a text that a draft is compared with: any kind of paper, or a page of the web.
 * @throws UnreadableFile; 'no text' for what has no word in it, a scanned page for instance
 */
export async function readSource(bytes: Uint8Array, assets: PdfAssets | null): Promise<Paper> {
  const isHtml = HTML.test(new TextDecoder().decode(bytes.subarray(0, BEGINNING)));
  if (isHtml && bytes.length > MOST_HTML_BYTES) throw new UnreadableFile('too large');
  const paper = isHtml
    ? paperOf(blocksOfLines(textOfHtml(new TextDecoder().decode(bytes))))
    : (await readPaper(bytes, assets)).paper;
  if (!/[\p{L}\p{N}]/u.test(paper.text)) throw new UnreadableFile('no text');
  return paper;
}
