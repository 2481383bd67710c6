import { blockAt } from '#core/paper/paper.ts';
import { placeOf, type Remark } from '#core/model/remark.ts';
import { useFileUrl } from '../../shared/files/file-url.ts';
import * as words from '../../words/en.ts';
import { criterionFor, type AssignmentView } from '#core/assignment/view.ts';
import { usePaper } from '../../workspace/state/papers.ts';
import type { ReadPaper } from '../../workspace/storage/records.ts';

const frame = 'rounded-lg border border-rule bg-surface p-5 font-serif leading-relaxed';

/** What a remark is about, in its surroundings: a paragraph, a question, a part of a picture, a recording. */
export function Passage({
  view,
  main,
  remark,
}: {
  view: AssignmentView;
  /** The paper that most remarks are on. */
  main: ReadPaper | null;
  remark: Remark;
}) {
  const isMain = remark.paperHash === main?.hash;
  const other = usePaper(isMain || remark.channel === 'recording' ? null : remark.paperHash);
  const paper = isMain ? main : other;
  const anchor = paper?.anchors[remark.id];
  const target = placeOf(remark);
  if (target.kind === 'region' && remark.paperHash !== null)
    return <PicturePassage hash={remark.paperHash} paper={paper} region={target} />;
  if (remark.channel === 'recording' && remark.paperHash !== null)
    return <RecordingPassage hash={remark.paperHash} />;
  if (paper === null || anchor === undefined) return <NoPassage view={view} remark={remark} />;
  const block = blockAt(paper.paper, anchor.from);
  const { blocks, starts } = paper.paper;
  const { text } = blocks[block];
  const from = anchor.from - starts[block];
  const to = Math.min(text.length, anchor.to - starts[block]);
  const headingAt = blocks.slice(0, block).findLastIndex(({ kind }) => kind === 'heading');
  // A question stands with what was asked; a paragraph by itself.
  const before = paper.kind === 'quiz' ? blocks.slice(headingAt + 1, block) : [];
  const after = paper.kind === 'quiz' ? blocks.slice(block + 1, block + 2) : [];
  return (
    <section aria-label={words.deciding.passage} className={frame}>
      {headingAt >= 0 && <p className="mb-2 text-sm text-quiet">{blocks[headingAt].text}</p>}
      {before.map((one, i) => (
        <p key={i} className={one.kind === 'item' ? 'ml-5 list-item' : ''}>
          {one.text}
        </p>
      ))}
      {anchor.exactly ? (
        <p>
          {text.slice(0, from)}
          <mark className="border-b-2 border-ink bg-(--focus-tint) text-ink">{text.slice(from, to)}</mark>
          {text.slice(to)}
        </p>
      ) : (
        <>
          <p className="mb-2 font-sans text-sm text-quiet">{words.slip.onNoWords}</p>
          <p>{text}</p>
        </>
      )}
      {after.map((one, i) => (
        <p key={i} className="text-sm text-quiet">
          {one.text}
        </p>
      ))}
    </section>
  );
}

function NoPassage({ view, remark }: { view: AssignmentView; remark: Remark }) {
  const criterion = criterionFor(view, remark);
  return (
    <section className="border-l-2 border-rule pl-5 text-quiet">
      {criterion !== null && placeOf(remark).kind === 'criterion'
        ? words.deciding.aboutCriterion(criterion.title)
        : words.deciding.noPassage}
    </section>
  );
}

/** Room around the region that is shown with it, as a share of the picture's width. */
const AROUND = 0.08;

function PicturePassage({
  hash,
  paper,
  region,
}: {
  hash: string;
  paper: ReadPaper | null;
  region: { readonly x: number; readonly y: number; readonly width: number; readonly height: number };
}) {
  const url = useFileUrl(hash);
  if (url === null || paper === null) return <section className={frame}>{words.reading.opening}</section>;
  const [size] = paper.pages;
  const room = size.width * AROUND;
  const left = Math.max(0, region.x - room);
  const top = Math.max(0, region.y - room);
  const width = Math.min(size.width, region.x + region.width + room) - left;
  const height = Math.min(size.height, region.y + region.height + room) - top;
  return (
    <section aria-label={words.deciding.passage} className={frame}>
      <svg viewBox={`${left} ${top} ${width} ${height}`} className="max-h-[55vh] w-full" role="img">
        <title>{words.deciding.passage}</title>
        <image href={url} width={size.width} height={size.height} />
        <rect {...region} fill="none" stroke="var(--accent)" strokeWidth={Math.max(2, width / 180)} />
      </svg>
    </section>
  );
}

function RecordingPassage({ hash }: { hash: string }) {
  const url = useFileUrl(hash);
  return (
    <section aria-label={words.deciding.passage} className={frame}>
      <audio
        controls
        preload="metadata"
        aria-label={words.reading.play}
        src={url ?? undefined}
        className="w-full"
      />
    </section>
  );
}
