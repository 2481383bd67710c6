import type { Target } from '../model/remark.ts';
import type { Span } from '../text/span.ts';
import type { Squeezed } from '../text/squeeze.ts';
import { locateQuoteSurely } from './locate.ts';

/**
 * The passages of a text that a remark is about, a passage for each of its targets on words; empty for one about no words.
 * @param anchor where it hangs in this very text; null where it was read from another one, or hangs on nothing
 */
export function passagesOf(targets: readonly Target[], anchor: Span | null, text: Squeezed): Span[] {
  const onWords = targets.flatMap((target) =>
    target.kind === 'words' && target.quote.exact !== '' ? [target] : [],
  );
  if (anchor !== null && onWords.length < 2) return [{ from: anchor.from, to: anchor.to }];
  const found = onWords.flatMap(({ quote }) => locateQuoteSurely(text, quote, anchor?.from ?? null) ?? []);
  return found.length === 0 && anchor !== null ? [{ from: anchor.from, to: anchor.to }] : found;
}
