import { SectionTitle } from '../../shared/controls/Controls.tsx';
import { useUndoKey } from '../../shared/page/hooks.ts';
import { redoAndTell, undoAndTell } from '../../shared/page/notify.ts';
import { usePlaceTitle } from '../../shared/page/place-title.ts';
import * as words from '../../words/en.ts';
import { MARKS_SCOPE } from '../../workspace/commands/marks.ts';
import { useWorkspace } from '../../workspace/use-workspace.ts';
import { Keys } from './Keys.tsx';
import { RuleReferences } from './RuleReferences.tsx';
import { Terms } from './Terms.tsx';

/** What marks, rules and the words of the trade mean. */
export function Marks() {
  usePlaceTitle(words.places.marks);
  const workspace = useWorkspace();
  useUndoKey(
    () => void undoAndTell(workspace, MARKS_SCOPE),
    () => void redoAndTell(workspace, MARKS_SCOPE),
  );
  return (
    <div className="mx-auto grid max-w-4xl grid-cols-1 gap-9 p-6 max-md:p-4">
      <div>
        <h1 className="font-serif text-xl font-semibold">{words.marks.title}</h1>
        <p className="mt-1 max-w-prose text-quiet">{words.marks.lead}</p>
      </div>
      <section aria-labelledby="keys">
        <SectionTitle id="keys">{words.marks.keys}</SectionTitle>
        <p className="mt-1 max-w-prose text-sm text-quiet">{words.marks.keysLead}</p>
        <Keys />
      </section>
      <section aria-labelledby="rules">
        <SectionTitle id="rules">{words.marks.rules}</SectionTitle>
        <p className="mt-1 max-w-prose text-sm text-quiet">{words.marks.rulesLead}</p>
        <RuleReferences />
      </section>
      <section aria-labelledby="terms">
        <SectionTitle id="terms">{words.marks.terms}</SectionTitle>
        <p className="mt-1 max-w-prose text-sm text-quiet">{words.marks.termsLead}</p>
        <Terms />
      </section>
    </div>
  );
}
