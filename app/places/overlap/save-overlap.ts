import type { AssignmentView } from '#core/assignment/view.ts';
import type { Figures } from '#core/overlap/items.ts';
import { writeCsv } from '#formats/table/csv.ts';
import { fileNameOf } from '../../shared/files/file-name.ts';
import { offerFile } from '../../shared/page/notify.ts';
import * as words from '../../words/en.ts';
import type { ShownOverlap } from '../../workspace/state/overlap.ts';
import type { Workspace } from '../../workspace/workspace.ts';
import type { Choosing } from './choice.ts';

/** Saves the matches of a text as a table, with what was compared with what, and when; what is set aside with its reason. */
export function saveOverlap(
  workspace: Workspace,
  view: AssignmentView,
  shown: ShownOverlap,
  figures: Figures,
  choosing: Choosing,
  compared: string,
): void {
  const { paper, matches, sources } = shown;
  const rows = matches.map((match) => {
    const { work } = sources[match.source];
    const aside = choosing.reasonOf(match.id) ?? choosing.reasonOf(match.sourceId);
    return [
      match.letter,
      String(match.words),
      String(Math.round(100 * match.identity)),
      [work.authors, work.title, work.year ?? ''].filter((part) => part !== '').join(', '),
      words.overlap.relation[work.relation],
      words.overlap.advice[match.advice],
      words.overlap.reason[match.reason],
      aside === null ? words.overlap.counted : words.overlap.isAside(aside),
      paper.text.slice(match.place.from, match.place.to),
    ];
  });
  const csv = writeCsv([
    [`${words.overlap.total(figures.matched, figures.words)} ${words.overlap.totalIs(figures.percent)}`],
    [compared],
    words.overlap.heads,
    ...rows,
  ]);
  offerFile(
    fileNameOf(workspace, view, words.overlap.fileIs, 'csv'),
    new TextEncoder().encode(csv),
    'text/csv',
  );
}
