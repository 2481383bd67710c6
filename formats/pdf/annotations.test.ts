import type { PDFPageProxy } from 'pdfjs-dist/legacy/build/pdf.mjs';
import { describe, expect, it } from 'vitest';
import { annotationsOfPage, threadsOf } from './annotations.ts';

/** A page that tells of these annotations, as pdf.js does. */
const pageWith = (...annotations: object[]) =>
  ({ pageNumber: 3, getAnnotations: () => Promise.resolve(annotations) }) as unknown as PDFPageProxy;
const NAMES = Promise.resolve(new Map());

describe('the annotations of a page', () => {
  const sound = {
    id: '7R',
    subtype: 'Highlight',
    rect: [10, 20, 110, 32],
    contentsObj: { str: 'Say why.' },
    titleObj: { str: 'Dr Aune Keld' },
    creationDate: 'D:20260302091500Z',
  };

  it('are there with what they say, whatever else of them is odd', async () => {
    const odd = {
      ...sound,
      color: 'yellow',
      quadPoints: 'none',
      inkLists: 5,
      textContent: [1],
      richText: 'bold',
      defaultAppearanceData: 7,
      hasAppearance: 'yes',
      annotationFlags: null,
      creationDate: 20260302,
      file: { filename: 9 },
      inReplyTo: {},
      state: 1,
    };
    const [one] = await annotationsOfPage(pageWith(odd), NAMES);
    expect(one).toMatchObject({
      kind: 'highlight',
      page: 3,
      text: 'Say why.',
      author: 'Dr Aune Keld',
      rect: [10, 20, 110, 32],
      at: null,
      file: null,
      inReplyTo: null,
    });
  });

  it('are listed where their kind is not known, however little they tell', async () => {
    const annotations = await annotationsOfPage(
      pageWith(sound, { id: '8R', subtype: '3D', rect: 'nowhere' }, { id: '9R', subtype: 'Redact' }),
      NAMES,
    );
    expect(annotations).toHaveLength(3);
    expect(threadsOf(annotations).unknownKinds.toSorted()).toEqual(['3d', 'redact']);
  });
});
