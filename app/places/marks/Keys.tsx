import { useMemo, useState } from 'react';
import { Link } from 'react-router';
import { handsIn, type Hand } from '#core/assignment/hands.ts';
import { recordsIn } from '#core/assignment/records.ts';
import { signsIn, type ProposedKey } from '#core/key/learnt.ts';
import { isSame } from '#core/key/signs.ts';
import { decisions, stances, type MarkKey, type MarkSign } from '#core/model/work.ts';
import { Button, Empty } from '../../shared/controls/Controls.tsx';
import { RemoveButton } from '../../shared/controls/RemoveButton.tsx';
import { Select } from '../../shared/controls/Select.tsx';
import { signTold } from '../../shared/remark/sign-told.ts';
import { remarkAddress } from '../../shared/page/addresses.ts';
import * as words from '../../words/en.ts';
import { putMarkKey, removeMarkKey } from '../../workspace/commands/marks.ts';
import { useWorkspace, useWorkspaceState } from '../../workspace/use-workspace.ts';

/** The key of each hand: what is confirmed, and what may be. */
export function Keys() {
  const records = useWorkspaceState((state) => state.records);
  const hands = useMemo(() => handsIn(recordsIn(records), records), [records]);
  if (hands.length === 0)
    return (
      <div className="mt-3">
        <Empty>{words.marks.noKeys}</Empty>
      </div>
    );
  return (
    <div className="mt-4 grid gap-6">
      {hands.map((hand) => (
        <HandKey key={hand.author} hand={hand} />
      ))}
    </div>
  );
}

function HandKey({ hand }: { hand: Hand }) {
  const { author, remarks, key, proposed } = hand;
  const [chosen, setChosen] = useState('');
  const used = signsIn(remarks);
  const others = used.filter(
    ({ sign }) =>
      !key.some((entry) => isSame(entry.sign, sign)) && !proposed.some((one) => isSame(one.sign, sign)),
  );
  const added = others.find(({ sign }) => signTold(sign) === chosen);
  return (
    <section aria-label={author}>
      <h3 className="font-semibold">{author}</h3>
      <ul>
        {key.map((entry) => (
          <Entry
            key={entry.id}
            author={author}
            sign={entry.sign}
            entry={entry}
            proposed={null}
            uses={used.find(({ sign }) => isSame(sign, entry.sign))?.count ?? 0}
          />
        ))}
        {proposed.map((one) => (
          <Entry
            key={`${one.sign.kind} ${one.sign.name}`}
            author={author}
            sign={one.sign}
            entry={null}
            proposed={one}
            uses={one.remarks.length}
          />
        ))}
        {added !== undefined && (
          <Entry author={author} sign={added.sign} entry={null} proposed={null} uses={added.count} />
        )}
      </ul>
      {others.length > 0 && (
        <Select
          look="tool"
          className="mt-2"
          label={words.marks.another}
          value={added === undefined ? '' : chosen}
          options={[
            ['', words.marks.another],
            ...others.map(({ sign }) => [signTold(sign), signTold(sign)] as const),
          ]}
          onChange={setChosen}
        />
      )}
    </section>
  );
}

function Entry({
  author,
  sign,
  entry,
  proposed,
  uses,
}: {
  author: string;
  sign: MarkSign;
  entry: MarkKey | null;
  proposed: ProposedKey | null;
  uses: number;
}) {
  const workspace = useWorkspace();
  const proposedMeaning =
    proposed?.meaning ?? (proposed?.stance == null ? '' : words.stances[proposed.stance]);
  const [meaning, setMeaning] = useState(entry?.meaning ?? proposedMeaning);
  const [stance, setStance] = useState(entry?.stance ?? proposed?.stance ?? null);
  const [decision, setDecision] = useState(entry?.decision ?? null);
  const told = signTold(sign);
  const isEmpty = meaning.trim() === '';
  const isChanged =
    entry === null ||
    entry.meaning !== meaning.trim() ||
    entry.stance !== stance ||
    entry.decision !== decision;
  const keep = (means: string) =>
    void putMarkKey(workspace, author, sign, { meaning: means, stance, decision });
  return (
    <li className="border-t border-rule py-3 first:border-t-0" data-key={`${sign.kind} ${sign.name}`}>
      <p className="flex flex-wrap items-baseline gap-x-3 text-sm">
        <b className="text-base">{told}</b>
        <span className="text-quiet">{words.marks.uses(uses)}</span>
        <span className="text-quiet">{entry === null ? words.marks.proposed : words.marks.confirmed}</span>
        {proposed !== null && <span className="text-quiet">{words.marks.by[proposed.by]}</span>}
        {proposed?.saidBy != null && (
          <Link to={remarkAddress(proposed.saidBy)} className="font-semibold text-accent hover:underline">
            {words.marks.saidIn}
          </Link>
        )}
      </p>
      <div className="mt-1.5 flex flex-wrap items-center gap-2">
        <input
          type="text"
          aria-label={words.marks.meaning(told)}
          placeholder={words.marks.meaningHint}
          value={meaning}
          onChange={({ target }) => setMeaning(target.value)}
          className="min-w-48 flex-1 rounded-md border border-rule-strong/60 bg-paper px-2 py-1.5 placeholder:text-quiet"
        />
        <Select
          look="tool"
          label={words.marks.says(told)}
          value={stance ?? ''}
          options={[['', words.marks.anything], ...stances.map((one) => [one, words.stances[one]] as const)]}
          onChange={(value) => setStance(stances.find((one) => one === value) ?? null)}
        />
        <Select
          look="tool"
          label={words.marks.decision(told)}
          value={decision ?? ''}
          options={[
            ['', words.marks.noDecision],
            ...decisions.map((one) => [one, words.decisions[one]] as const),
          ]}
          onChange={(value) => setDecision(decisions.find((one) => one === value) ?? null)}
        />
        {isChanged && (
          <Button
            className="min-h-8 text-sm"
            disabled={isEmpty}
            title={isEmpty ? words.marks.needMeaning : undefined}
            onClick={() => keep(meaning.trim())}
          >
            {entry === null ? words.marks.confirm : words.marks.save}
          </Button>
        )}
        {entry === null ? (
          <Button look="quiet" className="min-h-8 text-sm" onClick={() => keep('')}>
            {words.marks.not}
          </Button>
        ) : (
          <RemoveButton
            label={words.marks.remove(told)}
            beside="line"
            onClick={() => void removeMarkKey(workspace, entry)}
          />
        )}
      </div>
    </li>
  );
}
