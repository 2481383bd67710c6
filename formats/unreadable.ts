/** Why a file can't be read; each has its sentence in the interface's words. */
export type UnreadableReason =
  | 'empty'
  | 'too large'
  | 'too many pages'
  | 'not a PDF'
  | 'damaged PDF'
  | 'locked PDF'
  | 'wrong password'
  | 'not a Word file'
  | 'damaged Word file'
  | 'not an OpenDocument text'
  | 'damaged OpenDocument text'
  | 'damaged remarks'
  | 'no remarks'
  | 'damaged quiz'
  | 'damaged posts'
  | 'damaged picture'
  | 'HEIC picture'
  | 'unknown picture'
  | 'unknown recording'
  | 'unknown quiz'
  | 'slides'
  | 'a table of figures'
  | 'unknown kind'
  | 'no page to place on'
  | 'no rubric'
  | 'no scores'
  | 'not a calendar'
  | 'not a backup'
  | 'damaged backup'
  | 'newer backup'
  | 'no text'
  | 'damaged references'
  | 'no references'
  | 'archive too large'
  /** Not the file's fault: something in Juncture broke over it. */
  | 'fault';

/** A file that can't be read, foreseen: nothing of it was taken. `detail` names the part, where one is to blame. */
export class UnreadableFile extends Error {
  readonly reason: UnreadableReason;
  readonly detail: string;

  constructor(reason: UnreadableReason, detail = '') {
    super(detail === '' ? reason : `${reason}: ${detail}`);
    this.name = 'UnreadableFile';
    this.reason = reason;
    this.detail = detail;
  }
}

/** Files larger than this are refused before they are read. */
export const MOST_FILE_BYTES = 300 * 1024 * 1024;
