import { criterionFor, hundredths, type AssignmentView } from '#core/assignment/view.ts';
import type { OverlapChoice } from '#core/model/source.ts';
import { packParts, type PackPart, type TakenAlong } from '#core/model/work.ts';
import type { RichBlock, Run } from '#core/paper/draft.ts';
import { askList } from '#core/asks/ask-list.ts';
import { decisionsIn } from '#core/tally/decided.ts';
import { bookmarksOf, entriesOf } from '#formats/annotated/annotated-copy.ts';
import { entryBlocks } from '#formats/annotated/entries.ts';
import type { Ground } from '#formats/annotated/ground.ts';
import type { RemarkOut } from '#formats/annotated/remark-out.ts';
import type { AnnotatedToWrite, BookmarkToWrite } from '#formats/annotated/write-annotated-pdf.ts';
import type { PdfToWrite } from '#formats/pdf/write-pdf.ts';
import { receiptSheetOf } from '../../shared/files/receipt-sheet.ts';
import { shownPoints } from '../../shared/shown/figures.ts';
import { shownMoment } from '../../shared/shown/shown.ts';
import * as words from '../../words/en.ts';
import { copyWords } from './copy-words.ts';
import { remarksOut, rolesByName } from './remarks-out.ts';

/** The pack that is taken along to a meeting: which parts there are, and what stands in each. */

type Blocks = PdfToWrite['blocks'];

const line = (text: string, looks: Partial<Run> = {}): Run[] => [
  { text, bold: false, italic: false, ...looks },
];
const paragraph = (text: string, looks: Partial<Run> = {}): RichBlock => ({
  kind: 'paragraph',
  level: 0,
  runs: line(text, looks),
});
const item = (text: string, number: number): RichBlock => ({
  kind: 'item',
  level: 0,
  list: { number, ordered: false },
  runs: line(text),
});
const heading = (text: string, level: number, key?: string): RichBlock => ({
  kind: 'heading',
  level,
  runs: line(text, key === undefined ? {} : { keys: [key] }),
});

/** How many things a part would hold; none: there is no such part. */
export function countOfPart(view: AssignmentView, part: PackPart, wish: string): number {
  switch (part) {
    case 'wish':
      return inQuestion(view).length + (wish.trim() === '' ? 0 : 1);
    case 'asks':
      return view.about.queries.length;
    case 'tasks':
      return view.tasks.length;
    case 'rubric':
      return view.rubric?.criteria.length ?? 0;
    case 'overlap':
      return matchesIn(view).length;
    case 'paper':
      return view.papers.some(({ role }) => role === 'marked' || role === 'sent') ? 1 : 0;
    case 'index':
      return view.remarks.length;
    case 'receipt':
      return receiptsIn(view).length;
  }
}

function inQuestion(view: AssignmentView) {
  return view.remarks.filter(({ id }) => decisionsIn(view.judgements.get(id)).includes('ask'));
}

function matchesIn(view: AssignmentView) {
  return view.remarks.filter(({ channel }) => channel === 'overlap');
}

function receiptsIn(view: AssignmentView) {
  return view.attempts.flatMap(({ attempt }) =>
    attempt.receipt === null ? [] : [{ attempt, receipt: attempt.receipt }],
  );
}

/** What a pack is put together from. */
export interface PackOf {
  readonly view: AssignmentView;
  readonly taken: TakenAlong;
  /** The paper that goes into it; null for none. */
  readonly ground: Ground | null;
  readonly at: string;
  /** How the overlap is counted, and what is set aside of it with which reason. */
  readonly overlap: OverlapChoice;
  /** The title of a source by its id; null for what is none, or isn't here any more. */
  readonly titleOf: (id: string) => string | null;
}

