import type { PdfAssets } from '#formats/pdf/open-pdf.ts';

/** The folders that the build copies from pdf.js. */
export function pdfAssets(): PdfAssets {
  const folder = (name: string) => new URL(`/pdf/${name}/`, location.origin).href;
  return {
    cMapUrl: folder('cmaps'),
    standardFontDataUrl: folder('standard_fonts'),
    wasmUrl: folder('wasm'),
    iccUrl: folder('iccs'),
  };
}
