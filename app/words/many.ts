/** A count with its noun. */
export function many(count: number, one: string, more: string): string {
  return count === 1 ? `1 ${one}` : `${count} ${more}`;
}
