import { PDFArray, PDFDocument, PDFName, PDFString, StandardFonts } from '@cantoo/pdf-lib';
import reportMarkdown from '#demo/papers/skarn-moss-report.md?raw';

/** A long paper out of the demo report's sentences, with highlights over whole lines, notes and answers. */
export async function largePdf(pages: number, remarks: number): Promise<Uint8Array> {
  const document = await PDFDocument.create();
  const font = await document.embedFont(StandardFonts.TimesRoman);
  const words = reportMarkdown
    .replace(/^#+ /gm, '')
    .replace(/[^\x20-\x7e]+/g, ' ')
    .split(/\s+/);
  let next = 0;
  for (let number = 0; number < pages; number++) {
    const page = document.addPage([595, 842]);
    const lines = Array.from({ length: 44 }, () =>
      Array.from({ length: 12 }, () => words[next++ % words.length]).join(' '),
    );
    lines.forEach((line, i) => page.drawText(line, { x: 70, y: 770 - i * 16, size: 10, font }));
    const list = PDFArray.withContext(document.context);
    const count = Math.floor((remarks * (number + 1)) / pages) - Math.floor((remarks * number) / pages);
    for (let i = 0; i < count; i++) {
      const at = (i * 5) % lines.length;
      const [y, width] = [770 - at * 16, font.widthOfTextAtSize(lines[at], 10)];
      const isNote = i % 4 === 3;
      const annotation = {
        Type: 'Annot',
        Subtype: isNote ? 'Text' : 'Highlight',
        Rect: isNote ? [20, y - 4, 40, y + 16] : [70, y - 3, 70 + width, y + 9],
        ...(!isNote && { QuadPoints: [70, y + 9, 70 + width, y + 9, 70, y - 3, 70 + width, y - 3] }),
        C: [0.96, 0.85, 0.25],
        T: PDFString.of('Dr Aune Keld'),
        NM: PDFString.of(`bench-${number}-${i}`),
        Contents: PDFString.of(`Remark ${number}.${i}: say what the wells show here, and for which season.`),
        CreationDate: PDFString.of('D:20260302091500Z'),
      };
      list.push(document.context.register(document.context.obj(annotation)));
    }
    page.node.set(PDFName.of('Annots'), list);
  }
  return document.save();
}
