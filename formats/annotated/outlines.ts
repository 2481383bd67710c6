import { PDFDict, PDFHexString, PDFName, PDFNumber, PDFRef, type PDFDocument } from '@cantoo/pdf-lib';

/** A bookmark: where it leads, and those below it. */
export interface Bookmark {
  readonly title: string;
  /** A destination (ISO 32000-1, 12.3.2.2): page, left, top. */
  readonly to: { readonly page: PDFRef; readonly left: number; readonly top: number };
  readonly below: readonly Bookmark[];
}

/** Puts bookmarks before those that the document has. Those below a bookmark are folded away. */
export function addBookmarks(document: PDFDocument, bookmarks: readonly Bookmark[]): void {
  const { context, catalog } = document;
  if (bookmarks.length === 0) return;
  const known = catalog.lookup(PDFName.of('Outlines'));
  const knownRef = catalog.get(PDFName.of('Outlines'));
  const root = known instanceof PDFDict ? known : context.obj({ Type: 'Outlines' });
  const rootRef = knownRef instanceof PDFRef && known instanceof PDFDict ? knownRef : context.register(root);
  const refs = write(document, bookmarks, rootRef);
  const first = root.get(PDFName.of('First'));
  if (first instanceof PDFRef) {
    context.lookup(first, PDFDict).set(PDFName.of('Prev'), refs[refs.length - 1]);
    context.lookup(refs[refs.length - 1], PDFDict).set(PDFName.of('Next'), first);
  } else root.set(PDFName.of('Last'), refs[refs.length - 1]);
  root.set(PDFName.of('First'), refs[0]);
  const count = root.lookup(PDFName.of('Count'));
  const shown = count instanceof PDFNumber ? Math.max(0, count.asNumber()) : 0;
  root.set(PDFName.of('Count'), PDFNumber.of(shown + refs.length));
  catalog.set(PDFName.of('Outlines'), rootRef);
}

function write(document: PDFDocument, bookmarks: readonly Bookmark[], parent: PDFRef): PDFRef[] {
  const { context } = document;
  const refs = bookmarks.map(() => context.nextRef());
  for (const [index, { title, to, below }] of bookmarks.entries()) {
    const item = context.obj({ Parent: parent, Dest: [to.page, 'XYZ', to.left, to.top, null] });
    item.set(PDFName.of('Title'), PDFHexString.fromText(title));
    const before = refs.at(index - 1);
    const behind = refs.at(index + 1);
    if (index > 0 && before !== undefined) item.set(PDFName.of('Prev'), before);
    if (behind !== undefined) item.set(PDFName.of('Next'), behind);
    if (below.length > 0) {
      const own = write(document, below, refs[index]);
      item.set(PDFName.of('First'), own[0]);
      item.set(PDFName.of('Last'), own[own.length - 1]);
      item.set(PDFName.of('Count'), PDFNumber.of(-own.length));
    }
    context.assign(refs[index], item);
  }
  return refs;
}
