import type { Workspace } from '../workspace.ts';
import type { RemarkId } from '#core/model/ids.ts';
import type { Remark } from '#core/model/remark.ts';
import type { Decision, Judgement, Stance } from '#core/model/work.ts';
import { changeKindOf, MINUTES_BY_KIND, firstTitleOf } from '#core/plan/tasks.ts';
import { wordingMark } from '#core/reading/need.ts';
import { sayingKey } from '#core/saying/saying-of.ts';
import { isDecided } from '#core/tally/tally.ts';
import * as words from '../../words/en.ts';
import type { Writing } from '../storage/transact.ts';
import { taskOwner } from './stages.ts';
import type { AssignmentView } from '#core/assignment/view.ts';
import type { ScoreChange } from '#core/assignment/attempts.ts';
import { queryIdOf, scoreReadingId, taskIdOf } from '#core/model/own-ids.ts';

function judgementFor(remark: Remark, known: Judgement | null): Judgement {
  return (
    known ?? {
      remarkId: remark.id,
      assignmentId: remark.assignmentId,
      decision: null,
      carry: false,
      note: '',
      stance: null,
      apart: false,
      link: null,
      reply: '',
      taken: null,
    }
  );
}

async function putRead(writing: Writing, remark: Remark, read: boolean): Promise<void> {
  const known = await writing.get('readings', remark.id);
  const seenMs = known?.of === wordingMark(remark) ? known.seenMs : 0;
  if (known?.read === read && known.of === wordingMark(remark)) return;
  await writing.put('readings', {
    remarkId: remark.id,
    assignmentId: remark.assignmentId,
    of: wordingMark(remark),
    seenMs,
    read,
  });
}

/** Adds time that a remark was in view; from enough of it on the remark counts as read. */
export function addReadingTime(
  workspace: Workspace,
  remark: Remark,
  ms: number,
  read: boolean,
): Promise<void> {
  return workspace.save(async (writing) => {
    const of = wordingMark(remark);
    const known = await writing.get('readings', remark.id);
    const before = known?.of === of ? known : null;
    // Time counts until it is read; what was on its way when it was decided about changes nothing more.
    if (before?.read === true) return;
    await writing.put('readings', {
      remarkId: remark.id,
      assignmentId: remark.assignmentId,
      of,
      seenMs: Math.round((before?.seenMs ?? 0) + ms),
      read,
    });
  });
}

export function markRead(workspace: Workspace, remark: Remark, read: boolean): Promise<void> {
  return workspace.run(
    remark.assignmentId,
    read ? words.undo.markedRead : words.undo.markedUnread,
    (writing) => putRead(writing, remark, read),
  );
}

/** Marks everything that came back for an assignment as read, a changed score with it. */
export function markAllRead(
  workspace: Workspace,
  { assignment, remarks, scoreChange }: AssignmentView,
): Promise<void> {
  return workspace.run(assignment.id, words.undo.markedAllRead, async (writing) => {
    // Each writes a record of its own; one after the other would be as many ways to the disk.
    await Promise.all(remarks.map((remark) => putRead(writing, remark, true)));
    if (scoreChange !== null) await putScoreSeen(writing, scoreChange);
  });
}

/** Says that a changed score was seen. */
export function markScoreSeen(
  workspace: Workspace,
  assignmentId: string,
  change: ScoreChange,
): Promise<void> {
  return workspace.run(assignmentId, words.undo.seenScore, (writing) => putScoreSeen(writing, change));
}

async function putScoreSeen(writing: Writing, change: ScoreChange): Promise<void> {
  await writing.put('readings', {
    remarkId: scoreReadingId(change.after.id),
    assignmentId: change.after.assignmentId,
    of: change.after.score ?? '',
    seenMs: 0,
    read: true,
  });
}

async function createTask(workspace: Workspace, writing: Writing, remark: Remark): Promise<void> {
  const tasks = await writing.all('tasks');
  if (tasks.some((task) => task.remarkIds.includes(remark.id))) return;
  const kind = changeKindOf(remark);
  await writing.put('tasks', {
    id: taskIdOf(remark.id),
    assignmentId: await taskOwner(writing, remark.assignmentId),
    title:
      workspace.records.sayings.get(sayingKey(remark))?.task ??
      (firstTitleOf(remark) || words.plan.taskWithoutWords),
    kind,
    minutes: MINUTES_BY_KIND[kind],
    remarkIds: [remark.id],
    done: false,
    rank: null,
    touched: false,
  });
}

/** Takes a withdrawn decision out of the plan: an untouched task goes, from a touched one only the remark. */
async function withdrawTask(writing: Writing, remarkId: RemarkId): Promise<void> {
  for (const task of await writing.all('tasks')) {
    if (!task.remarkIds.includes(remarkId)) continue;
    if (task.touched || task.remarkIds.length > 1)
      await writing.put('tasks', { ...task, remarkIds: task.remarkIds.filter((id) => id !== remarkId) });
    else await writing.remove('tasks', task.id);
  }
}

async function createQuery(writing: Writing, remark: Remark, note: string): Promise<void> {
  const id = queryIdOf(remark.id);
  if ((await writing.get('queries', id)) !== null) return;
  await writing.put('queries', {
    id,
    assignmentId: remark.assignmentId,
    remarkId: remark.id,
    person: remark.author.name,
    text: note,
    putAt: null,
    touched: false,
  });
}

async function withdrawQuery(writing: Writing, remarkId: RemarkId): Promise<void> {
  const query = await writing.get('queries', queryIdOf(remarkId));
  if (query !== null && query.putAt === null && !query.touched) await writing.remove('queries', query.id);
}

