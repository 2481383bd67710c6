import { useState } from 'react';
import { hoursShown, hoursTyped } from '#core/plan/hours-typed.ts';
import { SectionTitle } from '../../shared/controls/Controls.tsx';
import { TextField } from '../../shared/controls/Field.tsx';
import * as words from '../../words/en.ts';
import { putSetting } from '../../workspace/commands/settings.ts';
import { WEEK_SCOPE } from '../../workspace/commands/week.ts';
import { useTimeSettings } from '../../workspace/state/week.ts';
import { useWorkspace } from '../../workspace/use-workspace.ts';

/** More than two weeks before it is due is no margin. */
const MOST_MARGIN_HOURS = 336;

/** When the student can work, day by day, and how long before it is due all is to be done. */
export function FreeHours() {
  const workspace = useWorkspace();
  const { week, isOwn, marginHours } = useTimeSettings();
  return (
    <section>
      <SectionTitle>{words.week.hours}</SectionTitle>
      {!isOwn && <p className="text-sm text-quiet">{words.week.hoursTaken}</p>}
      <div className="mt-1 grid gap-1.5">
        {week.map((hours, index) => (
          <DayField
            key={`${words.week.weekdays[index]} ${hoursShown(hours)}`}
            day={words.week.weekdays[index]}
            kept={hoursShown(hours)}
            onKeep={(text) => {
              const next = hoursTyped(text);
              if (next === null) return false;
              void putSetting(
                workspace,
                { name: 'freeHours', week: week.map((one, n) => (n === index ? next : [...one])) },
                WEEK_SCOPE,
              );
              return true;
            }}
          />
        ))}
      </div>
      <p className="mt-1 mb-3 text-sm text-quiet">{words.week.hoursHint}</p>
      <MarginField
        key={marginHours}
        hours={marginHours}
        onKeep={(hours) => void putSetting(workspace, { name: 'margin', hours }, WEEK_SCOPE)}
      />
    </section>
  );
}

function DayField({
  day,
  kept,
  onKeep,
}: {
  day: string;
  kept: string;
  /** Whether what was typed could be kept. */
  onKeep: (text: string) => boolean;
}) {
  const [text, setText] = useState(kept);
  const [wrong, setWrong] = useState(false);
  return (
    <div className="grid grid-cols-[6rem_1fr] items-baseline gap-2 text-sm [&_label]:sr-only">
      <span aria-hidden>{day}</span>
      <TextField
        label={day}
        value={text}
        error={wrong ? words.week.hoursWrong : undefined}
        onChange={(event) => setText(event.target.value)}
        onBlur={() => setWrong(text !== kept && !onKeep(text))}
        onKeyDown={(event) => {
          if (event.key === 'Enter') event.currentTarget.blur();
        }}
      />
    </div>
  );
}

function MarginField({ hours, onKeep }: { hours: number; onKeep: (hours: number) => void }) {
  const [text, setText] = useState(String(hours));
  const [wrong, setWrong] = useState(false);
  const keep = () => {
    const next = Number(text.trim() === '' ? NaN : text);
    const isRight = Number.isFinite(next) && next >= 0 && next <= MOST_MARGIN_HOURS;
    setWrong(!isRight);
    if (isRight && next !== hours) onKeep(next);
  };
  return (
    <TextField
      label={words.week.margin}
      inputMode="decimal"
      value={text}
      error={wrong ? words.week.marginWrong : undefined}
      onChange={(event) => setText(event.target.value)}
      onBlur={keep}
      onKeyDown={(event) => {
        if (event.key === 'Enter') event.currentTarget.blur();
      }}
    />
  );
}
