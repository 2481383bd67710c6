import { Select } from '../controls/Select.tsx';
import clsx from 'clsx';
import { useEffect, useRef } from 'react';
import type { Remark } from '#core/model/remark.ts';
import { Button } from '../controls/Controls.tsx';
import * as words from '../../words/en.ts';
import type { AssignmentView } from '#core/assignment/view.ts';
import { FILTER_WORDS, filterFields, groupsBy, passes, type Filter, type FilterField } from './filter.ts';

/** Which remarks are shown: a list for each field, with how many have each value. */
export function FilterRow({
  view,
  remarks,
  filter,
  asked,
  onChange,
  onClose,
  className = 'border-b border-rule px-5 py-2 max-md:px-4',
}: {
  view: AssignmentView;
  /** All that could be shown. */
  remarks: readonly Remark[];
  filter: Filter;
  /** It was just asked for; one that is there again on return leaves the keys to the place. */
  asked: boolean;
  onChange: (filter: Filter) => void;
  /** null: it stays. */
  onClose: (() => void) | null;
  className?: string;
}) {
  const first = useRef<HTMLInputElement>(null);
  useEffect(() => {
    if (asked) first.current?.focus();
  }, [asked]);
  const said = words.reading.filter;
  const set = (field: FilterField | typeof FILTER_WORDS, value: string) => {
    const others = Object.entries(filter).filter(([one]) => one !== field);
    onChange(Object.fromEntries(value === ANY ? others : [...others, [field, value]]));
  };
  const shown = remarks.filter((remark) => passes(view, remark, filter)).length;
  return (
    <div
      role="group"
      aria-label={said.label}
      onKeyDown={(event) => {
        if (event.key === 'Escape') onClose?.();
      }}
      className={clsx('flex flex-wrap items-center gap-2 text-sm', className)}
    >
      <input
        ref={first}
        type="search"
        aria-label={said.wordsLabel}
        placeholder={said.wordsPlaceholder}
        value={filter[FILTER_WORDS] ?? ''}
        onChange={({ target }) => set(FILTER_WORDS, target.value === '' ? ANY : target.value)}
        className="w-44 rounded border border-rule bg-surface px-2 py-1 placeholder:text-quiet"
      />
      {filterFields.map((field) => {
        const groups = groupsBy(view, remarks, field);
        // A field in which all are the same tells nothing apart.
        if (groups.length < 2 && !(field in filter)) return null;
        return (
          <Select
            key={field}
            look="tool"
            label={said.fields[field]}
            value={!(field in filter) ? ANY : `=${filter[field]}`}
            options={[
              [ANY, said.fields[field]],
              ...groups.map(
                ({ value, label, remarks: own }) => [`=${value}`, said.option(label, own.length)] as const,
              ),
            ]}
            onChange={(value) => set(field, value === ANY ? ANY : value.slice(1))}
            className={clsx('max-w-44', field in filter && 'border-ink font-semibold')}
          />
        );
      })}
      <span role="status" className="ml-auto text-quiet">
        {said.shown(shown, remarks.length)}
      </span>
      {Object.keys(filter).length > 0 && (
        <Button look="quiet" className="min-h-8 px-1" onClick={() => onChange({})}>
          {said.clear}
        </Button>
      )}
      {onClose !== null && (
        <Button look="quiet" className="min-h-8 px-1" onClick={onClose}>
          {said.close}
        </Button>
      )}
    </div>
  );
}

const ANY = 'any';
