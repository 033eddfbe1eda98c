'use client';

import type { Changes } from '@/core/book/changes';
import type { Currency } from '@/core/kernel/currency';
import type { IsoDate } from '@/core/kernel/date';
import { NOTHING } from '@/core/kernel/money';
import type { Result } from '@/core/kernel/result';
import { showMoney } from '@/core/kernel/show';
import type { Debt } from '@/core/settlement/proposal';
import { wordRefusals } from '@/core/wording/refusals';
import { Mark } from '@/ui/Mark';
import { Margin, Note, NoteRow } from '@/ui/Page';
import { useOpenBook } from '../shell/BookContext';
import { today } from '../shell/book';
import { EntriesNote } from '../shell/EntriesNote';
import { receiptChecks } from './receiptChecks';
import { EMPTY_ROW, type ReadReceipt, restOf, type TypedRow } from './typedReceipt';

interface ReceiptMarginProps {
  readonly read: ReadReceipt;
  readonly debts: readonly Debt[];
  readonly rows: Readonly<Record<string, TypedRow>>;
  readonly currency: Currency;
  readonly valueDate: IsoDate;
  /** What recording would write; undefined while it is not known. */
  readonly planned: Result<Changes> | undefined;
}

/** Beside a new receipt: how each document comes to what is left, what to look at, and what would be posted. */
export function ReceiptMargin({ read, debts, rows, currency, valueDate, planned }: ReceiptMarginProps) {
  const { currency: home, registrations } = useOpenBook();
  const { to } = read.input;
  const checks = receiptChecks(read, debts, today(), valueDate, registrations);
  const show = (amount: bigint) => showMoney(amount as typeof NOTHING, currency);
  return (
    <Margin>
      <Note title="Workings">
        {to.length === 0 && <p className="text-soft text-sm">What remains open on each invoice appears here.</p>}
        {to.map((one) => {
          const debt = debts.find(({ document }) => document.id === one.documentId);
          if (debt === undefined) return null;
          const parts = [
            ['money', one.money],
            ...(one.withheld ?? []).map(({ amount }) => ['withheld', amount] as const),
            ['discount', one.discount ?? NOTHING],
            ['difference', one.difference?.amount ?? NOTHING],
          ] as const;
          const rest = restOf(debt, rows[one.documentId] ?? EMPTY_ROW, currency);
          return (
            <div key={one.documentId} className="mb-2">
              <NoteRow label={`${one.number}, open`} figure={show(debt.document.open)} />
              {parts.map(([words, amount], i) =>
                amount === NOTHING ? null : (
                  <NoteRow key={`${words}-${i}`} label={`less ${words}`} figure={show(amount)} />
                ),
              )}
              <NoteRow label="stays open" figure={rest === null ? '?' : show(rest)} strong />
            </div>
          );
        })}
      </Note>
      {checks.length > 0 && (
        <Note title="Checks">
          <ul>
            {checks.map((words) => (
              <li key={words} className="mb-1 text-sm">
                <Mark kind="note" /> {words}
              </li>
            ))}
          </ul>
        </Note>
      )}
      <EntriesNote sides={planned?.ok ? (planned.value.add?.journalLines ?? []) : []}>
        {planned?.ok === false && <p className="text-soft text-sm">{wordRefusals(planned.refusals)}</p>}
        {planned?.ok && currency !== home && (
          <p className="mt-1 text-soft text-sm">
            Posted in {home} by the rate of the date, or by what the bank credited; what differs from the invoices’ own
            rate goes to exchange differences.
          </p>
        )}
      </EntriesNote>
    </Margin>
  );
}
