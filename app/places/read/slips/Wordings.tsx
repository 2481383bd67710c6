import { Empty } from '../../../shared/controls/Controls.tsx';
import { FileRow } from '../../../shared/files/FileRow.tsx';
import * as words from '../../../words/en.ts';
import type { AssignmentView } from '#core/assignment/view.ts';
import { SlipList, type SlipListProps } from './SlipList.tsx';

/** What was said about the whole. */
export function OverallView({ view, remarks, focusedId, onFocus }: SlipListProps) {
  if (remarks.length === 0) return <Empty>{words.reading.noOverall}</Empty>;
  return <SlipList view={view} remarks={remarks} focusedId={focusedId} onFocus={onFocus} />;
}

/** The brief in its own words, and its files and resources. */
export function BriefView({ view }: { view: AssignmentView }) {
  const { brief, materials: files } = view.assignment;
  return (
    <>
      <p className="max-w-prose font-serif whitespace-pre-wrap">{brief || words.reading.noBrief}</p>
      {files.length > 0 && (
        <>
          <h2 className="mt-6 font-serif text-[1.12rem] font-semibold">{words.reading.resources}</h2>
          <ul className="mt-1">
            {files.map((one) => (
              <FileRow key={one.hash} view={view} file={one} />
            ))}
          </ul>
        </>
      )}
    </>
  );
}
