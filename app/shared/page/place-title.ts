import { useEffect } from 'react';
import * as words from '../../words/en.ts';
import { useAllViews } from '../../workspace/state/use-views.ts';

/** Puts the place's name and the count of what is not read into the page's title. */
export function usePlaceTitle(place: string): void {
  const views = useAllViews();
  const unread = views.reduce((sum, { tally }) => sum + tally.received - tally.read, 0);
  useEffect(() => {
    document.title = words.frame.title(unread, place);
  }, [unread, place]);
}
