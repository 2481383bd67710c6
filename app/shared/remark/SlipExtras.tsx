import { useWorkspace } from '../../workspace/use-workspace.ts';
import { useMemo } from 'react';
import { Link } from 'react-router';
import { toast } from 'sonner';
import { placeOf, type Remark } from '#core/model/remark.ts';
import { abbreviationsOf } from '#core/saying/abbreviations.ts';
import { placesNamed } from '#core/saying/places.ts';
import { suggestedWording } from '#core/saying/wording.ts';
import * as words from '../../words/en.ts';
import type { AssignmentView } from '#core/assignment/view.ts';
import { placeOfSpan, placeRemark } from '../../workspace/commands/correct.ts';
import { partRemark } from '../../workspace/commands/decide.ts';
import { usePaper } from '../../workspace/state/papers.ts';
import { shownMoment } from '../shown/shown.ts';
import { remarkAddress } from '../page/addresses.ts';

interface ExtrasProps {
  readonly view: AssignmentView;
  readonly remark: Remark;
}

const small = 'font-semibold text-accent hover:underline';

/** What is to be known of a remark beside its words: what it said before, its hint, where else it stands, what it means. */
export function SlipExtras({ view, remark, focused }: ExtrasProps & { focused: boolean }) {
  const workspace = useWorkspace();
  const hint = view.sayings.get(remark.id)?.hint ?? null;
  const doubles = view.doubles.get(remark.id) ?? [];
  return (
    <div className="grid gap-1 text-sm empty:hidden [&>*]:mt-1.5">
      {remark.before !== null && <Before view={view} remark={remark} />}
      {hint !== null && hint !== remark.text.trim() && (
        <p>
          <b>{words.slip.hint}:</b> <span className="text-quiet">{hint}</span>
        </p>
      )}
      {doubles.map((double) => (
        <p key={double.id} className="text-quiet">
          {double.fileHash === remark.fileHash && double.channel === remark.channel
            ? words.slip.twiceHere
            : words.slip.alsoSaid(words.slip.alsoIn[double.channel])}{' '}
          {focused && (
            <button type="button" className={small} onClick={() => void partRemark(workspace, double, true)}>
              {words.slip.part}
            </button>
          )}
        </p>
      ))}
      {focused && <Meant view={view} remark={remark} />}
      {focused && <Suggestion remark={remark} />}
      {focused && <Short view={view} remark={remark} />}
      {focused && <NamedPlaces view={view} remark={remark} />}
    </div>
  );
}

function Before({ view, remark }: ExtrasProps) {
  const { before } = remark;
  if (before === null) return null;
  const zone = view.course?.zone;
  return (
    <div className="border-l-2 border-rule-strong pl-2.5 text-quiet">
      {before.text !== remark.text && (
        <>
          <p>{words.slip.changedAt(before.at === null ? '' : shownMoment(before.at, zone))}</p>
          <p className="whitespace-pre-wrap line-through decoration-1">{before.text}</p>
        </>
      )}
      {before.points !== remark.points && (
        <p>
          {words.slip.pointsWere(before.points ?? words.slip.noPoints, remark.points ?? words.slip.noPoints)}
        </p>
      )}
    </div>
  );
}

/** What a promise of more feedback means: what is here of it, or that nothing came. */
function Meant({ view, remark }: ExtrasProps) {
  const promised = view.promised.find((one) => one.remark?.id === remark.id);
  const [first] = promised?.kept ?? [];
  if (promised === undefined) return null;
  if ((first as Remark | undefined) !== undefined)
    return (
      <p>
        <Link to={remarkAddress(first)} className={small}>
          {words.slip.means(promised.kept.length)}
        </Link>
      </p>
    );
  return promised.state === 'missing' ? <p className="text-quiet">{words.slip.meansNothing}.</p> : null;
}

function Suggestion({ remark }: { remark: Remark }) {
  const suggested = suggestedWording(remark);
  // A tracked change says itself what it changes.
  if (suggested === null || suggested.confidence === 'sure') return null;
  const { before, after } = suggested;
  const said =
    after === ''
      ? words.slip.suggestsOut(before)
      : before === ''
        ? words.slip.suggestsIn(after)
        : words.slip.suggests(before, after);
  return (
    <p>
      {said} <span className="text-quiet">({words.slip.sure[suggested.confidence]})</span>
    </p>
  );
}

function Short({ view, remark }: ExtrasProps) {
  const found = useMemo(() => abbreviationsOf(view.remarks), [view.remarks]);
  const short = found.find(({ remarkIds }) => remarkIds.includes(remark.id));
  return short === undefined ? null : (
    <p className="text-quiet">{words.slip.isShort(short.written, short.remarkIds.length)}</p>
  );
}

/** Places that a remark without a place names in words, offered and never used unasked. */
function NamedPlaces({ view, remark }: ExtrasProps) {
  const workspace = useWorkspace();
  const { kind } = placeOf(remark);
  const hasNone = kind === 'whole' || kind === 'criterion' || kind === 'unplaced';
  const paper = usePaper(hasNone ? (view.markedFile?.hash ?? null) : null);
  const named = useMemo(
    () => (paper === null ? [] : placesNamed(remark.text, paper.paper, paper.pages.length)),
    [paper, remark.text],
  );
  if (paper === null || named.length === 0) return null;
  const put = async (span: { from: number; to: number }) => {
    const place = await placeOfSpan(workspace, paper, span);
    if (place === null) return;
    await placeRemark(workspace, remark, place.target, place.anchor, paper);
    toast(words.reading.placed);
  };
  return (
    <ul>
      {named.map(({ said, span, page }) => (
        <li key={`${said} ${span?.from ?? ''} ${page ?? ''}`} className="text-quiet">
          {words.slip.names(said)}{' '}
          {span !== null && (
            <button type="button" className={small} onClick={() => void put(span)}>
              {words.slip.putThere}
            </button>
          )}
        </li>
      ))}
    </ul>
  );
}
