import type { AssignmentView } from '#core/assignment/view.ts';
import type { Instant } from '#core/model/ids.ts';
import type { CopyWords } from '#formats/annotated/annotated-copy.ts';
import { shownDay } from '../../shared/shown/shown.ts';
import * as words from '../../words/en.ts';

/** So much of a remark stands in a bookmark. */
const BOOKMARK_CHARACTERS = 70;

/** What is said around the pages of an annotated paper. */
export function copyWords({ course }: Pick<AssignmentView, 'course'>): CopyWords {
  const { takeAlong } = words;
  return {
    list: takeAlong.list,
    head: ({ author, at }, page) =>
      [
        ...(page === null ? [] : [takeAlong.page(page)]),
        author,
        ...(at === null ? [] : [shownDay(at as Instant, course?.zone)]),
      ]
        .filter((part) => part !== '')
        .join(' · '),
    reply: ({ author, text }) => takeAlong.replied(author, text),
    link: ({ number, text, proposes }) => {
      const said = (text === '' ? proposes : text).replaceAll(/\s+/g, ' ');
      const cut = said.length <= BOOKMARK_CHARACTERS ? said : `${said.slice(0, BOOKMARK_CHARACTERS)} …`;
      return takeAlong.link(number, cut);
    },
    criterion: takeAlong.criterion,
    state: takeAlong.state,
    byPage: takeAlong.byPage,
    page: takeAlong.pageTitle,
    onNoPage: takeAlong.onNoPage,
    byCriterion: takeAlong.byCriterion,
    noCriterion: takeAlong.noCriterion,
  };
}
