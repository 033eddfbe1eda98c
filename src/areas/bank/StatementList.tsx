'use client';

import { useState } from 'react';
import { toast } from 'sonner';
import type { BankStatement } from '@/core/bank/bankLine';
import type { Currency } from '@/core/kernel/currency';
import { dayOf, writeDate } from '@/core/kernel/date';
import { wordRefusals } from '@/core/wording/refusals';
import { removeStatement } from '@/store/bank/actions/statements';
import { statementsRead } from '@/store/bank/queries/lines';
import { Button } from '@/ui/Button';
import { Dialog } from '@/ui/Dialog';
import { Money } from '@/ui/Money';
import { Empty } from '@/ui/Page';
import { ListTable } from '../shared/ListTable';
import { useMore } from '../shared/useMore';
import { act, useBook } from '../shell/book';

interface StatementListProps {
  readonly bankAccountId: string;
  readonly currency: Currency;
}

/** Statements that were imported; one that was imported by mistake is removed while none of its lines is matched. */
export function StatementList({ bankAccountId, currency }: StatementListProps) {
  const [removing, setRemoving] = useState<BankStatement | null>(null);
  const [wrong, setWrong] = useState('');
  const more = useMore();
  const found = useBook((db) => statementsRead(db, bankAccountId, more.ask), [bankAccountId], [more.ask]);
  const { rows, onMore } = more.of(found);
  const remove = async () => {
    if (removing === null) return;
    const result = await act(removeStatement, { id: removing.id });
    if (!result.ok) return setWrong(wordRefusals(result.refusals));
    toast(`${removing.fileName} is removed`);
    setRemoving(null);
  };
  if (rows?.length === 0) return <Empty>No statement is imported yet.</Empty>;
  return (
    <>
      <ListTable
        caption="Imported statements"
        rows={rows ?? []}
        keyOf={({ statement }) => statement.id}
        onMore={onMore}
        columns={[
          {
            head: 'Until',
            value: ({ statement }) => statement.until,
            cell: ({ statement }) => writeDate(statement.until),
          },
          {
            head: 'File',
            value: ({ statement }) => statement.fileName,
            cell: ({ statement }) => (
              <>
                {statement.fileName}
                <span className="block text-soft text-sm">
                  {statement.format}, by {statement.operator} on {writeDate(dayOf(statement.readAt))}
                </span>
              </>
            ),
          },
          { head: 'Lines', align: 'right', cell: ({ statement }) => statement.added },
          { head: 'Matched', align: 'right', cell: ({ matched }) => matched },
          {
            head: 'Balance',
            align: 'right',
            value: ({ statement }) => statement.closing ?? 0n,
            cell: ({ statement }) =>
              statement.closing === null ? 'not stated' : <Money amount={statement.closing} currency={currency} />,
          },
          {
            head: 'Remove',
            cell: ({ statement, matched }) =>
              matched === 0 ? (
                <Button
                  weight="quiet"
                  onClick={() => {
                    setWrong('');
                    setRemoving(statement);
                  }}
                >
                  Remove…<span className="sr-only"> {statement.fileName}</span>
                </Button>
              ) : (
                <span className="text-soft text-sm">undo its matches first</span>
              ),
          },
        ]}
      />
      <Dialog
        open={removing !== null}
        onClose={() => setRemoving(null)}
        title={`Remove ${removing?.fileName ?? ''}?`}
        description="Its lines go with it. The file can be imported again."
      >
        {wrong !== '' && (
          <p role="alert" className="mb-2 text-brick">
            ▲ {wrong}
          </p>
        )}
        <div className="flex gap-2.5">
          <Button weight="grave" onClick={() => void remove()}>
            Remove it
          </Button>
          <Button onClick={() => setRemoving(null)}>Keep it</Button>
        </div>
      </Dialog>
    </>
  );
}
