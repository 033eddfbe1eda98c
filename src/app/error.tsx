'use client';

import { Button } from '@/ui/Button';

/** A fault in the program. The book is safe: what was not written whole was not written. */
export default function Fault({ error, reset }: { readonly error: Error; readonly reset: () => void }) {
  return (
    <main className="mx-auto max-w-[560px] px-8 py-16">
      <h1 className="mb-3 font-serif text-2xl">This screen met a fault</h1>
      <p className="mb-2 text-soft">
        Nothing was half-written. Try again; if it stays, save the book to a file in Setup.
      </p>
      <p className="mb-4 font-mono text-sm">{error.message}</p>
      <Button weight="main" onClick={reset}>
        Try again
      </Button>
    </main>
  );
}
