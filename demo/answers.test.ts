import { beforeAll, describe, expect, it } from 'vitest';
import { passagesOf } from '#core/anchors/passages.ts';
import { LIKELY, type Proposal } from '#core/answers/propose.ts';
import { answerFinderOf } from '#core/answers/find.ts';
import type { Paper } from '#core/paper/paper.ts';
import { squeeze } from '#core/text/squeeze.ts';
import { readRemarksOnto } from '#formats/place-remarks.ts';
import { readPaper } from '#formats/read-paper.ts';
import type { Mark } from '#formats/marked-paper.ts';
import type { DeskContent } from '#server/desk/desk-state.ts';
import { buildDesk } from './build-desk.ts';
import { readRewrites, rewritten, type Rewrite } from './rewrites.ts';
import { readFeedback } from './scenario.ts';

/** What is proposed as answering remarks, against who knows what answers them. */

/** Of each paper the file that came back, and what others said of it in a file of their own. */
const FILES: Readonly<Record<string, readonly string[]>> = {
  'skarn-moss-report': ['Skarn Moss report, marked.pdf'],
  'falling-head': ['Falling-head sheet, marked.pdf'],
  'landscape-essay': ['What a hedge remembers, marked.pdf'],
  'policy-brief-draft': ['Brief, draft, with remarks.docx'],
  'rain-diary': ['Ten days of rain, marked.pdf', 'Ten days of rain, peer.jsonld'],
};
/** What these call for by themselves. */
const CALLS = new Set(['must-fix', 'fix', 'polish', 'question']);

interface Case extends Rewrite {
  readonly older: Paper;
  readonly newer: Paper;
  readonly marks: readonly Mark[];
}

async function caseOf(desk: DeskContent, rewrite: Rewrite): Promise<Case> {
  const files = desk.facts.flatMap((fact) => (fact.kind === 'marking' ? fact.value.files : []));
  const [main, ...others] = FILES[rewrite.paper].map((name) => {
    const hash = files.find((file) => file.name === name)?.hash;
    const bytes = hash === undefined ? undefined : desk.files.get(hash);
    if (bytes === undefined) throw new Error(`no file ${name}`);
    return new Uint8Array(bytes);
  });
  const read = await readPaper(main, null);
  const beside = await Promise.all(
    others.map((bytes) => readRemarksOnto(bytes, { bytes: main, paper: read }, null)),
  );
  const newer = rewritten(read.paper, rewrite.edits);
  return { ...rewrite, older: read.paper, newer, marks: [...read.marks, ...beside.flat()] };
}

/** Which of the demo's remarks a mark is. */
function idsOf({ paper }: Rewrite): ReadonlyMap<string, { id: string; calls: boolean }> {
  const names = paper === 'skarn-moss-report' ? ['skarn-moss-remarks', 'report-marks'] : [paper];
  return new Map(
    names.flatMap((name) => {
      const { remarks, peer } = readFeedback(name);
      return [...remarks, ...(peer?.remarks ?? [])].map(
        ({ id, text, says }) => [text, { id, calls: CALLS.has(says) }] as const,
      );
    }),
  );
}

function proposedIn(one: Case): Map<string, readonly Proposal[]> {
  const ids = idsOf(one);
  const text = squeeze(one.older.text);
  const remarks = one.marks.map((mark, index) => {
    const known = ids.get(mark.text);
    return {
      id: known?.id ?? String(index),
      text: mark.text,
      calls: known?.calls ?? false,
      passages: passagesOf(mark.targets, mark.anchor, text),
    };
  });
  const found = answerFinderOf(one.older).find(one.newer, remarks);
  return new Map([...found].map(([id, { proposals }]) => [id, proposals]));
}

function isRight({ newer }: Case, words: readonly string[], proposal: Proposal | undefined): boolean {
  if (proposal === undefined) return false;
  const { text } = newer;
  // What was only taken out is a gap.
  if (words.length === 0)
    return proposal.where === 'in its words' && proposal.places.every((one) => one.from === one.to);
  return words.some((one) => {
    const at = text.indexOf(one);
    return proposal.places.some(({ from, to }) => from < at + one.length && to > at);
  });
}

let cases: Case[];
beforeAll(async () => {
  const desk = await buildDesk('2026-11-02');
  cases = await Promise.all(readRewrites().map((rewrite) => caseOf(desk, rewrite)));
});

describe('what may answer a remark', () => {
  it('is first what was written for it, and nothing likely where nothing was', () => {
    const tally: Record<string, { of: number; first: number; three: number; likely: number }> = {};
    const wrong: string[] = [];
    for (const one of cases) {
      const proposed = proposedIn(one);
      for (const { remark, how, words } of one.answers) {
        const proposals = proposed.get(remark) ?? [];
        const count = (tally[how] ??= { of: 0, first: 0, three: 0, likely: 0 });
        const right = proposals.slice(0, 3).map((proposal) => isRight(one, words, proposal));
        count.of++;
        if (right.at(0) === true) count.first++;
        if (right.includes(true)) count.three++;
        const isLikely = (proposals.at(0)?.likely ?? 0) >= LIKELY;
        if (isLikely) count.likely++;
        if (how === 'none' ? isLikely : right.at(0) !== true)
          wrong.push(
            `${remark} (${how}): ${proposals
              .slice(0, 3)
              .map(
                ({ places: [{ from, to }], where, likely }) =>
                  `${likely.toFixed(2)} ${where} “${one.newer.text.slice(from, to).slice(0, 60)}”`,
              )
              .join(' | ')}`,
          );
      }
    }
    console.log(`what was proposed for the demo's remarks: ${JSON.stringify(tally)}\n${wrong.join('\n')}`);
    const answered = (['beside', 'elsewhere', 'reworded'] as const).map((how) => tally[how]);
    const sum = (of: (one: { of: number; first: number; three: number }) => number) =>
      answered.reduce((total, one) => total + of(one), 0);
    expect(sum(({ first }) => first) / sum((one) => one.of)).toBeGreaterThanOrEqual(0.8);
    expect(sum(({ three }) => three) / sum((one) => one.of)).toBeGreaterThanOrEqual(0.95);
    expect(tally.none).toMatchObject({ of: 10, likely: 0 });
  });
});
