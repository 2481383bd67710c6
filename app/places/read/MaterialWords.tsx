import clsx from 'clsx';
import type { AssignmentView } from '#core/assignment/view.ts';
import type { Remark } from '#core/model/remark.ts';
import type { Material } from './materials.ts';
import { RubricView } from './rubric/RubricView.tsx';
import { Recordings } from './slips/Recordings.tsx';
import { BriefView, OverallView } from './slips/Wordings.tsx';

/** A material that is no paper: the brief, the criteria, the overall words, the recordings. */
export function MaterialWords({
  view,
  material,
  remarks,
  focusedId,
  onFocus,
}: {
  view: AssignmentView;
  material: Material;
  remarks: readonly Remark[];
  focusedId: string | null;
  onFocus: (id: string) => void;
}) {
  return (
    <div className={clsx('mx-auto p-6 max-md:p-4', material === 'criteria' ? 'max-w-6xl' : 'max-w-4xl')}>
      {material === 'brief' && <BriefView view={view} />}
      {material === 'criteria' && <RubricView view={view} focusedId={focusedId} onFocus={onFocus} />}
      {material === 'overall' && (
        <OverallView view={view} remarks={remarks} focusedId={focusedId} onFocus={onFocus} />
      )}
      {material === 'recordings' && (
        <Recordings view={view} remarks={remarks} focusedId={focusedId} onFocus={onFocus} />
      )}
    </div>
  );
}
