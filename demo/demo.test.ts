import { describe, expect, it } from 'vitest';
import { paperOf } from '#core/paper/paper.ts';
import { exactOf } from '#formats/marked-paper.ts';
import { readMarkedPdf } from '#formats/pdf/read-marked-pdf.ts';
import { buildDesk } from './build-desk.ts';
import { blocksOfMarkdown } from './markdown.ts';
import reportMarkdown from './papers/skarn-moss-report.md?raw';
import remarksFile from './papers/skarn-moss-remarks.json' with { type: 'json' };

const desk = await buildDesk('2026-11-02');
const [pdfBytes] = [...desk.files.values()];
const pdf = await readMarkedPdf(pdfBytes, null);

describe('the demo’s marked report', () => {
  it('is made of the same bytes for the same day zero, and of others for another', async () => {
    const [again] = [...(await buildDesk('2026-11-02')).files.keys()];
    const [other] = [...(await buildDesk('2026-11-03')).files.keys()];
    expect([...desk.files.keys()][0]).toBe(again);
    expect(other).not.toBe(again);
  });

  it('reads back to the text it was set from, headings and paragraphs kept', () => {
    expect(pdf.paper.blocks).toEqual(paperOf(blocksOfMarkdown(reportMarkdown)).blocks);
  });

  it('holds every remark with its words, in its place', () => {
    expect(pdf.marks).toHaveLength(remarksFile.remarks.length);
    expect(pdf.unknownKinds).toEqual([]);
    for (const remark of remarksFile.remarks) {
      const mark = pdf.marks.find((m) => m.sourceId === remark.id);
      expect(mark?.text).toBe(remark.text);
      expect(mark?.author).toBe('Dr Aune Keld');
      expect(mark?.subject ?? undefined).toBe(remark.criterion);
      if (remark.quote !== undefined) {
        expect(mark === undefined ? null : exactOf(mark)).toBe(remark.quote);
        expect(mark?.anchor?.exactly).toBe(true);
      } else {
        expect(mark?.targets[0].kind).toBe('point');
        const near = mark?.anchor ? pdf.paper.text.slice(mark.anchor.from, mark.anchor.to) : '';
        expect(near).toContain(remark.beside);
      }
    }
  });

  it('has at least 20 remarks, some of them on no words, and strike-outs', () => {
    const kinds = pdf.marks.map((mark) => mark.kind);
    expect(kinds.length).toBeGreaterThanOrEqual(20);
    expect(kinds.filter((kind) => kind === 'text').length).toBeGreaterThanOrEqual(3);
    expect(kinds.filter((kind) => kind === 'strikeout').length).toBeGreaterThanOrEqual(2);
  });

  it('no remark is written twice', () => {
    expect(new Set(remarksFile.remarks.map((r) => r.text)).size).toBe(remarksFile.remarks.length);
  });
});
