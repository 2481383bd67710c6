import type { PostPlace } from '#core/model/handed-in.ts';
import type { Draft } from '#core/model/work.ts';
import { Fold } from '../../../shared/controls/Fold.tsx';
import { SelectField } from '../../../shared/controls/Field.tsx';
import { shownMoment } from '../../../shared/shown/shown.ts';
import * as words from '../../../words/en.ts';
import { placePost } from '../../../workspace/commands/draft.ts';
import type { Post } from '../../../workspace/state/posts.ts';
import { useWorkspace } from '../../../workspace/use-workspace.ts';

/** What the new post is: one of its own, an answer to another, or a better version of an own one. */
export function PlaceOfPost({ draft, posts }: { draft: Draft; posts: readonly Post[] }) {
  const workspace = useWorkspace();
  const options: (readonly [string, string, PostPlace])[] = [
    ['new', words.posts.isNew, { answers: null, betters: null }],
    ...posts
      .filter(({ author }) => author.role === 'self')
      .map(
        (post) =>
          [
            `betters ${post.id}`,
            words.posts.betters(beginningOf(post)),
            { answers: post.answers, betters: post.id },
          ] as const,
      ),
    ...posts
      .filter(({ author }) => author.role !== 'self')
      .map(
        (post) =>
          [
            `answers ${post.id}`,
            words.posts.answers(post.author.name, beginningOf(post)),
            { answers: post.id, betters: null },
          ] as const,
      ),
  ];
  const { post } = draft;
  const chosen =
    options.find(([, , place]) => place.answers === post?.answers && place.betters === post.betters)?.[0] ??
    'new';
  return (
    <SelectField
      label={words.posts.place}
      options={options.map(([value, label]) => [value, label] as const)}
      value={chosen}
      onChange={(value) => {
        const place = options.find(([one]) => one === value)?.[2];
        if (place !== undefined) void placePost(workspace, draft, place);
      }}
    />
  );
}

const BEGINNING = 40;

function beginningOf({ text }: Post): string {
  return text.length <= BEGINNING ? text : `${text.slice(0, text.lastIndexOf(' ', BEGINNING))} …`;
}

/** The thread, to be read while one writes. */
export function Thread({ posts, zone }: { posts: readonly Post[]; zone: string | undefined }) {
  return (
    <Fold label={words.posts.thread(posts.length)} defaultOpen>
      <ol className="mt-1 grid gap-3">
        {posts.map((post) => (
          <li key={post.id} className="border-t border-rule pt-2">
            <p className="text-sm text-quiet">
              <b className="text-ink">{post.author.name}</b> {shownMoment(post.at, zone)}
            </p>
            <p className="font-serif whitespace-pre-line">{post.text}</p>
          </li>
        ))}
      </ol>
    </Fold>
  );
}
