'use client';

import { useState } from 'react';
import { takingOff } from '@/core/documents/advances';
import type { Draft } from '@/core/documents/draft';
import type { Currency } from '@/core/kernel/currency';
import { writeDate } from '@/core/kernel/date';
import { total } from '@/core/kernel/money';
import { showMoney } from '@/core/kernel/show';
import { advancesOf } from '@/store/sales/queries/advances';
import { Button } from '@/ui/Button';
import { Dialog } from '@/ui/Dialog';
import { TextButton } from '@/ui/TextButton';
import { useOpenBook } from '../../shell/BookContext';
import { useBook } from '../../shell/book';
import type { DraftStore } from './draftStore';

interface AdvancesProps {
  readonly store: DraftStore;
  readonly draft: Draft;
}

/** Offers what is left of the customer's advance invoices, to be taken off by lines below zero. */
export function Advances({ store, draft }: AdvancesProps) {
  const { currency: home } = useOpenBook();
  const [asking, setAsking] = useState(false);
  const { customerId, kind, priceMode } = draft;
  const all = useBook(
    async (db) => (customerId === '' || kind !== 'invoice' ? [] : await advancesOf(db, customerId)),
    [customerId, kind],
  );
  const taken = new Set(draft.lines.flatMap(({ takesOff }) => (takesOff ? [takesOff.documentId] : [])));
  const currency = (draft.currency || home) as Currency;
  const open = (all ?? []).filter(
    (one) => one.parts.length > 0 && one.currency === currency && !taken.has(one.documentId),
  );
  if (open.length === 0 || draft.advance === true) return null;
  return (
    <>
      <TextButton onClick={() => setAsking(true)}>Deduct an advance…</TextButton>
      <Dialog
        open={asking}
        onClose={() => setAsking(false)}
        title="Deduct an advance"
        description="A line below zero for each tax that the advance charged; net, tax and return then count only the rest."
      >
        <ul>
          {open.map((advance) => (
            <li key={advance.documentId} className="flex items-baseline gap-3 border-rule border-b py-1.5">
              <span className="flex-1">
                {advance.number} of {writeDate(advance.issueDate)}
                <span className="block text-soft text-sm">
                  {advance.priceMode === priceMode
                    ? `${showMoney(total(advance.parts.map(({ left }) => left)), currency)} ${currency} ${priceMode === 'net' ? 'without' : 'with'} tax left`
                    : `its prices ${advance.priceMode === 'net' ? 'exclude' : 'include'} tax: switch the prices of this invoice first`}
                </span>
              </span>
              <Button
                disabled={advance.priceMode !== priceMode}
                onClick={() => {
                  const words = `Advance ${advance.number} of ${writeDate(advance.issueDate)}`;
                  store.addLines(takingOff(advance, words, () => crypto.randomUUID()));
                  setAsking(false);
                }}
              >
                Deduct {advance.number}
              </Button>
            </li>
          ))}
        </ul>
        <div className="mt-4">
          <Button onClick={() => setAsking(false)}>Not now</Button>
        </div>
      </Dialog>
    </>
  );
}
