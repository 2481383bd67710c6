import type { AssignmentView } from '#core/assignment/view.ts';
import type { Instant } from '#core/model/ids.ts';
import type { Target } from '#core/model/remark.ts';
import type { CopyWords } from '#formats/annotated/annotated-copy.ts';
import { shownDay } from '../../shared/shown/shown.ts';
import * as words from '../../words/en.ts';

/** So much of a remark stands in a bookmark. */
const BOOKMARK_CHARACTERS = 70;

/** What is said around the pages of an annotated paper. */
export function copyWords({ course }: Pick<AssignmentView, 'course'>): CopyWords {
  return {
    list: words.takeAlong.list,
    head: ({ author, at, targets }, page) =>
      [
        page === null ? placeTold(targets[0]) : words.takeAlong.page(page),
        author,
        ...(at === null ? [] : [shownDay(at as Instant, course?.zone)]),
      ]
        .filter((part) => part !== '')
        .join(' · '),
    reply: ({ author, text }) => words.takeAlong.replied(author, text),
    link: ({ number, text, proposes }) => {
      const said = (text === '' ? proposes : text).replaceAll(/\s+/g, ' ');
      const cut = said.length <= BOOKMARK_CHARACTERS ? said : `${said.slice(0, BOOKMARK_CHARACTERS)} …`;
      return words.takeAlong.link(number, cut);
    },
    criterion: words.takeAlong.criterion,
    state: words.takeAlong.state,
    byPage: words.takeAlong.byPage,
    page: words.takeAlong.pageTitle,
    onNoPage: words.takeAlong.onNoPage,
    byCriterion: words.takeAlong.byCriterion,
    noCriterion: words.takeAlong.noCriterion,
  };
}

/** Where something is that is on no page: a question, a moment of a recording; '' for what is about the whole. */
function placeTold(target: Target): string {
  if (target.kind === 'question') return words.takeAlong.question(target.number);
  return target.kind === 'time' ? words.takeAlong.moment(clockTold(target.fromS)) : '';
}

function clockTold(seconds: number): string {
  const whole = Math.floor(seconds);
  return `${Math.floor(whole / 60)}:${String(whole % 60).padStart(2, '0')}`;
}
