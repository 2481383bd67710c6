import type { AssignmentView } from '#core/assignment/view.ts';
import type { Attempt, Receipt } from '#core/model/facts.ts';
import type { PdfToWrite } from '#formats/pdf/write-pdf.ts';
import { shownMoment } from '../shown/shown.ts';
import * as words from '../../words/en.ts';

/** A receipt as a sheet of paper: what was handed in and when, as the course desk confirmed it or the student noted it. */
export function receiptSheetOf(view: AssignmentView, attempt: Attempt, receipt: Receipt): PdfToWrite {
  const { assignment, course, rubric } = view;
  const sheet = words.receiptSheet;
  const when = shownMoment(receipt.at, course?.zone);
  const line = (text: string) => [{ text, bold: false, italic: false }];
  const heading = (text: string, level: number) => ({ kind: 'heading' as const, level, runs: line(text) });
  const itemTitle = (id: string) => rubric?.criteria.find((criterion) => criterion.id === id)?.title ?? id;
  return {
    title: sheet.title(assignment.title),
    language: words.language,
    at: receipt.at,
    blocks: [
      heading(sheet.title(assignment.title), 1),
      {
        kind: 'facts',
        rows: [
          ...(course === null ? [] : [[sheet.course, `${course.code}, ${course.title}`] as const]),
          attempt.outside ? [sheet.notedAt, when] : [sheet.receivedAt, when],
          [sheet.exactly, receipt.at],
          ...(attempt.outside ? [] : [[sheet.id, receipt.id] as const]),
          ...(receipt.rule === '' ? [] : [[attempt.outside ? sheet.how : sheet.rule, receipt.rule] as const]),
          ...(attempt.note === '' ? [] : [[sheet.note, attempt.note] as const]),
        ],
      },
      ...receipt.files.flatMap((file) => [
        heading(file.name, 2),
        {
          kind: 'facts' as const,
          rows: [
            [words.send.size, sheet.bytes(file.size)] as const,
            ...(file.words === null ? [] : [[words.send.wordsHead, String(file.words)] as const]),
            ...(file.pages === null
              ? []
              : [
                  [
                    words.send.pages,
                    file.pagesEstimated ? words.send.aboutPages(file.pages) : String(file.pages),
                  ] as const,
                ]),
            [words.send.hash, file.hash] as const,
          ],
        },
      ]),
      ...(attempt.post === null
        ? []
        : [
            heading(sheet.post, 2),
            ...attempt.post.text
              .split(/\n{2,}/)
              .map((text) => ({ kind: 'paragraph' as const, level: 0, runs: line(text) })),
          ]),
      ...(Object.keys(attempt.items).length === 0
        ? []
        : [
            heading(sheet.items, 2),
            {
              kind: 'facts' as const,
              rows: Object.entries(attempt.items).map(([id, text]) => [itemTitle(id), text] as const),
            },
          ]),
    ],
  };
}
