import type { AssignmentView } from '#core/assignment/view.ts';
import type { PaperFile } from '#core/assignment/papers.ts';
import type { TakenAlong } from '#core/model/work.ts';
import { annotatedCopy } from '#formats/annotated/annotated-copy.ts';
import type { Ground } from '#formats/annotated/ground.ts';
import type { AnnotatedToWrite } from '#formats/annotated/write-annotated-pdf.ts';
import type { PdfToWrite } from '#formats/pdf/write-pdf.ts';
import * as words from '../../words/en.ts';
import { reader } from '../../workers/clients.ts';
import type { ReadResult } from '../../workers/protocol.ts';
import { paperFor } from '../../workspace/state/papers.ts';
import type { Workspace } from '../../workspace/workspace.ts';
import { proxy } from 'comlink';
import { copyWords } from './copy-words.ts';
import { choiceOf } from '../../workspace/commands/overlap.ts';
import { packOf } from './pack.ts';
import { remarksOut } from './remarks-out.ts';

/** How far the writing is, in per cent. */
export type ToldProgress = (percent: number) => void;

type Written = ReadResult<Uint8Array<ArrayBuffer>> | { readonly kind: 'gone' };
type GroundFound = ReadResult<Ground> | { readonly kind: 'gone' };

/** A paper as PDF, with the places of all remarks that are shown on it. */
export async function groundFor(
  workspace: Workspace,
  view: AssignmentView,
  { hash, name }: PaperFile,
  signal: AbortSignal,
): Promise<GroundFound> {
  const [paper, bytes] = [await paperFor(workspace, hash), await workspace.fileBytes(hash)];
  if (paper === null || bytes === null) return { kind: 'gone' };
  const about = { title: name, language: words.language, at: workspace.now() };
  const remarks = view.remarks.filter((remark) => remark.paperHash === hash);
  return reader.ask((worker) => worker.groundOf({ bytes, paper, about }, remarks, paper.anchors), { signal });
}

function write(
  ground: Ground | null,
  content: AnnotatedToWrite,
  told: ToldProgress,
  signal: AbortSignal,
): Promise<Written> {
  const progress = proxy((done: number, of: number) => told(Math.round((100 * done) / of)));
  return reader.ask((worker) => worker.writeAnnotatedPdf(ground, content, progress), { signal });
}

/** A paper with the remarks that are shown on it, and those on no paper, as one PDF. */
export async function annotatedPaper(
  workspace: Workspace,
  view: AssignmentView,
  paper: PaperFile,
  { own, told, signal }: { readonly own: boolean; readonly told: ToldProgress; readonly signal: AbortSignal },
): Promise<Written> {
  const ground = await groundFor(workspace, view, paper, signal);
  if (ground.kind !== 'read') return ground;
  const shown = view.remarks.filter(({ paperHash }) => paperHash === paper.hash || paperHash === null);
  const remarks = remarksOut(view, shown, { own, scores: true, names: true });
  const about = { title: view.assignment.title, language: words.language, at: workspace.now() };
  const onPages = remarks.filter(({ id }) => ground.value.places.has(id)).length;
  const line = (text: string) => [{ text, bold: false, italic: false }];
  const { cover } = words.takeAlong;
  const blocks: PdfToWrite['blocks'] = [
    { kind: 'heading', level: 1, runs: line(view.assignment.title) },
    {
      kind: 'facts',
      rows: [
        ...(view.course === null
          ? []
          : [[words.receiptSheet.course, `${view.course.code}, ${view.course.title}`] as const]),
        [words.shelf.name, paper.name],
        [cover.remarks, String(remarks.length)],
        [cover.onPages, String(onPages)],
        [cover.inList, String(remarks.length - onPages)],
      ],
    },
    { kind: 'paragraph', level: 0, runs: line(words.takeAlong.numbersLead) },
  ];
  return write(
    ground.value,
    annotatedCopy(ground.value, about, blocks, remarks, copyWords(view)),
    told,
    signal,
  );
}

/** The pack for a meeting. */
export async function writtenPack(
  workspace: Workspace,
  view: AssignmentView,
  taken: TakenAlong,
  told: ToldProgress,
  signal: AbortSignal,
): Promise<Written> {
  const paper = view.papers.find(({ role }) => role === 'marked' || role === 'sent');
  const ground =
    paper === undefined || taken.without.includes('paper')
      ? null
      : await groundFor(workspace, view, paper, signal);
  if (ground !== null && ground.kind !== 'read') return ground;
  const { settings, sources } = workspace.records;
  const content = packOf({
    view,
    taken,
    ground: ground?.value ?? null,
    at: workspace.now(),
    overlap: choiceOf(settings, view.assignment.id),
    titleOf: (id) => sources.get(id)?.title ?? null,
  });
  return write(ground?.value ?? null, content, told, signal);
}
