import type { DraftContent } from '#core/model/work.ts';

/** The draft that `written-by-another.docx` was made from: written here as a Word file, opened and saved again by LibreOffice. */

const PICTURE = 'a'.repeat(64);

const text = (said: string, ...marks: object[]) => ({
  type: 'text',
  text: said,
  ...(marks.length === 0 ? {} : { marks }),
});
const paragraph = (...content: object[]) => ({ type: 'paragraph', content });
const item = (...content: object[]) => ({ type: 'listItem', content });
const cell = (type: string, said: string) => ({ type, content: [paragraph(text(said))] });

export const writtenDraft: DraftContent = {
  schema: 1,
  doc: {
    type: 'doc',
    content: [
      { type: 'heading', attrs: { level: 1 }, content: [text('The gauge at the weir')] },
      { type: 'heading', attrs: { level: 2 }, content: [text('What was read')] },
      paragraph(
        text('The gauge stood '),
        text('dry', { type: 'bold' }),
        text(' for '),
        text('nine days', { type: 'italic' }),
        text(', and the area was 4 m'),
        text('2', { type: 'superscript' }),
        text('.'),
        { type: 'footnote', attrs: { text: 'As the keeper wrote it down.' } },
      ),
      {
        type: 'orderedList',
        content: [
          item(paragraph(text('read the rim')), {
            type: 'bulletList',
            content: [item(paragraph(text('twice'))), item(paragraph(text('by two people')))],
          }),
          item(paragraph(text('write it down'))),
        ],
      },
      {
        type: 'table',
        content: [
          { type: 'tableRow', content: [cell('tableHeader', 'Day'), cell('tableHeader', 'Depth')] },
          { type: 'tableRow', content: [cell('tableCell', 'Monday'), cell('tableCell', '214 mm')] },
          { type: 'tableRow', content: [cell('tableCell', 'Tuesday'), cell('tableCell', '96 mm')] },
        ],
      },
      {
        type: 'figure',
        attrs: { hash: PICTURE, mediaType: 'image/png', alt: 'The core', width: 300, height: 200 },
        content: [text('Figure 1. The core.')],
      },
      paragraph(
        text('More in '),
        text('the book', { type: 'link', attrs: { href: 'https://ashwell.example/book' } }),
        text('.'),
      ),
    ],
  },
};
