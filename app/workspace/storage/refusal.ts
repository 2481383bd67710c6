/** As the browser's database names it when it can't or won't keep something. */
const REFUSALS = new Set(['QuotaExceededError', 'UnknownError', 'AbortError', 'NotReadableError']);

/** Whether the browser's storage refused something: no room, or a disk that fails. Anything else is a fault of ours. */
export function isStorageRefusal(error: unknown): boolean {
  return error instanceof DOMException && REFUSALS.has(error.name);
}

/** Whether it was for want of room. */
export function isFull(error: unknown): boolean {
  return error instanceof DOMException && error.name === 'QuotaExceededError';
}
