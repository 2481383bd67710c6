import { toast } from 'sonner';
import * as words from '../../words/en.ts';
import type { NotTaken, TakingInTeller } from '../../workspace/taking-in/told.ts';

/** Long enough to read why something went wrong. */
const FAULT_MS = 15_000;
const NEWS_MS = 8000;

function sentenceFor(name: string, why: NotTaken): string {
  switch (why.kind) {
    case 'known':
      return words.takeIn.known(name);
    case 'cancelled':
      return words.takeIn.cancelled(name);
    case 'stopped':
      return words.takeIn.stopped(name);
    case 'unreadable':
      return words.unreadable[why.reason](name, why.detail);
  }
}

/** How taking in goes, in notices. */
export const takingInNotices: TakingInTeller = {
  reading(name, cancel) {
    const id = toast.loading(words.takeIn.reading(name), { duration: Infinity });
    return {
      pages: (done, of) =>
        toast.loading(words.takeIn.reading(name), {
          id,
          description: of === 0 ? '' : words.takeIn.pages(done, of),
          duration: Infinity,
          cancel: { label: words.takeIn.cancel, onClick: cancel },
        }),
      hide: () => toast.dismiss(id),
      read: () => toast.dismiss(id),
      notTaken: (why) => {
        const isFault = why.kind !== 'known';
        const show = isFault ? toast.error : toast;
        // A notice of its own: the one that was cancelled by its button goes, with whatever it says by then.
        toast.dismiss(id);
        show(sentenceFor(name, why), { duration: isFault ? FAULT_MS : NEWS_MS });
      },
    };
  },
  nothingToPlaceOn: () => toast.error(words.takeIn.nothingToPlaceOn, { duration: FAULT_MS }),
  notPlaced: (name, reason, detail) =>
    toast.error(words.unreadable[reason](name, detail), { duration: FAULT_MS }),
  taken: (names, count) =>
    toast.success(
      names.length === 1
        ? words.takeIn.taken(names[0], count)
        : words.takeIn.takenSeveral(names.length, count),
    ),
};
