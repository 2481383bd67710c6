/** Leaves the storage as it was before a transaction; whoever began it is told by its own request. */
export function abort(transaction: { readonly done: Promise<void>; abort(): void }): void {
  transaction.done.catch(() => undefined);
  transaction.abort();
}