/** From the first decision on there is something to lose: the browser is asked not to clear it by itself. */
function askToPersist(): void {
  if (typeof navigator !== 'undefined' && 'storage' in navigator) void navigator.storage.persist();
}

/** Brings a remark's decision about, with its task or question. */
async function putDecision(
  workspace: Workspace,
  writing: Writing,
  remark: Remark,
  decision: Decision | null,
): Promise<void> {
  const judgement = judgementFor(remark, await writing.get('judgements', remark.id));
  const taken = decision === null ? null : (judgement.taken ?? takenNow(workspace, remark));
  await writing.put('judgements', { ...judgement, decision, taken });
  if (decision !== null) await putRead(writing, remark, true);
  if (decision === 'act') await createTask(workspace, writing, remark);
  else await withdrawTask(writing, remark.id);
  if (decision === 'ask') await createQuery(writing, remark, judgement.note);
  else await withdrawQuery(writing, remark.id);
}

/** What a remark is taken to say when it is decided: later corrections and models leave it so (decisions.md). */
function takenNow(workspace: Workspace, remark: Remark): Judgement['taken'] {
  const saying = workspace.records.sayings.get(sayingKey(remark));
  return saying === undefined ? null : { stance: saying.stance, model: saying.model };
}

/** Decides about a remark; the same decision again withdraws it. Deciding also marks read. */
export function decideRemark(workspace: Workspace, remark: Remark, decision: Decision): Promise<void> {
  askToPersist();
  return workspace.run(
    remark.assignmentId,
    words.undo.decided(words.decisions[decision]),
    async (writing) => {
      const known = await writing.get('judgements', remark.id);
      await putDecision(workspace, writing, remark, known?.decision === decision ? null : decision);
    },
  );
}

/** Decides the same about many remarks of an assignment, undone as one; carry marks them all. */
export function decideMany(
  workspace: Workspace,
  assignmentId: string,
  remarks: readonly Remark[],
  decision: Decision | 'carry',
): Promise<void> {
  askToPersist();
  const label = words.undo.decidedMany(words.decisions[decision], remarks.length);
  return workspace.run(assignmentId, label, async (writing) => {
    for (const remark of remarks)
      if (decision === 'carry') await putCarry(writing, remark, true);
      else await putDecision(workspace, writing, remark, decision);
  });
}

async function putCarry(writing: Writing, remark: Remark, carry: boolean): Promise<void> {
  const judgement = judgementFor(remark, await writing.get('judgements', remark.id));
  const next = { ...judgement, carry };
  await writing.put('judgements', next);
  if (isDecided(next)) await putRead(writing, remark, true);
}

/** Says that a remark stands for itself, though its words stand elsewhere too; or that the two are one after all. */
export function partRemark(workspace: Workspace, remark: Remark, apart: boolean): Promise<void> {
  return workspace.run(remark.assignmentId, words.undo.parted, async (writing) => {
    const judgement = judgementFor(remark, await writing.get('judgements', remark.id));
    await writing.put('judgements', { ...judgement, apart });
  });
}

/** Carries a remark to the next assignment, beside whatever is decided; again: no more. */
export function toggleCarry(workspace: Workspace, remark: Remark): Promise<void> {
  return workspace.run(remark.assignmentId, words.undo.carried, async (writing) => {
    const known = await writing.get('judgements', remark.id);
    await putCarry(writing, remark, known?.carry !== true);
  });
}

/** Keeps an own note with a remark; a question that nobody has worded yet takes it over. */
export function noteOnRemark(
  workspace: Workspace,
  remark: Remark,
  note: string,
  typing?: string,
): Promise<void> {
  const work = async (writing: Writing) => {
    const judgement = judgementFor(remark, await writing.get('judgements', remark.id));
    await writing.put('judgements', { ...judgement, note });
    const query = await writing.get('queries', queryIdOf(remark.id));
    if (query !== null && !query.touched) await writing.put('queries', { ...query, text: note });
  };
  return workspace.run(remark.assignmentId, words.undo.noted, work, typing);
}

/** Keeps what the student answers to a remark. */
export function replyToRemark(
  workspace: Workspace,
  remark: Remark,
  reply: string,
  typing?: string,
): Promise<void> {
  const work = async (writing: Writing) => {
    const judgement = judgementFor(remark, await writing.get('judgements', remark.id));
    await writing.put('judgements', { ...judgement, reply });
  };
  return workspace.run(remark.assignmentId, words.undo.replied, work, typing);
}

/** Says which criterion a remark counts towards, null for none; without a link it is as its source says. */
export function linkRemarks(
  workspace: Workspace,
  remarks: readonly Remark[],
  link: Judgement['link'] | ((remark: Remark) => Judgement['link']),
): Promise<void> {
  const assignmentId = remarks.at(0)?.assignmentId;
  if (assignmentId === undefined) return Promise.resolve();
  return workspace.run(assignmentId, words.undo.linked(remarks.length), async (writing) => {
    for (const remark of remarks) {
      const judgement = judgementFor(remark, await writing.get('judgements', remark.id));
      await writing.put('judgements', {
        ...judgement,
        link: typeof link === 'function' ? link(remark) : link,
      });
    }
  });
}

export function setStance(workspace: Workspace, remark: Remark, stance: Stance | null): Promise<void> {
  return workspace.run(remark.assignmentId, words.undo.stance, async (writing) => {
    const judgement = judgementFor(remark, await writing.get('judgements', remark.id));
    await writing.put('judgements', { ...judgement, stance });
  });
}
