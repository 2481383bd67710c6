import { Button } from '../shared/controls/Controls.tsx';
import * as words from '../words/en.ts';

/** What is shown when a place broke: plain words and a way on. */
export function Fault() {
  return (
    <main className="mx-auto max-w-prose p-8">
      <h1 className="font-serif text-xl font-semibold">{words.notice.wentWrong}</h1>
      <p className="my-3 text-quiet">{words.notice.wentWrongLead}</p>
      <Button look="main" onClick={() => location.reload()}>
        {words.notice.reload}
      </Button>
    </main>
  );
}
