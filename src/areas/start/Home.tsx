'use client';

import { useRouter } from 'next/navigation';
import { useEffect, useState } from 'react';
import { hasBook } from '@/store/records';
import Link from '@/ui/Link';
import { OpenBookFile } from '../shared/OpenBookFile';
import { useBook } from '../shell/book';
import { routes } from '../shell/routes';
import { BeginForm } from './BeginForm';

/** What an empty browser sees: begin a book, open one, or look at the sample. */
export function Home() {
  const router = useRouter();
  const begun = useBook(hasBook);
  const [beginning, setBeginning] = useState(false);
  useEffect(() => {
    if (begun) router.replace(routes.today);
  }, [begun, router]);
  if (begun !== false) return null;
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
          <li className="flex items-center justify-between gap-6 border-rule border-b py-4">
            <span>
              <strong className="font-semibold">An empty book</strong>
              <span className="block text-soft">
                Name, address, currency and one tax registration are enough to begin.
              </span>
            </span>
            <button
              type="button"
              onClick={() => setBeginning(true)}
              className="h-8 shrink-0 cursor-pointer rounded border border-rust bg-rust px-3.5 font-semibold text-on-rust"
            >
              Begin a book
            </button>
          </li>
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
