import { PDFArray, PDFDict, PDFDocument, PDFHexString, PDFName, PDFRef, PDFString } from '@cantoo/pdf-lib';

/** What an annotation's dictionary says beyond what pdf.js tells. */
export interface AnnotationNames {
  /** Its own name (NM). */
  readonly name: string | null;
  /** Its subject (Subj). */
  readonly subject: string | null;
  /** Its rich contents (RC) as plain text. */
  readonly richText: string | null;
  readonly created: string | null;
  /** Its own contents: in a group pdf.js tells those of the annotation that leads it instead. */
  readonly contents: string | null;
}

function textAt(dict: PDFDict, key: string): string | null {
  const value = dict.lookup(PDFName.of(key));
  return value instanceof PDFString || value instanceof PDFHexString ? value.decodeText() : null;
}

const ENTITIES: Readonly<Record<string, string>> = { amp: '&', lt: '<', gt: '>', quot: '"', apos: "'" };

/** The text of rich contents (XHTML, ISO 32000-1, 12.7.3.4): a line for each paragraph, and nothing of its markup. */
function textOfRichContents(xhtml: string): string {
  return xhtml
    .replace(/<\?[^>]*\?>/g, '')
    .replace(/<br\s*\/?>|<\/p\s*>|<\/div\s*>/gi, '\n')
    .replace(/<[^>]*>/g, '')
    .replace(/&(?:#(\d{1,7})|#x([\da-f]{1,6})|(\w+));/gi, (all, decimal, hex, name) => {
      const code =
        decimal !== undefined ? Number(decimal) : hex !== undefined ? parseInt(String(hex), 16) : null;
      if (code !== null) return code <= 0x10ffff ? String.fromCodePoint(code) : all;
      return ENTITIES[String(name)] ?? all;
    })
    .replace(/[ \t]+/g, ' ')
    .replace(/ *\n[\n ]*/g, '\n')
    .trim();
}

/**
 * Names, subjects and rich contents of a PDF's annotations, by pdf.js's id (`12R` for object 12, generation 0). A file
 * that the second reader can't parse has none: its remarks are still read, with ids derived from their place.
 */
export async function readAnnotationNames(
  bytes: Uint8Array,
  password: string | undefined,
): Promise<Map<string, AnnotationNames>> {
  const byId = new Map<string, AnnotationNames>();
  try {
    await gather(bytes, password, byId);
  } catch {
    // What the other reader makes of the file decides whether it can be read.
  }
  return byId;
}

async function gather(
  bytes: Uint8Array,
  password: string | undefined,
  byId: Map<string, AnnotationNames>,
): Promise<void> {
  const document = await PDFDocument.load(bytes, {
    updateMetadata: false,
    throwOnInvalidObject: false,
    ...(password !== undefined && { password }),
  });
  for (const page of document.getPages()) {
    const annotations = page.node.lookup(PDFName.of('Annots'));
    if (!(annotations instanceof PDFArray)) continue;
    for (const entry of annotations.asArray()) {
      const dict = document.context.lookup(entry);
      if (!(entry instanceof PDFRef) || !(dict instanceof PDFDict)) continue;
      const generation = entry.generationNumber === 0 ? '' : String(entry.generationNumber);
      const rich = textAt(dict, 'RC');
      byId.set(`${entry.objectNumber}R${generation}`, {
        name: textAt(dict, 'NM'),
        subject: textAt(dict, 'Subj'),
        richText: rich === null ? null : textOfRichContents(rich),
        created: textAt(dict, 'CreationDate'),
        contents: textAt(dict, 'Contents'),
      });
    }
  }
}
