import { unzlibSync } from 'fflate';

/**
 * What pdfkit's reader of PNG asks for under the name of fflate's `unzlib`, in the same thread: that one starts a worker out
 * of a text, which the Content-Security-Policy forbids, and then never answers.
 */
export function unzlib(
  data: Uint8Array,
  told: (error: Error | null, inflated: Uint8Array | null) => void,
): void {
  told(null, unzlibSync(data));
}
