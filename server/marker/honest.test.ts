import { expect, it } from 'vitest';
import * as v from 'valibot';
import { buildDesk } from '#demo/build-desk.ts';
import { readHonest, type Honest } from '#demo/honest.ts';
import { readDiscussions, readPaperText } from '#demo/scenario.ts';
import { paperOf } from '#core/paper/paper.ts';
import { readMarkedPdf } from '#formats/pdf/read-marked-pdf.ts';
import { KeptQuiz } from '../desk/quiz.ts';
import { judgeResubmission } from './judge.ts';
import { asSentence, judgeDemands } from './judge-demands.ts';
import { MarkingRules, type WorkRules } from './marking-rules.ts';

/** What the marker asked for and, of it, what it calls missing. */
interface Came {
  readonly asked: number;
  readonly missing: readonly string[];
}

const desk = await buildDesk('2026-11-02');
const rules = v.parse(MarkingRules, desk.markingRules);
const marking = desk.facts.flatMap((fact) =>
  fact.kind === 'marking' && fact.value.assignmentId === 'skarn-moss-report' ? [fact.value] : [],
)[0];
const pdf = await readMarkedPdf(
  desk.files.get(marking.files.find(({ role }) => role === 'marked')?.hash ?? '') ?? new Uint8Array(),
  null,
);
const passages = new Map(
  pdf.marks.flatMap((mark) => (mark.sourceId && mark.anchor ? [[mark.sourceId, mark.anchor] as const] : [])),
);

type Edits = readonly { readonly find: string; readonly put: string }[];
const edited = (text: string, edits: Edits) =>
  edits.reduce((changed, { find, put }) => changed.replace(find, () => put), text);

function ofReport(edits: Edits): Came {
  const { text } = pdf.paper;
  const places = edits.map(({ find }) => ({
    from: text.indexOf(find),
    to: text.indexOf(find) + find.length,
  }));
  const asked = rules.passages.filter(({ remark }) => {
    const passage = passages.get(remark);
    return passage !== undefined && places.some(({ from, to }) => from < passage.to && passage.from < to);
  });
  const { met } = judgeResubmission(
    {
      marked: pdf.paper,
      passages,
      remarks: new Map(pdf.marks.map((mark) => [mark.sourceId ?? '', mark.text])),
      others: [],
      submitted: paperOf(pdf.paper.blocks.map((block) => ({ ...block, text: edited(block.text, edits) }))),
      rubric: desk.rubrics[0],
      before: marking.criteria,
      wordsMax: 3300,
    },
    rules,
  );
  const missing = asked.filter(({ remark }) => !met.includes(remark));
  return { asked: asked.length, missing: missing.map((rule) => rule.missing) };
}

type Demands = Exclude<WorkRules, { kind: 'files' }>['demands'];

function judged(text: string, before: string, demands: Demands): Came {
  const { found } = judgeDemands({ text, before, remarks: [], others: [] }, demands, rules.text);
  const missing = found === null ? demands : found.filter(({ met }) => !met).map(({ demand }) => demand);
  return { asked: demands.length, missing: missing.map((demand) => demand.missing) };
}

function demandsOf(work: string): Demands {
  const found = rules.works.find(({ assignment }) => assignment === work);
  if (found === undefined || found.kind === 'files') throw new Error(`no demands for ${work}`);
  return found.demands;
}

/** What a final's remarks never asked for: a date for the first step. */
const NOT_ASKED = 'A step without a date is a wish: by when?';

const all = (list: readonly Came[]): Came => ({
  asked: list.reduce((sum, { asked }) => sum + asked, 0),
  missing: list.flatMap(({ missing }) => missing),
});

function cameOf(honest: Honest): Came {
  if ('quizzes' in honest) {
    const kept = Object.values(desk.quizzes).flatMap((quiz) => v.parse(KeptQuiz, quiz).items);
    return all(
      Object.entries(honest.quizzes).map(([id, answer]) => {
        const { wants = [], enough } = kept.find((one) => one.id === id) ?? {};
        const demands = wants.map((want) => ({ ...want, criterion: null }));
        const came = judged(asSentence(answer), '', demands);
        const met = came.asked - came.missing.length;
        return met >= (enough ?? came.asked) ? { ...came, missing: [] } : came;
      }),
    );
  }
  if ('items' in honest)
    return all(
      demandsOf(honest.work).map((demand) =>
        judged(asSentence(honest.items[demand.criterion ?? ''] ?? ''), '', [demand]),
      ),
    );
  if ('text' in honest) {
    const thread = readDiscussions()[honest.work.replace('seminar-', '')];
    return judged(honest.text, thread.posts.map(({ text }) => text).join('\n'), demandsOf(honest.work));
  }
  if (honest.from === undefined) return ofReport(honest.edits);
  const before = readPaperText(honest.from);
  const asked = demandsOf(honest.work).filter(({ missing }) => missing !== NOT_ASKED);
  return judged(edited(before, honest.edits).replace(/^#+ /gm, ''), before, asked);
}

it('calls at most one in twenty things missing that an honest rewrite says in its own words', () => {
  const rewrites = readHonest();
  expect(rewrites).toHaveLength(12);
  const { asked, missing } = all(rewrites.map(cameOf));
  expect(asked).toBeGreaterThan(130);
  expect(missing.length, missing.join('\n')).toBeLessThanOrEqual(asked / 20);
});
