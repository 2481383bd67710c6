import clsx from 'clsx';
import { Link } from 'react-router';
import type { Channel } from '#core/model/remark.ts';
import { isRead } from '#core/tally/tally.ts';
import type { AssignmentView } from '../workspace/assignment-view.ts';
import { words } from '../words/en.ts';

const MATERIAL_BY_CHANNEL: Partial<Record<Channel, string>> = { overall: 'overall', criterion: 'criteria' };

/** Where a channel is read: at its first remark that is not read. */
export function channelAddress(view: AssignmentView, channel: Channel): string {
  const base = `/a/${encodeURIComponent(view.assignment.id)}/read`;
  const next = view.remarks.find(
    (remark) => remark.channel === channel && !isRead(remark, view.readings.get(remark.id)),
  );
  if (next !== undefined) return `${base}?remark=${encodeURIComponent(next.id)}`;
  return `${base}?material=${MATERIAL_BY_CHANNEL[channel] ?? 'paper'}`;
}

/** What came back by channel, read and not read; each leads to the first unread of its channel. */
export function TallyChips({ view }: { view: AssignmentView }) {
  return (
    <ul aria-label={words.tally.label} className="flex flex-wrap gap-2">
      {view.tally.byChannel.map(({ channel, received, read, announced }) => {
        const open = received - read;
        return (
          <li key={channel}>
            <Link
              to={channelAddress(view, channel)}
              className={clsx(
                'inline-flex items-baseline gap-2 rounded-md border bg-paper px-2.5 py-0.5 text-sm hover:border-ink',
                open + announced > 0 ? 'border-rule-strong/60' : 'border-rule',
              )}
            >
              <span className="text-[0.68rem] tracking-wider uppercase">{words.channels[channel]}</span>
              {open > 0 ? (
                <b>{words.tally.notRead(open, received)}</b>
              ) : (
                received > 0 && <span className="text-quiet">{words.tally.read(received)}</span>
              )}
              {announced > 0 && <b>{words.tally.announced(announced)}</b>}
            </Link>
          </li>
        );
      })}
    </ul>
  );
}
