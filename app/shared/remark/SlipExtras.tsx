import { useWorkspace } from '../../workspace/use-workspace.ts';
import { useMemo } from 'react';
import { Link } from 'react-router';
import { toast } from 'sonner';
import { placeOf, type Remark } from '#core/model/remark.ts';
import { entryFor, signsOf } from '#core/key/signs.ts';
import { meaningOfShort } from '#core/key/statements.ts';
import { isDecided } from '#core/tally/decided.ts';
import { referenceFor } from '#core/terms/rules.ts';
import { abbreviationsOf } from '#core/saying/abbreviations.ts';
import { placesNamed } from '#core/saying/places.ts';
import { suggestedWording } from '#core/saying/wording.ts';
import * as words from '../../words/en.ts';
import type { AssignmentView } from '#core/assignment/view.ts';
import { placeOfSpan, placeRemark } from '../../workspace/commands/correct.ts';
import { decideRemark, partRemark } from '../../workspace/commands/decide.ts';
import { useRuleReferences } from '../../workspace/state/use-terms.ts';
import { RuleTold } from './RuleTold.tsx';
import { laterAttemptOf, saidAgainIn } from '#core/marked-again/before-after.ts';
import { signTold } from './sign-told.ts';
import { usePaper } from '../../workspace/state/papers.ts';
import { shownMoment } from '../shown/shown.ts';
import { assignmentAddress, remarkAddress } from '../page/addresses.ts';

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
      <LaterMarking view={view} remark={remark} />
      <Why view={view} remark={remark} />
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
      <AskedAndAnswered view={view} remark={remark} />
      {focused && <Meant view={view} remark={remark} />}
      {focused && <Suggestion remark={remark} />}
      {focused && <Short view={view} remark={remark} />}
      {focused && <ByKey view={view} remark={remark} />}
      {focused && remark.rule !== null && <Rule remark={remark} rule={remark.rule} />}
      {focused && <NamedPlaces view={view} remark={remark} />}
    </div>
  );
}

/** That it is of a later marking, and which earlier remark it comes back to. */
function LaterMarking({ view, remark }: ExtrasProps) {
  const number = laterAttemptOf(view, remark);
  if (number === null) return null;
  const earlier = saidAgainIn(view).get(remark.id);
  return (
    <p>
      <b>{words.slip.ofAttempt(number)}</b>
      {earlier !== undefined && (
        <>
          {' '}
          {words.slip.comesBackTo}{' '}
          <Link to={remarkAddress(earlier)} className={small}>
            {earlier.text}
          </Link>
        </>
      )}
    </p>
  );
}

/** A question that was put about it, with what came back. */
function AskedAndAnswered({ view, remark }: ExtrasProps) {
  return view.queries
    .filter(({ about, answer }) => about?.remarkId === remark.id && answer !== '')
    .map(({ id, text, answer }) => (
      <div key={id} className="border-l-2 border-ask pl-2.5">
        {text !== '' && (
          <p className="text-quiet">
            {words.slip.youAsked}: {text}
          </p>
        )}
        <p className="whitespace-pre-wrap">
          <b>{words.slip.cameBack}:</b> {answer}
        </p>
      </div>
    ));
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
  const meaning = meaningOfShort(remark, view.markKeys, view.remarks);
  if (short === undefined) return null;
  return (
    <p className="text-quiet">
      {meaning === null
        ? words.slip.isShort(short.written, short.remarkIds.length)
        : words.slip.shortMeans(short.written, meaning)}
    </p>
  );
}

/** Why something else is proposed than the words alone say. */
function Why({ view, remark }: ExtrasProps) {
  const because = view.sayings.get(remark.id)?.because ?? null;
  const judgement = view.judgements.get(remark.id);
  const isSettled = judgement != null && (judgement.stance !== null || judgement.taken !== null);
  if (because === null || (isSettled && because.kind === 'put right')) return null;
  const { name } = remark.author;
  return (
    <p className="text-quiet">
      {because.kind === 'key'
        ? words.slip.because.key(because.meaning, name)
        : words.slip.because['put right'](because.times, name)}
    </p>
  );
}

/** What the key of its hand has for a remark: the decision that it speaks for; or that the mark's meaning is open. */
function ByKey({ view, remark }: ExtrasProps) {
  const workspace = useWorkspace();
  const entry = entryFor(
    remark,
    view.markKeys.filter(({ author }) => author === remark.author.name),
  );
  const [sign] = signsOf(remark);
  if (entry === null)
    return remark.text === '' && remark.change === null && remark.author.role !== 'machine' ? (
      <p className="text-quiet">
        {words.slip.keyAsks(signTold(sign))}{' '}
        <Link to="/marks" className={small}>
          {words.slip.toKey}
        </Link>
      </p>
    ) : null;
  const { decision } = entry;
  if (decision === null || isDecided(view.judgements.get(remark.id))) return null;
  return (
    <p>
      <button type="button" className={small} onClick={() => void decideRemark(workspace, remark, decision)}>
        {words.slip.keyDecides(words.decisions[decision])}
      </button>
    </p>
  );
}

/** The rule that a machine goes by, and where it is explained. */
function Rule({ remark, rule }: { remark: Remark; rule: string }) {
  const references = useRuleReferences();
  const entry = useMemo(() => referenceFor(rule, remark.text, references), [rule, remark.text, references]);
  return (
    <div>
      <p className="text-quiet">
        {words.slip.rule(rule)}{' '}
        {entry === null && (
          <Link to="/marks" className={small}>
            {words.slip.addRule}
          </Link>
        )}
      </p>
      {entry !== null && <RuleTold entry={entry} />}
    </div>
  );
}

/** So many units of a place's words are looked for: as many as tell it from others. */
const LOOKED_FOR = 60;

/** Places that a remark names in words lead there; one without a place of its own may be put there, and never is unasked. */
function NamedPlaces({ view, remark }: ExtrasProps) {
  const workspace = useWorkspace();
  const { kind } = placeOf(remark);
  const hasNone = kind === 'whole' || kind === 'criterion' || kind === 'unplaced';
  const paper = usePaper(view.markedFile?.hash ?? null);
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
        <li key={`${said} ${span?.from ?? ''} ${page ?? ''}`} className="flex flex-wrap gap-x-3 text-quiet">
          {words.slip.names(said)}
          <Link
            to={assignmentAddress(view.assignment.id, 'read', {
              material: 'paper',
              file: paper.hash,
              ...(page !== null && { page: String(page) }),
              ...(span !== null && { find: beginningOf(paper.paper.text.slice(span.from, span.to)) }),
            })}
            className={small}
            // The slip would take the focus back to where it stands.
            onClick={(event) => event.stopPropagation()}
          >
            {words.slip.goThere}
          </Link>
          {hasNone && span !== null && (
            <button type="button" className={small} onClick={() => void put(span)}>
              {words.slip.putThere}
            </button>
          )}
        </li>
      ))}
    </ul>
  );
}

function beginningOf(text: string): string {
  if (text.length <= LOOKED_FOR) return text;
  const cut = text.slice(0, LOOKED_FOR);
  return cut.slice(0, Math.max(cut.lastIndexOf(' '), LOOKED_FOR / 2));
}
