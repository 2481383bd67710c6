import { useEffect, useId, useRef, useState } from 'react';
import { toast } from 'sonner';
import { Button } from '../../shared/controls/Controls.tsx';
import { Progress } from '../../shared/controls/Progress.tsx';
import * as words from '../../words/en.ts';
import { WorkerStopped } from '../../workers/worker-client.ts';
import type { ToldProgress } from './write-along.ts';

/** What came of writing: a file of a name, something that was shown, or why there is none. */
export type Came =
  { readonly kind: 'saved'; readonly name: string } | { readonly kind: 'shown' | 'unreadable' | 'gone' };

export interface Writing {
  /** null: nothing is being written. */
  readonly percent: number | null;
  readonly write: (of: string, work: (told: ToldProgress, signal: AbortSignal) => Promise<Came>) => void;
  readonly stop: () => void;
}

/** Writing of a file that takes its time: how far it is, and how to stop it. Leaving the place stops it too. */
export function useWriting(): Writing {
  const [percent, setPercent] = useState<number | null>(null);
  const under = useRef<AbortController | null>(null);
  useEffect(() => () => under.current?.abort(), []);
  const run = async (of: string, work: Parameters<Writing['write']>[1]) => {
    const own = new AbortController();
    under.current = own;
    setPercent(0);
    try {
      const came = await work(setPercent, own.signal);
      if (came.kind === 'unreadable') toast.error(words.takeAlong.cantWrite(of), { duration: 15_000 });
      else if (came.kind === 'gone') toast.error(words.takeAlong.gone(of), { duration: 15_000 });
      else if (came.kind === 'saved') toast.success(words.takeAlong.written(came.name));
    } catch (error) {
      if (!own.signal.aborted || !(error instanceof WorkerStopped)) throw error;
    } finally {
      setPercent(null);
    }
  };
  return {
    percent,
    write: (of, work) => void run(of, work),
    stop: () => under.current?.abort(),
  };
}

/** How far the writing is, while something is written. */
export function WritingNotice({ writing: { percent, stop } }: { writing: Writing }) {
  const id = useId();
  if (percent === null) return null;
  return (
    <div className="mt-3 grid gap-1.5">
      <p className="flex items-center gap-3 text-sm">
        <span id={id} role="status">
          {words.takeAlong.writing(percent)}
        </span>
        <Button look="quiet" className="min-h-0" onClick={stop}>
          {words.takeAlong.stop}
        </Button>
      </p>
      <Progress done={percent} of={100} labelledBy={id} />
    </div>
  );
}
