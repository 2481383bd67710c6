import * as v from 'valibot';

const Count = v.number();
const Bounds = { min: v.nullable(Count), max: v.nullable(Count) };

/** Something that a brief asks of a text and that can be counted or looked for. */
export const Requirement = v.variant('kind', [
  /** `withoutReferences`: counted without the list of references. */
  v.object({ kind: v.literal('words'), ...Bounds, withoutReferences: v.boolean() }),
  v.object({ kind: v.literal('pages'), ...Bounds }),
  v.object({ kind: v.picklist(['sources', 'figures', 'tables', 'sentences']), min: Count }),
  /** A part by its heading, in lower case. */
  v.object({ kind: v.literal('section'), name: v.string() }),
  v.object({ kind: v.literal('title block') }),
  v.object({ kind: v.literal('file types'), types: v.array(v.string()) }),
  v.object({ kind: v.literal('quotations cited') }),
]);
export type Requirement = v.InferOutput<typeof Requirement>;

/** How a paper names its sources. */
export const citingStyles = ['author-date', 'author-page', 'numeric'] as const;
/** One of them. */
export type CitingStyle = (typeof citingStyles)[number];

/** What the student settled about the last look at the drafts of an assignment. */
export const LookChoice = v.object({
  /** null: as the paper shows itself. */
  style: v.nullable(v.picklist(citingStyles)),
  /** Lines that are to be let alone, by what they are known by (`lineKey`), with the student's reason, perhaps none. */
  ignored: v.array(v.object({ of: v.string(), reason: v.string() })),
  /** What is asked: taken out of the brief, or set by hand. */
  asked: v.array(Requirement),
  /** Sentences of the brief that ask for nothing, though they look it. */
  notAsked: v.array(v.string()),
});
export type LookChoice = v.InferOutput<typeof LookChoice>;

/** How the account of an assignment's remarks is written. */
export const SheetChoice = v.object({
  form: v.picklist(['table', 'letter']),
  by: v.picklist(['what came of it', 'criterion']),
  /** Remarks that it says nothing about, by their ids. */
  leftOut: v.array(v.string()),
  /** Remarks that helped most. */
  helped: v.array(v.string()),
  /** What the student made of it: a document of the editor; null while it is as it was written. */
  content: v.nullable(v.object({ schema: v.literal(1), doc: v.record(v.string(), v.unknown()) })),
});
export type SheetChoice = v.InferOutput<typeof SheetChoice>;
