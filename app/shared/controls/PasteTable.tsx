import { useRef, type ReactNode } from 'react';
import type { Pasted } from '../../workers/protocol.ts';
import { Button } from './Controls.tsx';
import { AreaField } from './Field.tsx';

/** A place to paste a table or to choose files with one. */
export function PasteTable({
  label,
  placeholder,
  text,
  onText,
  onPasted,
  read,
  choose,
  accept,
  several = false,
  onFiles,
  children,
}: {
  label: string;
  placeholder?: string;
  text: string;
  onText: (text: string) => void;
  /** What was pasted, or what stands in the field when it is to be read. */
  onPasted: (pasted: Pasted) => void;
  read: string;
  choose: string;
  accept: string;
  several?: boolean;
  onFiles: (files: File[]) => void;
  children?: ReactNode;
}) {
  const chooser = useRef<HTMLInputElement>(null);
  return (
    <div className="grid gap-3">
      <div>
        <Button look="main" onClick={() => chooser.current?.click()}>
          {choose}
        </Button>
        <input
          ref={chooser}
          type="file"
          hidden
          multiple={several}
          accept={accept}
          aria-label={choose}
          onChange={(event) => {
            const files = [...(event.target.files ?? [])];
            event.target.value = '';
            if (files.length > 0) onFiles(files);
          }}
        />
      </div>
      <AreaField
        label={label}
        placeholder={placeholder}
        rows={4}
        value={text}
        onChange={(event) => onText(event.target.value)}
        onPaste={(event) => {
          const html = event.clipboardData.getData('text/html');
          const pasted = event.clipboardData.getData('text/plain');
          if (html === '' && !pasted.includes('\n')) return;
          event.preventDefault();
          onText(pasted);
          onPasted({ html, text: pasted });
        }}
        className="max-h-60 overflow-auto"
      />
      <div className="flex flex-wrap items-center gap-3">
        <Button disabled={text.trim() === ''} onClick={() => onPasted({ html: '', text })}>
          {read}
        </Button>
        {children}
      </div>
    </div>
  );
}
