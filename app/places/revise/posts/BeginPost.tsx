import { stationOf } from '#core/assignment/line.ts';
import { Button, Empty } from '../../../shared/controls/Controls.tsx';
import { StationNotice } from '../../../shared/line/StationNotice.tsx';
import type { AssignmentOutlet } from '../../../shared/page/assignment-outlet.ts';
import * as words from '../../../words/en.ts';
import { beginPost } from '../../../workspace/commands/draft.ts';
import type { Post } from '../../../workspace/state/posts.ts';
import { useWorkspace } from '../../../workspace/use-workspace.ts';
import { Thread } from './Thread.tsx';

/** The ways to begin a post: from the one that was marked, or anew. */
export function BeginPost({
  outlet: { view },
  posts,
}: {
  outlet: AssignmentOutlet;
  /** null while they are read. */
  posts: readonly Post[] | null;
}) {
  const workspace = useWorkspace();
  const { assignment, attempts } = view;
  const isMain = stationOf(view, 'revise').is === 'do';
  const own = posts?.findLast(({ author }) => author.role === 'self') ?? null;
  const begin = (text: string, betters: string | null, answers: string | null) =>
    void beginPost(workspace, assignment.id, attempts.length + 1, text, { betters, answers });
  if (posts === null)
    return (
      <div className="mx-auto max-w-2xl p-8 max-md:p-4">
        <Empty>{words.reading.opening}</Empty>
      </div>
    );
  return (
    <div className="mx-auto grid max-w-2xl gap-4 p-8 max-md:p-4">
      <StationNotice view={view} station="revise" />
      {own !== null && <p>{words.posts.beginLead}</p>}
      <div className="flex flex-wrap gap-3">
        {own !== null && (
          <Button look={isMain ? 'main' : 'plain'} onClick={() => begin(own.text, own.id, own.answers)}>
            {words.posts.beginFrom}
          </Button>
        )}
        <Button
          look={isMain && own === null ? 'main' : 'plain'}
          onClick={() => begin('', null, posts.at(0)?.id ?? null)}
        >
          {words.posts.startAnew}
        </Button>
      </div>
      {posts.length > 0 && <Thread posts={posts} zone={view.course?.zone} />}
    </div>
  );
}
