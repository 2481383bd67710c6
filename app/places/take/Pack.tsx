import { Suspense, useState } from 'react';
import type { AssignmentView } from '#core/assignment/view.ts';
import { packParts, type TakenAlong } from '#core/model/work.ts';
import { CheckBox } from '../../shared/controls/CheckBox.tsx';
import { Button, SectionTitle } from '../../shared/controls/Controls.tsx';
import { Dialog } from '../../shared/controls/Dialog.tsx';
import { fileNameOf } from '../../shared/files/file-name.ts';
import { FilePreview } from '../../shared/files/preview.ts';
import { offerFile } from '../../shared/page/notify.ts';
import { useKeptText } from '../../shared/remark/kept-text.ts';
import * as words from '../../words/en.ts';
import { changePack, packOf } from '../../workspace/commands/take-along.ts';
import { useWorkspace, useWorkspaceState } from '../../workspace/use-workspace.ts';
import { countOfPart } from './pack.ts';
import { printPdf, shareableFile } from './hand-out.ts';
import { writtenPack } from './write-along.ts';
import { useWriting, WritingNotice, type Came } from './writing.tsx';

type Left = TakenAlong['without'][number];

/** The pack for a meeting: what it begins with, what is in it, and how it goes along. */
export function Pack({ view }: { view: AssignmentView }) {
  const workspace = useWorkspace();
  const { id } = view.assignment;
  const taken = useWorkspaceState(({ records }) => packOf(records.settings, id));
  const [wish, setWish, leaveWish] = useKeptText(`take-along/${id}`, taken.wish, (next, typing) =>
    changePack(workspace, id, (pack) => ({ ...pack, wish: next }), typing),
  );
  const leave = (what: Left, isIn: boolean) =>
    void changePack(workspace, id, (pack) => ({
      ...pack,
      without: [...pack.without.filter((one) => one !== what), ...(isIn ? [] : [what])],
    }));
  const tick = (what: Left, label: string, hint?: string, disabled = false) => (
    <li key={what}>
      <label className="flex items-baseline gap-2.5 py-1">
        <CheckBox
          className="translate-y-0.5"
          disabled={disabled}
          checked={!disabled && !taken.without.includes(what)}
          onChange={(isIn) => leave(what, isIn)}
        />
        <span>
          {label}
          {hint !== undefined && <span className="block text-sm text-quiet">{hint}</span>}
        </span>
      </label>
    </li>
  );
  return (
    <section className="self-start rounded-lg border border-rule bg-surface p-5 max-md:p-4">
      <SectionTitle>{words.takeAlong.pack}</SectionTitle>
      <p className="text-sm text-quiet">{words.takeAlong.packLead}</p>
      <label className="mt-4 block">
        <span className="font-semibold">{words.takeAlong.wish}</span>
        <textarea
          rows={4}
          value={wish}
          placeholder={words.takeAlong.wishHint}
          onChange={(event) => setWish(event.target.value)}
          onBlur={leaveWish}
          className="mt-1 block w-full resize-y rounded-md border border-rule bg-paper px-3 py-2 placeholder:text-quiet"
        />
      </label>
      <fieldset className="mt-4">
        <legend className="font-semibold">{words.takeAlong.parts}</legend>
        <ul className="mt-1">
          {packParts.map((part) => {
            const count = countOfPart(view, part, wish);
            return tick(
              part,
              count > 1 ? `${words.takeAlong.part[part]} (${count})` : words.takeAlong.part[part],
              count === 0 ? words.takeAlong.nothingOf[part] : undefined,
              count === 0,
            );
          })}
        </ul>
        <ul className="mt-2 border-t border-rule pt-2">
          {tick('scores', words.takeAlong.scores)}
          {tick('names', words.takeAlong.names, words.takeAlong.namesHint)}
          {tick('room', words.takeAlong.room)}
        </ul>
      </fieldset>
      <HandOut view={view} taken={{ ...taken, wish }} />
    </section>
  );
}

function HandOut({ view, taken }: { view: AssignmentView; taken: TakenAlong }) {
  const workspace = useWorkspace();
  const writing = useWriting();
  const [shown, setShown] = useState<Uint8Array<ArrayBuffer> | null>(null);
  const name = fileNameOf(workspace, view, words.takeAlong.packIs, 'pdf');
  const written = (use: (bytes: Uint8Array<ArrayBuffer>) => Came) =>
    writing.write(name, async (told, signal) => {
      const pack = await writtenPack(workspace, view, taken, told, signal);
      return pack.kind === 'read' ? use(pack.value) : { kind: pack.kind };
    });
  const save = () =>
    written((bytes) => {
      offerFile(name, bytes, 'application/pdf');
      return { kind: 'saved', name };
    });
  const look = () =>
    written((bytes) => {
      setShown(bytes);
      return { kind: 'shown' };
    });
  const print = () =>
    written((bytes) => {
      printPdf(bytes);
      return { kind: 'shown' };
    });
  const share = () =>
    written((bytes) => {
      void shareableFile(name, bytes)?.();
      return { kind: 'shown' };
    });
  const busy = writing.percent !== null;
  return (
    <>
      <div className="mt-4 flex flex-wrap gap-3">
        <Button look="main" disabled={busy} onClick={save}>
          {words.takeAlong.save}
        </Button>
        <Button disabled={busy} onClick={look}>
          {words.takeAlong.look}
        </Button>
        <Button disabled={busy} onClick={print}>
          {words.takeAlong.print}
        </Button>
        {shareableFile(name, null) !== null && (
          <Button disabled={busy} onClick={share}>
            {words.takeAlong.share}
          </Button>
        )}
      </div>
      <WritingNotice writing={writing} />
      <Dialog
        open={shown !== null}
        onClose={() => setShown(null)}
        title={words.preview.title}
        lead={name}
        wide
      >
        {shown !== null && (
          <Suspense fallback={<p className="text-quiet">{words.reading.opening}</p>}>
            <FilePreview name={name} bytes={shown} />
          </Suspense>
        )}
        <Button className="mt-4" onClick={() => setShown(null)}>
          {words.preview.close}
        </Button>
      </Dialog>
    </>
  );
}
