import type { FileFact } from '#core/model/facts.ts';
import { UnreadableFile } from '#formats/unreadable.ts';
import { markingsIn } from '../desk/record.ts';
import { judgeRegions } from './judge-regions.ts';
import { bytesOf, type Marked } from './marked.ts';
import { greyOf } from './pictures.ts';
import { nothingSaid, overallOf, remarksFile, sentPaper, type Rules, type Said } from './said.ts';

/** A drawing: what is drawn anew in the regions that were remarked on. */
export async function drawingSaid(given: Marked, rules: Rules<'files'>): Promise<Said> {
  const sent = sentPaper(given);
  const before = markingsIn(given.desk.state, given.assignment)
    .flatMap(({ files }) => files)
    .find(({ role }) => role === 'marked');
  if (before === undefined) throw new Error(`nothing was drawn before attempt ${given.attempt.id}`);
  const marked = await greyOf(await bytesOf(given, before.hash), null);
  let judged: ReturnType<typeof judgeRegions>;
  try {
    judged = judgeRegions(marked, await greyOf(await bytesOf(given, sent.hash), marked), rules);
  } catch (error) {
    if (!(error instanceof UnreadableFile)) throw error;
    return nothingSaid(rules.unreadable);
  }
  if (judged.met === null) return nothingSaid(judged.fault === 'empty' ? rules.empty : rules.other);
  const { met } = judged;
  const size = await pictureSize(given, sent);
  const remarks = rules.regions.flatMap((region) => {
    const text = met.includes(region) ? region.met : region.missing;
    // Boxes are told in pixels of the picture that was sent.
    const [left, top, width, height] = region.box;
    const [right, down] = [size.width / marked.width, size.height / marked.height];
    const box = [left * right, top * down, width * right, height * down].map(Math.round);
    return text === '' ? [] : [{ text, selector: { kind: 'box' as const, box } }];
  });
  const isPicture = sent.mediaType.startsWith('image/');
  const comments = new Map<string, string[]>();
  // On a page of a PDF there is no place for a box of pixels: what is missing is said of the criterion.
  if (!isPicture)
    for (const { criterion, missing } of rules.regions.filter((region) => !met.includes(region)))
      comments.set(criterion, [...(comments.get(criterion) ?? []), missing]);
  return {
    isWork: true,
    won: met.map(({ criterion, points }) => ({ criterion, points })),
    overall: overallOf(rules, met.length, rules.regions.length),
    comments,
    files: isPicture ? await remarksFile(given, sent, remarks, 'region') : [],
  };
}

async function pictureSize(given: Marked, sent: FileFact) {
  const { width, height } = await greyOf(await bytesOf(given, sent.hash), null);
  return { width, height };
}
