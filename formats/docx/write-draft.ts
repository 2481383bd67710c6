import {
  AlignmentType,
  ExternalHyperlink,
  FootnoteReferenceRun,
  HeadingLevel,
  ImageRun,
  LevelFormat,
  Paragraph,
  Table,
  TableCell,
  TableRow,
  TextRun,
  WidthType,
  type ParagraphChild,
} from 'docx';
import { textRun, written } from './look.ts';
import type { PictureBlock, RichBlock, Run, TableBlock, TextBlock } from '#core/paper/draft.ts';

const HEADINGS = [
  HeadingLevel.HEADING_1,
  HeadingLevel.HEADING_2,
  HeadingLevel.HEADING_3,
  HeadingLevel.HEADING_4,
] as const;

/** In twentieths of a point: how far a level of a list, or a quotation, stands in. */
const INDENT = 720;
const LEVELS = [0, 1, 2, 3, 4, 5];

/** Bytes of the pictures in a draft, by their hash. */
export type DraftPictures = ReadonlyMap<string, Uint8Array<ArrayBuffer>>;

/** What is gathered while blocks are written. */
interface Gathered {
  readonly pictures: DraftPictures;
  readonly notes: string[];
  /** The numbered lists, by their number in the draft: each counts from 1. */
  readonly ordered: Set<number>;
}

/**
 * Writes a draft as a Word file: headings, paragraphs, lists, tables, pictures with captions, footnotes, quotations, links and
 * looks.
 * @param pictures those that are not among them are left out, with their captions kept
 */
export function writeDraftDocx(
  blocks: readonly RichBlock[],
  title: string,
  pictures: DraftPictures,
): Promise<Uint8Array<ArrayBuffer>> {
  const gathered: Gathered = { pictures, notes: [], ordered: new Set() };
  const children = blocks.flatMap((block) => writtenBlock(block, gathered));
  const list = (reference: string, format: (typeof LevelFormat)[keyof typeof LevelFormat]) => ({
    reference,
    levels: LEVELS.map((level) => ({
      level,
      format,
      text: format === LevelFormat.BULLET ? '•' : `%${level + 1}.`,
      alignment: AlignmentType.START,
      style: { paragraph: { indent: { left: INDENT * (level + 1), hanging: INDENT / 2 } } },
    })),
  });
  return written({
    title,
    numbering: {
      config: [
        list('items', LevelFormat.BULLET),
        ...[...gathered.ordered].map((number) => list(`numbered ${number}`, LevelFormat.DECIMAL)),
      ],
    },
    footnotes: Object.fromEntries(
      gathered.notes.map((text, index) => [
        String(index + 1),
        { children: [new Paragraph({ children: [new TextRun(` ${text}`)] })] },
      ]),
    ),
    sections: [{ children }],
  });
}

function writtenBlock(block: RichBlock, gathered: Gathered): (Paragraph | Table)[] {
  switch (block.kind) {
    case 'rows':
      return [writtenTable(block, gathered)];
    case 'picture':
      return writtenPicture(block, gathered);
    case 'heading':
    case 'item':
    case 'quote':
    case 'paragraph':
      return [writtenText(block, gathered)];
  }
}

function writtenText(block: TextBlock, gathered: Gathered): Paragraph {
  const children = writtenRuns(block.runs, gathered);
  switch (block.kind) {
    case 'heading':
      return new Paragraph({
        heading: HEADINGS[Math.min(HEADINGS.length, Math.max(1, block.level)) - 1],
        children,
      });
    case 'item': {
      const level = Math.min(LEVELS.length - 1, block.level);
      const { number, ordered } = block.list ?? { number: 0, ordered: false };
      if (ordered) gathered.ordered.add(number);
      return new Paragraph({
        numbering: { reference: ordered ? `numbered ${number}` : 'items', level },
        children,
      });
    }
    case 'quote':
      return new Paragraph({ indent: { left: INDENT, right: INDENT }, children });
    case 'paragraph':
      return new Paragraph({ children });
  }
}

function writtenRuns(runs: readonly Run[], gathered: Gathered): ParagraphChild[] {
  return runs.flatMap((run): ParagraphChild[] => {
    if (run.note !== undefined) return [new FootnoteReferenceRun(gathered.notes.push(run.note))];
    const written = run.text.split('\n').map((text, i) =>
      textRun({
        text,
        bold: run.bold,
        italics: run.italic,
        superScript: run.script === 'super',
        subScript: run.script === 'sub',
        ...(run.link === undefined ? {} : { style: 'Hyperlink' }),
        ...(i > 0 ? { break: 1 } : {}),
      }),
    );
    return run.link === undefined ? written : [new ExternalHyperlink({ link: run.link, children: written })];
  });
}

function writtenTable({ rows }: TableBlock, gathered: Gathered): Table {
  return new Table({
    width: { size: 100, type: WidthType.PERCENTAGE },
    rows: rows.map(
      (cells, index) =>
        new TableRow({
          tableHeader: index === 0 && cells.every(({ isHead }) => isHead),
          children: cells.map(({ across, down, blocks }) => {
            const children = blocks.flatMap((block) => writtenBlock(block, gathered));
            return new TableCell({
              ...(across > 1 ? { columnSpan: across } : {}),
              ...(down > 1 ? { rowSpan: down } : {}),
              margins: { top: 60, bottom: 60, left: 90, right: 90 },
              children: children.length === 0 ? [new Paragraph({})] : children,
            });
          }),
        }),
    ),
  });
}

const IMAGE_TYPES: Readonly<Record<string, 'png' | 'jpg' | 'gif'>> = {
  'image/png': 'png',
  'image/jpeg': 'jpg',
  'image/gif': 'gif',
};

function writtenPicture(block: PictureBlock, gathered: Gathered): Paragraph[] {
  const bytes = gathered.pictures.get(block.hash);
  const type = IMAGE_TYPES[block.mediaType] as 'png' | 'jpg' | 'gif' | undefined;
  const caption = writtenRuns(block.runs, gathered);
  const isCaptioned = block.runs.some(({ text }) => text.trim() !== '');
  return [
    ...(bytes === undefined || type === undefined
      ? []
      : [
          new Paragraph({
            keepNext: isCaptioned,
            children: [
              new ImageRun({
                type,
                data: bytes,
                transformation: { width: block.width, height: block.height },
                altText: { title: '', name: block.alt, description: block.alt },
              }),
            ],
          }),
        ]),
    ...(isCaptioned ? [new Paragraph({ style: 'Caption', children: caption })] : []),
  ];
}
