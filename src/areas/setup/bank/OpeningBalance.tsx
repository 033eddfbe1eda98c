'use client';

import { useState } from 'react';
import { toast } from 'sonner';
import { writeDate } from '@/core/kernel/date';
import { writeMoney } from '@/core/kernel/money';
import type { BankAccount } from '@/core/parties/bankAccount';
import { stateOpeningBalance } from '@/store/bank/actions/accounts';
import { Button } from '@/ui/Button';
import { Dialog } from '@/ui/Dialog';
import { TextField } from '@/ui/Field';
import Link from '@/ui/Link';
import { Money } from '@/ui/Money';
import { DateField } from '../../shared/DateField';
import { SlipFoot } from '../../shared/FormFoot';
import { typedDay } from '../../shared/typedDay';
import { useActionForm } from '../../shared/useActionForm';
import { useOpenBook } from '../../shell/BookContext';
import { act } from '../../shell/book';
import { routes } from '../../shell/routes';

/** What an account held when the book was moved in, and the slip that states it. */
export function OpeningBalance({ account }: { readonly account: BankAccount }) {
  const [asking, setAsking] = useState(false);
  const { opening, currency } = account;
  return (
    <section aria-label="Opening balance" className="mt-6 border-rule border-t pt-3">
      <h2 className="mb-1 font-semibold font-serif">Opening balance</h2>
      <p className="mb-2">
        {opening === undefined ? (
          <span className="text-soft">None. Enter what the account held when the book was moved in.</span>
        ) : (
          <>
            <Money amount={opening.amount} currency={currency} withCode /> at the end of {writeDate(opening.date)}
            {opening.entryId !== '' && (
              <>
                {' · '}
                <Link href={routes.entry(opening.entryId)} className="underline decoration-rule underline-offset-4">
                  Entry
                </Link>
              </>
            )}
          </>
        )}
      </p>
      <Button onClick={() => setAsking(true)}>
        {opening === undefined ? 'Enter the opening balance…' : 'Change the opening balance…'}
      </Button>
      {asking && <OpeningSlip account={account} onClose={() => setAsking(false)} />}
    </section>
  );
}

function OpeningSlip({ account, onClose }: { readonly account: BankAccount; readonly onClose: () => void }) {
  const { currency: home } = useOpenBook();
  const { currency, opening } = account;
  const { submit, field, general, busy, isDirty } = useActionForm({
    initial: {
      date: opening?.date ?? '',
      amount: opening === undefined ? '' : String(writeMoney(opening.amount, currency)),
      home: opening === undefined ? '' : String(writeMoney(opening.home, home)),
    },
    run: ({ date, amount, home: worth }) =>
      act(stateOpeningBalance, {
        bankAccountId: account.id,
        date: typedDay(date),
        amount,
        home: currency === home ? '' : worth,
      }),
    onDone: () => {
      toast('The opening balance is saved');
      onClose();
    },
  });
  return (
    <Dialog
      unsaved={isDirty}
      open
      onClose={onClose}
      title={`Opening balance of ${account.name}`}
      description="It stands against opening balances in the ledger. The bank shows it in its own balance, so no line is looked for."
    >
      <form onSubmit={submit}>
        <div className="grid grid-cols-3 gap-x-4">
          <DateField label="At the end of" autoFocus {...field('date')} />
          <TextField
            label={`Balance, ${currency}`}
            inputMode="decimal"
            hint="Below zero for an overdraft"
            {...field('amount')}
          />
          {currency !== home && (
            <TextField
              label={`Worth in ${home}`}
              inputMode="decimal"
              hint="Empty: by the rate of that day"
              {...field('home')}
            />
          )}
        </div>
        <SlipFoot label="Save the opening balance" busy={busy} general={general} leave="Not now" onClose={onClose} />
      </form>
    </Dialog>
  );
}
