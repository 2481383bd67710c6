import { ExternalLink } from 'lucide-react';
import type { AssignmentView } from '#core/assignment/view.ts';
import { SectionTitle } from '../../shared/controls/Controls.tsx';
import * as words from '../../words/en.ts';
import { useWorkspaceState } from '../../workspace/use-workspace.ts';
import { Rules } from './Rules.tsx';

/** A quiz is taken on the course desk's own page: what the rules say, what it could move, and the way there. */
export function TakeQuiz({ view }: { view: AssignmentView }) {
  const isReached = useWorkspaceState(({ connection }) => connection === 'reached');
  return (
    <section>
      <SectionTitle>{words.send.quiz}</SectionTitle>
      <div className="mt-1">
        <Rules view={view} />
      </div>
      <p className="mt-2 max-w-prose text-quiet">{words.send.quizLead}</p>
      <p className="mt-4">
        <a
          href={`/desk/quizzes/${encodeURIComponent(view.assignment.id)}`}
          className="inline-flex min-h-11 items-center gap-2 rounded-md bg-accent px-4 py-2 font-semibold text-on-accent"
        >
          {words.send.quizTake}
          <ExternalLink size="1em" aria-hidden />
        </a>
      </p>
      {!isReached && <p className="mt-2 text-quiet">{words.send.quizUnreached}</p>}
    </section>
  );
}
