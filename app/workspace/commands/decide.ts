import type { Workspace } from '../workspace.ts';
import { asId, PartId } from '#core/model/ids.ts';
import type { Remark } from '#core/model/remark.ts';
import type { Decision, JudgedPart, Judgement, RemarkRef, Stance } from '#core/model/work.ts';
import { changeKindOf, firstTitleOf, newTask } from '#core/plan/tasks.ts';
import { stanceOf } from '#core/saying/saying-of.ts';
import { isAbout, joinAt, partsOf, partsToKeep, splitAt } from '#core/saying/remark-parts.ts';
import { taskFor, taskWording } from '#core/saying/task-wording.ts';
import { importanceOf } from '#core/rubric/behind.ts';
import { Proposals, understoodAlone } from '#core/assignment/proposals.ts';
import { recordsIn } from '#core/assignment/records.ts';
import { isDecided } from '#core/tally/decided.ts';
import * as words from '../../words/en.ts';
import type { Writing } from '../storage/transact.ts';
import { newId } from './draft.ts';
import { putRead } from './reading.ts';
import { joinInto, removeTask } from './plan.ts';
import { taskOwner } from './stages.ts';
import { queryIdOf, taskIdOf } from '#core/model/own-ids.ts';

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
      parts: [],
      elsewhere: [],
    }
  );
}

/** A remark, or one of its parts, as it is decided about. */
interface Thing {
  readonly remark: Remark;
  readonly part: JudgedPart | null;
}

const refOf = ({ remark, part }: Thing): RemarkRef => ({ remarkId: remark.id, partId: part?.id ?? null });

async function createTask(workspace: Workspace, writing: Writing, thing: Thing): Promise<void> {
  const { remark, part } = thing;
  const tasks = await writing.all('tasks');
  if (tasks.some(({ about }) => isAbout(about, remark.id, part?.id ?? null))) return;
  const task = newTask({
    id: taskIdOf(remark.id, part?.id ?? null),
    assignmentId: await taskOwner(writing, remark.assignmentId),
    title: titleOf(workspace, thing),
    kind: changeKindOf(remark),
    about: [refOf(thing)],
  });
  await writing.put('tasks', task);
}

function titleOf(workspace: Workspace, { remark, part }: Thing): string {
  if (part !== null) {
    const whole = [{ from: 0, to: part.quote.length, stance: part.stance ?? part.said }];
    return taskWording(part.quote, whole) ?? part.quote;
  }
  const saying = new Proposals(recordsIn(workspace.records)).of(remark);
  const task = saying === null ? null : taskFor(remark.text, saying);
  return task ?? (firstTitleOf(remark) || words.plan.taskWithoutWords);
}

/** Takes a withdrawn decision out of the plan: an untouched task goes, from a touched one only what it was about. */
async function withdrawTask(writing: Writing, thing: Thing): Promise<void> {
  const { remarkId, partId } = refOf(thing);
  for (const task of await writing.all('tasks')) {
    if (!isAbout(task.about, remarkId, partId)) continue;
    const about = task.about.filter((ref) => ref.remarkId !== remarkId || ref.partId !== partId);
    if (task.touched || task.about.length > 1) await writing.put('tasks', { ...task, about });
    else await removeTask(writing, task);
  }
}

async function createQuery(writing: Writing, thing: Thing, note: string): Promise<void> {
  const about = refOf(thing);
  const id = queryIdOf(about.remarkId, about.partId);
  if ((await writing.get('queries', id)) !== null) return;
  const { remark } = thing;
  await writing.put('queries', {
    id,
    assignmentId: remark.assignmentId,
    about,
    person: await askedOf(writing, remark),
    text: note,
    putAt: null,
    touched: false,
    answer: '',
  });
}

