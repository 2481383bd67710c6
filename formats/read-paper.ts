import { readMarkedDocx } from './docx/read-marked-docx.ts';
import type { MarkedPaper } from './marked-paper.ts';
import { readMarkedOdt } from './odt/read-marked-odt.ts';
import type { PdfAssets } from './pdf/open-pdf.ts';
import { readMarkedPdf, type PdfReading } from './pdf/read-marked-pdf.ts';
import { readPosts } from './posts/read-posts.ts';
import { readQuizPaper } from './qti/quiz-paper.ts';
import { readPicture } from './picture/read-picture.ts';
import { recognise } from './recognise.ts';
import { readText } from './text/read-text.ts';
import { MOST_FILE_BYTES, UnreadableFile } from './unreadable.ts';
import { paperOf } from '#core/paper/paper.ts';

/**
 * Reads a marked paper of any kind: PDF, Word, OpenDocument text, plain text, or a picture.
 * @throws UnreadableFile
 */
export async function readPaper(
  bytes: Uint8Array,
  assets: PdfAssets | null,
  options: PdfReading = {},
): Promise<MarkedPaper> {
  if (bytes.length > MOST_FILE_BYTES) throw new UnreadableFile('too large');
  const { kind } = recognise(bytes);
  switch (kind) {
    case 'pdf':
      return readMarkedPdf(bytes, assets, options);
    case 'docx':
      return readMarkedDocx(bytes);
    case 'odt':
      return readMarkedOdt(bytes);
    case 'text':
      return readText(bytes);
    case 'quiz':
      return readQuizPaper(bytes);
    case 'posts':
      return readPosts(bytes);
    case 'picture':
      return {
        kind: 'picture',
        pages: [{ ...readPicture(bytes), transform: [1, 0, 0, 1, 0, 0] }],
        pageStarts: [0],
        paper: paperOf([]),
        layout: null,
        marks: [],
        unknownKinds: [],
        attached: [],
      };
    case 'recording':
    case 'xfdf':
    case 'web annotation':
    case 'transcript':
    case 'zip':
      throw new UnreadableFile('unknown kind');
  }
}
