'use client';

import { Button } from '@/ui/Button';
import Link from '@/ui/Link';
import { routes } from '../shell/routes';

/** What a fault of the database means to the person at the screen, by the name of the error. */
const WORDS: Readonly<Record<string, string>> = {
  VersionError:
    'A newer version of the program has opened this book. Load the page again to get that version; nothing was written here.',
  MissingAPIError:
    'This browser saves no data for this page: allow it, or leave private browsing, and load the page again.',
  OpenFailedError: 'The browser could not open the book: its storage is blocked, full or damaged.',
  InvalidStateError: 'The browser could not open the book: its storage is blocked, full or damaged.',
  UnknownError: 'The browser could not read the book: its storage is full or damaged.',
  SecurityError: 'This browser does not let this page save data: allow it, and load the page again.',
  QuotaExceededError: 'The disk space of this browser is used up: make room, then load the page again.',
  DatabaseClosedError: 'The book was closed by the browser or by another window.',
};

interface FaultScreenProps {
  readonly error: Error;
  readonly onAgain: () => void;
}

/** A screen that met a fault: what it means, and the ways on. What was not written whole was not written. */
export function FaultScreen({ error, onAgain }: FaultScreenProps) {
  const words = WORDS[error.name] ?? WORDS[(error as { inner?: Error }).inner?.name ?? ''];
  return (
    <main className="mx-auto max-w-[600px] px-8 py-16">
      <h1 className="mb-3 font-serif text-2xl">
        {words === undefined ? 'Something went wrong on this screen' : 'The book can’t be read here'}
      </h1>
      <p className="mb-2">
        {words ?? 'Nothing was saved in part. Try again; if it stays, save what is there to a file.'}
      </p>
      <p className="mb-5 font-mono text-soft text-sm">
        {error.name}: {error.message}
      </p>
      <div className="flex flex-wrap gap-3">
        <Button weight="main" onClick={onAgain}>
          Try again
        </Button>
        <Button onClick={() => location.reload()}>Load the page again</Button>
        <Link href={routes.rescue} className="self-center underline underline-offset-4">
          Save what is there, or open another file
        </Link>
      </div>
    </main>
  );
}
