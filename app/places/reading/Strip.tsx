import type { Remark } from '#core/model/remark.ts';
import { isRead } from '#core/tally/tally.ts';
import type { PageSize } from '#formats/marked-paper.ts';
import { words } from '../../words/en.ts';
import type { AssignmentView } from '../../workspace/assignment-view.ts';
import type { Box } from './geometry.ts';

const WIDTH = 36;

/** The whole paper as a narrow map: a tick for each remark, heavier while it is not read. */
export function Strip({
  view,
  pages,
  remarksByPage,
  inSight,
  height,
  boxesOf,
  onPage,
}: {
  view: AssignmentView;
  pages: readonly PageSize[];
  remarksByPage: ReadonlyMap<number, readonly Remark[]>;
  /** The part that is seen, as shares of the paper's pages: 1.5 is the middle of the second page. */
  inSight: { readonly from: number; readonly to: number };
  height: number;
  boxesOf: (remark: Remark, page: PageSize, scale: number) => readonly Box[];
  onPage: (page: number) => void;
}) {
  const tallest = Math.max(...pages.map((page) => (page.height / page.width) * WIDTH));
  const each = Math.min(tallest, Math.max(14, height / pages.length - 7));
  return (
    <nav
      aria-label={words.reading.strip}
      className="relative flex w-[54px] shrink-0 flex-col items-center gap-[7px] overflow-hidden border-r border-rule pt-2.5"
    >
      {pages.map((page, index) => {
        const own = remarksByPage.get(index + 1) ?? [];
        const seen = inSight.to > index && inSight.from < index + 1;
        return (
          <button
            key={index}
            type="button"
            aria-label={words.reading.stripPage(index + 1, own.length)}
            onClick={() => onPage(index + 1)}
            className={`relative shrink-0 border bg-page ${seen ? 'border-accent outline-1 outline-accent' : 'border-rule hover:border-rule-strong'}`}
            style={{ width: WIDTH, height: each }}
          >
            {own.map((remark) => {
              const mark = boxesOf(remark, page, 1).at(0);
              if (mark === undefined) return null;
              const read = isRead(remark, view.readings.get(remark.id));
              return (
                <span
                  key={remark.id}
                  className={`absolute block ${read ? 'h-px bg-[#9a9686]' : 'h-[2px] bg-[#1e2a2c]'}`}
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
      })}
    </nav>
  );
}
