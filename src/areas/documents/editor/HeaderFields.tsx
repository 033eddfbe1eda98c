'use client';

import { useState } from 'react';
import type { CustomerRow } from '@/core/book/rows';
import type { Draft } from '@/core/documents/draft';
import { type DraftKind, traitsOfDraft } from '@/core/documents/kinds';
import { PAYMENT_METHODS, type PaymentMethod } from '@/core/parties/paymentMethod';
import type { Registration } from '@/core/tax/registration';
import { findCustomers } from '@/store/sales/queries/documents';
import { FindBox } from '@/ui/FindBox';
import { TextButton } from '@/ui/TextButton';
import { useFinder } from '../../shell/useFinder';
import type { DraftStore } from './draftStore';
import { ChoiceSlot, DateSlot, Slot, TextSlot } from './slots';

interface HeaderFieldsProps {
  readonly store: DraftStore;
  readonly draft: Draft;
  readonly customer: CustomerRow | null;
  /** Paths with a problem. */
  readonly wrong: ReadonlySet<string>;
  readonly registrations: readonly Registration[];
  readonly onPickCustomer: (id: string) => void;
  readonly onNewCustomer: (name: string) => void;
  readonly onEditCustomer: () => void;
}

const DATE_WORDS: Readonly<Record<DraftKind, string>> = {
  invoice: 'Issue date',
  quote: 'Date',
  'cash-sale': 'Date of sale',
};

/** Customer, dates and references at the head of the sheet. */
export function HeaderFields(props: HeaderFieldsProps) {
  const { store, draft, customer, wrong, registrations, onPickCustomer, onNewCustomer, onEditCustomer } = props;
  const [typed, setTyped] = useState<string | null>(null);
  const { rows: options, pending } = useFinder(findCustomers, typed ?? '');
  const traits = traitsOfDraft(draft.kind);
  const decided = registrations.find((r) => r.id === draft.registrationId);
  return (
    <div className="mb-2 grid grid-cols-[1.3fr_1fr_1fr] gap-x-5 gap-y-1">
      <Slot label="Customer">
        <div className="flex gap-2">
          <FindBox
            label="Customer"
            fieldName="customerId"
            autoFocus={draft.customerId === ''}
            pending={pending}
            className="cell -mx-1.5"
            value={typed ?? customer?.name ?? ''}
            placeholder="Customer"
            invalid={wrong.has('customerId')}
            options={options.map((c) => ({ id: c.id, label: c.name, detail: c.address.city }))}
            onType={setTyped}
            onLeave={() => setTyped(null)}
            onPick={(option) => {
              setTyped(null);
              onPickCustomer(option.id);
            }}
            {...(typed?.trim() && {
              create: { label: `New customer “${typed.trim()}”`, onCreate: () => onNewCustomer(typed.trim()) },
            })}
          />
          {customer !== null && typed === null && (
            <TextButton
              title={`Edit the details of ${customer.name}`}
              aria-label={`Edit ${customer.name}`}
              className="text-soft text-sm"
              onClick={onEditCustomer}
            >
              edit
            </TextButton>
          )}
        </div>
      </Slot>
      <DateSlot label={DATE_WORDS[draft.kind]} field="issueDate" store={store} draft={draft} wrong={wrong} />
      {traits.paidAtOnce ? (
        <ChoiceSlot
          label="Paid by"
          field="paidBy"
          value={draft.paidBy}
          options={PAYMENT_METHODS.map((method) => [method, method] as const)}
          onPick={(value) => store.change({ paidBy: value as PaymentMethod })}
        />
      ) : (
        <DateSlot label={traits.posts ? 'Due' : 'Valid until'} field="due" store={store} draft={draft} wrong={wrong} />
      )}
      <TextSlot label="Order number" field="orderNumber" store={store} draft={draft} />
      <DateSlot label="Tax point" field="taxPoint" store={store} draft={draft} wrong={wrong} />
      <TextSlot label="Buyer reference" field="buyerReference" store={store} draft={draft} />
      {registrations.length > 1 && (
        <ChoiceSlot
          label="Reported under"
          field="registrationId"
          value={draft.registrationByHand ? draft.registrationId : ''}
          options={[
            ['', decided?.name ?? 'none yet'],
            ...registrations.map(({ id, name }) => [id, `${name}, chosen manually`] as const),
          ]}
          onPick={(value) =>
            store.change(
              value === '' ? { registrationByHand: false } : { registrationByHand: true, registrationId: value },
            )
          }
        />
      )}
    </div>
  );
}
