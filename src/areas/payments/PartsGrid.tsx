'use client';

import { Trash2 } from 'lucide-react';
import type { KeyboardEvent } from 'react';
import type { Currency } from '@/core/kernel/currency';
import type { Account } from '@/core/ledger/account';
import { moneyAccountFor } from '@/core/ledger/account';
import { PAYMENT_METHODS, type PaymentMethod } from '@/core/parties/paymentMethod';
import { Button } from '@/ui/Button';
import { ChoiceField, TextField } from '@/ui/Field';
import { DateField } from '../shared/DateField';
import type { TypedPart } from './typedReceipt';

interface PartsGridProps {
  readonly parts: readonly TypedPart[];
  readonly currency: Currency;
  readonly home: Currency;
  readonly accounts: readonly Account[];
  readonly errorAt: (path: string) => string | undefined;
  readonly onChange: (parts: readonly TypedPart[]) => void;
  readonly onAdd: () => void;
  /** Enter in an amount. */
  readonly onEnter: () => void;
}

/** The ways in which money came, one a row: method, what goes with it, charge, amount. */
export function PartsGrid(props: PartsGridProps) {
  const { parts, currency, home, accounts, errorAt, onChange, onAdd, onEnter } = props;
  const change = (id: string, patch: Partial<TypedPart>) =>
    onChange(parts.map((part) => (part.id === id ? { ...part, ...patch } : part)));
  const enter = (event: KeyboardEvent) => {
    if (event.key === 'Enter' && !event.ctrlKey) onEnter();
  };
  const assets = accounts.filter(({ type, role }) => type === 'asset' && role !== 'receivables');
  return (
    <fieldset className="mt-1">
      <legend className="sr-only">Payment</legend>
      {parts.map((part, i) => {
        const called = parts.length > 1 ? ` ${i + 1}` : '';
        const set = (field: keyof TypedPart) => ({
          value: part[field],
          error: errorAt(`parts[${i}].${field}`),
          onChange: (event: { target: { value: string } }) => change(part.id, { [field]: event.target.value }),
        });
        return (
          <div key={part.id} className="flex items-start gap-x-3">
            <ChoiceField
              label={`Payment method${called}`}
              className="w-[96px]"
              options={PAYMENT_METHODS.map((m) => [m, m] as const)}
              value={part.method}
              onChange={(event) => change(part.id, { method: event.target.value as PaymentMethod, account: '' })}
            />
            {part.method === 'cheque' ? (
              <>
                <TextField label={`Cheque no.${called}`} className="min-w-[84px] flex-1" {...set('chequeNumber')} />
                <DateField
                  label={`Cheque date${called}`}
                  className="w-[112px]"
                  placeholder="as above"
                  {...set('chequeDate')}
                />
              </>
            ) : (
              <ChoiceField
                label={`Account${called}`}
                className="min-w-0 flex-1"
                options={assets.map(({ code, name }) => [code, `${code} ${name}`] as const)}
                {...set('account')}
                value={part.account || moneyAccountFor(accounts, part.method)}
              />
            )}
            <TextField
              label={`Bank charge${called}`}
              className="w-[98px]"
              inputMode="decimal"
              placeholder="none"
              {...set('charge')}
            />
            {currency !== home && (
              <TextField
                label={`Amount in ${home}${called}`}
                className="w-[104px]"
                inputMode="decimal"
                placeholder="by the rate"
                {...set('home')}
              />
            )}
            <TextField
              label={`Amount received${called}`}
              data-amount
              className="w-[122px]"
              inputMode="decimal"
              {...set('amount')}
              onKeyDown={enter}
            />
            {parts.length > 1 && (
              <button
                type="button"
                aria-label={`Remove${called}`}
                title="Remove it"
                className="mt-[22px] cursor-pointer p-1 text-soft hover:text-ink"
                onClick={() => onChange(parts.filter(({ id }) => id !== part.id))}
              >
                <Trash2 size={15} strokeWidth={1.6} aria-hidden="true" />
              </button>
            )}
          </div>
        );
      })}
      <Button weight="quiet" className="-mt-1 mb-2" onClick={onAdd}>
        Add another payment
      </Button>
    </fieldset>
  );
}
