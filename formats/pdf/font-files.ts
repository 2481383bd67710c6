import type { PdfFonts } from './write-pdf.ts';

/** The files of the fonts that PDFs are written with (package @fontsource/literata), the most usual characters first. */
const RANGES = ['latin', 'latin-ext', 'greek', 'cyrillic'];
const LOOKS: Readonly<Record<'regular' | 'bold' | 'italic', string>> = {
  regular: '400-normal',
  bold: '700-normal',
  italic: '400-italic',
};

/** Reads each of them by its name within the package. */
export function fontsBy(read: (file: string) => Uint8Array): PdfFonts {
  const look = (name: 'regular' | 'bold' | 'italic') =>
    RANGES.map((range) => read(`files/literata-${range}-${LOOKS[name]}.woff`));
  return { regular: look('regular'), bold: look('bold'), italic: look('italic') };
}