/** The whole pack: what goes before the paper, the paper with its remarks, what goes behind it. */
export function packOf({ view, taken, ground, at, overlap, titleOf }: PackOf): AnnotatedToWrite {
  const without = new Set<string>(taken.without);
  const has = (part: PackPart) => !without.has(part) && countOfPart(view, part, taken.wish) > 0;
  const scores = !without.has('scores');
  const names = !without.has('names');
  const roles = names ? new Map<string, string>() : rolesByName(view);
  const nameOf = (name: string) => roles.get(name) ?? name;
  const along = { own: true, scores, names };
  const remarks = remarksOut(view, view.remarks, along);
  const copy = copyWords(view);
  const title = words.takeAlong.packTitle(view.assignment.title);
  const room = without.has('room') ? [] : roomForNotes();
  const titled = (part: PackPart, blocks: Blocks): Blocks =>
    has(part) ? [heading(words.takeAlong.part[part], 2, part), ...blocks, ...room] : [];
  const before: Blocks = [
    ...front(view, taken, title, at, { names, without }),
    ...titled('wish', wishBlocks(view, taken.wish, remarks, copy, ground)),
    ...titled('asks', askBlocks(view, nameOf)),
    ...titled('tasks', taskBlocks(view, scores)),
    ...titled('rubric', rubricBlocks(view, remarks, scores)),
    ...titled('overlap', [...overlapBlocks(view, remarks, copy), ...countedBlocks(overlap, titleOf)]),
    ...(has('paper') ? [paragraph(words.takeAlong.numbersLead, { italic: true })] : []),
  ];
  const behind: Blocks = [
    ...titled('index', entryBlocks(entriesOf(ground, remarks, copy))),
    ...(has('receipt')
      ? receiptsIn(view).flatMap(({ attempt, receipt }) => [
          ...receiptSheetOf(view, attempt, receipt).blocks.map((block, index) =>
            index === 0 ? heading(words.takeAlong.part.receipt, 2, 'receipt') : block,
          ),
        ])
      : []),
  ];
  const parts = packParts.flatMap((part): BookmarkToWrite[] =>
    has(part) && part !== 'paper'
      ? [{ title: words.takeAlong.part[part], to: { key: part }, below: [] }]
      : [],
  );
  return {
    title,
    language: words.language,
    at,
    before,
    behind,
    remarks,
    linkSays: new Map(remarks.map((remark) => [remark.id, copy.link(remark)])),
    bookmarks: [...parts, ...bookmarksOf(ground, remarks, copy)],
    ...(!names && { renamed: roles }),
  };
}

function front(
  view: AssignmentView,
  taken: TakenAlong,
  title: string,
  at: string,
  { names, without }: { readonly names: boolean; readonly without: ReadonlySet<string> },
): Blocks {
  const { assignment, course, attempts } = view;
  const last = attempts.at(-1)?.attempt.number;
  const leftOut = [
    ...packParts.flatMap((part) => {
      const count = countOfPart(view, part, taken.wish);
      return without.has(part) && count > 0
        ? [words.takeAlong.leftPart(words.takeAlong.part[part], count)]
        : [];
    }),
    ...(without.has('scores') ? [words.takeAlong.leftScores] : []),
    ...(names ? [] : [words.takeAlong.leftNames(rolesByName(view).size)]),
  ];
  return [
    heading(title, 1),
    {
      kind: 'facts',
      rows: [
        ...(course === null ? [] : [[words.receiptSheet.course, `${course.code}, ${course.title}`] as const]),
        ...(last === undefined ? [] : [[words.takeAlong.attempt, String(last)] as const]),
        ...(assignment.dueAt === null
          ? []
          : [[words.takeAlong.due, shownMoment(assignment.dueAt, course?.zone)] as const]),
        [words.takeAlong.madeOn, shownMoment(at as never, course?.zone)],
      ],
    },
    ...(leftOut.length === 0
      ? []
      : [paragraph(words.takeAlong.leftOut(leftOut.join(', ')), { italic: true })]),
  ];
}

/** Ruled lines to write on. */
function roomForNotes(): Blocks {
  const NOTES = 3;
  return [{ kind: 'facts', rows: [[words.takeAlong.notes, '\n'.repeat(NOTES)]] }];
}

function wishBlocks(
  view: AssignmentView,
  wish: string,
  remarks: readonly RemarkOut[],
  copy: ReturnType<typeof copyWords>,
  ground: Ground | null,
): Blocks {
  const asked = new Set<string>(inQuestion(view).map(({ id }) => id));
  const own = remarks.filter(({ id }) => asked.has(id));
  return [
    ...wish
      .split(/\n{2,}/)
      .filter((text) => text.trim() !== '')
      .map((text) => paragraph(text)),
    ...(own.length === 0
      ? []
      : [
          heading(words.takeAlong.inQuestion, 3),
          // Their numbers lead to their marks; the entry that a mark leads to is that in the list of all.
          ...entryBlocks(entriesOf(ground, own, copy).map((entry) => ({ ...entry, again: 'asked' }))),
        ]),
  ];
}

