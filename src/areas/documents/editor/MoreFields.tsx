'use client';

import { useId, useState } from 'react';
import type { CustomerRow } from '@/core/book/rows';
import type { Draft } from '@/core/documents/draft';
import { traitsOfDraft } from '@/core/documents/kinds';
import { paidInto, type Setting } from '@/core/documents/setting';
import { writeDate } from '@/core/kernel/date';
import { showNumber } from '@/core/kernel/show';
import { type Address, addressLines } from '@/core/parties/address';
import { allOf } from '@/store/records';
import { Attachments } from '../../shared/Attachments';
import { countryName } from '../../shared/choices';
import { useBook } from '../../shell/book';
import { readTags } from '../tags';
import { CurrencySlot } from './CurrencySlot';
import type { DraftStore } from './draftStore';
import { ChoiceSlot, DateSlot, Slot, TextSlot } from './slots';
import type { Save } from './useAutosave';

interface MoreFieldsProps {
  readonly store: DraftStore;
  readonly draft: Draft;
  readonly customer: CustomerRow | null;
  readonly setting: Setting;
  readonly wrong: ReadonlySet<string>;
  readonly save: Save;
}

const NO_ADDRESS: Address = { street: '', city: '', region: '', postalCode: '', country: '' };

const PLACE_FIELDS: readonly (readonly [keyof Address, string])[] = [
  ['street', 'Street'],
  ['postalCode', 'Postal code'],
  ['city', 'Town'],
  ['region', 'Region'],
  ['country', 'Country, two letters'],
];

/** Where it goes: the customer's address, one that is kept with the customer, or one that is typed. */
function DeliveryFields({ store, draft, customer }: Pick<MoreFieldsProps, 'store' | 'draft' | 'customer'>) {
  const { delivery } = draft;
  const kept = customer?.addresses ?? [];
  const at = kept.findIndex(({ address }) => JSON.stringify(address) === JSON.stringify(delivery));
  const pick = (value: string) => {
    if (value === 'none') return store.change({ delivery: null });
    const named = kept[Number(value)];
    store.change({
      delivery: named?.address ?? delivery ?? { ...NO_ADDRESS, country: customer?.address.country ?? '' },
    });
  };
  return (
    <>
      <ChoiceSlot
        label="Delivered to"
        field="delivery"
        value={delivery === null ? 'none' : at < 0 ? 'typed' : String(at)}
        options={[
          ['none', 'the customer’s address'],
          ...kept.map(({ label, address }, i) => [String(i), `${label}, ${address.city}`] as const),
          ['typed', 'another address'],
        ]}
        onPick={pick}
      />
      {delivery !== null && at >= 0 && (
        <p className="col-span-2 self-end text-soft text-sm">{addressLines(delivery, countryName).join(', ')}</p>
      )}
      {delivery !== null &&
        at < 0 &&
        PLACE_FIELDS.map(([part, label]) => (
          <PlaceField
            key={part}
            label={label}
            value={delivery[part]}
            onChange={(value) =>
              store.change({
                delivery: { ...delivery, [part]: part === 'country' ? value.toUpperCase().slice(0, 2) : value },
              })
            }
          />
        ))}
    </>
  );
}

function PlaceField({
  label,
  value,
  onChange,
}: {
  readonly label: string;
  readonly value: string;
  readonly onChange: (value: string) => void;
}) {
  const id = useId();
  return (
    <Slot label={label} htmlFor={id}>
      <input
        id={id}
        data-field={`delivery.${label}`}
        className="cell -mx-1.5"
        value={value}
        onChange={(event) => onChange(event.target.value)}
      />
    </Slot>
  );
}

/** What of the draft stands in the fold, so that it is not forgotten while the fold is shut. */
function filled(draft: Draft): number {
  const texts = [
    draft.subject,
    draft.contact,
    draft.salesperson,
    draft.supplyFrom,
    draft.accountingDate,
    draft.currency,
    draft.carrier,
    draft.tracking,
    draft.remarks,
    draft.conditions,
  ];
  return texts.filter((text) => text.trim() !== '').length + draft.tags.length + (draft.delivery === null ? 0 : 1);
}

