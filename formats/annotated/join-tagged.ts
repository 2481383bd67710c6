import {
  PDFArray,
  PDFDict,
  PDFName,
  PDFNumber,
  PDFObjectCopier,
  PDFPage,
  PDFPageLeaf,
  PDFRef,
  type PDFDocument,
} from '@cantoo/pdf-lib';

/** Puts the pages of one PDF into another together with the structure that screen readers follow (ISO 32000-1, 14.7). */

const name = (text: string) => PDFName.of(text);

/**
 * Puts all pages of `from` into `into`, before its page `at`. Their structure is put behind what is there already; the
 * document counts as tagged from then on.
 */
export function insertTagged(into: PDFDocument, from: PDFDocument, at: number): void {
  const copier = PDFObjectCopier.for(from.context, into.context);
  // The pages first, so that the structure's references to them find the copies.
  const copied = from.getPages().map((page) => copier.copy(page.ref));
  for (const [index, ref] of copied.entries()) {
    const leaf = into.context.lookup(ref);
    if (!(ref instanceof PDFRef) || !(leaf instanceof PDFPageLeaf)) throw new Error('a page is no page');
    into.insertPage(at + index, PDFPage.of(leaf, ref, into));
  }
  const root = from.catalog.get(name('StructTreeRoot'));
  if (root === undefined) return;
  const newRoot = into.context.lookup(copier.copy(root), PDFDict);
  into.catalog.set(name('MarkInfo'), into.context.obj({ Marked: true }));
  const known = into.catalog.lookup(name('StructTreeRoot'));
  if (known instanceof PDFDict) joinStructure(into, known, newRoot, copied);
  else into.catalog.set(name('StructTreeRoot'), into.context.register(newRoot));
  if (!(known instanceof PDFDict)) pointTo(into, newRoot, into.catalog.get(name('StructTreeRoot')) as PDFRef);
}

/** The topmost elements of a structure. */
function topOf(root: PDFDict): (PDFRef | PDFDict)[] {
  const kids = root.lookup(name('K'));
  const raw = root.get(name('K'));
  const all = kids instanceof PDFArray ? kids.asArray() : raw === undefined ? [] : [raw];
  return all.flatMap((kid) => (kid instanceof PDFRef || kid instanceof PDFDict ? [kid] : []));
}

function pointTo(document: PDFDocument, root: PDFDict, ref: PDFRef): void {
  for (const kid of topOf(root)) document.context.lookup(kid, PDFDict).set(name('P'), ref);
}

function joinStructure(
  document: PDFDocument,
  known: PDFDict,
  added: PDFDict,
  pages: readonly PDFRef[],
): void {
  const { context } = document;
  const knownRef = document.catalog.get(name('StructTreeRoot'));
  const rootRef = knownRef instanceof PDFRef ? knownRef : context.register(known);
  document.catalog.set(name('StructTreeRoot'), rootRef);
  pointTo(document, added, rootRef);
  known.set(name('K'), context.obj([...topOf(known), ...topOf(added)]));
  const parents = parentsIn(known.lookup(name('ParentTree')));
  const next = Math.max(0, ...parents.map(([key]) => key + 1));
  const own = parentsIn(added.lookup(name('ParentTree')));
  const all = [...parents, ...own.map(([key, value]) => [key + next, value] as const)];
  known.set(name('ParentTree'), context.register(context.obj({ Nums: all.flat() })));
  known.set(name('ParentTreeNextKey'), PDFNumber.of(Math.max(0, ...all.map(([key]) => key + 1))));
  for (const ref of pages) {
    const page = context.lookup(ref, PDFDict);
    shiftKey(page, 'StructParents', next);
    const annotations = page.lookup(name('Annots'));
    if (annotations instanceof PDFArray)
      for (const one of annotations.asArray()) {
        const annotation = context.lookup(one);
        if (annotation instanceof PDFDict) shiftKey(annotation, 'StructParent', next);
      }
  }
}

function shiftKey(dict: PDFDict, key: string, by: number): void {
  const value = dict.lookup(name(key));
  if (value instanceof PDFNumber) dict.set(name(key), PDFNumber.of(value.asNumber() + by));
}

/** The entries of a number tree (ISO 32000-1, 7.9.7), in order. */
function parentsIn(tree: unknown): (readonly [number, PDFRef | PDFDict | PDFArray])[] {
  if (!(tree instanceof PDFDict)) return [];
  const found: (readonly [number, PDFRef | PDFDict | PDFArray])[] = [];
  const numbers = tree.lookup(name('Nums'));
  if (numbers instanceof PDFArray)
    for (let i = 0; i + 1 < numbers.size(); i += 2) {
      const key = numbers.lookup(i);
      const value = numbers.get(i + 1);
      const isValue = value instanceof PDFRef || value instanceof PDFDict || value instanceof PDFArray;
      if (key instanceof PDFNumber && isValue) found.push([key.asNumber(), value]);
    }
  const kids = tree.lookup(name('Kids'));
  if (kids instanceof PDFArray)
    for (let i = 0; i < kids.size(); i++) found.push(...parentsIn(kids.lookup(i)));
  return found;
}
