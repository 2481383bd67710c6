import { existsSync } from 'node:fs';
import { readFile } from 'node:fs/promises';
import { dirname, join } from 'node:path';
import * as v from 'valibot';
import { promisePlaces, type PromisePlace } from '#core/model/promises.ts';
import { Change } from '#core/model/remark.ts';
import type { Stance } from '#core/model/work.ts';
import { decodeModel, type SayingModel } from '#core/saying/model.ts';
import { says } from '#core/saying/says.ts';
import { taskFor } from '#core/saying/task-wording.ts';

/** The file holds something else than a list of remarks; the message says what and where. */
export class UnreadableRemarks extends Error {}

/** A remark as it is given. */
const Given = v.array(
  v.object({
    text: v.string(),
    kind: v.optional(v.string(), 'text'),
    change: v.optional(v.nullable(Change), null),
    author: v.optional(v.nullable(v.string()), null),
  }),
);

/** What is printed of a remark (docs/command-line.md). */
interface Told {
  readonly stance: Stance;
  readonly confidence: number;
  readonly callsForChange: boolean;
  readonly hint: string | null;
  readonly promise: PromisePlace | null;
  readonly points: number | null;
  readonly parts: readonly { start: number; end: number; stance: Stance; callsForChange: boolean }[];
  readonly task: string | null;
}

const MODEL = 'core/saying/saying.model';

/** The model that ships, found from wherever this is run: from its source or from a bundle. */
function modelFile(from = import.meta.dirname): string {
  const here = join(from, MODEL);
  if (existsSync(here)) return here;
  if (dirname(from) === from) throw new Error(`${MODEL} is not in any folder above ${import.meta.dirname}`);
  return modelFile(dirname(from));
}

/** What tells remarks apart. */
export async function sayingModel(): Promise<SayingModel> {
  return decodeModel(await readFile(modelFile()));
}

/**
 * What the remarks in a file of JSON say, in their order.
 * @throws UnreadableRemarks where it is no list of remarks; what the file system throws
 */
export async function sayings(path: string): Promise<Told[]> {
  const remarks = given(await readFile(path, 'utf8'));
  const model = await sayingModel();
  return remarks.map((remark) => {
    const saying = says(remark, model);
    const { stance, callsForChange, hint, promise, points } = saying;
    return {
      stance,
      confidence: Math.round(1000 * saying.confidence) / 1000,
      callsForChange,
      hint,
      promise: promisePlaces.find((place) => place === promise) ?? null,
      points,
      parts: saying.parts.map((part) => ({
        start: part.from,
        end: part.to,
        stance: part.stance,
        callsForChange: part.callsForChange,
      })),
      task: callsForChange ? taskFor(remark.text, saying) : null,
    };
  });
}

function given(text: string) {
  let json: unknown;
  try {
    json = JSON.parse(text);
  } catch (error) {
    if (!(error instanceof SyntaxError)) throw error;
    throw new UnreadableRemarks('it is not JSON');
  }
  const parsed = v.safeParse(Given, json);
  if (parsed.success) return parsed.output;
  const [issue] = parsed.issues;
  const path = v.getDotPath(issue);
  throw new UnreadableRemarks(`${path === null ? 'the whole' : `entry ${path}`}: ${issue.message}`);
}
