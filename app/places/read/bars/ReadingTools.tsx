import { Select } from '../../../shared/controls/Select.tsx';
import { Minus, Plus } from 'lucide-react';
import { useState } from 'react';
import { Button } from '../../../shared/controls/Controls.tsx';
import * as words from '../../../words/en.ts';
import { useSight } from '../paper/sight.ts';
import type { ReadingState } from '../reading-state.ts';

/** How a paper is looked at: which page, how large. */
export function ReadingTools({
  pages,
  zoom,
  onZoom,
  onLarger,
  onGo,
}: {
  pages: number;
  zoom: ReadingState['zoom'];
  onZoom: (zoom: ReadingState['zoom']) => void;
  onLarger: (by: number) => void;
  onGo: (page: number) => void;
}) {
  return (
    <>
      {pages > 1 && <PageField pages={pages} onGo={onGo} />}
      <Button
        look="quiet"
        className="min-h-8 px-1.5"
        aria-label={words.reading.zoomOut}
        onClick={() => onLarger(-1)}
      >
        <Minus size={15} aria-hidden />
      </Button>
      <Select
        look="quiet"
        className="shrink-0"
        label={words.reading.fitLabel}
        value={zoom === 'page' ? zoom : zoom === 1 ? 'width' : 'other'}
        options={[
          ['width', words.reading.fitWidth],
          ['page', words.reading.fitPage],
          ...(zoom === 'page' || zoom === 1
            ? []
            : [['other', words.reading.zoomed(Math.round(zoom * 100))] as const]),
        ]}
        onChange={(value) => {
          if (value === 'page') onZoom('page');
          if (value === 'width') onZoom(1);
        }}
      />
      <Button
        look="quiet"
        className="min-h-8 px-1.5"
        aria-label={words.reading.zoomIn}
        onClick={() => onLarger(1)}
      >
        <Plus size={15} aria-hidden />
      </Button>
    </>
  );
}

/** The page that is in sight, and where to go: a number and Enter. */
function PageField({ pages, onGo }: { pages: number; onGo: (page: number) => void }) {
  const page = useSight((sight) => sight.page);
  const [typed, setTyped] = useState<string | null>(null);
  const go = () => {
    const wanted = Math.round(Number(typed));
    setTyped(null);
    if (typed !== null && Number.isFinite(wanted) && typed.trim() !== '')
      onGo(Math.max(1, Math.min(pages, wanted)));
  };
  return (
    <label className="flex items-baseline gap-1.5 whitespace-nowrap">
      {words.reading.pageShort}
      <input
        type="text"
        inputMode="numeric"
        aria-label={words.reading.goTo}
        value={typed ?? String(page)}
        onFocus={(event) => event.target.select()}
        onChange={(event) => setTyped(event.target.value)}
        onBlur={go}
        onKeyDown={(event) => {
          if (event.key === 'Enter') go();
          if (event.key === 'Escape') setTyped(null);
        }}
        className="w-11 rounded border border-rule bg-surface px-1 text-right"
      />
      {words.reading.goToOf(pages)}
    </label>
  );
}
