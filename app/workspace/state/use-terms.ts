import { useMemo } from 'react';
import type { RuleReference } from '#core/model/work.ts';
import { ruleReferencesWith } from '#core/terms/rules.ts';
import type { Term } from '#core/terms/terms.ts';
import { useWorkspaceState } from '../use-workspace.ts';

/** Marking terms that the student explained. */
export function useOwnTerms(): readonly Term[] {
  const own = useWorkspaceState(({ records }) => records.ownTerms);
  return useMemo(
    () =>
      [...own.values()].map(({ term, explanation, example }) => ({
        term,
        also: [],
        meaning: '',
        explanation,
        example,
        byField: {},
      })),
    [own],
  );
}

/** The student's list of rule references. */
export function useRuleReferences(): readonly RuleReference[] {
  const own = useWorkspaceState(({ records }) => records.ruleReferences);
  return useMemo(() => ruleReferencesWith(own.values()), [own]);
}
