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
import { zlibSync } from 'fflate';
import { drawingOn, type TextCanvas } from '#formats/pdf/draw-text.ts';
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
  return { regular, bold, italic, draw: drawingOn(newCanvas) };
}

function newCanvas(width: number, height: number) {
  const canvas = new OffscreenCanvas(width, height);
  const pen = canvas.getContext('2d');
  if (pen === null) throw new Error('this browser draws no text in a worker');
  return {
    pen: pen as unknown as TextCanvas['pen'],
    png: () => pngOf(pen.getImageData(0, 0, width, height)),
  };
}

/** A picture as PNG (ISO 15948) at once: what the browser itself offers takes a turn of its loop. */
function pngOf({ data, width, height }: ImageData): Uint8Array<ArrayBuffer> {
  // One grey byte a pixel, and a byte in front of each row that says that it is not filtered.
  const rows = new Uint8Array((width + 1) * height);
  for (let y = 0; y < height; y++)
    for (let x = 0; x < width; x++) rows[y * (width + 1) + 1 + x] = data[(y * width + x) * 4];
  const head = new Uint8Array(13);
  const view = new DataView(head.buffer);
  view.setUint32(0, width);
  view.setUint32(4, height);
  head[8] = 8;
  const parts = [
    new Uint8Array([0x89, 0x50, 0x4e, 0x47, 0x0d, 0x0a, 0x1a, 0x0a]),
    chunk('IHDR', head),
    chunk('IDAT', zlibSync(rows)),
    chunk('IEND', new Uint8Array()),
  ];
  const whole = new Uint8Array(parts.reduce((sum, part) => sum + part.length, 0));
  let at = 0;
  for (const part of parts) {
    whole.set(part, at);
    at += part.length;
  }
  return whole;
}

function chunk(name: string, data: Uint8Array): Uint8Array {
  const made = new Uint8Array(12 + data.length);
  const view = new DataView(made.buffer);
  view.setUint32(0, data.length);
  made.set(new TextEncoder().encode(name), 4);
  made.set(data, 8);
  view.setUint32(8 + data.length, crc(made.subarray(4, 8 + data.length)));
  return made;
}

/** ISO 15948, annex D. */
function crc(bytes: Uint8Array): number {
  let value = 0xffffffff;
  for (const byte of bytes) {
    value ^= byte;
    for (let bit = 0; bit < 8; bit++) value = (value & 1) === 1 ? (value >>> 1) ^ 0xedb88320 : value >>> 1;
  }
  return (value ^ 0xffffffff) >>> 0;
}
