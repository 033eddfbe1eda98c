'use client';

import { useState } from 'react';
import { findCustomers } from '@/store/sales/queries/documents';
import { ChoiceField, TextField } from '@/ui/Field';
import { FindBox } from '@/ui/FindBox';
import { DateField } from '../shared/DateField';
import { useOpenBook } from '../shell/BookContext';
import { useFinder } from '../shell/useFinder';
import type { TypedHead } from './typedReceipt';
import type { TypedReceipt } from './useTypedReceipt';

/** Fields that stand behind “Number, currency, remarks”. */
const SELDOM: readonly (keyof TypedHead)[] = ['number', 'perHome', 'remarks'];

/** Who paid, when and with which words; what is seldom given stands folded away. */
export function ReceiptHead({ receipt }: { readonly receipt: TypedReceipt }) {
  const { currency: home } = useOpenBook();
  const [finding, setFinding] = useState<string | null>(null);
  const { rows: options, pending } = useFinder(findCustomers, finding ?? '');
  const { customer, head, currency, currencies, errorAt } = receipt;
  const typing = (field: keyof TypedHead) => ({
    value: head[field],
    error: errorAt(field),
    onChange: (event: { target: { value: string } }) => receipt.typeHead(field, event.target.value),
  });
  const wrong = errorAt('customerId');
  const unfolded = currency !== home || SELDOM.some((field) => head[field] !== '' || errorAt(field) !== undefined);
  return (
    <>
      <div className="grid grid-cols-[1.5fr_120px_1fr] gap-x-4">
        <div>
          <span className="block text-soft text-sm">Customer</span>
          <FindBox
            label="Customer"
            className="h-8 w-full rounded-sm border border-rule bg-sheet px-2 hover:border-soft"
            value={finding ?? customer?.name ?? ''}
            placeholder="Customer"
            autoFocus={customer === null}
            pending={pending}
            invalid={wrong !== undefined}
            options={options.map((c) => ({ id: c.id, label: c.name, detail: c.address.city }))}
            onType={setFinding}
            onLeave={() => setFinding(null)}
            onPick={(option) => {
              setFinding(null);
              receipt.pickCustomer(option.id, option.label);
              // Who paid is known: what was paid comes next.
              requestAnimationFrame(() => document.querySelector<HTMLInputElement>('[data-amount]')?.focus());
            }}
          />
          <p className="text-brick text-sm">{wrong && `▲ ${wrong}`}</p>
        </div>
        <DateField label="Date" {...typing('date')} />
        <TextField label="Reference" {...typing('reference')} />
      </div>
      <details className="mb-1" open={unfolded}>
        <summary className="mb-1 cursor-pointer text-soft text-sm">Number, currency, remarks</summary>
        <div className="grid grid-cols-[1fr_110px_1fr_1.3fr] gap-x-4">
          <TextField label="Number" placeholder="next of the series" {...typing('number')} />
          <ChoiceField
            label="Currency"
            options={currencies.map((code) => [code, code] as const)}
            value={currency}
            onChange={(event) => receipt.pickCurrency(event.target.value)}
          />
          {currency === home ? (
            <span />
          ) : (
            <TextField
              label={`1 ${home} in ${currency}`}
              inputMode="decimal"
              placeholder="rate of the date"
              {...typing('perHome')}
            />
          )}
          <TextField label="Remarks" placeholder="internal" {...typing('remarks')} />
        </div>
      </details>
    </>
  );
}
