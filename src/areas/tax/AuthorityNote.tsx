'use client';

import { useState } from 'react';
import { toast } from 'sonner';
import { dayOf, writeDate } from '@/core/kernel/date';
import { minus, NOTHING, total } from '@/core/kernel/money';
import { showMoney } from '@/core/kernel/show';
import { type Span, spanName } from '@/core/returns/calendar';
import { leftOf } from '@/core/returns/taxPayment';
import { wordRefusals } from '@/core/wording/refusals';
import { undoAuthorityPayment } from '@/store/tax/actions/payTax';
import { owedReturns } from '@/store/tax/queries/owed';
import { versionsOf } from '@/store/tax/queries/versions';
import { Button } from '@/ui/Button';
import { Money } from '@/ui/Money';
import { Note, NoteRow } from '@/ui/Page';
import { useOpenBook } from '../shell/BookContext';
import { act, today, useBook } from '../shell/book';
import { PayDialog } from './PayDialog';

/** What the authority is owed by return, what was paid of the one that is shown, and its earlier versions. */
export function AuthorityNote({ span }: { readonly span: Span }) {
  const { registration, currency, accounts } = useOpenBook();
  const [paying, setPaying] = useState(false);
  const owed = useBook((db) => owedReturns(db, registration, accounts), [registration.id], [registration, accounts]);
  const versions = useBook((db) => versionsOf(db, registration.id, span.start), [registration.id, span.start]) ?? [];
  if (owed === undefined) return null;
  const all = [...owed.returns, ...owed.openedAgain];
  const shown = all.find(({ period }) => period.start === span.start);
  const waiting = all.filter((one) => leftOf(one) !== NOTHING);
  const left = minus(total(all.map(leftOf)), owed.setOff);
  const undo = async (id: string) => {
    const result = await act(undoAuthorityPayment, { id, date: today() });
    toast(result.ok ? 'The payment is undone' : wordRefusals(result.refusals));
  };
  if (all.length === 0 && versions.length === 0) return null;
  return (
    <Note title={`Owed to ${registration.authority}`}>
      {waiting.map((one) => (
        <NoteRow
          key={one.periodId}
          label={`${spanName(one.period)}, ${one.period.filed === null ? 'reopened' : `filed ${writeDate(dayOf(one.period.filed.at))}`}`}
          figure={showMoney(leftOf(one), currency)}
        />
      ))}
      {owed.setOff !== NOTHING && (
        <NoteRow label="less tax withheld, set off" figure={showMoney(owed.setOff, currency)} />
      )}
      <NoteRow label={left < 0n ? 'The authority owes us' : 'Left to pay'} figure={showMoney(left, currency)} strong />
      {shown !== undefined && (
        <>
          <ul className="mt-2 text-sm">
            {shown.payments.map(({ id, date, amount, reference, undone }) => (
              <li key={id} className="flex items-baseline gap-2">
                <span className={`flex-1 ${undone === null ? '' : 'text-soft line-through'}`}>
                  {amount < 0n ? 'Refund' : 'Paid'} {writeDate(date)} {reference}
                </span>
                <Money amount={amount} currency={currency} />
                {undone === null && (
                  <Button weight="quiet" onClick={() => void undo(id)}>
                    Undo<span className="sr-only"> the payment of {writeDate(date)}</span>
                  </Button>
                )}
              </li>
            ))}
          </ul>
          {shown.period.filed !== null && leftOf(shown) !== NOTHING && (
            <Button className="mt-2" onClick={() => setPaying(true)}>
              {leftOf(shown) < 0n ? 'Record a refund…' : 'Record a payment…'}
            </Button>
          )}
        </>
      )}
      {versions.length > 0 && (
        <ul className="mt-3 border-rule border-t pt-2 text-sm" aria-label="Earlier versions of this return">
          {versions.map(({ id, at, figures, reopened }) => (
            <li key={id} className="mb-1">
              Filed {writeDate(dayOf(at))} with {showMoney(figures.tax, currency)}; reopened{' '}
              {writeDate(dayOf(reopened.at))} by {reopened.operator}: {reopened.reason}
            </li>
          ))}
        </ul>
      )}
      {paying && shown !== undefined && <PayDialog span={span} left={leftOf(shown)} onClose={() => setPaying(false)} />}
    </Note>
  );
}
