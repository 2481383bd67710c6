import { useState } from 'react';
import { toast } from 'sonner';
import { proposeEntries, withEntries, type ProposedEntry } from '#core/citations/put-entries.ts';
import type { WorkListed } from '#core/citations/work-listed.ts';
import type { Draft } from '#core/model/work.ts';
import type { Paper } from '#core/paper/paper.ts';
import { Button } from '../../shared/controls/Controls.tsx';
import { CheckBox } from '../../shared/controls/CheckBox.tsx';
import { FileButton } from '../../shared/controls/FileButton.tsx';
import { bytesOfFile } from '../../shared/files/file-bytes.ts';
import * as words from '../../words/en.ts';
import { changeDraft } from '../../workspace/commands/draft.ts';
import { useWorkspace } from '../../workspace/use-workspace.ts';
import { reader } from '../../workers/clients.ts';

const FAULT_MS = 15_000;

/** Entries for the list of references out of a file, in the form of the paper's own; into the draft, or to be copied. */
export function References({ paper, draft }: { paper: Paper; draft: Draft | null }) {
  const [file, setFile] = useState<{ readonly name: string; readonly works: readonly WorkListed[] } | null>(
    null,
  );
  const read = async (chosen: File) => {
    const bytes = await bytesOfFile(chosen);
    const tell = (fault: string) => void toast.error(fault, { duration: FAULT_MS });
    if (typeof bytes === 'string') {
      tell(bytes);
      return;
    }
    const result = await reader.ask((worker) => worker.readReferences(bytes));
    if (result.kind === 'read') setFile({ name: chosen.name, works: result.value });
    else tell(words.unreadable[result.reason](chosen.name, result.detail));
  };
  return (
    <div className="mt-3">
      <FileButton
        label={words.overlap.references.choose}
        accept=".bib,.bibtex,.json,.txt"
        onFile={(chosen) => void read(chosen)}
      />
      {file !== null && <Proposed key={file.name} {...file} paper={paper} draft={draft} />}
    </div>
  );
}

function Proposed({
  name,
  works,
  paper,
  draft,
}: {
  name: string;
  works: readonly WorkListed[];
  paper: Paper;
  draft: Draft | null;
}) {
  const workspace = useWorkspace();
  const entries = proposeEntries(paper, works);
  const [turned, setTurned] = useState<ReadonlySet<string>>(new Set());
  const isAnyCited = entries.some(({ state }) => state === 'cited');
  const isChosen = ({ text, state }: ProposedEntry) =>
    state !== 'listed' && turned.has(text) !== (state === 'cited' || !isAnyCited);
  const chosen = entries.filter(isChosen).map(({ text }) => text);
  const turn = (text: string) =>
    setTurned((now) => new Set(now.has(text) ? [...now].filter((one) => one !== text) : [...now, text]));
  const put = async (id: string) => {
    await changeDraft(workspace, id, words.overlap.references.undo, (content) =>
      withEntries(content, chosen, words.overlap.references.heading),
    );
    toast.success(words.overlap.references.putIn(chosen.length));
  };
  const copy = async () => {
    await navigator.clipboard.writeText(chosen.join('\n'));
    toast.success(words.overlap.references.copied);
  };
  return (
    <div className="mt-3">
      <p className="text-sm text-quiet">{words.overlap.references.lead(name)}</p>
      <ul className="mt-1">
        {entries.map((entry) => (
          <li key={entry.text} className="border-t border-rule py-1.5 text-sm">
            <label className="flex items-baseline gap-2">
              <CheckBox
                checked={isChosen(entry)}
                disabled={entry.state === 'listed'}
                onChange={() => turn(entry.text)}
              />
              <span className="min-w-0 flex-1">
                <span className="font-serif break-words">{entry.text}</span>{' '}
                <span className="text-quiet">{words.overlap.references.state[entry.state]}</span>
              </span>
            </label>
          </li>
        ))}
      </ul>
      {chosen.length > 0 && (
        <div className="mt-2 flex flex-wrap gap-3">
          {draft !== null && (
            <Button onClick={() => void put(draft.id)}>{words.overlap.references.put(chosen.length)}</Button>
          )}
          <Button look="quiet" onClick={() => void copy()}>
            {words.overlap.references.copy(chosen.length)}
          </Button>
        </div>
      )}
    </div>
  );
}
