'use client';

import { useState } from 'react';
import { type DocumentFilter, FILTER_STATES } from '@/core/documents/documentFilter';
import { DOCUMENT_KINDS, type DocumentKind } from '@/core/documents/kinds';
import { isIsoDate, writeDate } from '@/core/kernel/date';
import { readTypedDecimal } from '@/core/kernel/decimal';
import { readTypedDate } from '@/core/parties/terms';
import { recordOf } from '@/store/records';
import { findCustomers } from '@/store/sales/queries/documents';
import { FindBox } from '@/ui/FindBox';
import { KIND_WORDS } from '../../shared/documentMark';
import { today, useBook } from '../../shell/book';
import { useFinder } from '../../shell/useFinder';

interface FilterBarProps {
  readonly filter: DocumentFilter;
  readonly onChange: (filter: DocumentFilter) => void;
}

const BOX = 'h-7 w-full border-rule border-b bg-transparent px-1';

/** A field that is read when it is left; `read` answers null for what it can't read. */
function ReadField({
  label,
  value,
  shown,
  read,
  onRead,
}: {
  readonly label: string;
  readonly value: string;
  readonly shown: (value: string) => string;
  readonly read: (text: string) => string | null;
  readonly onRead: (value: string) => void;
}) {
  const [typed, setTyped] = useState<string | null>(null);
  const [wrong, setWrong] = useState(false);
  const leave = () => {
    if (typed === null) return;
    const text = typed.trim();
    const found = text === '' ? '' : read(text);
    setWrong(found === null);
    if (found === null) return;
    setTyped(null);
    if (found !== value) onRead(found);
  };
  return (
    <label className="block text-soft text-sm">
      {label}
      <input
        className={`${BOX} text-ink aria-[invalid=true]:border-brick`}
        aria-invalid={wrong}
        value={typed ?? shown(value)}
        onChange={(event) => setTyped(event.target.value)}
        onBlur={leave}
        onKeyDown={(event) => event.key === 'Enter' && leave()}
      />
    </label>
  );
}

const day = (text: string) => readTypedDate(text, today(), today());

function CustomerFilter({ filter, onChange }: FilterBarProps) {
  const [typed, setTyped] = useState<string | null>(null);
  const { rows, pending } = useFinder(findCustomers, typed ?? '');
  const customer = useBook((db) => recordOf(db, 'customers', filter.customerId), [filter.customerId]);
  return (
    <div>
      <span className="block text-soft text-sm">Customer</span>
      <FindBox
        label="Customer"
        className={BOX}
        pending={pending}
        value={typed ?? customer?.name ?? ''}
        placeholder="all"
        options={rows.map((c) => ({ id: c.id, label: c.name, detail: c.address.city }))}
        onType={(text) => {
          setTyped(text);
          if (text === '') onChange({ ...filter, customerId: '' });
        }}
        onLeave={() => setTyped(null)}
        onPick={({ id }) => {
          setTyped(null);
          onChange({ ...filter, customerId: id });
        }}
      />
    </div>
  );
}

/** What the list is narrowed to: kind, state, customer, days, amounts, tag. */
export function FilterBar({ filter, onChange }: FilterBarProps) {
  const date = (label: string, field: 'from' | 'until') => (
    <ReadField
      label={label}
      value={filter[field]}
      shown={(value) => (isIsoDate(value) ? writeDate(value) : value)}
      read={day}
      onRead={(value) => onChange({ ...filter, [field]: value })}
    />
  );
  const amount = (label: string, field: 'least' | 'most') => (
    <ReadField
      label={label}
      value={filter[field]}
      shown={(value) => value}
      read={(text) => readTypedDecimal(text)}
      onRead={(value) => onChange({ ...filter, [field]: value })}
    />
  );
  return (
    <div className="mb-3 grid grid-cols-4 gap-x-4 gap-y-1">
      <label className="text-soft text-sm">
        Kind
        <select
          className={`${BOX} cursor-pointer text-ink`}
          value={filter.kinds[0] ?? ''}
          onChange={({ target: { value } }) =>
            onChange({ ...filter, kinds: value === '' ? [] : [value as DocumentKind] })
          }
        >
          <option value="">all</option>
          {DOCUMENT_KINDS.map((kind) => (
            <option key={kind} value={kind}>
              {KIND_WORDS[kind]}
            </option>
          ))}
        </select>
      </label>
      <label className="text-soft text-sm">
        State
        <select
          className={`${BOX} cursor-pointer text-ink`}
          value={filter.state}
          onChange={(event) => onChange({ ...filter, state: event.target.value as DocumentFilter['state'] })}
        >
          <option value="">all</option>
          {FILTER_STATES.map((state) => (
            <option key={state} value={state}>
              {state}
            </option>
          ))}
        </select>
      </label>
      <CustomerFilter filter={filter} onChange={onChange} />
      <ReadField
        label="Tag"
        value={filter.tag}
        shown={(value) => value}
        read={(text) => text}
        onRead={(tag) => onChange({ ...filter, tag })}
      />
      {date('Issued from', 'from')}
      {date('Issued until', 'until')}
      {amount('Amount from', 'least')}
      {amount('Amount up to', 'most')}
    </div>
  );
}
