import { readFile } from 'node:fs/promises';
import { exactOf, type Mark, type MarkReply } from '#formats/marked-paper.ts';
import { threadsOf } from '#formats/pdf/annotations.ts';
import { readPaper } from '#formats/read-paper.ts';
import { readRemarksOnto } from '#formats/place-remarks.ts';
import { recognise, recogniseNamed } from '#formats/recognise.ts';
import { readVtt } from '#formats/sound/read-vtt.ts';
import { MOST_FILE_BYTES, UnreadableFile } from '#formats/unreadable.ts';
import { marksOfWebRemarks } from '#formats/web-annotation/place.ts';
import { readWebAnnotations } from '#formats/web-annotation/read-web-annotation.ts';
import { readXfdf } from '#formats/xfdf/read-xfdf.ts';
import { paperOf } from '#core/paper/paper.ts';
import { stat } from 'node:fs/promises';

interface InspectedReply {
  readonly author: string;
  readonly created: string | null;
  readonly text: string;
  readonly replies: readonly InspectedReply[];
}

interface InspectedRemark extends InspectedReply {
  readonly kind: string;
  readonly page: number | null;
  readonly color: string | null;
  readonly exact: string | null;
  readonly state: string | null;
  readonly origin: 'person' | 'machine';
}

/** What was read from a file, as docs/command-line.md describes it. */
export interface Inspected {
  readonly kind: string;
  readonly pages: number | null;
  readonly text?: string;
  readonly remarks: readonly InspectedRemark[];
}

export interface InspectOptions {
  /** Tell the text too. */
  readonly text: boolean;
  /** The paper onto which remarks of a file of their own are put. */
  readonly onto: string | null;
  readonly password: string | null;
}

/** The bytes of a file. @throws UnreadableFile where it is too large, or the error of the file system */
export async function bytesOf(path: string): Promise<Uint8Array> {
  const { size } = await stat(path);
  if (size > MOST_FILE_BYTES) throw new UnreadableFile('too large');
  return new Uint8Array(await readFile(path));
}

/** @throws UnreadableFile, or the error of the file system for a file that is not there */
export async function inspect(path: string, { text, onto, password }: InspectOptions): Promise<Inspected> {
  const bytes = await bytesOf(path);
  const { kind } = recogniseNamed(bytes, path);
  if (kind === 'xfdf' || kind === 'web annotation') {
    const marks = onto === null ? marksAlone(bytes, kind) : await marksOnto(bytes, onto);
    return { kind, pages: null, remarks: marks.map(remarkOf) };
  }
  if (kind === 'recording') return { kind, pages: null, remarks: [] };
  if (kind === 'transcript')
    return {
      kind,
      pages: null,
      ...(text && {
        text: readVtt(bytes)
          .map((cue) => cue.text)
          .join('\n'),
      }),
      remarks: [],
    };
  const paper = await readPaper(bytes, null, password === null ? {} : { password });
  return {
    kind,
    pages: kind === 'pdf' ? paper.pages.length : null,
    ...(text && { text: paper.paper.text }),
    remarks: paper.marks.map(remarkOf),
  };
}

function marksAlone(bytes: Uint8Array, kind: 'xfdf' | 'web annotation'): Mark[] {
  if (kind === 'web annotation')
    return marksOfWebRemarks(readWebAnnotations(bytes), { kind: 'text', paper: paperOf([]), pages: [] });
  const { threads } = threadsOf(readXfdf(bytes));
  return threads.map(({ annotation, replies, state }) => ({
    sourceId: annotation.sourceId,
    kind: annotation.kind,
    author: annotation.author,
    byMachine: false,
    at: annotation.at,
    color: annotation.color,
    text: annotation.text,
    subject: annotation.subject,
    targets: [
      { kind: 'point', page: annotation.page, rect: annotation.rect, shape: annotation.shape, drawn: false },
    ],
    anchor: null,
    replies,
    state,
    change: null,
  }));
}

async function marksOnto(bytes: Uint8Array, onto: string): Promise<Mark[]> {
  const paperBytes = await bytesOf(onto);
  const isRecording = recognise(paperBytes).kind === 'recording';
  const paper = isRecording ? null : await readPaper(paperBytes, null);
  return readRemarksOnto(bytes, { bytes: paperBytes, paper }, null);
}

function remarkOf(mark: Mark): InspectedRemark {
  const [target] = mark.targets;
  return {
    kind: mark.kind,
    page: target.kind === 'words' || target.kind === 'point' ? target.page : null,
    author: mark.author,
    created: mark.at,
    color: mark.color,
    exact: exactOf(mark) ?? (target.kind === 'unplaced' && target.said !== '' ? target.said : null),
    text: mark.text,
    replies: mark.replies.map(replyOf),
    state: mark.state,
    origin: mark.byMachine ? 'machine' : 'person',
  };
}

function replyOf({ author, at, text, replies }: MarkReply): InspectedReply {
  return { author, created: at, text, replies: replies.map(replyOf) };
}
