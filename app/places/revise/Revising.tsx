import { revise } from '../../words/revising.ts';
import type { ComponentType } from 'react';
import type { Meaning } from '#core/line/station-facts.ts';
import { stationOf } from '#core/assignment/line.ts';
import { Empty } from '../../shared/controls/Controls.tsx';
import { useAssignment, type AssignmentOutlet } from '../../shared/page/assignment-outlet.ts';
import { Begin } from './Begin.tsx';
import { Desk } from './Desk.tsx';
import { FileDesk } from './file/FileDesk.tsx';
import { NewFiles } from './files/NewFiles.tsx';
import { ItemsAgain } from './ItemsAgain.tsx';
import { BeginPost } from './posts/BeginPost.tsx';
import { usePosts } from '../../workspace/state/posts.ts';
import { PlaceOfPost, Thread } from './posts/Thread.tsx';
import { Practice } from './quiz/Practice.tsx';

/** What the next attempt is made of, beside the remarks: for each kind of work its own. */
export function Revising() {
  const outlet = useAssignment();
  const Making = BY_MEANING[stationOf(outlet.view, 'revise').means] ?? Text;
  return <Making outlet={outlet} />;
}

/** The draft on the left, tasks and remarks on the right, each with what became of its passage. */
function Text({ outlet }: { outlet: AssignmentOutlet }) {
  const { draft } = outlet.view;
  if (draft?.paperFile != null) return <FileDesk key={draft.id} outlet={outlet} draft={draft} />;
  if (draft?.bodyHash == null) return <Begin outlet={outlet} />;
  if (outlet.content === null) return <Opening />;
  return <Desk key={draft.id} outlet={outlet} draft={draft} content={outlet.content} />;
}

/** The same for a post, with the thread that it stands in. */
function Post({ outlet }: { outlet: AssignmentOutlet }) {
  const { view, content } = outlet;
  const { draft } = view;
  const posts = usePosts(view);
  if (draft?.bodyHash == null) return <BeginPost outlet={outlet} posts={posts} />;
  if (content === null || posts === null) return <Opening />;
  return (
    <Desk
      key={draft.id}
      outlet={outlet}
      draft={draft}
      content={content}
      above={<PlaceOfPost draft={draft} posts={posts} />}
      beside={posts.length === 0 ? null : <Thread posts={posts} zone={view.course?.zone} />}
    />
  );
}

const BY_MEANING: Partial<Record<Meaning, ComponentType<{ outlet: AssignmentOutlet }>>> = {
  'new files': NewFiles,
  practice: Practice,
  items: ItemsAgain,
  post: Post,
};

function Opening() {
  return (
    <div className="mx-auto max-w-2xl p-8 max-md:p-4">
      <Empty>{revise.opening}</Empty>
    </div>
  );
}
