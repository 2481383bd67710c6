import clsx from 'clsx';
import { Link } from 'react-router';
import type { Channel } from '#core/model/channels.ts';
import { isRead } from '#core/tally/tally.ts';
import type { AssignmentView } from '#core/assignment/view.ts';
import * as words from '../../words/en.ts';
import { assignmentAddress, remarkAddress } from '../page/addresses.ts';

/** In which material of the reading place each channel is read. */
export const MATERIAL_BY_CHANNEL: Readonly<Record<Channel, string>> = {
  overall: 'overall',
  criterion: 'criteria',
  passage: 'paper',
  region: 'paper',
  recording: 'recordings',
  question: 'quiz',
  post: 'posts',
  overlap: 'overlap',
};

/** Where a channel is read: at its first remark that is not read. */
export function channelAddress(view: AssignmentView, channel: Channel): string {
  const next = view.remarks.find(
    (remark) => remark.channel === channel && !isRead(remark, view.readings.get(remark.id)),
  );
  if (next !== undefined) return remarkAddress(next);
  const base = assignmentAddress(view.assignment.id, 'read');
  return `${base}?material=${MATERIAL_BY_CHANNEL[channel]}`;
}

/** What came back by channel, read and not read; each leads to the first unread of its channel. */
export function TallyChips({ view, decided = false }: { view: AssignmentView; decided?: boolean }) {
  return (
    <ul aria-label={words.tally.label} className="flex flex-wrap gap-2">
      {view.tally.byChannel.map(({ channel, received, read, announced, decided: count }) => {
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
              {decided && received > 0 && (
                <span className="text-quiet">{words.tally.decided(count, received)}</span>
              )}
              {announced > 0 && <b>{words.tally.announced(announced)}</b>}
            </Link>
          </li>
        );
      })}
    </ul>
  );
}