/** What a machine says, and what a report found, is asked of the instructor: nobody answers for a program. */
async function askedOf(writing: Writing, remark: Remark): Promise<string> {
  if (remark.author.role !== 'machine' && remark.channel !== 'overlap') return remark.author.name;
  const assignment = await writing.get('assignments', remark.assignmentId);
  const markings = (await writing.all('markings'))
    .filter(({ assignmentId, marker }) => assignmentId === remark.assignmentId && marker.role !== 'machine')
    .sort((x, y) => (x.at < y.at ? 1 : -1));
  const course = await writing.get('courses', assignment?.courseId ?? '');
  return course?.instructor.name ?? markings.at(0)?.marker.name ?? remark.author.name;
}

async function withdrawQuery(writing: Writing, thing: Thing): Promise<void> {
  const { remarkId, partId } = refOf(thing);
  const query = await writing.get('queries', queryIdOf(remarkId, partId));
  if (query !== null && query.putAt === null && !query.touched) await writing.remove('queries', query.id);
}

/** Makes or takes away the task and the question that follow from a decision. */
async function settle(
  workspace: Workspace,
  writing: Writing,
  thing: Thing,
  decision: Decision | null,
  note: string,
): Promise<void> {
  if (decision === 'act') await createTask(workspace, writing, thing);
  else await withdrawTask(writing, thing);
  if (decision === 'ask') await createQuery(writing, thing, note);
  else await withdrawQuery(writing, thing);
}

/** From the first decision on there is something to lose: the browser is asked not to clear it by itself. */
function askToPersist(): void {
  if (typeof navigator !== 'undefined' && 'storage' in navigator) void navigator.storage.persist();
}

/** Brings a remark's decision about, with its task or question; what was decided about parts of it goes. */
async function putDecision(
  workspace: Workspace,
  writing: Writing,
  remark: Remark,
  decision: Decision | null,
): Promise<void> {
  const judgement = judgementFor(remark, await writing.get('judgements', remark.id));
  const taken = decision === null ? null : (judgement.taken ?? takenNow(workspace, remark));
  const parts = judgement.parts.map((part) => ({ ...part, decision: null }));
  await writing.put('judgements', { ...judgement, decision, taken, parts });
  if (decision !== null) await putRead(writing, remark, true);
  for (const part of parts) await settle(workspace, writing, { remark, part }, null, '');
  await settle(workspace, writing, { remark, part: null }, decision, judgement.note);
}

/** What a remark is taken to say when it is decided: later corrections and models leave it so (decisions.md). */
function takenNow(workspace: Workspace, remark: Remark): Judgement['taken'] {
  const understood = understoodAlone(recordsIn(workspace.records), remark);
  const saying = understood.sayings.get(remark.id);
  if (saying === undefined) return null;
  const importance = importanceOf(remark.id, {
    ...understood,
    // What the student says of it is no part of what it was taken to say.
    judgements: new Map(),
  });
  return { stance: saying.stance, model: saying.model, importance };
}

/** The parts of a remark as they are kept from now on. */
function keptParts(workspace: Workspace, remark: Remark, judgement: Judgement): readonly JudgedPart[] {
  if (judgement.parts.length > 0) return judgement.parts;
  const understood = understoodAlone(recordsIn(workspace.records), remark);
  const whole = stanceOf(remark.id, understood) ?? 'note';
  return partsToKeep(remark.text, partsOf(remark, understood), whole, () => asId(PartId, newId()));
}

/** Changes one part of a remark, which from then on is kept as it is. @param from where the part begins in the text */
async function changePart(
  workspace: Workspace,
  writing: Writing,
  remark: Remark,
  from: number,
  change: (part: JudgedPart) => Partial<JudgedPart>,
): Promise<Judgement> {
  const judgement = judgementFor(remark, await writing.get('judgements', remark.id));
  const kept = keptParts(workspace, remark, judgement);
  const parts = kept.map((part) => (part.from === from ? { ...part, ...change(part) } : part));
  const next = { ...judgement, parts };
  await writing.put('judgements', next);
  return next;
}

/**
 * Decides about one part of a remark; the same decision again withdraws it. Where the remark was decided about as a whole,
 * its other parts keep that decision.
 */
