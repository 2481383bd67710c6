import { useMemo } from 'react';
import type { AssignmentView } from '#core/assignment/view.ts';
import type { Discussion } from '#formats/posts/read-posts.ts';
import { reader } from '../../workers/clients.ts';
import { useReadAgain } from './read-again.ts';

export type Post = Discussion['posts'][number];

const readDiscussion = (bytes: Uint8Array) => reader.ask((worker) => worker.readDiscussion(bytes));

/** The posts of an assignment's thread, in their order; null while they are read. */
export function usePosts({ papers }: AssignmentView): readonly Post[] | null {
  const hashes = papers.filter(({ role }) => role === 'posts').map(({ hash }) => hash);
  const found = useReadAgain(hashes, readDiscussion);
  return useMemo(() => {
    if (found === null) return null;
    const byId = new Map(found.flatMap(({ posts }) => posts).map((post) => [post.id, post]));
    return [...byId.values()];
  }, [found]);
}
