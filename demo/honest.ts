import { readdirSync, readFileSync } from 'node:fs';
import * as v from 'valibot';

/** Honest rewrites of work of the demo, written before the marker's rules were looked at again. */

const edits = v.array(v.object({ find: v.string(), put: v.string() }));

const Honest = v.union([
  /** A paper with these edits made in it, or in the paper `from` of its draft stage. */
  v.object({ who: v.string(), work: v.string(), from: v.optional(v.string()), edits }),
  v.object({ who: v.string(), work: v.string(), answers: v.string(), text: v.string() }),
  v.object({ who: v.string(), work: v.string(), items: v.record(v.string(), v.string()) }),
  /** Answers to questions of the quizzes that want a text. */
  v.object({ who: v.string(), quizzes: v.record(v.string(), v.string()) }),
]);
export type Honest = v.InferOutput<typeof Honest>;

const folder = new URL('./honest/', import.meta.url);

export function readHonest(): Honest[] {
  return readdirSync(folder).map((name) =>
    v.parse(Honest, JSON.parse(readFileSync(new URL(name, folder), 'utf8'))),
  );
}
