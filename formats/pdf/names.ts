import { PDFArray, PDFDict, PDFDocument, PDFHexString, PDFName, PDFRef, PDFString } from '@cantoo/pdf-lib';

/** What an annotation's dictionary says beyond what pdf.js tells: its own name (NM) and its subject (Subj). */
export interface AnnotationNames {
  readonly name: string | null;
  readonly subject: string | null;
}

function textAt(dict: PDFDict, key: string): string | null {
  const value = dict.lookup(PDFName.of(key));
  return value instanceof PDFString || value instanceof PDFHexString ? value.decodeText() : null;
}

/**
 * Names and subjects of a PDF's annotations, by pdf.js's id (`12R` for object 12, generation 0). A file that the second
 * reader can't parse has none: its remarks are still read, with ids derived from their place.
 */
export async function readAnnotationNames(bytes: Uint8Array): Promise<Map<string, AnnotationNames>> {
  const byId = new Map<string, AnnotationNames>();
  const document = await PDFDocument.load(bytes, {
    updateMetadata: false,
    throwOnInvalidObject: false,
  }).catch(() => null);
  if (document === null) return byId;
  for (const page of document.getPages()) {
    const annotations = page.node.lookup(PDFName.of('Annots'));
    if (!(annotations instanceof PDFArray)) continue;
    for (const entry of annotations.asArray()) {
      const dict = document.context.lookup(entry);
      if (!(entry instanceof PDFRef) || !(dict instanceof PDFDict)) continue;
      const generation = entry.generationNumber === 0 ? '' : String(entry.generationNumber);
      byId.set(`${entry.objectNumber}R${generation}`, {
        name: textAt(dict, 'NM'),
        subject: textAt(dict, 'Subj'),
      });
    }
  }
  return byId;
}
