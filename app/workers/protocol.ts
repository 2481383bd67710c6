import type { LookedOver } from '#core/look/look-over.ts';
import type { sinceMarked } from '#core/look/since-marked.ts';
import type { CitingStyle } from '#core/model/look.ts';
import type { WorkListed } from '#core/citations/work-listed.ts';
import type { Choosable } from '#core/plan/problem.ts';
import type { Placement, TaskBlock } from '#core/plan/place.ts';
import type { Span } from '#core/plan/spans.ts';
import type { TimeBought } from '#core/plan/time.ts';
import type { WeekJob } from '#core/plan/week.ts';
import type { BusyTimes } from '#formats/calendar/read-calendar.ts';
import type { Alignment } from '#core/picture/align.ts';
import type { PictureEdit } from '#core/picture/edit.ts';
import type { Sharpness } from '#core/picture/sharpness.ts';
import type { EditedPicture } from './pictures.ts';
import type { PdfToWrite } from '#formats/pdf/write-pdf.ts';
import type { Found, Sought } from '#core/answers/find.ts';
import type { ComparedRows } from '#core/difference/rows.ts';
import type { RichBlock } from '#core/paper/draft.ts';
import type { Said, Saying } from '#core/saying/saying.ts';
import type { Overlap } from '#core/overlap/compare-sources.ts';
import type { ComparedSource } from '#core/overlap/known-sources.ts';
import type { HowSet } from '#core/overlap/how-set.ts';
import type { Sides } from '#core/overlap/side-by-side.ts';
import type { Span as TextSpan } from '#core/text/span.ts';
import type { Paper } from '#core/paper/paper.ts';
import type { QuizResults } from '#core/quiz/question.ts';
import type { Candidate, Incoming, Likely } from '#core/taking-in/likely.ts';
import type { ReadDraft } from '#formats/read-as-draft.ts';
import type { DraftPictures } from '#formats/docx/write-draft.ts';
import type { Payload } from '#formats/bag/bag.ts';
import type { Discussion } from '#formats/posts/read-posts.ts';
import type { Ground, PaperAsGround } from '#formats/annotated/ground.ts';
import type { AnnotatedToWrite } from '#formats/annotated/write-annotated-pdf.ts';
import type { Remark } from '#core/model/remark.ts';
import type { Anchor, Mark, MarkedPaper } from '#formats/marked-paper.ts';
import type { Cue } from '#formats/sound/read-vtt.ts';
import type { CourseOfTable, GradeField, GradeTable } from '#formats/grades/grade-table.ts';
import type { ReadGrades } from '#formats/grades/read-grades.ts';
import type { ReadRubricTable } from '#formats/rubric/rubric-table.ts';
import type { UnreadableReason } from '#formats/unreadable.ts';

/** What the workers take and give. Files that can't be read cross as values. */
export type ReadResult<T> =
  | { readonly kind: 'read'; readonly value: T }
  | { readonly kind: 'unreadable'; readonly reason: UnreadableReason; readonly detail: string };

/** What came out of a file, by what the file is. */
export type FileContent =
  | { readonly kind: 'paper'; readonly mediaType: string; readonly paper: MarkedPaper }
  | {
      readonly kind: 'remarks';
      readonly mediaType: string;
      readonly count: number;
      /** Names of the files that the remarks say they are about. */
      readonly about: readonly string[];
      /** Words that they quote. */
      readonly quotes: string;
    }
  | { readonly kind: 'recording'; readonly mediaType: string }
  | { readonly kind: 'transcript'; readonly mediaType: string; readonly cues: readonly Cue[] };

/** A picture that becomes a page. */
export interface PictureToJoin {
  readonly bytes: Uint8Array<ArrayBuffer>;
  readonly mediaType: string;
  /** What a screen reader says of the page. */
  readonly alt: string;
}

