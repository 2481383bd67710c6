import type { Standing } from '#core/assignment/standing.ts';
import { fileSafe } from '../../shared/files/file-name.ts';
import { offerFile } from '../../shared/page/notify.ts';
import { shownPoints } from '../../shared/shown/figures.ts';
import * as words from '../../words/en.ts';
import type { Workspace } from '../../workspace/workspace.ts';

/** Gives the grades of a course as a table: one row an assignment. */
export async function saveGrades(workspace: Workspace, standing: Standing): Promise<void> {
  const { writeCsv } = await import('#formats/table/csv.ts');
  const { course, categories, withoutPoints } = standing;
  const rows = [
    ...categories.flatMap(({ title, rows: own }) => own.map(({ view }) => ({ category: title, view }))),
    ...withoutPoints.map((view) => ({ category: '', view })),
  ];
  const text = writeCsv([
    words.standing.csvHeads,
    ...rows.map(({ category, view: { assignment, score, attempts } }) => [
      category,
      assignment.title,
      score === null ? '' : shownPoints(score),
      assignment.possible ?? '',
      String(attempts.length),
      assignment.dueAt ?? '',
    ]),
  ]);
  const name = [course.code, course.title, words.standing.csvIs, workspace.now().slice(0, 10)]
    .filter(Boolean)
    .join(', ');
  offerFile(`${fileSafe(name)}.csv`, new TextEncoder().encode(text), 'text/csv');
}
