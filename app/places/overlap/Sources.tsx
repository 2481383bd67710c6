import clsx from 'clsx';
import { useState } from 'react';
import { toast } from 'sonner';
import type { AssignmentView } from '#core/assignment/view.ts';
import { relations, type Relation } from '#core/model/source.ts';
import type { Figures } from '#core/overlap/items.ts';
import { Button, SectionTitle } from '../../shared/controls/Controls.tsx';
import { Fold } from '../../shared/controls/Fold.tsx';
import { RemoveButton } from '../../shared/controls/RemoveButton.tsx';
import { Select } from '../../shared/controls/Select.tsx';
import { droppedFiles } from '../../shared/files/dropped-files.ts';
import { bytesOfFile } from '../../shared/files/file-bytes.ts';
import { tellNotTaken } from '../../shared/page/notify.ts';
import * as words from '../../words/en.ts';
import { changeSource, removeSource, takeLibrary, takeSources } from '../../workspace/commands/overlap.ts';
import type { HereSource, ShownOverlap } from '../../workspace/state/overlap.ts';
import { useWorkspace } from '../../workspace/use-workspace.ts';
import type { Choosing } from './choice.ts';
import { SourceTitle } from './MatchCard.tsx';

/** What a text was compared with, by what it is to the student: the ones with matches first. */
export function Sources({
  view,
  shown,
  figures,
  choosing,
  onChoose,
}: {
  view: AssignmentView;
  shown: ShownOverlap;
  figures: Figures;
  choosing: Choosing;
  onChoose: (id: string) => void;
}) {
  const lettersOf = (id: string) => shown.matches.filter(({ sourceId }) => sourceId === id);
  const matched = new Set(shown.counted.map(({ sourceId }) => sourceId));
  const withMatches = shown.sources.filter(({ id }) => matched.has(id));
  const without = shown.sources.filter(({ id }) => !matched.has(id));
  const row = (source: HereSource) => (
    <SourceRow
      key={source.id}
      scope={view.assignment.id}
      source={source}
      credited={figures.bySource[shown.sources.indexOf(source)]}
      matches={lettersOf(source.id)}
      aside={choosing.reasonOf(source.id)}
      onChoose={onChoose}
    />
  );
  return (
    <section>
      <SectionTitle>{words.overlap.sources}</SectionTitle>
      {relations.map((relation) => {
        const own = withMatches.filter(({ work }) => work.relation === relation);
        return own.length === 0 ? null : (
          <div key={relation} className="mt-2">
            <h3 className="text-sm font-semibold text-quiet">{words.overlap.relation[relation]}</h3>
            <ul>{own.map(row)}</ul>
          </div>
        );
      })}
      {without.length > 0 && (
        <Fold label={words.overlap.sharesNothing(without.length)}>
          <ul>{without.map(row)}</ul>
        </Fold>
      )}
      <AddSources view={view} />
    </section>
  );
}

function SourceRow({
  scope,
  source,
  credited,
  matches,
  aside,
  onChoose,
}: {
  scope: string;
  source: HereSource;
  credited: number;
  matches: ShownOverlap['matches'];
  aside: string | null;
  onChoose: (id: string) => void;
}) {
  const workspace = useWorkspace();
  const { record, work } = source;
  return (
    <li className="flex flex-wrap items-center gap-x-3 border-t border-rule py-1.5 text-sm">
      <span className="min-w-40 flex-1">
        <SourceTitle source={source} />
        {aside !== null && <span className="text-quiet"> ({words.overlap.isAside(aside)})</span>}
        <span className="block">
          {matches.map(({ id, letter }) => (
            <Button
              key={id}
              look="quiet"
              className="min-h-6 min-w-6 px-1 py-0"
              aria-label={words.overlap.letter(letter)}
              onClick={() => onChoose(id)}
            >
              {letter}
            </Button>
          ))}
        </span>
      </span>
      {credited > 0 && <span className="text-quiet tabular-nums">{words.overlap.words(credited)}</span>}
      {record !== null && (
        <>
          <Select
            look="quiet"
            label={words.overlap.relationOf(work.title)}
            value={work.relation}
            options={relations.map((relation) => [relation, words.overlap.relation[relation]] as const)}
            onChange={(relation) =>
              void changeSource(workspace, scope, record, { relation: relation as Relation })
            }
          />
          <RemoveButton
            beside="line"
            label={words.overlap.removeSource(work.title)}
            onClick={() => void removeSource(workspace, scope, record)}
          />
        </>
      )}
    </li>
  );
}

