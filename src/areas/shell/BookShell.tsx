'use client';

import { useRouter } from 'next/navigation';
import { type ReactNode, useEffect } from 'react';
import { deskOf } from '@/store/desk';
import { Button } from '@/ui/Button';
import { Dialog } from '@/ui/Dialog';
import { BookContext, type OpenBook } from './BookContext';
import { useBook } from './book';
import { Commands } from './Commands';
import { DropEInvoice } from './DropEInvoice';
import { Keys } from './Keys';
import { LeaveGuard } from './LeaveGuard';
import { usePicked } from './period';
import { Ribbon } from './Ribbon';
import { routes } from './routes';
import { Spine } from './Spine';
import { useFaults, useLetGo } from './useFaults';
import { useJobs } from './useJobs';

/** The desk: spine, period ribbon, and the area between them. Sends home when no book has begun. */
export function BookShell({ children }: { readonly children: ReactNode }) {
  const router = useRouter();
  const { registrationId } = usePicked();
  const found = useBook(
    async (db): Promise<OpenBook | 'broken' | null> => {
      const { book, records, accounts, empty } = await deskOf(db);
      const { registrations, codes } = records;
      const registration = registrations.find((r) => r.id === registrationId) ?? registrations[0];
      if (book === null || registration === undefined) return empty ? null : 'broken';
      const { business } = book;
      return { business, currency: business.homeCurrency, registration, registrations, records, codes, accounts };
    },
    [],
    [registrationId],
  );
  useEffect(() => {
    if (found === null) router.replace(routes.home);
    if (found === 'broken') router.replace(routes.rescue);
  }, [found, router]);
  useJobs();
  useEffect(() => {
    // Asks the browser not to clear the book when disk space runs low; Setup, Book file tells the answer.
    void navigator.storage?.persist?.();
  }, []);
  useFaults();
  const letGo = useLetGo();
  if (!found || found === 'broken') return null;
  return (
    <BookContext value={found}>
      <div className="flex h-screen">
        <Spine />
        <div className="flex min-w-0 flex-1 flex-col">
          <Ribbon />
          <div className="flex min-h-0 flex-1">{children}</div>
        </div>
      </div>
      <Dialog
        open={letGo}
        onClose={() => undefined}
        title="Load this page again"
        description="Another window has opened the book with a newer version of the program, or has deleted it. This window saves no more; what was typed in a draft is kept."
      >
        <Button weight="main" onClick={() => location.reload()}>
          Load the page again
        </Button>
      </Dialog>
      <Commands />
      <DropEInvoice />
      <Keys />
      <LeaveGuard />
    </BookContext>
  );
}
