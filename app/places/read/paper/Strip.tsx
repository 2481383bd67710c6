import { memo, useMemo } from 'react';
import type { Remark } from '#core/model/remark.ts';
import { isRead } from '#core/tally/tally.ts';
import type { PageSize } from '#formats/marked-paper.ts';
import * as words from '../../../words/en.ts';
import type { AssignmentView } from '#core/assignment/view.ts';
import type { Box } from './geometry.ts';
import { useSight } from './sight.ts';

const WIDTH = 36;
const GAP = 7;
/** A page that would be lower than this can't be pointed at by itself: the strip is one map then. */
const SMALLEST = 14;

interface StripProps {
  readonly view: AssignmentView;
  readonly pages: readonly PageSize[];
  readonly remarksByPage: ReadonlyMap<number, readonly Remark[]>;
  readonly height: number;
  /** Text takes the colours of the interface; pages are white paper in the dark too. */
  readonly isText: boolean;
  readonly boxesOf: (remark: Remark, page: PageSize, scale: number) => readonly Box[];
  readonly onPage: (page: number) => void;
}

/** The whole paper as a narrow map: a tick for each remark, heavier while it is not read. */
export const Strip = memo(function Strip(props: StripProps) {
  const { view, pages, remarksByPage, height, isText, boxesOf, onPage } = props;
  const tallest = Math.max(...pages.map((page) => (page.height / page.width) * WIDTH));
  const each = Math.min(tallest, height / pages.length - GAP);
  if (each < SMALLEST) return <DenseStrip {...props} />;
  return (
    <nav
      aria-label={words.reading.strip}
      className="relative flex w-[54px] shrink-0 flex-col items-center gap-[7px] overflow-hidden border-r border-rule pt-2.5"
    >
      {pages.map((page, index) => (
        <StripPage
          key={index}
          view={view}
          page={page}
          number={index + 1}
          height={each}
          isText={isText}
          remarks={remarksByPage.get(index + 1) ?? NO_REMARKS}
          boxesOf={boxesOf}
          onPage={onPage}
        />
      ))}
    </nav>
  );
});

const NO_REMARKS: readonly Remark[] = [];

function StripPage({
  view,
  page,
  number,
  height,
  isText,
  remarks,
  boxesOf,
  onPage,
}: Pick<StripProps, 'view' | 'height' | 'isText' | 'boxesOf' | 'onPage'> & {
  page: PageSize;
  number: number;
  remarks: readonly Remark[];
}) {
  const [unread, done] = isText ? ['bg-ink', 'bg-rule-strong'] : ['bg-[#1e2a2c]', 'bg-[#9a9686]'];
  const seen = useSight(({ from, to }) => to > number - 1 && from < number);
  return (
    <button
      type="button"
      aria-label={words.reading.stripPage(number, remarks.length)}
      onClick={() => onPage(number)}
      className={`relative shrink-0 border ${isText ? 'bg-surface' : 'bg-page'} ${seen ? 'border-accent outline-1 outline-accent' : 'border-rule hover:border-rule-strong'}`}
      style={{ width: WIDTH, height }}
    >
      {remarks.map((remark) => {
        const mark = boxesOf(remark, page, 1).at(0);
        if (mark === undefined) return null;
        const read = isRead(remark, view.readings.get(remark.id));
        return (
          <span
            key={remark.id}
            className={`absolute block ${read ? `h-px ${done}` : `h-[2px] ${unread}`}`}
            style={{
              top: `${((mark.top + mark.height / 2) / page.height) * 100}%`,
              left: `${Math.min(80, (mark.left / page.width) * 100)}%`,
              width: `${Math.max(18, (mark.width / page.width) * 100)}%`,
            }}
          />
        );
      })}
    </button>
  );
}

/** A long paper as one map: a point in it is a place in the paper. */
function DenseStrip({ view, pages, remarksByPage, height, boxesOf, onPage }: StripProps) {
  const each = Math.max(0, height - 20) / pages.length;
  const ticks = useMemo(
    () =>
      [...remarksByPage].flatMap(([number, remarks]) => {
        if (number > pages.length) return [];
        const page = pages[number - 1];
        return remarks.flatMap((remark) => {
          const mark = boxesOf(remark, page, 1).at(0);
          if (mark === undefined) return [];
          return [{ remark, at: number - 1 + (mark.top + mark.height / 2) / page.height }];
        });
      }),
    [remarksByPage, pages, boxesOf],
  );
  const path = (read: boolean) =>
    ticks
      .filter(({ remark }) => isRead(remark, view.readings.get(remark.id)) === read)
      .map(({ at }) => `M5 ${(at * each).toFixed(1)}h${WIDTH - 10}`)
      .join('');
  return (
    <nav aria-label={words.reading.strip} className="w-[54px] shrink-0 border-r border-rule pt-2.5">
      <button
        type="button"
        aria-label={words.reading.stripMap(pages.length, ticks.length)}
        onClick={({ nativeEvent }) =>
          onPage(Math.min(pages.length, Math.floor(nativeEvent.offsetY / each) + 1))
        }
        className="mx-auto block border border-rule bg-page hover:border-rule-strong"
        style={{ width: WIDTH + 2, height: each * pages.length + 2 }}
      >
        <svg aria-hidden width={WIDTH} height={each * pages.length} className="pointer-events-none block">
          <path d={path(true)} stroke="#9a9686" strokeWidth={0.7} />
          <path d={path(false)} stroke="#1e2a2c" strokeWidth={1} />
          <Seen each={each} />
        </svg>
      </button>
    </nav>
  );
}

function Seen({ each }: { each: number }) {
  const { from, to } = useSight();
  return (
    <rect
      x={0.5}
      y={from * each}
      width={WIDTH - 1}
      height={Math.max(4, (to - from) * each)}
      className="fill-none stroke-accent"
      strokeWidth={2}
    />
  );
}
