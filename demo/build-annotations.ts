import { strToU8 } from 'fflate';

/** Makes remarks that no file holds: a W3C Web Annotation collection about one source. */

export interface WebRemarkToWrite {
  readonly id: string;
  readonly text: string;
  readonly selector:
    | { readonly kind: 'quote'; readonly exact: string }
    | { readonly kind: 'box'; readonly box: readonly number[] };
}

/** @param byMachine the name of the program that wrote it; else a person's */
export function buildAnnotations(
  source: string,
  remarks: readonly WebRemarkToWrite[],
  author: { readonly name: string; readonly byMachine: boolean },
  at: string,
): Uint8Array {
  const items = remarks.map(({ id, text, selector }) => ({
    id: `urn:hollowmere:${id}`,
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
  return strToU8(JSON.stringify(collection, null, 1));
}
