import { asId, AttemptId, MarkingId, type AssignmentId, type FileHash } from '#core/model/ids.ts';
import { matchRemarkId } from '#core/model/own-ids.ts';
import type { Remark } from '#core/model/remark.ts';
import type { OverlapChoice, Source } from '#core/model/source.ts';
import type { AssignmentView } from '#core/assignment/view.ts';
import type { ShownMatch } from '#core/overlap/items.ts';
import { usualCounting } from '#core/overlap/shares.ts';
import { titlePageOf } from '#core/overlap/title-page.ts';
import type { Paper } from '#core/paper/paper.ts';
import { quoteOf } from '#core/text/quotation.ts';
import { READER_VERSION } from '#formats/marked-paper.ts';
import { hashOf } from '#formats/hash.ts';
import * as words from '../../words/en.ts';
import { reader } from '../../workers/clients.ts';
import type { ReadResult } from '../../workers/protocol.ts';
import { library } from '../desk/desk-client.ts';
import { settingIn } from '../state/settings.ts';
import type { ReadPaper } from '../storage/records.ts';
import type { Writing } from '../storage/transact.ts';
import type { Workspace } from '../workspace.ts';
import { keepFile } from './new-files.ts';

const USUAL: OverlapChoice = { least: usualCounting.least, without: [...usualCounting.without], aside: [] };

/** How the overlap of an assignment is counted. */
export function choiceOf(settings: Workspace['records']['settings'], id: AssignmentId): OverlapChoice {
  return settingIn(settings, 'overlap')?.of[id] ?? USUAL;
}

/** Changes how the overlap of an assignment is counted. @param typing names the spell of changes that it belongs to */
export function changeChoice(
  workspace: Workspace,
  id: AssignmentId,
  change: (choice: OverlapChoice) => OverlapChoice,
  typing?: string,
): Promise<void> {
  return workspace.run(
    id,
    words.overlap.undo.counting,
    (writing) => {
      const { settings } = workspace.records;
      const of = settingIn(settings, 'overlap')?.of ?? {};
      return writing.put('settings', {
        name: 'overlap',
        of: { ...of, [id]: change(choiceOf(settings, id)) },
      });
    },
    typing,
  );
}

/** The text of a source as it is kept beside its file. */
function keptText(hash: FileHash, paper: Paper): ReadPaper {
  return {
    hash,
    readerVersion: READER_VERSION,
    kind: 'text',
    pages: [],
    pageStarts: [],
    paper,
    layout: null,
    anchors: {},
    unknownKinds: [],
  };
}

/** A source with its file, ready to be kept. */
interface NewSource {
  readonly source: Source;
  readonly name: string;
  readonly mediaType: string;
  readonly bytes: Uint8Array<ArrayBuffer>;
  /** null: a paper that is here for another reason keeps its own reading. */
  readonly paper: Paper | null;
}

/** @param paper as it was read now */
async function newSource(
  workspace: Workspace,
  { paper, ...rest }: NewSource & { readonly paper: Paper },
): Promise<NewSource> {
  return { ...rest, paper: (await workspace.readPaper(rest.source.hash)) === null ? paper : null };
}

async function putSource(workspace: Workspace, writing: Writing, one: NewSource): Promise<void> {
  const { hash } = one.source;
  await keepFile(workspace, writing, null, { ...one, hash }, 'source');
  if ((await writing.get('sources', hash)) === null) await writing.put('sources', one.source);
  if (one.paper !== null) writing.putPaper(keptText(hash, one.paper));
}

/** What came of a file that was given as a source. */
export type SourceTaken = ReadResult<Source> & { readonly name: string };

/**
 * Takes files in as sources to compare with; those that can't be read are told, the others kept in one step.
 * @param scope where it can be taken back: sources belong to no assignment
 */
