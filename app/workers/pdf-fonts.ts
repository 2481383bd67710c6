import cyrillic from '@fontsource/literata/files/literata-cyrillic-400-normal.woff?url';
import cyrillicBold from '@fontsource/literata/files/literata-cyrillic-700-normal.woff?url';
import cyrillicItalic from '@fontsource/literata/files/literata-cyrillic-400-italic.woff?url';
import greek from '@fontsource/literata/files/literata-greek-400-normal.woff?url';
import greekBold from '@fontsource/literata/files/literata-greek-700-normal.woff?url';
import greekItalic from '@fontsource/literata/files/literata-greek-400-italic.woff?url';
import latin from '@fontsource/literata/files/literata-latin-400-normal.woff?url';
import latinBold from '@fontsource/literata/files/literata-latin-700-normal.woff?url';
import latinItalic from '@fontsource/literata/files/literata-latin-400-italic.woff?url';
import latinMore from '@fontsource/literata/files/literata-latin-ext-400-normal.woff?url';
import latinMoreBold from '@fontsource/literata/files/literata-latin-ext-700-normal.woff?url';
import latinMoreItalic from '@fontsource/literata/files/literata-latin-ext-400-italic.woff?url';
import type { PdfFonts } from '#formats/pdf/write-pdf.ts';

async function bytesAt(url: string): Promise<Uint8Array> {
  const answer = await fetch(url);
  if (!answer.ok) throw new Error(`the font ${url} is not there: ${answer.status}`);
  return new Uint8Array(await answer.arrayBuffer());
}

let fonts: Promise<PdfFonts> | null = null;

/** The fonts that PDFs are written with; they ship with the application and are asked for once. */
export function pdfFonts(): Promise<PdfFonts> {
  fonts ??= load().catch((error: unknown) => {
    fonts = null;
    throw error;
  });
  return fonts;
}

async function load(): Promise<PdfFonts> {
  const all = (...urls: string[]) => Promise.all(urls.map(bytesAt));
  const [regular, bold, italic] = await Promise.all([
    all(latin, latinMore, greek, cyrillic),
    all(latinBold, latinMoreBold, greekBold, cyrillicBold),
    all(latinItalic, latinMoreItalic, greekItalic, cyrillicItalic),
  ]);
  return { regular, bold, italic };
}
