import { useEffect, useState, type ReactNode } from 'react';
import * as words from '../../words/en.ts';
import { isTyping } from '../../shared/page/hooks.ts';
import { useWorkspace } from '../../workspace/use-workspace.ts';
import { useTakeIn } from './use-take-in.ts';

function carriesFiles(event: DragEvent): boolean {
  return event.dataTransfer?.types.includes('Files') === true;
}

/** A part of a place that takes files itself, for what it is for. */
function isForPlace({ target }: DragEvent): boolean {
  return target instanceof Element && target.closest('[data-takes-files]') !== null;
}

/** Files for taking in out of what was pasted: files as they are, text as a file of its own. */
function pastedFiles(data: DataTransfer): File[] {
  if (data.files.length > 0) return [...data.files];
  const text = data.getData('text/plain');
  return text.trim() === '' ? [] : [new File([text], words.takeIn.pasted)];
}

/** Lets files be dropped anywhere on the page, and pasted outside of fields. */
export function DropTarget({ children }: { children: ReactNode }) {
  const [over, setOver] = useState(false);
  const takeIn = useTakeIn();
  const { isShown } = useWorkspace();
  useEffect(() => {
    if (isShown) return;
    let depth = 0;
    const enter = (event: DragEvent) => {
      if (!carriesFiles(event)) return;
      depth++;
      setOver(!isForPlace(event));
    };
    const leave = (event: DragEvent) => {
      if (!carriesFiles(event)) return;
      depth--;
      if (depth <= 0) setOver(false);
    };
    const drag = (event: DragEvent) => {
      if (carriesFiles(event)) event.preventDefault();
    };
    const drop = (event: DragEvent) => {
      if (!carriesFiles(event)) return;
      event.preventDefault();
      depth = 0;
      setOver(false);
      if (isForPlace(event)) return;
      takeIn([...(event.dataTransfer?.files ?? [])]);
    };
    const paste = (event: ClipboardEvent) => {
      if (isTyping(event.target) || event.clipboardData === null) return;
      const files = pastedFiles(event.clipboardData);
      if (files.length > 0) takeIn(files);
    };
    window.addEventListener('paste', paste);
    window.addEventListener('dragenter', enter);
    window.addEventListener('dragleave', leave);
    window.addEventListener('dragover', drag);
    window.addEventListener('drop', drop);
    return () => {
      window.removeEventListener('paste', paste);
      window.removeEventListener('dragenter', enter);
      window.removeEventListener('dragleave', leave);
      window.removeEventListener('dragover', drag);
      window.removeEventListener('drop', drop);
    };
  }, [takeIn, isShown]);
  return (
    <>
      {children}
      {over && (
        <div className="pointer-events-none fixed inset-3 z-50 grid place-items-center rounded-2xl border-2 border-dashed border-accent bg-[color-mix(in_srgb,var(--paper)_85%,transparent)] font-serif text-xl">
          {words.takeIn.over}
        </div>
      )}
    </>
  );
}
