/** A file as it is handed on by the browser: to its printer, or to the device's own sheet. */

/** Long enough for the browser's own viewer to have read it. */
const KEPT_MS = 10 * 60_000;

/** Opens a PDF in the browser's viewer, where it is printed from. */
export function printPdf(bytes: Uint8Array<ArrayBuffer>): void {
  const url = URL.createObjectURL(new Blob([bytes], { type: 'application/pdf' }));
  window.open(url, '_blank', 'noopener');
  setTimeout(() => URL.revokeObjectURL(url), KEPT_MS);
}

/**
 * What gives a PDF to the device's own sheet; null where it has none.
 * @param bytes null: only whether there is one is asked
 */
export function shareableFile(
  name: string,
  bytes: Uint8Array<ArrayBuffer> | null,
): (() => Promise<void>) | null {
  const file = new File([bytes ?? new Uint8Array()], name, { type: 'application/pdf' });
  if (!('canShare' in navigator) || !navigator.canShare({ files: [file] })) return null;
  return async () => {
    try {
      await navigator.share({ files: [file], title: name });
    } catch (error) {
      // Whoever closes the sheet shares nothing.
      if (!(error instanceof DOMException && error.name === 'AbortError')) throw error;
    }
  };
}
