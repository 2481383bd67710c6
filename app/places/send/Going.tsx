import { Link } from 'react-router';
import { toast } from 'sonner';
import { itemRows } from '#core/assignment/items.ts';
import type { AssignmentView } from '#core/assignment/view.ts';
import type { SentPost } from '#core/model/handed-in.ts';
import { Button } from '../../shared/controls/Controls.tsx';
import { PreviewButton } from '../../shared/files/PreviewButton.tsx';
import { offerFile } from '../../shared/page/notify.ts';
import * as words from '../../words/en.ts';

/** What goes with an attempt: files, a post, answers to items, each as it goes. */

/** A file, brought in or written for the attempt: to be looked at and to be saved. */
export function GoingFile({
  name,
  is,
  save,
  mediaType,
  disabled = false,
  changeAt = null,
  bytesOf,
}: {
  name: string;
  /** What it is, as a phrase. */
  is: string;
  save: string;
  mediaType: string;
  disabled?: boolean;
  /** The address of the place where what it says can be changed. */
  changeAt?: string | null;
  /** null: it is not here any more. */
  bytesOf: () => Promise<Uint8Array<ArrayBuffer> | null>;
}) {
  const offer = async () => {
    const bytes = await bytesOf();
    if (bytes === null) toast.error(words.preview.gone(name));
    else offerFile(name, bytes, mediaType);
  };
  return (
    <li className="flex flex-wrap items-baseline justify-between gap-x-4 border-t border-rule py-2.5 sm:flex-nowrap">
      <span className="min-w-0">
        <b className="break-words">{name}</b>
        <span className="block text-sm text-quiet">{is}</span>
      </span>
      <span className="flex flex-wrap gap-x-4 sm:shrink-0">
        {changeAt !== null && (
          <Link
            to={changeAt}
            className="inline-flex min-h-9 items-center px-1 font-semibold text-accent hover:underline"
          >
            {words.send.changeIt}
          </Link>
        )}
        <PreviewButton name={name} disabled={disabled} bytesOf={bytesOf} />
        <Button look="quiet" disabled={disabled} onClick={() => void offer()}>
          {save}
        </Button>
      </span>
    </li>
  );
}

/** The words of a post, just as they are posted. */
export function PostGoing({ post }: { post: SentPost }) {
  return (
    <div className="mt-2">
      <p className="text-sm text-quiet">{words.posts.preview}</p>
      <p className="mt-1 rounded-lg border border-rule bg-surface p-4 font-serif whitespace-pre-line">
        {post.text}
      </p>
    </div>
  );
}

/** The answers that go, item by item. */
export function ItemsGoing({ view }: { view: AssignmentView }) {
  const rows = itemRows(view);
  const answered = rows.filter(({ answer }) => answer !== '');
  return (
    <>
      <p className="mt-2 mb-2 text-sm text-quiet">{words.items.answered(answered.length, rows.length)}</p>
      <dl>
        {answered.map(({ item, answer }) => (
          <div key={item.id} className="border-t border-rule py-2">
            <dt className="font-semibold">{item.title}</dt>
            <dd className="font-serif whitespace-pre-line">{answer}</dd>
          </div>
        ))}
      </dl>
    </>
  );
}
