import { answerFinderOf } from '#core/answers/find.ts';
import { LIKELY } from '#core/answers/propose.ts';
import { mostChanged } from '#core/anchors/outcome.ts';
import { passagesOf } from '#core/anchors/passages.ts';
import type { LookKind, LookLine } from '#core/look/line.ts';
import { byWeight, LastLook } from '#core/look/look-over.ts';
import { contradicting, metBy, requirementsIn, type Counts } from '#core/look/requirement.ts';
import { askedBy, metSaid, saidOf } from '#core/look/says.ts';
import { sinceMarked, struckBy } from '#core/look/since-marked.ts';
import { citingStyles, type CitingStyle, type Requirement } from '#core/model/look.ts';
import type { Paper } from '#core/paper/paper.ts';
import { says } from '#core/saying/says.ts';
import { squeeze } from '#core/text/squeeze.ts';
import { englishSpeller } from './dictionaries.ts';
import { marksIn, paperIn } from './follow.ts';
import { UnusableOption } from './overlap.ts';
import { sayingModel } from './says.ts';

/** What a careful reader would look at again before a draft goes, as docs/command-line.md describes it. */

interface ToldLine {
  readonly kind: LookKind | `asked: ${Requirement['kind']}` | 'brief contradicts itself' | 'no dictionary';
  readonly place: { readonly start: number; readonly end: number } | null;
  readonly says: string;
}

interface CheckOptions {
  readonly brief: string | null;
  readonly style: string | null;
  readonly marked: string | null;
}

function styleGiven(style: string | null): CitingStyle | null {
  if (style === null) return null;
  const found = citingStyles.find((one) => one === style);
  if (found === undefined) throw new UnusableOption(`--style is one of ${citingStyles.join(', ')}`);
  return found;
}

const told = (line: LookLine): ToldLine => ({
  kind: line.kind,
  place: { start: line.place.from, end: line.place.to },
  says: saidOf(line),
});

/**
 * Looks a draft over.
 * @throws AtFile for a file that can't be read; UnusableOption
 */
export async function checkOf(draft: string, options: CheckOptions): Promise<ToldLine[]> {
  const style = styleGiven(options.style);
  const paper = await paperIn(draft);
  const { lines, otherLanguage, counts } = new LastLook(await englishSpeller()).lookOver(paper, style);
  const since = options.marked === null ? [] : await sinceMarkedFile(paper, options.marked);
  const asked = options.brief === null ? [] : await askedInFile(paper, options.brief, counts);
  return [
    ...asked,
    ...byWeight([...since, ...lines]).map(told),
    ...(otherLanguage
      ? [
          {
            kind: 'no dictionary' as const,
            place: null,
            says: 'There is no dictionary for the language of this text: spelling was not looked at.',
          },
        ]
      : []),
  ];
}

/** What the marked version had: remarks that nothing answers, and what was mended in one place only. */
async function sinceMarkedFile(paper: Paper, path: string): Promise<LookLine[]> {
  const older = await paperIn(path);
  const { marks } = await marksIn(path, path);
  const model = await sayingModel();
  const squeezed = squeeze(older.text);
  const calling = marks.filter(
    ({ text, change, kind }) => says({ text, kind, change }, model).callsForChange,
  );
  const sought = calling.map((mark, index) => ({
    id: String(index),
    text: mark.text,
    calls: true,
    passages: passagesOf(mark.targets, mark.anchor, squeezed),
  }));
  const found = answerFinderOf(older).find(paper, sought);
  const open = calling.flatMap((mark, index): LookLine[] => {
    const { proposals = [], outcomes = [] } = found.get(String(index)) ?? {};
    if ((proposals.at(0)?.likely ?? 0) >= LIKELY) return [];
    const place = mostChanged(outcomes)?.place ?? { from: 0, to: 0 };
    const words = paper.text.slice(place.from, place.to);
    return [{ kind: 'no answer', place, words, beside: mark.text, also: [] }];
  });
  return [
    ...open,
    ...sinceMarked(older, paper, struckBy(calling.map((mark) => ({ ...mark, targets: [...mark.targets] })))),
  ];
}

async function askedInFile(paper: Paper, path: string, counts: Counts): Promise<ToldLine[]> {
  const brief = await paperIn(path);
  const all = requirementsIn(brief.text).map(({ asks }) => asks);
  const against = contradicting(all);
  return [
    ...(against === null
      ? []
      : [
          {
            kind: 'brief contradicts itself' as const,
            place: null,
            says: `The brief asks for ${askedBy(against[0])} and for ${askedBy(against[1])}: both can’t be.`,
          },
        ]),
    ...all.flatMap((asks): ToldLine[] => {
      const met = metBy(paper, asks, counts);
      return met.met === true ? [] : [{ kind: `asked: ${asks.kind}`, place: null, says: metSaid(asks, met) }];
    }),
  ];
}
