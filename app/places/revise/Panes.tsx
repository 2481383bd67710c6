import clsx from 'clsx';
import type { ReactNode } from 'react';
import { Group, Panel, Separator } from 'react-resizable-panels';
import { revise } from '../../words/revising.ts';

/** Where the marked version stands while one writes. */
export type MarkedLook = 'hidden' | 'beside' | 'above';

/** The panes of a wide desk, to be dragged wider: the draft, the slips, and the marked version beside or above. */
export function Panes({
  look,
  markedVersion,
  paper,
  slips,
}: {
  look: MarkedLook;
  markedVersion: ReactNode;
  paper: ReactNode;
  slips: ReactNode;
}) {
  return (
    <Group className="min-h-0 flex-1">
      {look === 'beside' && (
        <>
          <Panel id="marked" defaultSize="28%" minSize="15%">
            {markedVersion}
          </Panel>
          <Bar across={false} />
        </>
      )}
      <Panel id="draft" minSize="30%">
        {look === 'above' ? (
          <Group orientation="vertical">
            <Panel id="marked above" defaultSize="35%" minSize="15%">
              {markedVersion}
            </Panel>
            <Bar across />
            <Panel id="draft below" minSize="30%">
              {paper}
            </Panel>
          </Group>
        ) : (
          paper
        )}
      </Panel>
      <Bar across={false} />
      <Panel id="slips" defaultSize="34%" minSize="20%">
        {slips}
      </Panel>
    </Group>
  );
}

/** The line between two panes, to be dragged or moved with the arrow keys. */
function Bar({ across }: { across: boolean }) {
  return (
    <Separator
      aria-label={revise.bar}
      className={clsx('bg-rule hover:bg-accent focus-visible:bg-accent', across ? 'h-[3px]' : 'w-[3px]')}
    />
  );
}
