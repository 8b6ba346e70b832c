import type { RefObject } from 'react';

/** A file chooser without a face of its own: a button elsewhere opens it through the ref. The same file may be chosen twice. */
export function FileInput({
  ref,
  label,
  accept,
  onFile,
}: {
  ref: RefObject<HTMLInputElement | null>;
  label: string;
  accept: string;
  onFile: (file: File) => void;
}) {
  return (
    <input
      ref={ref}
      type="file"
      accept={accept}
      className="hidden"
      aria-label={label}
      onChange={(event) => {
        const file = event.target.files?.[0];
        event.target.value = '';
        if (file) onFile(file);
      }}
    />
  );
}