function askBlocks(view: AssignmentView, nameOf: (name: string) => string): Blocks {
  return askList(view.about.queries).flatMap(({ person, queries }, list) => [
    heading(words.takeAlong.toPerson(nameOf(person)), 3),
    ...queries.map(({ text, about, putAt, answer }) => {
      const number = about === null ? undefined : view.numberByRemark.get(about.remarkId);
      const more = [
        ...(number === undefined ? [] : [words.takeAlong.about(number)]),
        ...(putAt === null ? [] : [words.takeAlong.askedAt(shownMoment(putAt, view.course?.zone))]),
        ...(answer === '' ? [] : [words.takeAlong.answered(answer)]),
      ];
      const said = text === '' ? words.takeAlong.unworded : text;
      return item(more.length === 0 ? said : `${said} (${more.join('; ')})`, list + 1);
    }),
  ]);
}

function taskBlocks(view: AssignmentView, scores: boolean): Blocks {
  const [task, minutes, points, about, done] = words.takeAlong.taskHeads;
  const shares = scores ? [0.5, 0.12, 0.12, 0.14, 0.12] : [0.58, 0.14, 0.16, 0.12];
  const heads = scores ? [task, minutes, points, about, done] : [task, minutes, about, done];
  return [
    {
      kind: 'table',
      columns: heads.map((title, index) => ({ title, share: shares[index] })),
      rows: view.tasks.map(({ task: own, behind }) => [
        [own.title, ...own.steps.map(({ title }) => `– ${title}`)],
        [String(own.minutes)],
        ...(scores ? [[behind === null ? '' : hundredths(behind)]] : []),
        [own.about.flatMap(({ remarkId }) => view.about.numberByRemark.get(remarkId) ?? []).join(', ')],
        [own.done ? words.takeAlong.done : ''],
      ]),
    },
  ];
}

function rubricBlocks(view: AssignmentView, remarks: readonly RemarkOut[], scores: boolean): Blocks {
  const byId = new Map(remarks.map((remark) => [remark.id, remark]));
  return view.criteria.flatMap(({ criterion, result, possible, got }, list) => {
    const level = criterion.levels.find(({ title }) => title === result?.level);
    const own = view.remarks.filter((remark) => criterionFor(view, remark)?.id === criterion.id);
    return [
      heading(words.takeAlong.criterionHead(criterion.title, level?.title ?? null), 3),
      ...(scores && got !== null && possible !== null
        ? [paragraph(words.takeAlong.gotOf(shownPoints(got), shownPoints(possible)))]
        : []),
      ...(level === undefined ? [] : [paragraph(level.description, { italic: true })]),
      ...(own.length === 0
        ? [paragraph(words.takeAlong.noRemarksOnIt)]
        : own.flatMap(({ id }) => {
            const remark = byId.get(id);
            return remark === undefined
              ? []
              : [item(words.takeAlong.link(remark.number, remark.text), 100 + list)];
          })),
    ];
  });
}

function overlapBlocks(
  view: AssignmentView,
  remarks: readonly RemarkOut[],
  copy: ReturnType<typeof copyWords>,
): Blocks {
  const ids = new Set<string>(matchesIn(view).map(({ id }) => id));
  const report = view.files.find(({ role }) => role === 'report')?.name ?? '';
  const own = remarks.filter(({ id }) => ids.has(id));
  return [
    paragraph(words.takeAlong.overlapLead(own.length, report)),
    ...entryBlocks(entriesOf(null, own, copy).map((entry) => ({ ...entry, again: 'match' }))),
  ];
}

/** What doesn't count of an overlap, and why. */
function countedBlocks({ least, without, aside }: OverlapChoice, titleOf: PackOf['titleOf']): Blocks {
  return [
    paragraph(
      words.takeAlong.overlapCounted(
        least,
        without.map((one) => words.overlap.switch[one]),
      ),
    ),
    ...aside.map(({ of, reason }) => {
      const title = titleOf(of);
      return item(
        title === null ? words.takeAlong.matchAside(reason) : words.takeAlong.sourceAside(title, reason),
        1,
      );
    }),
  ];
}
