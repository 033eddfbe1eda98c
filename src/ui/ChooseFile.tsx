'use client';

import { useId } from 'react';

interface ChooseFileProps {
  readonly words: string;
  /** Endings and media types that are offered. */
  readonly accept: string;
  readonly onFile: (file: File) => void;
}

/** A button that asks for a file. The same file may be chosen twice. */
export function ChooseFile({ words, accept, onFile }: ChooseFileProps) {
  const id = useId();
  return (
    <label
      htmlFor={id}
      className="inline-flex h-8 cursor-pointer items-center rounded border border-rule bg-sheet px-3.5 focus-within:outline-2 focus-within:outline-rust hover:border-soft"
    >
      {words}
      <input
        id={id}
        type="file"
        accept={accept}
        className="sr-only"
        onChange={(event) => {
          const file = event.target.files?.[0];
          event.target.value = '';
          if (file !== undefined) onFile(file);
        }}
      />
    </label>
  );
}
