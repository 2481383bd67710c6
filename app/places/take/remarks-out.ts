import { criterionFor, tenths, type AssignmentView } from '#core/assignment/view.ts';
import type { AuthorRole } from '#core/model/facts.ts';
import type { Remark, Reply } from '#core/model/remark.ts';
import { pointsBehind } from '#core/rubric/behind.ts';
import { decisionsIn } from '#core/tally/decided.ts';
import type { RemarkOut, ReplyOut } from '#formats/annotated/remark-out.ts';
import { saidBy } from '../../shared/remark/said.ts';
import * as words from '../../words/en.ts';

/** What of a remark goes along. */
export interface Along {
  /** Decisions, notes and replies of the student's own. */
  readonly own: boolean;
  readonly scores: boolean;
  readonly names: boolean;
}

/** How people are called where their names are left out: by what they are, numbered where several are the same. */
export function rolesByName(view: AssignmentView): Map<string, string> {
  const roles = new Map<string, AuthorRole>();
  const note = (name: string, role: AuthorRole) => {
    if (name !== '' && !roles.has(name)) roles.set(name, role);
  };
  const noteReplies = (replies: readonly Reply[]) => {
    for (const { author, replies: below } of replies) {
      note(author.name, author.role);
      noteReplies(below);
    }
  };
  for (const { author, replies } of view.remarks) {
    note(author.name, author.role);
    noteReplies(replies);
  }
  const counts = new Map<AuthorRole, number>();
  return new Map(
    [...roles].map(([name, role]) => {
      const number = (counts.get(role) ?? 0) + 1;
      counts.set(role, number);
      return [name, words.takeAlong.role(words.shelf.roles[role], number)];
    }),
  );
}

/** The remarks of an assignment as they go along, numbered as everywhere. */
export function remarksOut(view: AssignmentView, remarks: readonly Remark[], along: Along): RemarkOut[] {
  const roles = along.names ? new Map<string, string>() : rolesByName(view);
  const nameOf = (name: string) => roles.get(name) ?? name;
  // What is laid out anew holds nothing of its file.
  const pdfs = new Set<string>(
    view.papers.flatMap(({ hash, mediaType }) => (mediaType === 'application/pdf' ? [hash] : [])),
  );
  const reply = ({ author, at, text, replies }: Reply): ReplyOut => ({
    author: nameOf(author.name),
    at,
    text,
    replies: replies.map(reply),
  });
  return remarks.map((remark) => {
    const said = saidBy(remark);
    return {
      id: remark.id,
      number: view.numberByRemark.get(remark.id) ?? 0,
      kind: remark.kind,
      author: nameOf(remark.author.name),
      byMachine: remark.author.role === 'machine',
      at: remark.at,
      color: remark.color,
      text: remark.text,
      criterion: criterionFor(view, remark)?.title ?? null,
      targets: remark.targets,
      proposes: remark.change === null || remark.text === said ? '' : said,
      state: remark.state,
      replies: remark.replies.map(reply),
      isInPaper: remark.fileHash === remark.paperHash && pdfs.has(remark.paperHash ?? ''),
      own: [...(along.scores ? pointsOf(view, remark) : []), ...(along.own ? ownOf(view, remark) : [])],
    };
  });
}

function pointsOf(view: AssignmentView, { id }: Remark): [string, string][] {
  const points = pointsBehind(view.losses, id);
  return points === null ? [] : [[words.takeAlong.points, words.rubric.about(tenths(points))]];
}

function ownOf(view: AssignmentView, { id }: Remark): [string, string][] {
  const judgement = view.judgements.get(id);
  if (judgement === undefined) return [];
  const made = decisionsIn(judgement).map((decision) => words.decisions[decision]);
  const parts = judgement.parts.flatMap(({ quote, note, reply }): [string, string][] => [
    ...(note === '' ? [] : [[words.takeAlong.note, words.response.part(quote, note)] as [string, string]]),
    ...(reply === '' ? [] : [[words.takeAlong.reply, words.response.part(quote, reply)] as [string, string]]),
  ]);
  return [
    ...(made.length === 0 ? [] : [[words.takeAlong.decision, made.join(', ')] as [string, string]]),
    ...(judgement.note === '' ? [] : [[words.takeAlong.note, judgement.note] as [string, string]]),
    ...(judgement.reply === '' ? [] : [[words.takeAlong.reply, judgement.reply] as [string, string]]),
    ...parts,
  ];
}
