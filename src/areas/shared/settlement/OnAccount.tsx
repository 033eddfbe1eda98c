'use client';

import { useState } from 'react';
import type { Currency } from '@/core/kernel/currency';
import { type Credit, leftOfCredit } from '@/core/settlement/allocation';
import { creditsHeld } from '@/store/payments/queries/onAccount';
import { Button } from '@/ui/Button';
import Link from '@/ui/Link';
import { Mark } from '@/ui/Mark';
import { Money } from '@/ui/Money';
import { useBook } from '../../shell/book';
import { routes } from '../../shell/routes';
import { AllocateDialog, type CreditLeft } from './AllocateDialog';

interface OnAccountProps {
  readonly customerId: string;
  /** A document that they can settle: only what is of its currency is told then. */
  readonly debt?: { readonly id: string; readonly currency: Currency };
}

const leftOf = (credit: Credit): CreditLeft => {
  const { id, number, customerId, currency, open } = leftOfCredit(credit);
  return { id, number, customerId, currency, left: open };
};

/** What is held for a customer, each to be used in place: money on account and open credit notes; nothing where there is none. */
export function OnAccount({ customerId, debt }: OnAccountProps) {
  const held = useBook((db) => creditsHeld(db, customerId), [customerId]) ?? [];
  const [using, setUsing] = useState<CreditLeft | null>(null);
  const shown = held.filter((credit) => debt === undefined || leftOfCredit(credit).currency === debt.currency);
  if (shown.length === 0) return null;
  return (
    <>
      <ul aria-label="On account" className="mb-3">
        {shown.map((credit) => {
          const left = leftOf(credit);
          const path = credit.kind === 'receipt' ? routes.receipt(left.id) : routes.document(left.id);
          return (
            <li key={left.id} className="flex flex-wrap items-baseline gap-x-1.5">
              <Mark kind="note" />
              <Money amount={left.left} currency={left.currency} withCode />
              <span>
                {credit.kind === 'receipt' ? 'is on account from' : 'is left of'}{' '}
                <Link href={path} className="underline underline-offset-2">
                  {left.number}
                </Link>
              </span>
              <Button weight="quiet" className="-my-1" onClick={() => setUsing(left)}>
                Allocate…
              </Button>
            </li>
          );
        })}
      </ul>
      {using !== null && (
        <AllocateDialog credit={using} {...(debt && { debtId: debt.id })} onClose={() => setUsing(null)} />
      )}
    </>
  );
}
