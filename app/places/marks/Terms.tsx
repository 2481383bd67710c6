import { useState, type SubmitEvent } from 'react';
import { TERMS, type Term } from '#core/terms/terms.ts';
import { Button } from '../../shared/controls/Controls.tsx';
import { TextField } from '../../shared/controls/Field.tsx';
import { Fold } from '../../shared/controls/Fold.tsx';
import { RemoveButton } from '../../shared/controls/RemoveButton.tsx';
import * as words from '../../words/en.ts';
import { putOwnTerm, removeOwnTerm } from '../../workspace/commands/marks.ts';
import { useOwnTerms } from '../../workspace/state/use-terms.ts';
import { useWorkspace } from '../../workspace/use-workspace.ts';
import { FoundList } from './FoundList.tsx';

/** Words that markers use, with what they mean; own ones first. */
export function Terms() {
  const workspace = useWorkspace();
  const own = useOwnTerms();
  return (
    <>
      <FoundList
        label={words.marks.terms}
        items={[...own, ...TERMS]}
        textsOf={({ term, also, explanation, example }) => [term, ...also, explanation, example]}
        keyOf={({ term, explanation }) => `${term} ${explanation}`}
        row={(term) => (
          <div className="flex gap-3">
            <Told term={term} />
            {own.includes(term) && (
              <RemoveButton
                label={words.marks.remove(term.term)}
                beside="line"
                onClick={() => void removeOwnTerm(workspace, term.term)}
              />
            )}
          </div>
        )}
      />
      <Fold label={words.marks.addTerm} className="mt-3">
        <NewTerm />
      </Fold>
    </>
  );
}

function Told({ term }: { term: Term }) {
  return (
    <div className="min-w-0 flex-1">
      <p>
        <b>{term.term}</b>{' '}
        {term.also.length > 0 && <span className="text-sm text-quiet">{words.marks.also(term.also)}</span>}
      </p>
      <p className="text-sm">{term.explanation}</p>
      {term.example !== '' && <p className="text-sm text-quiet">{words.terms.example(term.example)}</p>}
    </div>
  );
}

function NewTerm() {
  const workspace = useWorkspace();
  const [term, setTerm] = useState('');
  const [explanation, setExplanation] = useState('');
  const [example, setExample] = useState('');
  const isWhole = term.trim() !== '' && explanation.trim() !== '';
  const add = (event: SubmitEvent) => {
    event.preventDefault();
    if (!isWhole) return;
    void putOwnTerm(workspace, {
      term: term.trim(),
      explanation: explanation.trim(),
      example: example.trim(),
    }).then(() => {
      setTerm('');
      setExplanation('');
      setExample('');
    });
  };
  return (
    <form onSubmit={add} className="mt-2 grid gap-3 md:grid-cols-2">
      <TextField label={words.marks.term} value={term} onChange={({ target }) => setTerm(target.value)} />
      <TextField
        label={words.marks.explanation}
        value={explanation}
        onChange={({ target }) => setExplanation(target.value)}
      />
      <TextField
        label={words.marks.example}
        value={example}
        onChange={({ target }) => setExample(target.value)}
        className="md:col-span-2"
      />
      <Button type="submit" disabled={!isWhole} className="justify-self-start">
        {words.marks.addTerm}
      </Button>
    </form>
  );
}
