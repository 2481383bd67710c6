import { useOutletContext } from 'react-router';
import type { Answer } from '#core/check/answered.ts';
import type { DraftContent } from '#core/model/work.ts';
import type { AssignmentView } from '#core/assignment/view.ts';
import type { DraftText } from '../../workspace/state/draft-text.ts';
import type { LiveOutcomes } from '../../workspace/state/outcomes.ts';
import type { ReadPaper } from '../../workspace/storage/records.ts';

/** What every station of an assignment is given. */
export interface AssignmentOutlet {
  readonly view: AssignmentView;
  /** The same as its next attempt is worked on: with the remarks on its draft stages. */
  readonly work: AssignmentView;
  /** The marked paper's text; null while it is read and where there is none. */
  readonly marked: ReadPaper | null;
  /** The draft as it is written; null while it is loaded, and where there is none. */
  readonly content: DraftContent | null;
  /** The text of the draft, written here or in a file; null while it is loaded or read, and where there is none. */
  readonly text: DraftText | null;
  /** What became of each passage in the draft; null while there is no draft. */
  readonly live: LiveOutcomes | null;
  readonly answers: ReadonlyMap<string, Answer>;
}

export function useAssignment(): AssignmentOutlet {
  return useOutletContext<AssignmentOutlet>();
}
