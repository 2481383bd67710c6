import * as v from 'valibot';

/** What kind of work an assignment asks for (product.md, By kind of work). */
export const workKinds = ['paper', 'files', 'quiz', 'posts', 'items'] as const;
/** One of them: a text; files such as a drawing or a table; a quiz; posts to a discussion; an activity by items. */
export const WorkKind = v.picklist(workKinds);
export type WorkKind = v.InferOutput<typeof WorkKind>;
