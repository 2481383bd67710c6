import clsx from 'clsx';
import { Tabs } from 'radix-ui';
import { useIsCut } from '../../../shared/page/hooks.ts';
import * as words from '../../../words/en.ts';
import type { AssignmentView } from '#core/assignment/view.ts';
import { countIn, labelOf, materialsOf, type Material } from '../materials.ts';

/** What there is to read, each with how much of it was read; in the tabs of Read. */
export function MaterialTabs({ view, material }: { view: AssignmentView; material: Material }) {
  const [row, isCut] = useIsCut<HTMLDivElement>('row');
  return (
    <Tabs.List
      ref={row}
      aria-label={words.reading.materials}
      className={clsx(
        'flex max-w-full min-w-0 gap-4 overflow-x-auto max-md:gap-5',
        isCut && 'row-goes-on pr-10',
      )}
    >
      {materialsOf(view).map((each) => {
        const counted = countIn(view, each);
        return (
          <Tabs.Trigger
            key={each}
            value={each}
            className={clsx(
              'border-b-2 py-1.5 whitespace-nowrap max-md:py-0.5',
              each === material ? 'border-accent' : 'border-transparent',
            )}
          >
            <span className={clsx(each === material && 'font-bold')}>{labelOf(view, each)}</span>
            {counted !== null && (
              <span className="ml-1 text-sm text-quiet">
                {words.reading.ofShort(counted.read, counted.received)}
              </span>
            )}
          </Tabs.Trigger>
        );
      })}
    </Tabs.List>
  );
}
