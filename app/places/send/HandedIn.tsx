import { useState } from 'react';
import { Button } from '../../shared/controls/Controls.tsx';
import * as words from '../../words/en.ts';

/** For work that no course desk takes: that it was handed in, and how. */
export function HandedIn({ disabled, onRecord }: { disabled: boolean; onRecord: (how: string) => void }) {
  const [how, setHow] = useState('');
  return (
    <form
      className="grid gap-2"
      onSubmit={(event) => {
        event.preventDefault();
        onRecord(how.trim());
      }}
    >
      <label>
        <b>{words.send.how}</b>
        <input
          value={how}
          maxLength={500}
          placeholder={words.send.howPlaceholder}
          onChange={(event) => setHow(event.target.value)}
          className="mt-1 block w-full rounded-md border border-rule bg-surface px-3 py-2 placeholder:text-quiet"
        />
      </label>
      <div>
        <Button type="submit" look="main" disabled={disabled}>
          {words.send.handedIn}
        </Button>
      </div>
      <p className="text-sm text-quiet">{words.send.handedInLead}</p>
    </form>
  );
}
