import {
  Document,
  HeadingLevel,
  Packer,
  Paragraph,
  Table,
  TableCell,
  TableRow,
  TextRun,
  WidthType,
  type IRunOptions,
} from 'docx';
import type { RichBlock, Run } from '#core/paper/draft.ts';
import type { ResponseSheet } from '#core/check/response-sheet.ts';

const HEADINGS = [HeadingLevel.HEADING_1, HeadingLevel.HEADING_2, HeadingLevel.HEADING_3] as const;

const STYLES = {
  default: {
    document: {
      run: { font: 'Times New Roman', size: 24 },
      paragraph: { spacing: { after: 160, line: 320 } },
    },
  },
};

const LISTS = {
  config: [{ reference: 'items', levels: [{ level: 0, format: 'bullet' as const, text: '•' }] }],
};

function textRun(options: IRunOptions): TextRun {
  return new TextRun(options);
}

function textRuns(runs: readonly Run[]): TextRun[] {
  return runs.flatMap((run) =>
    run.text
      .split('\n')
      .map((text, i) =>
        textRun({ text, bold: run.bold, italics: run.italic, ...(i > 0 ? { break: 1 } : {}) }),
      ),
  );
}

function paragraphOf(block: RichBlock): Paragraph {
  const children = textRuns(block.runs);
  switch (block.kind) {
    case 'heading':
      return new Paragraph({ heading: HEADINGS[Math.min(2, Math.max(0, block.level - 1))], children });
    case 'item':
      return new Paragraph({ numbering: { reference: 'items', level: 0 }, children });
    case 'paragraph':
      return new Paragraph({ children });
  }
}

async function packed(document: Document): Promise<Uint8Array<ArrayBuffer>> {
  return new Uint8Array(await Packer.toArrayBuffer(document));
}

/** Writes a draft as a Word file: headings, list items, paragraphs, bold and italics. */
export function writeDraftDocx(
  blocks: readonly RichBlock[],
  title: string,
): Promise<Uint8Array<ArrayBuffer>> {
  const sections = [{ children: blocks.map(paragraphOf) }];
  return packed(new Document({ title, creator: '', styles: STYLES, numbering: LISTS, sections }));
}

function cell(paragraphs: readonly string[], share: number, bold = false): TableCell {
  return new TableCell({
    width: { size: share, type: WidthType.PERCENTAGE },
    margins: { top: 60, bottom: 60, left: 90, right: 90 },
    children: paragraphs.map((text) => new Paragraph({ children: [textRun({ text, bold, size: 20 })] })),
  });
}

/** Writes the response sheet as a Word file: a table, one row a remark. */
export function writeResponseSheetDocx(sheet: ResponseSheet): Promise<Uint8Array<ArrayBuffer>> {
  const head = new TableRow({ tableHeader: true, children: sheet.columns.map((c) => cell([c], 25, true)) });
  const rows = sheet.rows.map((row) => new TableRow({ children: row.map((lines) => cell(lines, 25)) }));
  const table = new Table({ rows: [head, ...rows], width: { size: 100, type: WidthType.PERCENTAGE } });
  const children = [
    new Paragraph({ heading: HeadingLevel.HEADING_1, children: [new TextRun(sheet.title)] }),
    ...sheet.lead.map((text) => new Paragraph({ children: [new TextRun(text)] })),
    table,
  ];
  return packed(new Document({ title: sheet.title, creator: '', styles: STYLES, sections: [{ children }] }));
}
