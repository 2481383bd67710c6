const ENTRY = 'entry ';
const AGAIN = '\u0001';

/**
 * The name of a remark's entry in the pages before and behind.
 * @param again where it is told a second time: the mark leads to the entry without
 */
export function entryKey(remarkId: string, again?: string): string {
  return `${ENTRY}${remarkId}${again === undefined ? '' : `${AGAIN}${again}`}`;
}

/** The remark whose entry has this name; null for the name of something else. */
export function remarkOfEntry(key: string): string | null {
  return key.startsWith(ENTRY) ? key.slice(ENTRY.length).split(AGAIN)[0] : null;
}
