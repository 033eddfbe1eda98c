'use client';

import { recurringDocuments } from '@/store/sales/queries/recurring';
import Link from '@/ui/Link';
import { Empty, Sheet, SheetTitle } from '@/ui/Page';
import { ListTable } from '../../shared/ListTable';
import { useBook } from '../../shell/book';
import { routes } from '../../shell/routes';
import { DOES_WORDS, recurringState, rhythmWords } from './recurringWords';

/** Documents that come again, those that come next first. */
export function RecurringList() {
  const rows = useBook(recurringDocuments);
  return (
    <Sheet label="Recurring documents">
      <SheetTitle aside="made on their dates while the book is open">Recurring documents</SheetTitle>
      {rows?.length === 0 && (
        <Empty>
          None yet. Open an issued invoice and choose More, Repeat…, or write a draft and choose Make it recurring.
        </Empty>
      )}
      {rows !== undefined && rows.length > 0 && (
        <ListTable
          caption="Recurring documents"
          rows={rows}
          keyOf={({ recurring }) => recurring.id}
          columns={[
            {
              head: 'Name',
              value: ({ recurring }) => recurring.name,
              cell: ({ recurring }) => (
                <Link href={routes.recurring(recurring.id)} className="underline decoration-rule underline-offset-4">
                  {recurring.name}
                </Link>
              ),
            },
            { head: 'Customer', cell: ({ group, customer }) => group || customer },
            { head: 'Rhythm', cell: ({ recurring }) => rhythmWords(recurring.rhythm) },
            { head: 'When due', cell: ({ recurring }) => DOES_WORDS[recurring.does] },
            {
              head: 'Status',
              value: ({ recurring }) => `${recurring.nextDue || '~'}`,
              cell: ({ recurring }) => recurringState(recurring),
            },
          ]}
        />
      )}
    </Sheet>
  );
}