/** Everything a header may say beside customer, dates and references; folded until it is wanted. */
export function MoreFields({ store, draft, customer, setting, wrong, save }: MoreFieldsProps) {
  const styles = useBook((db) => allOf(db, 'styles')) ?? [];
  const [tags, setTags] = useState(draft.tags.join(', '));
  const people = useId();
  const tagField = useId();
  const remarkField = useId();
  const conditionField = useId();
  const { homeCurrency } = setting.business;
  const rate = draft.currency === '' ? null : setting.rateOf(draft.currency);
  const count = filled(draft);
  return (
    <details
      className="mb-4"
      open={[...wrong].some((path) => ['perHome', 'supplyFrom', 'accountingDate'].includes(path)) || undefined}
    >
      <summary className="cursor-pointer text-soft text-sm">
        More: subject, currency, delivery, tags, remarks{count > 0 && ` · ${count} filled in`}
      </summary>
      <div className="mt-1 grid grid-cols-3 gap-x-5 gap-y-1">
        <TextSlot label="Subject" field="subject" store={store} draft={draft} />
        <TextSlot label="For the attention of" field="contact" store={store} draft={draft} list={people} />
        <datalist id={people}>
          {customer?.contacts.map(({ name, role }) => (
            <option key={name} value={name}>
              {role}
            </option>
          ))}
        </datalist>
        <TextSlot label="Salesperson" field="salesperson" store={store} draft={draft} />
        <CurrencySlot store={store} draft={draft} setting={setting} />
        {draft.kind === 'invoice' && (
          <ChoiceSlot
            label="Invoice for"
            field="advance"
            value={draft.advance === true ? 'advance' : 'supply'}
            options={[
              ['supply', 'a supply'],
              ['advance', 'money in advance'],
            ]}
            onPick={(value) => store.change({ advance: value === 'advance' })}
          />
        )}
        {draft.currency !== '' && (
          <TextSlot
            label={
              rate === null
                ? `1 ${homeCurrency} in ${draft.currency}: no rate known`
                : `1 ${homeCurrency} in ${draft.currency}, rate of ${writeDate(rate.date)}`
            }
            field="perHome"
            store={store}
            draft={draft}
            invalid={wrong.has('perHome')}
            placeholder={rate === null ? 'such as 1.0850' : showNumber(rate.perHome)}
          />
        )}
        <DateSlot
          label="Supplied from"
          field="supplyFrom"
          store={store}
          draft={draft}
          wrong={wrong}
          placeholder="the tax point"
        />
        {traitsOfDraft(draft.kind).posts && (
          <DateSlot
            label="Accounting date"
            field="accountingDate"
            store={store}
            draft={draft}
            wrong={wrong}
            placeholder="the issue date"
          />
        )}
        <DeliveryFields store={store} draft={draft} customer={customer} />
        <TextSlot label="Carrier" field="carrier" store={store} draft={draft} />
        <TextSlot label="Tracking number" field="tracking" store={store} draft={draft} />
        <Slot label="Tags, separated by commas" htmlFor={tagField}>
          <input
            id={tagField}
            data-field="tags"
            className="cell -mx-1.5"
            value={tags}
            onChange={(event) => {
              setTags(event.target.value);
              store.change({ tags: readTags(event.target.value) });
            }}
          />
        </Slot>
        {styles.length > 0 && (
          <ChoiceSlot
            label="Document style"
            field="styleId"
            value={draft.styleId}
            options={[['', 'the default'], ...styles.map(({ id, name }) => [id, name] as const)]}
            onPick={(styleId) => store.change({ styleId })}
          />
        )}
        {setting.bankAccounts.length > 1 && (
          <ChoiceSlot
            label="Paid into"
            field="bankAccountId"
            value={draft.bankAccountId ?? ''}
            options={[
              ['', paidInto({ ...draft, bankAccountId: '' }, customer, setting)?.name ?? 'no account'] as const,
              ...setting.bankAccounts
                .filter(({ id, archived }) => archived !== true || id === draft.bankAccountId)
                .map(({ id, name, currency }) => [id, `${name}, ${currency}`] as const),
            ]}
            onPick={(bankAccountId) => store.change({ bankAccountId })}
          />
        )}
        <Slot label="Conditions, printed" htmlFor={conditionField} className="col-span-3">
          <textarea
            id={conditionField}
            data-field="conditions"
            rows={1}
            className="cell -mx-1.5 block"
            value={draft.conditions}
            onChange={(event) => store.change({ conditions: event.target.value })}
          />
        </Slot>
        <Slot label="Internal notes, never printed" htmlFor={remarkField} className="col-span-2">
          <textarea
            id={remarkField}
            data-field="remarks"
            rows={1}
            className="cell -mx-1.5 block"
            value={draft.remarks}
            onChange={(event) => store.change({ remarks: event.target.value })}
          />
        </Slot>
        <Attachments mayGoOut ownerId={draft.id} before={() => save({ even: 'unchanged' })} />
      </div>
    </details>
  );
}
