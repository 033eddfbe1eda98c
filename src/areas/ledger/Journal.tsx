'use client';

import { useSearchParams } from 'next/navigation';
import { useState } from 'react';
import { writeDate } from '@/core/kernel/date';
import { minor } from '@/core/kernel/money';
import { spanName } from '@/core/returns/calendar';
import { plainName } from '@/core/tax/taxCode';
import { readStackKey, readTaxKey } from '@/core/tax/taxKey';
import { journalEntry, journalOf } from '@/store/ledger/queries/ledger';
import { Button } from '@/ui/Button';
import Link from '@/ui/Link';
import { Money } from '@/ui/Money';
import { Empty, Sheet, SheetTitle } from '@/ui/Page';
import { useOpenBook } from '../shell/BookContext';
import { useBook } from '../shell/book';
import { routes } from '../shell/routes';
import { usePeriodSpan } from '../shell/usePeriodSpan';
import { JournalActions } from './JournalActions';
import { sourcePath } from './sourcePath';

const PAGE = 40;

/** Entries of the picked period, or the one that was asked for. */
export function Journal() {
  const { accounts, codes, currency } = useOpenBook();
  const span = usePeriodSpan();
  const entryId = useSearchParams().get('entry') ?? '';
  const [limit, setLimit] = useState(PAGE);
  const entries = useBook(
    (db) => (entryId === '' ? journalOf(db, span, limit) : journalEntry(db, entryId)),
    [entryId, span.start],
    [limit],
  );
  const nameOf = (code: string) => accounts.find((account) => account.code === code)?.name ?? code;
  const codeName = (id: string) => {
    const { base } = readTaxKey(id);
    const code = codes.find((c) => c.id === base);
    return code === undefined ? (readStackKey(id)?.placeId ?? base) : plainName(code);
  };
  const [only] = entryId === '' ? [] : (entries ?? []);
  return (
    <>
      <Sheet label="Journal">
        <SheetTitle
          aside={
            entryId !== '' && (
              <Link href={routes.ledger} className="underline underline-offset-4">
                The whole journal
              </Link>
            )
          }
        >
          {entryId === '' ? `Journal ${spanName(span)}` : 'Journal entry'}
        </SheetTitle>
        {entries?.length === 0 && <Empty>No entries in this period.</Empty>}
        {entries !== undefined && entries.length > 0 && (
          <table className="w-full">
            <caption className="sr-only">Journal entries</caption>
            <thead>
              <tr className="border-ink border-b text-left text-soft text-sm">
                <th scope="col" className="w-[110px] px-1.5 pb-1 font-normal">
                  Date
                </th>
                <th scope="col" className="px-1.5 pb-1 font-normal">
                  Entry and accounts
                </th>
                <th scope="col" className="w-[120px] px-1.5 pb-1 text-right font-normal">
                  Debit
                </th>
                <th scope="col" className="w-[120px] px-1.5 pb-1 text-right font-normal">
                  Credit
                </th>
              </tr>
            </thead>
            {entries.map(({ entry, lines }) => {
              const source = sourcePath(entry);
              return (
                <tbody key={entry.id} className="border-rule border-b [&>tr:last-child>td]:pb-2">
                  <tr>
                    <td className="px-1.5 pt-2">{writeDate(entry.date)}</td>
                    <th scope="rowgroup" colSpan={3} className="px-1.5 pt-2 text-left font-semibold">
                      {source === null ? (
                        <>
                          {entry.text} <span className="font-normal text-soft">manual</span>
                        </>
                      ) : (
                        <Link href={source} className="underline decoration-rule underline-offset-4">
                          {entry.text}
                        </Link>
                      )}
                    </th>
                  </tr>
                  {lines.map((line) => (
                    <tr key={line.id}>
                      <td />
                      <td className={`px-1.5 ${line.amount < 0n ? 'pl-8' : ''}`}>
                        <Link href={routes.account(line.account)} className="hover:underline">
                          <span className="text-soft">{line.account}</span> {nameOf(line.account)}
                          {line.taxCode !== '' && <span className="text-soft">, {codeName(line.taxCode)}</span>}
                        </Link>
                      </td>
                      <td className="px-1.5 text-right">
                        {line.amount > 0n && <Money amount={line.amount} currency={currency} />}
                      </td>
                      <td className="px-1.5 text-right">
                        {line.amount < 0n && <Money amount={minor(-line.amount)} currency={currency} />}
                      </td>
                    </tr>
                  ))}
                </tbody>
              );
            })}
          </table>
        )}
        {entryId === '' && (entries?.length ?? 0) >= limit && (
          <Button weight="quiet" className="mt-3 self-start" onClick={() => setLimit(limit + PAGE)}>
            Show more
          </Button>
        )}
      </Sheet>
      {only?.entry.kind === 'journal' && <JournalActions entry={only.entry} />}
    </>
  );
}
