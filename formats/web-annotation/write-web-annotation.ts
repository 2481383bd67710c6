/** A remark that no file holds, about words or about a box in a picture. */
export interface WebRemarkToWrite {
  readonly id: string;
  readonly text: string;
  readonly selector:
    | { readonly kind: 'quote'; readonly exact: string }
    | { readonly kind: 'box'; readonly box: readonly number[] };
}

/**
 * Remarks about one source as a W3C Web Annotation collection.
 * @param source the name of the file that they are about
 * @param desk what their ids begin with
 * @param at when they were written, ISO 8601
 */
export function writeWebAnnotations(
  source: string,
  remarks: readonly WebRemarkToWrite[],
  author: { readonly name: string; readonly byMachine: boolean },
  { at, desk }: { readonly at: string; readonly desk: string },
): Uint8Array<ArrayBuffer> {
  const items = remarks.map(({ id, text, selector }) => ({
    id: `urn:${desk}:${id}`,
    type: 'Annotation',
    motivation: author.byMachine ? 'linking' : 'commenting',
    created: at,
    creator: { type: author.byMachine ? 'Software' : 'Person', name: author.name },
    body: { type: 'TextualBody', value: text, format: 'text/plain' },
    target: {
      source,
      selector:
        selector.kind === 'quote'
          ? { type: 'TextQuoteSelector', exact: selector.exact }
          : {
              type: 'FragmentSelector',
              conformsTo: 'http://www.w3.org/TR/media-frags/',
              value: `xywh=pixel:${selector.box.join(',')}`,
            },
    },
  }));
  const collection = {
    '@context': 'http://www.w3.org/ns/anno.jsonld',
    type: 'AnnotationCollection',
    total: items.length,
    first: { type: 'AnnotationPage', items },
  };
  return new TextEncoder().encode(JSON.stringify(collection, null, 1));
}
