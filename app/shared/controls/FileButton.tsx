import clsx from 'clsx';

/** A button that lets a file be chosen. */
export function FileButton({
  label,
  accept,
  onFile,
  className,
}: {
  label: string;
  accept: string;
  onFile: (file: File) => void;
  className?: string;
}) {
  return (
    <label
      className={clsx(
        'inline-flex min-h-9 cursor-pointer items-center rounded-md border border-rule-strong/60 bg-surface px-3 font-semibold focus-within:outline-2 focus-within:outline-accent hover:border-ink',
        className,
      )}
    >
      {label}
      <input
        type="file"
        accept={accept}
        className="sr-only"
        onChange={(event) => {
          const file = event.target.files?.item(0) ?? null;
          event.target.value = '';
          if (file !== null) onFile(file);
        }}
      />
    </label>
  );
}
