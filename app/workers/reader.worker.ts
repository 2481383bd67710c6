import { expose } from 'comlink';
import { likelyAssignment } from '#core/taking-in/likely.ts';
import { readBag, writeBag } from '#formats/bag/bag.ts';
import { readPaper } from '#formats/read-paper.ts';
import { readRemarksOnto, readRemarksUnplaced } from '#formats/place-remarks.ts';
import { recognise, recogniseNamed } from '#formats/recognise.ts';
import { readDiscussion } from '#formats/posts/read-posts.ts';
import { readQuizResults } from '#formats/qti/read-results.ts';
import { readVtt } from '#formats/sound/read-vtt.ts';
import { remarksFileOf } from '#formats/remarks-file.ts';
import type { PdfPicturePage, PdfToWrite } from '#formats/pdf/write-pdf.ts';
import { drawPart, NoFilterFactory, WorkerCanvasFactory } from './draw-part.ts';
import { pdfAssets } from './pdf-assets.ts';
import { pdfThreads } from './pdf-threads.ts';
import type { FileContent, ReaderWorker } from './protocol.ts';
import { alignPictures, editPicture, pageOf, sharpnessIn } from './pictures.ts';
import { reading } from './reading.ts';

/** A worker has no window, in which alone pdf.js would start threads by itself. */
const readingAssets = { ...pdfAssets(), threads: pdfThreads };

/** What is cut out of pages is drawn in this thread. */
const drawingAssets = {
  ...readingAssets,
  factories: { CanvasFactory: WorkerCanvasFactory, FilterFactory: NoFilterFactory },
};

async function contentOf(
  name: string,
  bytes: Uint8Array,
  password: string | null,
  progress: ((done: number, of: number) => void) | null,
): Promise<FileContent> {
  const { kind, mediaType } = recogniseNamed(bytes, name);
  switch (kind) {
    case 'recording':
      return { kind, mediaType };
    case 'transcript':
      return { kind, mediaType, cues: readVtt(bytes) };
    case 'xfdf':
    case 'web annotation':
      return { kind: 'remarks', mediaType, ...remarksFileOf(bytes, kind) };
    case 'pdf':
    case 'docx':
    case 'odt':
    case 'text':
    case 'quiz':
    case 'posts':
    case 'picture':
    case 'zip': {
      const options = { ...(progress !== null && { progress }), ...(password !== null && { password }) };
      return { kind: 'paper', mediaType, paper: await readPaper(bytes, readingAssets, options) };
    }
  }
}

async function onto(bytes: Uint8Array, about: Uint8Array | null) {
  if (about === null) return readRemarksUnplaced(bytes);
  const paper = recognise(about).kind === 'recording' ? null : await readPaper(about, readingAssets);
  return readRemarksOnto(bytes, { bytes: about, paper }, readingAssets);
}

/** The PDF writer is large too, with the fonts it embeds. */
async function writtenPdf(content: PdfToWrite) {
  const [{ writePdf }, { pdfFonts }] = await Promise.all([
    import('#formats/pdf/write-pdf.ts'),
    import('./pdf-fonts.ts'),
  ]);
  return writePdf(content, await pdfFonts());
}

const worker: ReaderWorker = {
  readFile: (name, bytes, password, progress) => reading(() => contentOf(name, bytes, password, progress)),
  likelyAssignment: (file, candidates) => Promise.resolve(likelyAssignment(file, candidates)),
  readPaper: (bytes) => reading(() => readPaper(bytes, readingAssets)),
  readRemarksOnto: (bytes, about) => reading(() => onto(bytes, about)),
  // Writing PDFs needs a large library, seldom.
  unlockPdf: (bytes, password) =>
    reading(async () => (await import('#formats/pdf/unlock.ts')).unlockPdf(bytes, password)),
  readSource: (bytes) =>
    reading(async () => (await import('#formats/sources/read-source.ts')).readSource(bytes, readingAssets)),
  readReferences: (bytes) =>
    reading(async () => {
      const { readReferences } = await import('#formats/references/read-references.ts');
      return readReferences(new TextDecoder().decode(bytes));
    }),
  readCalendar: (bytes, within, zone) =>
    reading(async () => {
      const { readBusyTimes } = await import('#formats/calendar/read-calendar.ts');
      return readBusyTimes(new TextDecoder().decode(bytes), within, zone);
    }),
  readAsDraft: (bytes) =>
    reading(async () =>
      (await import('#formats/read-as-draft.ts')).readAsDraft(bytes, drawingAssets, drawPart),
    ),
  readQuiz: (bytes) => reading(() => readQuizResults(bytes)),
  readDiscussion: (bytes) => reading(() => readDiscussion(bytes)),
  readBag: (bytes) => reading(() => readBag(new Uint8Array(bytes))),
  writeBag,
  // The Word writer is large and needed seldom.
  writeDraftDocx: async (blocks, title, pictures) =>
    (await import('#formats/docx/write-draft.ts')).writeDraftDocx(blocks, title, pictures),
  alignPictures: (older, newer) => reading(() => alignPictures(older, newer)),
  sharpnessIn: (bytes) => reading(() => sharpnessIn(bytes)),
  editPicture: (bytes, mediaType, edit) => reading(() => editPicture(bytes, mediaType, edit)),
  joinPictures: (pictures, about) =>
    reading(async () => {
      const blocks: PdfPicturePage[] = [];
      for (const { bytes, mediaType, alt } of pictures)
        blocks.push({ kind: 'picture page', alt, ...(await pageOf(bytes, mediaType)) });
      return writtenPdf({ ...about, blocks });
    }),
  writePdf: writtenPdf,
  groundOf: (paper, remarks, anchors) =>
    reading(async () => {
      const [{ groundOf }, { pdfFonts }] = await Promise.all([
        import('#formats/annotated/ground.ts'),
        import('./pdf-fonts.ts'),
      ]);
      const { mediaType } = recognise(paper.bytes);
      const uprightPicture = (bytes: Uint8Array<ArrayBuffer>) => pageOf(bytes, mediaType);
      return groundOf({ ...paper, uprightPicture }, remarks, anchors, await pdfFonts(), readingAssets);
    }),
  writeAnnotatedPdf: (ground, content, progress) =>
    reading(async () => {
      const [{ writeAnnotatedPdf }, { pdfFonts }] = await Promise.all([
        import('#formats/annotated/write-annotated-pdf.ts'),
        import('./pdf-fonts.ts'),
      ]);
      return writeAnnotatedPdf(ground, content, await pdfFonts(), progress ?? undefined);
    }),
};
expose(worker);
