/** What an assignment asks of the files that are handed in, and what is wrong with some. */
export type FileFault =
  | { readonly kind: 'empty'; readonly name: string }
  | { readonly kind: 'too large'; readonly name: string }
  | { readonly kind: 'other kind'; readonly name: string; readonly types: readonly string[] };

/** The ending of a file's name, in lower case and without its dot; '' where it has none. */
export function endingOf(name: string): string {
  return /\.([^.]+)$/.exec(name)?.[1].toLowerCase() ?? '';
}

/**
 * Why a file can't be handed in; null where it can.
 * @param types endings of names that the assignment takes; none: any
 * @param mostBytes the largest file that is taken, in bytes
 */
export function fileFault(
  { name, size }: { readonly name: string; readonly size: number },
  types: readonly string[],
  mostBytes: number,
): FileFault | null {
  if (size === 0) return { kind: 'empty', name };
  if (size > mostBytes) return { kind: 'too large', name };
  if (types.length > 0 && !types.includes(endingOf(name))) return { kind: 'other kind', name, types };
  return null;
}