export async function takeSources(
  workspace: Workspace,
  scope: string,
  files: readonly {
    readonly name: string;
    readonly mediaType: string;
    readonly bytes: Uint8Array<ArrayBuffer>;
  }[],
): Promise<SourceTaken[]> {
  const taken: SourceTaken[] = [];
  const read: NewSource[] = [];
  for (const file of files) {
    const result = await reader.ask((worker) => worker.readSource(file.bytes));
    if (result.kind === 'unreadable') {
      taken.push({ ...result, name: file.name });
      continue;
    }
    const hash = await hashOf(file.bytes);
    const source: Source = {
      hash,
      ...titlePageOf(result.value, file.name),
      relation: 'published',
      cameAt: workspace.now(),
    };
    read.push(await newSource(workspace, { source, ...file, paper: result.value }));
    taken.push({ kind: 'read', value: source, name: file.name });
  }
  if (read.length > 0)
    await workspace.run(scope, words.overlap.undo.sources(read.length), async (writing) => {
      for (const one of read) await putSource(workspace, writing, one);
    });
  return taken;
}

/** Fetches what the course desk has papers compared with. @returns how many came; null where it can't be reached */
export async function takeLibrary(workspace: Workspace, scope: string): Promise<number | null> {
  const answer = await library(workspace.caller);
  if (answer.kind !== 'ok') return null;
  const fresh: NewSource[] = [];
  for (const { title, authors, year, relation, text, id } of answer.value) {
    const bytes = new TextEncoder().encode(`# ${title}\n\n${text}\n`);
    const hash = await hashOf(bytes);
    if (workspace.records.sources.has(hash)) continue;
    const read = await reader.ask((worker) => worker.readSource(bytes));
    if (read.kind === 'unreadable') continue;
    const source: Source = {
      hash,
      title,
      authors,
      year: year === null ? null : String(year),
      relation,
      cameAt: workspace.now(),
    };
    const file = { name: `${id}.txt`, mediaType: 'text/plain', bytes };
    fresh.push(await newSource(workspace, { source, ...file, paper: read.value }));
  }
  if (fresh.length > 0)
    await workspace.run(scope, words.overlap.undo.sources(fresh.length), async (writing) => {
      for (const one of fresh) await putSource(workspace, writing, one);
    });
  return fresh.length;
}

/** Puts right what is known of a source. */
export function changeSource(
  workspace: Workspace,
  scope: string,
  source: Source,
  to: Partial<Pick<Source, 'relation' | 'title' | 'authors' | 'year'>>,
): Promise<void> {
  return workspace.run(scope, words.overlap.undo.source, (writing) =>
    writing.put('sources', { ...source, ...to }),
  );
}

/** Takes a source out; what was decided about its matches stays. */
export function removeSource(workspace: Workspace, scope: string, { hash }: Source): Promise<void> {
  return workspace.run(scope, words.overlap.undo.sourceOut, async (writing) => {
    await writing.remove('sources', hash);
    if ((await writing.get('files', hash))?.role === 'source') await writing.remove('files', hash);
  });
}

/** A match that was found here as a remark, to be decided about. @param paper the text that it was found in */
export function remarkOfMatch(view: AssignmentView, paper: Paper, match: ShownMatch, text: string): Remark {
  const { assignment, attempts, markedFile, latestMarking } = view;
  return {
    id: matchRemarkId(assignment.id, match.sourceId, match.sourceFrom),
    assignmentId: assignment.id,
    attemptId: attempts.at(-1)?.attempt.id ?? asId(AttemptId, assignment.id),
    markingId: latestMarking?.id ?? asId(MarkingId, assignment.id),
    channel: 'overlap',
    author: { name: words.overlap.author, role: 'machine' },
    at: null,
    kind: 'match',
    color: null,
    text,
    criterionId: null,
    targets: [{ kind: 'words', page: null, quads: [], rect: null, quote: quoteOf(paper.text, match.place) }],
    replies: [],
    state: null,
    change: null,
    rule: null,
    points: null,
    before: null,
    withdrawn: false,
    computed: true,
    order: 1_000_000 + match.draftFrom,
    textAt: match.place.from,
    fileHash: null,
    paperHash: markedFile?.hash ?? null,
  };
}
