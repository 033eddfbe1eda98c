'use client';

import { useRouter } from 'next/navigation';
import { useEffect, useState } from 'react';
import { hasBook } from '@/store/records';
import type { BookDb } from '@/store/schema';
import { clearUnfinished, isUnfinished } from '@/store/unfinished';
import { Button } from '@/ui/Button';
import Link from '@/ui/Link';
import { OpenBookFile } from '../shared/OpenBookFile';
import { bookDb, useBook } from '../shell/book';
import { useLongWork } from '../shell/longWork';
import { routes } from '../shell/routes';
import { BeginForm } from './BeginForm';

/** Whether this browser has a book, a part of one, or none. */
const found = async (db: BookDb) =>
  (await hasBook(db)) ? 'book' : (await isUnfinished(db)) ? 'unfinished' : 'nothing';

/** What an empty browser sees: begin a book, open one, or look at the sample. */
export function Home() {
  const router = useRouter();
  const there = useBook(found);
  const isOpening = useLongWork();
  const [beginning, setBeginning] = useState(false);
  useEffect(() => {
    if (there === 'book') router.replace(routes.today);
  }, [there, router]);
  if (there === undefined || there === 'book') return null;
  return (
    <main className="mx-auto flex min-h-screen max-w-[860px] flex-col px-8 py-12">
      <h1 className="font-serif text-2xl">Able Ledger</h1>
      <p className="mt-1 mb-8 max-w-[60ch] text-soft">
        Invoices, receipts and tax periods for one registered business. The book stays in this browser; nothing is sent
        anywhere.
      </p>
      {beginning ? (
        <BeginForm />
      ) : (
        <ul className="border-rule border-t">
          {there === 'unfinished' && !isOpening ? (
            <li className="flex items-center justify-between gap-6 border-rule border-b py-4">
              <span>
                <strong className="font-semibold">▲ A book that is not whole</strong>
                <span className="block text-soft">
                  A book file was being opened in this browser and did not come to its end, or another window is opening
                  it now. Wait for that window, open the file again, or clear what is there of it.
                </span>
              </span>
              <Button className="shrink-0" onClick={() => void clearUnfinished(bookDb())}>
                Clear it
              </Button>
            </li>
          ) : (
            <li className="flex items-center justify-between gap-6 border-rule border-b py-4">
              <span>
                <strong className="font-semibold">An empty book</strong>
                <span className="block text-soft">
                  Name, address, currency and one tax registration are enough to begin.
                </span>
              </span>
              <Button weight="main" className="shrink-0" disabled={isOpening} onClick={() => setBeginning(true)}>
                Begin a book
              </Button>
            </li>
          )}
          <li className="flex items-center justify-between gap-6 border-rule border-b py-4">
            <span>
              <strong className="font-semibold">A book from a file</strong>
              <span className="block text-soft">Opens an archive that was saved in Setup, Book file.</span>
            </span>
            <OpenBookFile />
          </li>
          <li className="flex items-center justify-between gap-6 border-rule border-b py-4">
            <span>
              <strong className="font-semibold">The sample book</strong>
              <span className="block text-soft">
                Corran Point Instruments, a made-up business, with some months of work.
              </span>
            </span>
            <Link href={routes.sample} className="shrink-0 underline underline-offset-4">
              Open the sample
            </Link>
          </li>
        </ul>
      )}
    </main>
  );
}