/** Brings sources in: files of the student's, or the library of the course desk. */
export function AddSources({ view }: { view: AssignmentView }) {
  const workspace = useWorkspace();
  const [isBusy, setBusy] = useState(false);
  const [isOver, setOver] = useState(false);
  const scope = view.assignment.id;
  const add = async (files: readonly File[]) => {
    setBusy(true);
    const read = await Promise.all(
      files.map(async (file) => ({ name: file.name, mediaType: file.type, bytes: await bytesOfFile(file) })),
    );
    const here = read.flatMap(({ bytes, ...file }) =>
      typeof bytes === 'string' ? [] : [{ ...file, bytes }],
    );
    for (const { bytes } of read) if (typeof bytes === 'string') toast.error(bytes, { duration: 15_000 });
    const taken = await takeSources(workspace, scope, here).catch((error: unknown) => {
      tellNotTaken(error);
      return [];
    });
    setBusy(false);
    for (const one of taken)
      if (one.kind === 'unreadable')
        toast.error(words.unreadable[one.reason](one.name, one.detail), { duration: 15_000 });
    const count = taken.filter(({ kind }) => kind === 'read').length;
    if (count > 0) toast.success(words.overlap.taken(count));
  };
  const fetchLibrary = async () => {
    setBusy(true);
    const count = await takeLibrary(workspace, scope).catch((error: unknown) => {
      tellNotTaken(error);
      return undefined;
    });
    setBusy(false);
    if (count === null) toast.error(words.overlap.notReached, { duration: 15_000 });
    else if (count !== undefined) toast.success(words.overlap.came(count));
  };
  return (
    <div
      data-takes-files
      onDragEnter={() => setOver(true)}
      onDragLeave={({ currentTarget, relatedTarget }) => {
        if (!(relatedTarget instanceof Node && currentTarget.contains(relatedTarget))) setOver(false);
      }}
      onDrop={({ dataTransfer }) => {
        setOver(false);
        if (dataTransfer.types.includes('Files')) void droppedFiles(dataTransfer).then(add, tellNotTaken);
      }}
      className={clsx(
        'mt-3 flex flex-wrap items-center gap-3 rounded-md border border-dashed p-3',
        isOver ? 'border-accent bg-sunken' : 'border-rule-strong/60',
      )}
    >
      <ChooseFiles label={words.overlap.add} disabled={isBusy} onFiles={(files) => void add(files)} />
      <ChooseFiles
        label={words.overlap.addFolder}
        folder
        disabled={isBusy}
        onFiles={(files) => void add(files)}
      />
      {view.byDesk && (
        <Button disabled={isBusy} onClick={() => void fetchLibrary()}>
          {words.overlap.library}
        </Button>
      )}
      <span className="text-sm text-quiet">{isBusy ? words.overlap.fetching : words.overlap.dropHere}</span>
    </div>
  );
}

function ChooseFiles({
  label,
  folder = false,
  disabled,
  onFiles,
}: {
  label: string;
  /** All files of a folder and of those in it. */
  folder?: boolean;
  disabled: boolean;
  onFiles: (files: readonly File[]) => void;
}) {
  return (
    <label className="inline-flex min-h-9 cursor-pointer items-center rounded-md border border-rule-strong/60 bg-surface px-3 font-semibold focus-within:outline-2 focus-within:outline-accent hover:border-ink">
      {label}
      <input
        type="file"
        multiple
        disabled={disabled}
        accept={folder ? undefined : '.pdf,.docx,.odt,.fodt,.html,.htm,.md,.txt'}
        // A folder is asked for by a property that the types of React don't know.
        ref={(input) => {
          if (input !== null) input.webkitdirectory = folder;
        }}
        className="sr-only"
        onChange={(event) => {
          const files = [...(event.target.files ?? [])];
          event.target.value = '';
          if (files.length > 0) onFiles(files);
        }}
      />
    </label>
  );
}
