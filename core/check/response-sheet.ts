import type { Outcome } from '../anchors/outcome.ts';
import { pageOf, quotedWords, type Remark } from '../model/remark.ts';
import type { Judgement } from '../model/work.ts';
import type { Paper } from '../paper/paper.ts';

/** A table of text: what goes with the new attempt, remark by remark. Cells are paragraphs. */
export interface ResponseSheet {
  readonly title: string;
  readonly lead: readonly string[];
  readonly columns: readonly string[];
  readonly rows: readonly (readonly (readonly string[])[])[];
}

/** What is said of one remark, before it is put into words. */
export interface ResponseRow {
  readonly number: number;
  readonly page: number | null;
  readonly remark: Remark;
  readonly about: string | null;
  readonly judgement: Judgement | undefined;
  readonly outcome: Outcome | null;
  /** The words that stand there now; empty for words that are gone or unchanged. */
  readonly now: string;
}

/** The rows of the response sheet, in reading order; remarks that nobody decided about are among them. */
export function responseRows(
  remarks: readonly Remark[],
  judgements: ReadonlyMap<string, Judgement>,
  outcomes: ReadonlyMap<string, Outcome>,
  draft: Paper | null,
): ResponseRow[] {
  return remarks.map((remark, index) => {
    const outcome = outcomes.get(remark.id) ?? null;
    const changed = outcome !== null && outcome.kind !== 'untouched';
    return {
      number: index + 1,
      page: pageOf(remark),
      remark,
      about: quotedWords(remark),
      judgement: judgements.get(remark.id),
      outcome,
      now: changed && draft !== null ? draft.text.slice(outcome.place.from, outcome.place.to) : '',
    };
  });
}
