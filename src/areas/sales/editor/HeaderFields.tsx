'use client';

import { type ReactNode, useId, useState } from 'react';
import type { CustomerRow } from '@/core/decisions/changes';
import type { Draft } from '@/core/documents/draft';
import { datesOf } from '@/core/documents/lineTax';
import { isIsoDate, writeDate } from '@/core/kernel/date';
import { readTypedDate } from '@/core/parties/terms';
import type { Registration } from '@/core/tax/registration';
import { findCustomers } from '@/store/queries/documents';
import { FindBox } from '@/ui/FindBox';
import { today } from '../../shell/book';
import { useFinder } from '../../shell/useFinder';
import type { DraftStore } from './draftStore';

interface HeaderFieldsProps {
  readonly store: DraftStore;
  readonly draft: Draft;
  readonly customer: CustomerRow | null;
  /** Paths with a problem. */
  readonly wrong: ReadonlySet<string>;
  readonly registrations: readonly Registration[];
  readonly onPickCustomer: (id: string) => void;
  readonly onNewCustomer: (name: string) => void;
}

function Slot({
  label,
  children,
  htmlFor,
}: {
  readonly label: string;
  readonly children: ReactNode;
  readonly htmlFor?: string;
}) {
  return (
    <div className="border-rule border-b pb-0.5">
      <label htmlFor={htmlFor} className="block text-soft text-sm">
        {label}
      </label>
      {children}
    </div>
  );
}

interface TextSlotProps {
  readonly label: string;
  readonly field: 'orderNumber' | 'buyerReference';
  readonly store: DraftStore;
  readonly draft: Draft;
}

function TextSlot({ label, field, store, draft }: TextSlotProps) {
  const id = useId();
  return (
    <Slot label={label} htmlFor={id}>
      <input
        id={id}
        data-field={field}
        autoComplete="off"
        className="cell -mx-1.5"
        value={draft[field]}
        onChange={(event) => store.change({ [field]: event.target.value })}
      />
    </Slot>
  );
}

interface DateSlotProps {
  readonly label: string;
  readonly field: 'issueDate' | 'taxPoint' | 'due';
  readonly store: DraftStore;
  readonly draft: Draft;
  readonly wrong: ReadonlySet<string>;
}

/** What stands in a date field while it is not written in: the day, and for a due date its terms. */
function shownDay(draft: Draft, field: DateSlotProps['field']): string {
  const { issueDate, taxPoint, dueDate } = datesOf(draft);
  const day = { issueDate, taxPoint, due: dueDate }[field];
  if (day === null) return draft[field];
  return field === 'due' && !isIsoDate(draft.due) ? `${writeDate(day)} · ${draft.due}` : writeDate(day);
}

/** A day, typed as `today`, `23/11`, an ISO date or an offset such as `14d`; read when the field is left. */
function DateSlot({ label, field, store, draft, wrong }: DateSlotProps) {
  const id = useId();
  const [typed, setTyped] = useState<string | null>(null);
  const leave = () => {
    if (typed === null) return;
    setTyped(null);
    const text = typed.trim();
    if (field === 'taxPoint' && text === '') return store.change({ taxPoint: '' });
    const issue = isIsoDate(draft.issueDate) ? draft.issueDate : today();
    const day = readTypedDate(text, today(), issue);
    // Terms stay terms, so that they follow the issue date; what can't be read stays as typed and is pointed out.
    const keep = field === 'due' && /^(\d+[dwm]|eom)/i.test(text) ? text.toLowerCase() : (day ?? text);
    if (keep !== draft[field]) store.change({ [field]: keep });
  };
  return (
    <Slot label={label} htmlFor={id}>
      <input
        id={id}
        data-field={field}
        aria-invalid={wrong.has(field)}
        autoComplete="off"
        className="cell -mx-1.5"
        title="today, 23/11, 2026-11-23, or from the issue date: 14d, 2w, 1m, eom, eom+10d"
        value={typed ?? shownDay(draft, field)}
        onChange={(event) => setTyped(event.target.value)}
        onFocus={(event) => event.target.select()}
        onBlur={leave}
        onKeyDown={(event) => {
          if (event.key === 'Enter') leave();
        }}
      />
    </Slot>
  );
}

/** Customer, dates and references at the head of the sheet. */
export function HeaderFields(props: HeaderFieldsProps) {
  const { store, draft, customer, wrong, registrations, onPickCustomer, onNewCustomer } = props;
  const [typed, setTyped] = useState<string | null>(null);
  const { rows: options, pending } = useFinder(findCustomers, typed ?? '');
  const registrationField = useId();
  const decided = registrations.find((r) => r.id === draft.registrationId);
  return (
    <div className="mb-5 grid grid-cols-[1.3fr_1fr_1fr] gap-x-5 gap-y-1">
      <Slot label="Customer">
        <FindBox
          label="Customer"
          fieldName="customerId"
          pending={pending}
          className="cell -mx-1.5"
          value={typed ?? customer?.name ?? ''}
          placeholder="Who is it for?"
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
      </Slot>
      <DateSlot label="Issue date" field="issueDate" store={store} draft={draft} wrong={wrong} />
      <DateSlot label="Due" field="due" store={store} draft={draft} wrong={wrong} />
      <TextSlot label="Order number" field="orderNumber" store={store} draft={draft} />
      <DateSlot label="Tax point" field="taxPoint" store={store} draft={draft} wrong={wrong} />
      <TextSlot label="Buyer reference" field="buyerReference" store={store} draft={draft} />
      {registrations.length > 1 && (
        <Slot label="Reported under" htmlFor={registrationField}>
          <select
            id={registrationField}
            className="cell -mx-1.5 cursor-pointer"
            value={draft.registrationByHand ? draft.registrationId : ''}
            onChange={({ target: { value } }) =>
              store.change(
                value === '' ? { registrationByHand: false } : { registrationByHand: true, registrationId: value },
              )
            }
          >
            <option value="">{decided?.name ?? 'none yet'}</option>
            {registrations.map(({ id, name }) => (
              <option key={id} value={id}>
                {name}, by hand
              </option>
            ))}
          </select>
        </Slot>
      )}
    </div>
  );
}
