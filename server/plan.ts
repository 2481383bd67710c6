import { readFile } from 'node:fs/promises';
import * as v from 'valibot';
import { choose, curveOf } from '#core/plan/choose.ts';
import { NoChoice, type Refusal } from '#core/plan/problem.ts';

/** The best use of some minutes (docs/command-line.md). */

/** A file that is no plan, or of which nothing can be chosen: its message is one sentence. */
export class UnreadablePlan extends Error {}

const whole = v.pipe(
  v.number('a number is wanted'),
  v.safeInteger('a whole number is wanted'),
  v.minValue(0, 'it is less than 0'),
);
const PlanFile = v.object(
  {
    minutes: whole,
    tasks: v.array(
      v.object({
        id: v.string('an id is wanted'),
        minutes: whole,
        gain: v.pipe(v.number('a number is wanted'), v.finite('a number is wanted')),
        needs: v.optional(v.array(v.string('an id is wanted')), []),
        must: v.optional(v.boolean('true or false is wanted'), false),
      }),
      'a list of tasks is wanted',
    ),
  },
  'it holds no plan: {minutes, tasks} is wanted',
);

interface Planned {
  readonly chosen: readonly string[];
  readonly minutes: number;
  readonly gain: number;
  readonly curve: readonly (readonly [number, number])[];
}

/** @throws UnreadablePlan, or the error of the file system for a file that is not there */
export async function plan(path: string): Promise<Planned> {
  const text = await readFile(path, 'utf8');
  const given = v.safeParse(PlanFile, parsed(text));
  if (!given.success) {
    const [issue] = given.issues;
    const where = v.getDotPath(issue)?.replace(/\.(\d+)/g, '[$1]');
    throw new UnreadablePlan(where === undefined ? issue.message : `${where}: ${issue.message}`);
  }
  const { tasks, minutes } = given.output;
  try {
    const { chosen, minutes: used, gain } = choose(tasks, minutes);
    return { chosen, minutes: used, gain, curve: curveOf(tasks, minutes) };
  } catch (error) {
    if (error instanceof NoChoice) throw new UnreadablePlan(sentenceOf(error.refusal, minutes));
    throw error;
  }
}

function parsed(text: string): unknown {
  try {
    return JSON.parse(text);
  } catch (error) {
    if (error instanceof SyntaxError) throw new UnreadablePlan(`it is no JSON: ${error.message}`);
    throw error;
  }
}

function sentenceOf(refusal: Refusal, minutes: number): string {
  switch (refusal.kind) {
    case 'circle':
      return `tasks need each other in a circle: ${refusal.ids.join(', ')}`;
    case 'missing':
      return `${refusal.id} needs ${refusal.needs}, which is not there`;
    case 'same id':
      return `two tasks have the id ${refusal.id}`;
    case 'must':
      return `what must be done takes ${refusal.minutes} minutes, and there are ${minutes}`;
    case 'due':
      return `${refusal.id} must be done, and can’t be by when it is due`;
  }
}
