import { Button } from '../../../shared/controls/Controls.tsx';
import { Dialog } from '../../../shared/controls/Dialog.tsx';
import * as words from '../../../words/en.ts';

export function KeysDialog({ open, onClose }: { open: boolean; onClose: () => void }) {
  return (
    <Dialog open={open} onClose={onClose} title={words.keys.title} lead={words.keys.lead}>
      <dl className="grid grid-cols-[8rem_1fr] gap-y-1.5">
        {words.keys.rows.map(([keys, what]) => (
          <div key={keys} className="contents">
            <dt className="font-semibold">{keys}</dt>
            <dd>{what}</dd>
          </div>
        ))}
      </dl>
      <Button className="mt-5" onClick={onClose}>
        {words.keys.close}
      </Button>
    </Dialog>
  );
}
