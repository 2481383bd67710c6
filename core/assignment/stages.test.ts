import { describe, expect, it } from 'vitest';
import { exampleAssignment } from '../model/example.ts';
import type { Assignment } from '../model/facts.ts';
import { canLeadTo, workedInOf } from './stages.ts';

const made = (leads: Readonly<Record<string, string | null>>) => {
  const all = new Map(
    Object.entries(leads).map(([id, draftOf]) => [id, exampleAssignment({ id, draftOf })] as const),
  );
  const find = (id: string): Assignment | null => all.get(id) ?? null;
  const one = (id: string): Assignment => {
    const found = find(id);
    if (found === null) throw new Error(`no ${id}`);
    return found;
  };
  return {
    find,
    worked: (id: string) => workedInOf(find, one(id)).id,
    leads: (stage: string, to: string) => canLeadTo(find, stage, one(to)),
  };
};

describe('work in stages', () => {
  it('is worked on in the final, through as many stages as there are', () => {
    const { worked } = made({ outline: 'draft', draft: 'final', final: null, other: null });
    expect(['outline', 'draft', 'final', 'other'].map(worked)).toEqual(['final', 'final', 'final', 'other']);
  });

  it('is worked on by itself where its final isn’t there, or leads back to it', () => {
    const { worked } = made({ alone: 'gone', one: 'two', two: 'one' });
    expect(['alone', 'one', 'two'].map(worked)).toEqual(['alone', 'one', 'two']);
  });

  it('can’t lead to itself, nor to what leads to it', () => {
    const { leads } = made({ outline: 'draft', draft: 'final', final: null, a: 'b', b: 'a' });
    expect(leads('outline', 'final')).toBe(true);
    expect(leads('final', 'final')).toBe(false);
    expect(leads('final', 'outline')).toBe(false);
    expect(leads('outline', 'a')).toBe(true);
  });
});
