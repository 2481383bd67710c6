export const place = 'What this post is';
export const isNew = 'A new post';
export const betters = (beginning: string) => `A better version of your “${beginning}”`;
export const answers = (who: string, beginning: string) => `An answer to ${who}, “${beginning}”`;
export const thread = (count: number) =>
  count === 1 ? 'The thread: one post' : `The thread: ${count} posts`;
export const beginFrom = 'Begin from your post';
export const beginLead =
  'Begin from the post that was marked, or write a new one. The thread and what was said stand beside it.';
export const preview = 'Just this text is posted:';
export const startAnew = 'Write a new post';