export function decidePart(
  workspace: Workspace,
  remark: Remark,
  from: number,
  decision: Decision,
): Promise<void> {
  askToPersist();
  return workspace.run(
    remark.assignmentId,
    words.undo.decidedPart(words.decisions[decision]),
    async (writing) => {
      const judgement = judgementFor(remark, await writing.get('judgements', remark.id));
      const whole = judgement.decision;
      const parts = keptParts(workspace, remark, judgement).map((part) => {
        const own = whole ?? part.decision;
        if (part.from !== from) return { ...part, decision: own };
        return { ...part, decision: own === decision ? null : decision };
      });
      const taken = judgement.taken ?? takenNow(workspace, remark);
      await writing.put('judgements', { ...judgement, decision: null, taken, parts });
      await putRead(writing, remark, true);
      await settle(workspace, writing, { remark, part: null }, null, '');
      for (const part of parts) await settle(workspace, writing, { remark, part }, part.decision, part.note);
    },
  );
}

/** Carries one part of a remark to the next assignment; again: no more. */
export function carryPart(workspace: Workspace, remark: Remark, from: number): Promise<void> {
  return workspace.run(remark.assignmentId, words.undo.carried, async (writing) => {
    const next = await changePart(workspace, writing, remark, from, ({ carry }) => ({ carry: !carry }));
    if (isDecided(next)) await putRead(writing, remark, true);
  });
}

/** Says what one part of a remark says. */
export function setPartStance(
  workspace: Workspace,
  remark: Remark,
  from: number,
  stance: Stance | null,
): Promise<void> {
  return workspace.run(remark.assignmentId, words.undo.stance, async (writing) => {
    await changePart(workspace, writing, remark, from, () => ({ stance }));
  });
}

/**
 * Lets a part begin before a word of a remark, or, where one does, joins it with the one before.
 * @param said what the pieces say by themselves: the one before, and the one that begins there; of a joined one the first
 */
