import { useMemo } from 'react';
import type { AssignmentView } from '#core/assignment/view.ts';
import { blocksOfLines, paperOf } from '#core/paper/paper.ts';
import { ComparedRowsOf } from '../../shared/compare/ComparedRows.tsx';
import { usePosts } from '../../workspace/state/posts.ts';

/** The first own post and the newest, word by word; nothing where there is one alone. */
export function PostChanged({ view }: { view: AssignmentView }) {
  const posts = usePosts(view);
  const papers = useMemo(() => {
    const own = (posts ?? []).filter(({ author }) => author.role === 'self');
    return [own.at(0), own.length > 1 ? own.at(-1) : undefined].flatMap((post) =>
      post === undefined ? [] : paperOf(blocksOfLines(post.text)),
    );
  }, [posts]);
  const [older, newer] = papers;
  return papers.length < 2 ? null : (
    <div className="mt-4">
      <ComparedRowsOf older={older} newer={newer} margin={null} />
    </div>
  );
}
