import { placeIn, shareIn } from '#core/check/picture-places.ts';
import { align, shareOnNewer } from '#core/picture/align.ts';
import { partOf, type Grey } from '#core/picture/grey.ts';
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
  let anew: Grey;
  try {
    anew = await greyOf(await bytesOf(given, sent.hash), marked.width);
  } catch (error) {
    if (!(error instanceof UnreadableFile)) throw error;
    return nothingSaid(rules.unreadable);
  }
  // Scanned anew, a drawing lies elsewhere on its sheet: it is laid on the marked one first.
  const alignment = align(marked, anew);
  const laid = partOf(anew, alignment.place, marked.width, marked.height);
  const judged = judgeRegions(marked, laid, rules);
  if (judged.met === null || !alignment.sure)
    return nothingSaid(judged.fault === 'empty' ? rules.empty : rules.other);
  const { met } = judged;
  const remarks = rules.regions.flatMap((region) => {
    const text = met.includes(region) ? region.met : region.missing;
    const [x, y, width, height] = region.box;
    const onMarked = shareIn({ x, y, width, height }, marked);
    const place = placeIn(sent.hash, shareOnNewer(onMarked, alignment), anew);
    const box = [place.x, place.y, place.width, place.height];
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
