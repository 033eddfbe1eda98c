'use client';

import { writeDate } from '@/core/kernel/date';
import { allRuns } from '@/store/sales/queries/runs';
import Link from '@/ui/Link';
import { Empty, Sheet, SheetTitle } from '@/ui/Page';
import { ListTable } from '../../shared/ListTable';
import { useBook } from '../../shell/book';
import { routes } from '../../shell/routes';

/** Runs, the latest first. */
export function RunList() {
  const rows = useBook(allRuns);
  return (
    <Sheet label="Runs">
      <SheetTitle aside="one content for many customers">Runs</SheetTitle>
      {rows?.length === 0 && <Empty>None yet. Write a draft and choose Make it a run.</Empty>}
      {rows !== undefined && rows.length > 0 && (
        <ListTable
          caption="Runs"
          rows={rows}
          keyOf={({ id }) => id}
          columns={[
            {
              head: 'Name',
              value: ({ name }) => name,
              cell: ({ id, name }) => (
                <Link href={routes.run(id)} className="underline decoration-rule underline-offset-4">
                  {name}
                </Link>
              ),
            },
            { head: 'Issue date', value: ({ date }) => date, cell: ({ date }) => writeDate(date) },
            { head: 'By', cell: ({ operator }) => operator },
          ]}
        />
      )}
    </Sheet>
  );
}
