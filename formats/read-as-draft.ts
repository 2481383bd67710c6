import { imageSize } from 'image-size';
import { draftFrom, draftFromLayout } from '#core/paper/begin-draft.ts';
import type { DraftContent } from '#core/model/work.ts';
import { notHeldInDocx, type NotHeld } from './docx/not-held.ts';
import type { PdfAssets } from './pdf/open-pdf.ts';
import { readPdfAsDraft, type DrawPart } from './pdf/read-pdf-as-draft.ts';
import { readPaper } from './read-paper.ts';
import { recognise } from './recognise.ts';

/** A picture that stands in a draft which was read from a file; its place in the document names it by `name`. */
export interface DraftPicture {
  /** The `hash` that the document has in its stead, until the bytes are hashed. */
  readonly name: string;
  readonly bytes: Uint8Array<ArrayBuffer>;
  readonly mediaType: string;
}

/** A file as a document of the editor, its pictures, and what of it the editor can't hold. */
export interface ReadDraft {
  readonly content: DraftContent;
  readonly pictures: readonly DraftPicture[];
  readonly notHeld: readonly NotHeld[];
}

/** Picture types that every browser shows. */
const SHOWN = new Set(['image/png', 'image/jpeg', 'image/gif', 'image/webp']);
/** Of a wider one the height follows; in the units of the page, as pictures are seldom meant to be wider than the text. */
const MOST_WIDTH = 620;

/**
 * Reads a file as a draft to go on writing in: with tables, pictures, footnotes, lists and looks where the format tells them
 * (Word, OpenDocument, HTML), changes accepted; a PDF by what its pages show, with its pictures and figures cut out of them.
 * @param draw draws parts of a PDF's pages; null where nothing can be drawn: its pictures are left out then
 * @throws UnreadableFile
 */
export async function readAsDraft(
  bytes: Uint8Array,
  assets: PdfAssets | null,
  draw: DrawPart | null,
): Promise<ReadDraft> {
  const isPdf = recognise(bytes).kind === 'pdf';
  const pdf = isPdf ? await readPdfAsDraft(bytes, assets, draw) : null;
  const read = pdf === null ? await readPaper(bytes, assets) : null;
  const layout = pdf?.layout ?? read?.layout ?? null;
  if (layout === null) return { content: draftFrom(read?.paper.blocks ?? []), pictures: [], notHeld: [] };
  const pictures: DraftPicture[] = [];
  let unshown = pdf?.undrawn ?? 0;
  const content = draftFromLayout(layout, (index) => {
    const picture = layout.pictures[index];
    const size = SHOWN.has(picture.mediaType) ? sizeOf(picture.bytes) : null;
    if (size === null) {
      unshown++;
      return null;
    }
    const name = `picture ${pictures.length + 1}`;
    pictures.push({ name, bytes: picture.bytes, mediaType: picture.mediaType });
    const attrs = { hash: name, mediaType: picture.mediaType, alt: picture.description, ...size };
    return { type: 'figure', attrs };
  });
  const tracked = layout.changes.length;
  return {
    content,
    pictures,
    notHeld: [
      ...(unshown > 0 ? [{ what: 'other pictures' as const, count: unshown }] : []),
      ...(tracked > 0 ? [{ what: 'tracked changes' as const, count: tracked }] : []),
      ...(read?.kind === 'docx' ? notHeldInDocx(bytes) : []),
      ...(isPdf ? [{ what: 'pages' as const, count: 1 }] : []),
    ],
  };
}

function sizeOf(bytes: Uint8Array): { width: number; height: number } | null {
  try {
    const { width, height } = imageSize(bytes);
    const share = Math.min(1, MOST_WIDTH / width);
    return { width: Math.round(width * share), height: Math.round(height * share) };
  } catch {
    // What has no size that can be told is no picture that can be shown.
    return null;
  }
}
