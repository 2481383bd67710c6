import { useWorkspace } from '../../../workspace/use-workspace.ts';
import * as words from '../../../words/en.ts';
import { markRead } from '../../../workspace/commands/reading.ts';
import { useFileUrl } from '../../../shared/files/file-url.ts';
import { SlipList, type SlipListProps } from './SlipList.tsx';

/** Spoken comments, each with what is said in it where a transcript came. One counts as read when it was played. */
export function Recordings({ view, remarks, focusedId, onFocus }: SlipListProps) {
  const workspace = useWorkspace();
  return (
    <div className="grid gap-7">
      {view.recordings.map((file) => {
        const own = remarks.filter((remark) => remark.paperHash === file.hash);
        const whole = own.find(({ kind }) => kind === 'recording');
        return (
          <section key={file.hash} aria-label={file.name}>
            <h2 className="mb-2 font-semibold break-words">{file.name}</h2>
            <Player
              hash={file.hash}
              onEnded={() => whole !== undefined && void markRead(workspace, whole, true)}
            />
            <div className="mt-3">
              <SlipList view={view} remarks={own} focusedId={focusedId} onFocus={onFocus} />
            </div>
          </section>
        );
      })}
    </div>
  );
}

function Player({ hash, onEnded }: { hash: string; onEnded: () => void }) {
  const url = useFileUrl(hash);
  return (
    <audio
      controls
      preload="metadata"
      aria-label={words.reading.play}
      src={url ?? undefined}
      onEnded={onEnded}
      className="w-full max-w-xl"
    />
  );
}
