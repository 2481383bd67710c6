import { useState, type SubmitEvent } from 'react';
import type { RuleReference } from '#core/model/work.ts';
import { Button } from '../../shared/controls/Controls.tsx';
import { TextField } from '../../shared/controls/Field.tsx';
import { Fold } from '../../shared/controls/Fold.tsx';
import { RemoveButton } from '../../shared/controls/RemoveButton.tsx';
import { RuleTold } from '../../shared/remark/RuleTold.tsx';
import * as words from '../../words/en.ts';
import { putRuleReference, removeRuleReference } from '../../workspace/commands/marks.ts';
import { useRuleReferences } from '../../workspace/state/use-terms.ts';
import { useWorkspace } from '../../workspace/use-workspace.ts';
import { FoundList } from './FoundList.tsx';

/** The student's own list of where rules are explained. */
export function RuleReferences() {
  const workspace = useWorkspace();
  const all = useRuleReferences();
  const [changing, setChanging] = useState<string | null>(null);
  return (
    <>
      <FoundList
        label={words.marks.rules}
        items={all}
        textsOf={({ rule, title, says, where }) => [rule, title, says, where]}
        keyOf={({ id }) => id}
        row={(entry) =>
          changing === entry.id ? (
            <RuleForm
              entry={entry}
              onKeep={(next) => void putRuleReference(workspace, next).then(() => setChanging(null))}
              onLeave={() => setChanging(null)}
            />
          ) : (
            <div className="flex items-start gap-3">
              <div className="min-w-0 flex-1 text-sm">
                <RuleTold entry={entry} />
              </div>
              <Button
                look="quiet"
                className="min-h-8 text-sm"
                aria-label={words.marks.change(entry.title)}
                onClick={() => setChanging(entry.id)}
              >
                {words.marks.changeShort}
              </Button>
              <RemoveButton
                label={words.marks.remove(entry.title)}
                beside="line"
                onClick={() => void removeRuleReference(workspace, entry)}
              />
            </div>
          )
        }
      />
      <Fold label={words.marks.addRule} className="mt-3">
        <RuleForm entry={null} onKeep={(next) => void putRuleReference(workspace, next)} />
      </Fold>
    </>
  );
}

const NO_ENTRY = { rule: '', title: '', says: '', where: '', link: '', page: '' };

function RuleForm({
  entry,
  onKeep,
  onLeave,
}: {
  entry: RuleReference | null;
  onKeep: (entry: RuleReference) => void;
  onLeave?: () => void;
}) {
  const [typed, setTyped] = useState<Omit<RuleReference, 'id'>>(entry ?? NO_ENTRY);
  const [tried, setTried] = useState(false);
  const isTitled = typed.title.trim() !== '';
  const isLink = typed.link.trim() === '' || /^https?:\/\/\S+$/i.test(typed.link.trim());
  const keep = (event: SubmitEvent) => {
    event.preventDefault();
    setTried(true);
    if (!isTitled || !isLink) return;
    onKeep({ ...typed, link: typed.link.trim(), id: entry?.id ?? `own/${crypto.randomUUID()}` });
    if (entry === null) {
      setTyped(NO_ENTRY);
      setTried(false);
    }
  };
  const field = (name: keyof typeof typed, label: string, error?: string) => (
    <TextField
      label={label}
      error={error}
      value={typed[name]}
      onChange={({ target }) => setTyped({ ...typed, [name]: target.value })}
    />
  );
  return (
    <form noValidate onSubmit={keep} className="mt-2 grid gap-3 md:grid-cols-2">
      {field('title', words.marks.ruleTitle, tried && !isTitled ? words.marks.needTitle : undefined)}
      {field('rule', words.marks.rule)}
      {field('says', words.marks.ruleSays)}
      {field('where', words.marks.ruleWhere)}
      {field('link', words.marks.ruleLink, tried && !isLink ? words.marks.badLink : undefined)}
      {field('page', words.marks.rulePage)}
      <div className="flex gap-2">
        <Button type="submit">{entry === null ? words.marks.addRule : words.marks.save}</Button>
        {onLeave !== undefined && (
          <Button look="quiet" onClick={onLeave}>
            {words.marks.cancel}
          </Button>
        )}
      </div>
    </form>
  );
}
