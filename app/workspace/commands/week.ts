import { asId, instantOf, TaskId, type FileHash } from '#core/model/ids.ts';
import type { Block, Spell, StoredFile } from '#core/model/work.ts';
import type { GivenBlock } from '#core/plan/given.ts';
import type { PlacedBlock } from '#core/plan/place.ts';
import type { Span } from '#core/plan/spans.ts';
import { hashOf } from '#formats/hash.ts';
import * as words from '../../words/en.ts';
import type { Writing } from '../storage/transact.ts';
import type { Workspace } from '../workspace.ts';
import { newId } from './draft.ts';
import { keepFile } from './new-files.ts';

/** What is done on the week can be taken back there, and in the assignments that it touches. */
export const WEEK_SCOPE = 'week';

function scopesOf(workspace: Workspace, taskIds: readonly string[]): string[] {
  const owners = taskIds.flatMap((id) => workspace.records.tasks.get(id)?.assignmentId ?? []);
  return [...new Set([WEEK_SCOPE, ...owners])];
}

/** Sets a block to a time by hand; from then on it stays there. */
export function setBlock(workspace: Workspace, block: PlacedBlock, { from, to }: Span): Promise<void> {
  const id = block.pinned ? block.id : newId();
  const taskIds = block.taskIds.map((one) => asId(TaskId, one));
  return workspace.run(scopesOf(workspace, taskIds), words.undo.blockMoved, (writing) =>
    writing.put('blocks', { id, taskIds, from: instantOf(from), to: instantOf(to) }),
  );
}

/** Lets a block that was set by hand be placed again like the others. */
export function freeBlock(
  workspace: Workspace,
  { id, taskIds }: Pick<Block, 'id' | 'taskIds'>,
): Promise<void> {
  return workspace.run(scopesOf(workspace, taskIds), words.undo.blockFreed, (writing) =>
    writing.remove('blocks', id),
  );
}

/** Keeps a calendar file: the student is busy at its times. */
export async function addCalendar(
  workspace: Workspace,
  name: string,
  bytes: Uint8Array<ArrayBuffer>,
): Promise<FileHash> {
  const hash = await hashOf(bytes);
  await workspace.run(WEEK_SCOPE, words.undo.calendarIn(name), (writing) =>
    keepFile(workspace, writing, null, { name, mediaType: 'text/calendar', bytes, hash }, 'calendar'),
  );
  return hash;
}

/** Takes a calendar's busy times away; the file's bytes stay for undo. */
export function removeCalendar(workspace: Workspace, { hash, name }: StoredFile): Promise<void> {
  return workspace.run(WEEK_SCOPE, words.undo.calendarOut(name), (writing) => writing.remove('files', hash));
}

/** Keeps what a calendar was given; that can't be taken back. */
export function keepGiven(workspace: Workspace, blocks: readonly GivenBlock[]): Promise<void> {
  return workspace.save((writing) => writing.put('settings', { name: 'calendarGiven', blocks: [...blocks] }));
}

async function endRunning(workspace: Workspace, writing: Writing): Promise<void> {
  for (const spell of await writing.all('spells'))
    if (spell.to === null) await writing.put('spells', { ...spell, to: workspace.now() });
}

/** Begins to count the time spent on a task; what was counted before ends. */
export function startSpell(workspace: Workspace, taskId: TaskId): Promise<void> {
  return workspace.save(async (writing) => {
    await endRunning(workspace, writing);
    const at = workspace.now();
    await writing.put('spells', { id: newId(), taskId, from: at, to: null, lastSeen: at });
  });
}

/** Says that a spell still goes on. */
export function seeSpell(workspace: Workspace, spell: Spell): Promise<void> {
  return workspace.save(async (writing) => {
    const known = await writing.get('spells', spell.id);
    if (known?.to === null) await writing.put('spells', { ...known, lastSeen: workspace.now() });
  });
}

/** Ends a spell at a time; one that took none goes. */
export function endSpell(workspace: Workspace, spell: Spell, toMs: number): Promise<void> {
  return workspace.save(async (writing) => {
    if (toMs <= Date.parse(spell.from)) await writing.remove('spells', spell.id);
    else await writing.put('spells', { ...spell, to: instantOf(toMs) });
  });
}
