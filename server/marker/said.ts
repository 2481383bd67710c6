import type { FileFact } from '#core/model/facts.ts';
import { instantOf, type DecimalString } from '#core/model/ids.ts';
import { writeWebAnnotations, type WebRemarkToWrite } from '#formats/web-annotation/write-web-annotation.ts';
import { fill } from './fill.ts';
import { put, type Marked } from './marked.ts';
import type { WorkRules } from './marking-rules.ts';

/** The rules of one kind of work. */
export type Rules<Kind extends WorkRules['kind']> = Extract<WorkRules, { kind: Kind }>;

/** What the marker says of one attempt before it is a marking. */
export interface Said {
  /** It is work that can be marked: what there is for having sent it counts. */
  readonly isWork: boolean;
  /** Points beside the base, by criterion; null: to the score alone. */
  readonly won: readonly { readonly criterion: string | null; readonly points: DecimalString }[];
  readonly overall: string;
  /** Said of a criterion. */
  readonly comments: ReadonlyMap<string, readonly string[]>;
  readonly files: readonly FileFact[];
}

/** What is said of all of it: how much was found, or why nothing could be. */
export function overallOf(rules: WorkRules, met: number, all: number): string {
  const { words } = rules;
  return fill(met === all ? words.all : met === 0 ? words.none : words.some, { met, all });
}

/** Where nothing is won, and why. */
export const nothingSaid = (overall: string): Said => ({
  isWork: false,
  won: [],
  overall,
  comments: new Map(),
  files: [],
});

/** Remarks as a file that comes back, about what was sent. */
export async function remarksFile(
  given: Marked,
  about: FileFact,
  remarks: readonly Omit<WebRemarkToWrite, 'id'>[],
  channel: 'passage' | 'region',
): Promise<FileFact[]> {
  if (remarks.length === 0) return [];
  const numbered = remarks.map((one, index) => ({ ...one, id: `${given.attempt.id}-${index + 1}` }));
  const author = { name: given.course.instructor.name, byMachine: false };
  const { deskId } = given.desk.state;
  const bytes = writeWebAnnotations(about.name, numbered, author, {
    at: instantOf(given.nowMs),
    desk: deskId,
  });
  const name = `${about.name.replace(/\.\w+$/, '')}, remarks.jsonld`;
  return [
    await put(given, bytes, {
      role: 'remarks',
      name,
      mediaType: 'application/ld+json',
      aboutHash: about.hash,
      announced: { [channel]: remarks.length },
    }),
  ];
}

/** The file that was sent to be marked. */
export function sentPaper({ attempt }: Marked): FileFact {
  const sent = attempt.files.find(({ role }) => role === 'paper');
  if (sent === undefined) throw new Error(`attempt ${attempt.id} has no file to mark`);
  return sent;
}
