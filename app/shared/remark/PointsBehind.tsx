import { Explained } from '../controls/Explained.tsx';
import { Fold } from '../controls/Fold.tsx';
import type { Remark } from '#core/model/remark.ts';
import { importanceOf, type Loss } from '#core/rubric/behind.ts';
import * as words from '../../words/en.ts';
import { behindOf, hundredths, tenths, type AssignmentView } from '#core/assignment/view.ts';

/** What of a loss lies behind a remark; it opens into how that was reckoned. */
export function PointsBehind({ view, remark }: { view: AssignmentView; remark: Remark }) {
  const behind = behindOf(view, remark.id);
  const own = importanceOf(remark.id, view);
  // Where nothing was lost there is nothing to share.
  if (behind === null || behind.loss.lost === 0)
    return own === null || own === 0 ? null : (
      <Explained text={words.rubric.noPointsBehind}>{words.rubric.importance(own)}</Explained>
    );
  const { share, loss } = behind;
  const of = words.rubric.lossOf[placeOf(loss)];
  return (
    <Fold
      className="data-[state=open]:basis-full"
      labelClass=""
      label={
        <>
          <b className="text-ink">
            {loss.named.has(remark.id) ? hundredths(share) : words.rubric.about(tenths(share))}
          </b>{' '}
          {of(hundredths(loss.lost), loss.title)}
        </>
      }
    >
      <Sharing view={view} loss={loss} remarkId={remark.id} />
    </Fold>
  );
}

function placeOf(loss: Loss): 'criterion' | 'stake' | 'whole' {
  return loss.atStake ? 'stake' : loss.criterionId === null ? 'whole' : 'criterion';
}

/** How a loss is shared over its remarks, part by part; the parts add up to what was lost. */
export function Sharing({ view, loss, remarkId }: { view: AssignmentView; loss: Loss; remarkId?: string }) {
  const rows = [...loss.shareByRemark].flatMap(([id, share]) => {
    const remark = view.remarks.find((one) => one.id === id);
    return remark === undefined ? [] : [{ remark, share }];
  });
  const weights = rows.map(({ remark }) => importanceOf(remark.id, view) ?? 0);
  const alike = weights.every((weight) => weight === 0);
  return (
    <table className="mt-1.5 mb-1 w-full max-w-sm text-sm">
      <caption className="text-left text-quiet">
        {alike ? words.rubric.sharedAlike(rows.length) : words.rubric.sharedByWeight}
      </caption>
      <tbody>
        {rows.map(({ remark, share }, i) => (
          <tr key={remark.id} className={remark.id === remarkId ? 'font-bold text-ink' : ''}>
            <th scope="row" className="pr-3 text-left font-[inherit]">
              {words.rubric.remarkRow(view.numberByRemark.get(remark.id) ?? 0)}
            </th>
            <td className="pr-3">
              {loss.named.has(remark.id)
                ? words.rubric.asNamed
                : alike
                  ? ''
                  : words.rubric.weighs(weights[i])}
            </td>
            <td className="text-right">{hundredths(share)}</td>
          </tr>
        ))}
        <tr className="border-t border-rule">
          <th scope="row" className="text-left font-normal">
            {loss.atStake ? words.rubric.atStake : words.rubric.lostTogether}
          </th>
          <td />
          <td className="text-right">{hundredths(loss.lost)}</td>
        </tr>
      </tbody>
    </table>
  );
}