export interface ReaderWorker {
  /** Reads a file of any kind that is taken in. */
  readFile(
    name: string,
    bytes: Uint8Array,
    password: string | null,
    progress: ((done: number, of: number) => void) | null,
  ): Promise<ReadResult<FileContent>>;
  readPaper(bytes: Uint8Array): Promise<ReadResult<MarkedPaper>>;
  /** A text that drafts are compared with. */
  readSource(bytes: Uint8Array): Promise<ReadResult<Paper>>;
  /** Works out of a file of references: BibTeX or CSL-JSON. */
  readReferences(bytes: Uint8Array): Promise<ReadResult<WorkListed[]>>;
  /** What a file most likely belongs to; long texts are compared. */
  likelyAssignment(file: Incoming, candidates: readonly Candidate[]): Promise<Likely | null>;
  /** Reads remarks that came in a file of their own, onto the paper, picture or recording they are about. */
  readRemarksOnto(bytes: Uint8Array, about: Uint8Array | null): Promise<ReadResult<Mark[]>>;
  /** A copy of a locked PDF that opens without its password. */
  unlockPdf(bytes: Uint8Array, password: string): Promise<ReadResult<Uint8Array<ArrayBuffer>>>;
  /** A file as a document to go on writing in. */
  readAsDraft(bytes: Uint8Array): Promise<ReadResult<ReadDraft>>;
  readQuiz(bytes: Uint8Array): Promise<ReadResult<QuizResults>>;
  readDiscussion(bytes: Uint8Array): Promise<ReadResult<Discussion>>;
  readBag(bytes: Uint8Array): Promise<ReadResult<Payload>>;
  /** When somebody is busy within a span of time. @param zone of times that name none */
  readCalendar(bytes: Uint8Array, within: Span, zone: string): Promise<ReadResult<BusyTimes>>;
  writeDraftDocx(
    blocks: readonly RichBlock[],
    title: string,
    pictures: DraftPictures,
  ): Promise<Uint8Array<ArrayBuffer>>;
  /** Where the older of two pictures lies on the newer. */
  alignPictures(
    older: Uint8Array<ArrayBuffer>,
    newer: Uint8Array<ArrayBuffer>,
  ): Promise<ReadResult<Alignment>>;
  sharpnessIn(bytes: Uint8Array<ArrayBuffer>): Promise<ReadResult<Sharpness>>;
  editPicture(
    bytes: Uint8Array<ArrayBuffer>,
    mediaType: string,
    edit: PictureEdit,
  ): Promise<ReadResult<EditedPicture>>;
  /** Pictures as the pages of one PDF, in their order. */
  joinPictures(
    pictures: readonly PictureToJoin[],
    about: Pick<PdfToWrite, 'title' | 'language' | 'at'>,
  ): Promise<ReadResult<Uint8Array<ArrayBuffer>>>;
  writePdf(content: PdfToWrite): Promise<Uint8Array<ArrayBuffer>>;
  /** A paper as the PDF that its remarks are put onto. */
  groundOf(
    paper: Omit<PaperAsGround, 'uprightPicture'>,
    remarks: readonly Remark[],
    anchors: Readonly<Record<string, Anchor>>,
  ): Promise<ReadResult<Ground>>;
  /** A paper with its remarks as annotations. @param ground null: there is no paper */
  writeAnnotatedPdf(
    ground: Ground | null,
    content: AnnotatedToWrite,
    progress: ((done: number, of: number) => void) | null,
  ): Promise<ReadResult<Uint8Array<ArrayBuffer>>>;
  writeBag(root: string, payload: Payload, date: string): Promise<Uint8Array<ArrayBuffer>>;
}

/** Something pasted: as the page had it, and as plain text. */
export interface Pasted {
  readonly html: string;
  readonly text: string;
}

/** Rubrics and scores out of tables. */
export interface TableWorker {
  readRubrics(bytes: Uint8Array, title: string): Promise<ReadResult<ReadRubricTable[]>>;
  /** Empty where there is none in it. */
  pasteRubrics(pasted: Pasted, title: string): Promise<ReadResult<ReadRubricTable[]>>;
  readGrades(
    files: readonly { readonly name: string; readonly bytes: Uint8Array }[],
  ): Promise<ReadResult<ReadGrades>>;
  pasteGrades(pasted: Pasted): Promise<ReadResult<GradeTable | null>>;
  courseOfTable(table: GradeTable, fields: readonly GradeField[], zone: string): CourseOfTable;
}

/** What to do in the time there is. */
export interface PlanWorker {
  bought(tasks: readonly Choosable[], minutes: number): TimeBought;
  pointsCurve(tasks: readonly Choosable[]): (readonly [minutes: number, hundredths: number])[];
  /** Where the work of all assignments goes (core/plan/week.ts). */
  placeWeek(
    jobs: readonly WeekJob[],
    free: readonly Span[],
    pinned: readonly TaskBlock[],
    dayStart: number,
    nowMs: number,
  ): Placement;
}

export interface TextWorker {
  /** What a newer text shows of remarks on an older one; remembers the older paper by its key. */
  find(olderKey: string, older: Paper, newer: Paper, remarks: readonly Sought[]): Map<string, Found>;
  /** What changed, paragraph by paragraph. */
  compareByRows(older: Paper, newer: Paper): ComparedRows;
  /** The share of the older paper's words that stand in the newer one, moved ones among them, 0 to 1. */
  shareKept(older: Paper, newer: Paper): number;
  /** What remarks say, in their order, by the model at an address; null where that can't be reached. */
  says(model: string, remarks: readonly Said[]): Promise<Saying[] | null>;
}

/** What drafts have in common with sources. */
export interface OverlapWorker {
  /** Which of these sources it was not given yet. */
  unknownOf(ids: readonly string[]): string[];
  add(id: string, text: string): void;
  /** @param draftKey what the draft is known by while it changes */
  compare(draftKey: string, paper: Paper, sources: readonly ComparedSource[]): Overlap;
  /** How the words at some places of a draft are set. */
  howSet(paper: Paper, places: readonly TextSpan[]): HowSet[];
  /** Both sides of a match, with what differs. @param place in the source */
  sides(id: string, draft: string, place: TextSpan): Sides;
}

/** What else is held against a draft: the version that was marked, and what its remarks are about. */
interface MarkedBeside {
  readonly paper: Paper;
  readonly struck: Parameters<typeof sinceMarked>[2];
}

export interface LookWorker {
  /** @param marked null where nothing was marked */
  lookOver(
    paper: Paper,
    how: { readonly style: CitingStyle | null; readonly ownWords: readonly string[] },
    marked: MarkedBeside | null,
  ): Promise<LookedOver>;
  /** What may be meant by a word that no dictionary has. */
  suggests(word: string): Promise<readonly string[]>;
}
