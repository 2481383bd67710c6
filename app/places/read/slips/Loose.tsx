import { ToggleButton } from '../../../shared/controls/Toggles.tsx';
import { Fold } from '../../../shared/controls/Fold.tsx';
import { useWorkspace } from '../../../workspace/use-workspace.ts';
import { useState } from 'react';
import { toast } from 'sonner';
import { placeOf, type Remark } from '#core/model/remark.ts';
import { Button } from '../../../shared/controls/Controls.tsx';
import * as words from '../../../words/en.ts';
import type { AssignmentView } from '#core/assignment/view.ts';
import { placeRemark } from '../../../workspace/commands/correct.ts';
import type { ReadPaper } from '../../../workspace/storage/records.ts';
import { placeOfSelection } from '../paper/selection.ts';
import { SlipList } from './SlipList.tsx';

/** Remarks on a paper that have no place in it: about the whole, or about a place that was not found. */
export function Loose({
  view,
  paper,
  remarks,
  focusedId,
  onFocus,
  drawingFor,
  onDraw,
}: {
  view: AssignmentView;
  paper: ReadPaper;
  remarks: readonly Remark[];
  focusedId: string | null;
  onFocus: (id: string) => void;
  /** The remark whose place is just being drawn on the picture. */
  drawingFor: Remark | null;
  onDraw: (remark: Remark | null) => void;
}) {
  const unplaced = remarks.filter((remark) => placeOf(remark).kind === 'unplaced').length;
  const [open, setOpen] = useState(true);
  return (
    <Fold
      open={open || remarks.some(({ id }) => id === focusedId)}
      onOpenChange={setOpen}
      className="max-h-[45%] shrink-0 overflow-auto border-b border-rule bg-paper px-5 py-2 max-md:px-4"
      labelClass="font-semibold"
      label={unplaced > 0 ? words.reading.unplaced(unplaced) : words.reading.whole}
    >
      {unplaced > 0 && (
        <p className="mt-1 text-sm text-quiet">
          {paper.kind === 'picture' ? words.reading.unplacedOnPicture : words.reading.unplacedLead}
        </p>
      )}
      <div className="mt-2 pb-1">
        <SlipList
          view={view}
          remarks={remarks}
          focusedId={focusedId}
          onFocus={onFocus}
          below={(remark) => (
            <PlaceByHand
              remark={remark}
              paper={paper}
              drawing={drawingFor?.id === remark.id}
              onDraw={onDraw}
            />
          )}
        />
      </div>
    </Fold>
  );
}

function PlaceByHand({
  remark,
  paper,
  drawing,
  onDraw,
}: {
  remark: Remark;
  paper: ReadPaper;
  drawing: boolean;
  onDraw: (remark: Remark | null) => void;
}) {
  const workspace = useWorkspace();
  const target = placeOf(remark);
  if (target.kind !== 'unplaced') return null;
  const place = () => {
    const selected = placeOfSelection(paper);
    if (selected === null) {
      toast(words.reading.placeNothing);
      return;
    }
    void placeRemark(workspace, remark, selected.target, selected.anchor, paper).then(() =>
      toast(words.reading.placed),
    );
  };
  return (
    <p className="mt-1.5 flex flex-wrap items-center gap-x-4 text-sm text-quiet">
      {target.said === '' ? words.reading.saidNothing : words.reading.said(target.said)}
      {paper.kind === 'picture' ? (
        <ToggleButton
          className="min-h-8 text-sm"
          pressed={drawing}
          onToggle={() => onDraw(drawing ? null : remark)}
        >
          {drawing ? words.reading.drawing : words.reading.draw}
        </ToggleButton>
      ) : (
        // The selection has to live through the press.
        <Button className="min-h-8 text-sm" onMouseDown={(event) => event.preventDefault()} onClick={place}>
          {words.reading.placeHere}
        </Button>
      )}
      <Button
        className="min-h-8 text-sm"
        onClick={() =>
          void placeRemark(workspace, remark, { kind: 'whole' }, null, paper).then(() =>
            toast(words.reading.placedWhole),
          )
        }
      >
        {words.reading.placeWhole}
      </Button>
    </p>
  );
}
