import type { StoredFile } from '#core/model/work.ts';
import * as words from '../../words/en.ts';
import type { RecordMaps } from '../storage/records.ts';
import type { Workspace } from '../workspace.ts';
import { removeIfEmpty } from './correct.ts';

/** What goes with a file: what was read from it, and what the student made of that. */
export interface HangsOnFile {
  readonly files: readonly StoredFile[];
  readonly remarks: readonly string[];
  /** How many of the remarks something was decided or written about. */
  readonly judged: number;
  readonly tasks: readonly string[];
  readonly queries: readonly string[];
}

/** Everything that would be without its ground if a file went: what is about it too. */
export function hangsOnFile(
  { files, remarks, judgements, tasks, queries }: RecordMaps,
  file: StoredFile,
): HangsOnFile {
  const own = [...files.values()].filter(({ hash, aboutHash }) => [hash, aboutHash].includes(file.hash));
  const hashes = new Set<string>(own.map(({ hash }) => hash));
  const gone = new Set<string>(
    [...remarks.values()].flatMap(({ id, fileHash }) => (hashes.has(fileHash ?? '') ? [id] : [])),
  );
  return {
    files: own,
    remarks: [...gone],
    judged: [...gone].filter((id) => judgements.has(id)).length,
    tasks: [...tasks.values()].flatMap(({ id, about }) =>
      about.length > 0 && about.every(({ remarkId }) => gone.has(remarkId)) ? [id] : [],
    ),
    queries: [...queries.values()].flatMap(({ id, about }) =>
      about !== null && gone.has(about.remarkId) ? [id] : [],
    ),
  };
}

/** Takes a file out with all that hangs on it; its bytes go once it can't be taken back any more. */
export function removeFile(workspace: Workspace, file: StoredFile, scope: string): Promise<void> {
  const { files, remarks, tasks, queries } = hangsOnFile(workspace.records, file);
  return workspace.run(scope, words.undo.fileRemoved(file.name), async (writing) => {
    for (const { hash } of files) {
      await writing.remove('files', hash);
      if ((await writing.get('sources', hash)) !== null) await writing.remove('sources', hash);
    }
    for (const id of remarks)
      for (const store of ['remarks', 'readings', 'judgements'] as const)
        if ((await writing.get(store, id)) !== null) await writing.remove(store, id);
    for (const id of tasks) await writing.remove('tasks', id);
    for (const id of queries) await writing.remove('queries', id);
    if (file.assignmentId !== null) await removeIfEmpty(writing, file.assignmentId);
  });
}
