import { readDiscussion, type Discussion } from '#formats/posts/read-posts.ts';
import { readPaper } from '#formats/read-paper.ts';
import { allMarkings } from '../desk/record.ts';
import { bytesOf, type Marked } from './marked.ts';

/** What other students wrote, in the library and in discussions: nobody's answer to a remark. */
export async function othersTexts(given: Marked): Promise<string[]> {
  const { state } = given.desk;
  const own = state.student.name;
  const discussions = await Promise.all(
    filesOf(given, 'posts').map(async ({ hash }) => readDiscussion(await bytesOf(given, hash))),
  );
  const fellows = state.library.filter(({ relation }) => relation === 'fellow').map(({ text }) => text);
  const posts = ({ posts: all }: Discussion) =>
    all.filter(({ author }) => author.name !== own).map(({ text }) => text);
  return [...fellows, ...discussions.flatMap(posts)];
}

/** What was said in the papers that came back for these works: copying it is no answer. */
export async function remarksTexts(given: Marked, works: ReadonlySet<string>): Promise<string[]> {
  const marked = filesOf(given, 'marked', works);
  const read = await Promise.all(marked.map(async ({ hash }) => readPaper(await bytesOf(given, hash), null)));
  return read.flatMap(({ marks }) => marks.map(({ text }) => text));
}

function filesOf({ desk: { state } }: Marked, role: 'posts' | 'marked', works?: ReadonlySet<string>) {
  return allMarkings(state)
    .filter(({ assignmentId }) => works === undefined || works.has(assignmentId))
    .flatMap(({ files }) => files.filter((file) => file.role === role));
}