export function cutParts(
  workspace: Workspace,
  remark: Remark,
  at: number,
  said: readonly [Stance, Stance],
): Promise<void> {
  return workspace.run(remark.assignmentId, words.undo.cut, async (writing) => {
    const judgement = judgementFor(remark, await writing.get('judgements', remark.id));
    const kept = keptParts(workspace, remark, judgement);
    const begins = kept.find(({ from }) => from === at);
    const parts =
      begins === undefined
        ? splitAt(kept, remark.text, at, { id: asId(PartId, newId()), before: said[0], after: said[1] })
        : joinAt(kept, remark.text, at, said[0]);
    const taken = judgement.taken ?? takenNow(workspace, remark);
    await writing.put('judgements', { ...judgement, taken, parts: [...parts] });
    if (begins === undefined || begins.decision === null) return;
    await settle(workspace, writing, { remark, part: begins }, null, '');
    const one = parts.find(({ from, to }) => from <= at && at < to);
    if (one !== undefined) await settle(workspace, writing, { remark, part: one }, one.decision, one.note);
  });
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

/** Decides about what was found here by comparing: it is kept as a remark from then on, in the same step. */
export function decideFound(workspace: Workspace, remark: Remark, decision: Decision): Promise<void> {
  askToPersist();
  return workspace.run(
    remark.assignmentId,
    words.undo.decided(words.decisions[decision]),
    async (writing) => {
      if ((await writing.get('remarks', remark.id)) === null) await writing.put('remarks', remark);
      const known = await writing.get('judgements', remark.id);
      const isWithdrawn = known?.decision === decision;
      await putDecision(workspace, writing, remark, isWithdrawn ? null : decision);
      if (!isWithdrawn || remark.computed !== true || known.note !== '' || known.reply !== '') return;
      // Nobody said it: without a decision nothing of it is left.
      await writing.remove('judgements', remark.id);
      await writing.remove('readings', remark.id);
      await writing.remove('remarks', remark.id);
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

/** Decides the same about remarks that call for one change, the first foremost; to act on them is one task. Undone as one. */
export function decideSame(
  workspace: Workspace,
  [first, ...others]: readonly [Remark, ...Remark[]],
  decision: Decision,
): Promise<void> {
  askToPersist();
  const remarks = [first, ...others];
  const label = words.undo.decidedMany(words.decisions[decision], remarks.length);
  return workspace.run(first.assignmentId, label, async (writing) => {
    for (const remark of remarks) await putDecision(workspace, writing, remark, decision);
    if (decision !== 'act') return;
    const tasks = await writing.all('tasks');
    const own = remarks.flatMap(({ id }) => tasks.find(({ about }) => isAbout(about, id, null)) ?? []);
    await joinInto(writing, { tasks: [...new Set(own)], once: true });
  });
}

/** Acts on a remark now that a question about it was answered; the question stays with its answer. */
export function actOnAnswer(workspace: Workspace, remark: Remark, about: RemarkRef): Promise<void> {
  const part = about.partId;
  return workspace.run(remark.assignmentId, words.undo.decided(words.decisions.act), async (writing) => {
    const judgement = judgementFor(remark, await writing.get('judgements', remark.id));
    if (part === null) return putDecision(workspace, writing, remark, 'act');
    const parts = judgement.parts.map((one) =>
      one.id === part ? { ...one, decision: 'act' as const } : one,
    );
    await writing.put('judgements', { ...judgement, parts });
    const own = parts.find(({ id }) => id === part);
    if (own !== undefined) await settle(workspace, writing, { remark, part: own }, 'act', own.note);
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

/** Says which other places of the paper a remark is about too. */
export function setElsewhere(
  workspace: Workspace,
  remark: Remark,
  elsewhere: Judgement['elsewhere'],
): Promise<void> {
  return workspace.run(remark.assignmentId, words.undo.elsewhere, async (writing) => {
    const judgement = judgementFor(remark, await writing.get('judgements', remark.id));
    await writing.put('judgements', { ...judgement, elsewhere });
  });
}

/** Carries a remark to the next assignment, beside whatever is decided; again: no more. */
export function toggleCarry(workspace: Workspace, remark: Remark): Promise<void> {
  return workspace.run(remark.assignmentId, words.undo.carried, async (writing) => {
    const known = await writing.get('judgements', remark.id);
    await putCarry(writing, remark, known?.carry !== true);
  });
}

/**
 * Keeps an own note with a remark, or with one part of it; a question that nobody has worded yet takes it over.
 * @param from where the part begins in the text; null: the remark as a whole
 */
export function noteOnRemark(
  workspace: Workspace,
  remark: Remark,
  from: number | null,
  note: string,
  typing?: string,
): Promise<void> {
  const work = async (writing: Writing) => {
    const partId = await keepWith(workspace, writing, remark, from, { note });
    const query = await writing.get('queries', queryIdOf(remark.id, partId));
    if (query !== null && !query.touched) await writing.put('queries', { ...query, text: note });
  };
  return workspace.run(remark.assignmentId, words.undo.noted, work, typing);
}

/** Keeps what the student answers to a remark, or to one part of it. */
export function replyToRemark(
  workspace: Workspace,
  remark: Remark,
  from: number | null,
  reply: string,
  typing?: string,
): Promise<void> {
  const work = async (writing: Writing) => {
    await keepWith(workspace, writing, remark, from, { reply });
  };
  return workspace.run(remark.assignmentId, words.undo.replied, work, typing);
}

/** Keeps words with a remark, or with a part of it; gives the part. */
async function keepWith(
  workspace: Workspace,
  writing: Writing,
  remark: Remark,
  from: number | null,
  kept: { readonly note: string } | { readonly reply: string },
): Promise<PartId | null> {
  if (from !== null) {
    const { parts } = await changePart(workspace, writing, remark, from, () => kept);
    return parts.find((part) => part.from === from)?.id ?? null;
  }
  const judgement = judgementFor(remark, await writing.get('judgements', remark.id));
  await writing.put('judgements', { ...judgement, ...kept });
  return null;
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
