/**
 * The last words typed before a page goes away. Storage of the browser's database may come too late then; this is written
 * at once, and taken up when the field is opened again.
 */
const PREFIX = 'juncture/journal/';

export function journalise(key: string, text: string): void {
  localStorage.setItem(PREFIX + key, text);
}

export function journalled(key: string): string | null {
  return localStorage.getItem(PREFIX + key);
}

export function clearJournal(key: string): void {
  localStorage.removeItem(PREFIX + key);
}
