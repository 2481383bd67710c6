import { quizAttempts } from '#core/assignment/papers.ts';
import type { AssignmentView } from '#core/assignment/view.ts';
import { askList } from '#core/asks/ask-list.ts';
import type { FileHash } from '#core/model/ids.ts';
import { correctText, responseText, type QuizQuestion } from '#core/quiz/question.ts';
import { draftDocx, draftMarkdown, draftPdf } from '../../shared/files/draft-files.ts';
import { writtenSheet } from '../../shared/files/written-sheet.ts';
import type { AssignmentOutlet } from '../../shared/page/assignment-outlet.ts';
import * as words from '../../words/en.ts';
import { revise } from '../../words/revising.ts';
import { reader } from '../../workers/clients.ts';
import { WORD_TYPE } from '../../workspace/commands/send.ts';
import { paperFor } from '../../workspace/state/papers.ts';
import type { Workspace } from '../../workspace/workspace.ts';
import { remarksOut } from './remarks-out.ts';
import { groundFor } from './write-along.ts';

/** Lists and tables of an assignment as files. */

/** One form of a list. */
interface Form {
  readonly shown: string;
  /** What it is, in the file's name. */
  readonly is: string;
  readonly ending: string;
  readonly mediaType: string;
  /** null: what it is made of isn't here. */
  readonly write: () => Promise<Uint8Array<ArrayBuffer> | null>;
}

export interface ListOut {
  readonly title: string;
  readonly forms: readonly Form[];
}

const encoded = (text: string) => new TextEncoder().encode(text);
const ALL = { own: true, scores: true, names: true };

/** The lists that there is something in. */
export function listsOf(workspace: Workspace, outlet: AssignmentOutlet): ListOut[] {
  const { view } = outlet;
  const quizzes = quizAttempts(view.papers, view.attempts);
  return [
    ...(view.remarks.length === 0 ? [] : remarkLists(workspace, view)),
    ...(view.remarks.length === 0
      ? []
      : [{ title: words.takeAlong.responseFile, forms: responseForms(workspace, outlet) }]),
    ...(view.about.queries.length === 0
      ? []
      : [one(words.takeAlong.asksFile, words.takeAlong.asksIs, 'txt', 'text/plain', () => asksText(view))]),
    ...(quizzes.length === 0
      ? []
      : [
          one(words.takeAlong.quizFile, words.takeAlong.quizIs, 'csv', 'text/csv', () =>
            quizTable(workspace, quizzes),
          ),
        ]),
  ];
}

function one(title: string, is: string, ending: string, mediaType: string, write: Form['write']): ListOut {
  return { title, forms: [{ shown: title, is, ending, mediaType, write }] };
}

function remarkLists(workspace: Workspace, view: AssignmentView): ListOut[] {
  const { remarksIs } = words.takeAlong;
  const going = () => remarksOut(view, view.remarks, ALL);
  const csv = async () => {
    const { writeRemarksCsv } = await import('#formats/annotated/remarks-table.ts');
    return encoded(writeRemarksCsv(going(), words.takeAlong.csvHeads));
  };
  const web = async () => {
    const { writeRemarksAsAnnotations } = await import('#formats/web-annotation/write-remarks.ts');
    const paper = view.papers.at(0);
    const read = paper === undefined ? null : await paperFor(workspace, paper.hash);
    return writeRemarksAsAnnotations(going(), {
      source: paper?.name ?? view.assignment.title,
      pages: read?.pages ?? [],
      spans: read?.anchors ?? {},
    });
  };
  const pdf = view.papers.find(({ mediaType }) => mediaType === 'application/pdf');
  const xfdf = async () => {
    if (pdf === undefined) return null;
    const { writeXfdf } = await import('#formats/xfdf/write-xfdf.ts');
    const ground = await groundFor(workspace, view, pdf, workspace.signal);
    return ground.kind === 'read' ? writeXfdf(pdf.name, going(), ground.value.places) : null;
  };
  return [
    one(words.takeAlong.asCsv, remarksIs, 'csv', 'text/csv', csv),
    one(words.takeAlong.asWeb, remarksIs, 'jsonld', 'application/ld+json', web),
    ...(pdf === undefined
      ? []
      : [one(words.takeAlong.asXfdf, remarksIs, 'xfdf', 'application/vnd.adobe.xfdf', xfdf)]),
  ];
}

function responseForms(workspace: Workspace, outlet: AssignmentOutlet): Form[] {
  const sheet = () => writtenSheet(workspace, outlet);
  const title = words.response.place;
  const form = (shown: string, ending: string, mediaType: string, write: Form['write']): Form => ({
    shown,
    is: words.takeAlong.responseIs,
    ending,
    mediaType,
    write,
  });
  return [
    form(revise.asWord, 'docx', WORD_TYPE, () => draftDocx(workspace, sheet(), title)),
    form(revise.asPdf, 'pdf', 'application/pdf', () =>
      draftPdf(workspace, sheet(), { title, language: words.language, at: workspace.now() }),
    ),
    form(revise.asMarkdown, 'md', 'text/markdown', () => draftMarkdown(sheet())),
  ];
}

function asksText(view: AssignmentView): Promise<Uint8Array<ArrayBuffer>> {
  const parts = askList(view.about.queries).map(({ person, queries }) =>
    [
      words.takeAlong.toPerson(person),
      ...queries.map(({ text, answer }, index) =>
        [
          `${index + 1}. ${text === '' ? words.takeAlong.unworded : text}`,
          ...(answer === '' ? [] : [`   ${words.takeAlong.answered(answer)}`]),
        ].join('\n'),
      ),
    ].join('\n\n'),
  );
  return Promise.resolve(encoded(`${parts.join('\n\n\n')}\n`));
}

/** The questions of the latest attempt at a quiz. */
async function quizTable(
  workspace: Workspace,
  quizzes: readonly FileHash[],
): Promise<Uint8Array<ArrayBuffer> | null> {
  const { writeCsv } = await import('#formats/table/csv.ts');
  const bytes = await workspace.fileBytes(quizzes[quizzes.length - 1]);
  if (bytes === null) return null;
  const read = await reader.ask((worker) => worker.readQuiz(bytes));
  if (read.kind !== 'read') return null;
  return encoded(writeCsv([words.takeAlong.quizHeads, ...read.value.questions.map(questionRow)]));
}

function questionRow({ number, item, response, score, possible, feedback }: QuizQuestion): string[] {
  return [
    String(number),
    item?.prompt ?? '',
    response.map((value) => (item === null ? value : responseText(item, value))).join('; '),
    item === null ? '' : correctText(item),
    score ?? '',
    possible ?? '',
    feedback,
  ];
}
