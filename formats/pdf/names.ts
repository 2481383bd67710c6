import { textOfHtml } from '../text/html-text.ts';
import { Malformed, parsed, parsing } from '../malformed.ts';
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
  const value = parsing(() => dict.lookup(PDFName.of(key)));
  return value instanceof PDFString || value instanceof PDFHexString
    ? parsing(() => value.decodeText())
    : null;
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
  } catch (error) {
    if (!(error instanceof Malformed)) throw error;
    // What the other reader makes of the file decides whether it can be read.
  }
  return byId;
}

async function gather(
  bytes: Uint8Array,
  password: string | undefined,
  byId: Map<string, AnnotationNames>,
): Promise<void> {
  const document = await parsed(
    PDFDocument.load(bytes, {
      updateMetadata: false,
      throwOnInvalidObject: false,
      ...(password !== undefined && { password }),
    }),
  );
  for (const page of parsing(() => document.getPages())) {
    const annotations = parsing(() => page.node.lookup(PDFName.of('Annots')));
    if (!(annotations instanceof PDFArray)) continue;
    for (const entry of annotations.asArray()) {
      const dict = parsing(() => document.context.lookup(entry));
      if (!(entry instanceof PDFRef) || !(dict instanceof PDFDict)) continue;
      const generation = entry.generationNumber === 0 ? '' : String(entry.generationNumber);
      const rich = textAt(dict, 'RC');
      byId.set(`${entry.objectNumber}R${generation}`, {
        name: textAt(dict, 'NM'),
        subject: textAt(dict, 'Subj'),
        richText: rich === null ? null : textOfHtml(rich),
        created: textAt(dict, 'CreationDate'),
        contents: textAt(dict, 'Contents'),
      });
    }
  }
}
