import { useState, type SyntheticEvent } from 'react';
import { Button } from '../../shared/controls/Controls.tsx';
import * as words from '../../words/en.ts';
import { useSession } from '../../workspace/state/use-session.ts';

/** The way in for whoever has no session: name and access code, or files alone. */
export function SignIn() {
  const session = useSession();
  const [student, setStudent] = useState('');
  const [code, setCode] = useState('');
  const [error, setError] = useState<string | null>(null);
  const submit = async (event: SyntheticEvent) => {
    event.preventDefault();
    const answer = await session.signInWith(student, code);
    if (answer.kind === 'refused') setError(answer.why);
    else if (answer.kind !== 'ok') setError(words.signIn.notReached);
  };
  const field = 'mt-1 block w-full rounded-md border border-rule-strong bg-surface px-3 py-2';
  return (
    <div className="mx-auto grid grid-cols-1 max-w-3xl gap-10 p-6 pt-12 md:grid-cols-2">
      <form onSubmit={(event) => void submit(event)}>
        <h1 className="font-serif text-xl font-semibold">{words.signIn.title}</h1>
        <p className="mt-2 mb-5 text-quiet">{words.signIn.lead}</p>
        <label className="block">
          <b>{words.signIn.student}</b>
          <span className="ml-2 text-sm text-quiet">{words.signIn.studentHint}</span>
          <input
            className={field}
            autoComplete="username"
            value={student}
            onChange={(e) => setStudent(e.target.value)}
          />
        </label>
        <label className="mt-4 block">
          <b>{words.signIn.code}</b>
          <input
            className={field}
            autoComplete="off"
            value={code}
            onChange={(e) => setCode(e.target.value)}
          />
        </label>
        {error !== null && (
          <p role="alert" className="mt-3 font-semibold">
            {error}
          </p>
        )}
        <Button look="main" type="submit" className="mt-5" disabled={student === '' || code === ''}>
          {words.signIn.go}
        </Button>
      </form>
      <section className="border-rule md:border-l md:pl-10">
        <h2 className="font-serif text-xl font-semibold">{words.signIn.alone}</h2>
        <p className="mt-2 mb-5 text-quiet">{words.signIn.aloneLead}</p>
        <Button onClick={() => void session.workFromFilesAlone()}>{words.signIn.alone}</Button>
      </section>
    </div>
  );
}
