'use client';

import { type ReactNode, useId, useState } from 'react';
import type { Draft } from '@/core/documents/draft';
import { datesOf } from '@/core/documents/lineTax';
import { isIsoDate, writeDate } from '@/core/kernel/date';
import { readTerms, readTypedDate } from '@/core/parties/terms';
import { today } from '../../shell/book';
import type { DraftStore } from './draftStore';

/** A label over a field of the sheet. */
export function Slot({
  label,
  children,
  htmlFor,
  className = '',
  said = '',
}: {
  readonly label: string;
  readonly children: ReactNode;
  readonly htmlFor?: string;
  readonly className?: string;
  /** What is understood of what is being typed. */
  readonly said?: string;
}) {
  return (
    <div className={`relative border-rule border-b pb-0.5 ${className}`}>
      <label htmlFor={htmlFor} className="block text-soft text-sm">
        {label}
      </label>
      {children}
      {said !== '' && (
        <span role="status" className="absolute top-0 right-0 bg-sheet pl-1 text-soft text-sm">
          {said}
        </span>
      )}
    </div>
  );
}

type TextField =
  | 'orderNumber'
  | 'buyerReference'
  | 'subject'
  | 'salesperson'
  | 'contact'
  | 'carrier'
  | 'tracking'
  | 'perHome';

interface TextSlotProps {
  readonly label: string;
  readonly field: TextField;
  readonly store: DraftStore;
  readonly draft: Draft;
  readonly placeholder?: string;
  readonly invalid?: boolean;
  readonly list?: string;
}

/** A line of text of the draft. */
export function TextSlot({ label, field, store, draft, placeholder, invalid = false, list }: TextSlotProps) {
  const id = useId();
  return (
    <Slot label={label} htmlFor={id}>
      <input
        id={id}
        data-field={field}
        autoComplete="off"
        aria-invalid={invalid}
        list={list}
        placeholder={placeholder}
        className="cell -mx-1.5"
        value={draft[field]}
        onChange={(event) => store.change({ [field]: event.target.value })}
      />
    </Slot>
  );
}

type DayField = 'issueDate' | 'taxPoint' | 'due' | 'supplyFrom' | 'accountingDate';

interface DateSlotProps {
  readonly label: string;
  readonly field: DayField;
  readonly store: DraftStore;
  readonly draft: Draft;
  readonly wrong: ReadonlySet<string>;
  readonly placeholder?: string;
}

/** What stands in a date field while it is not written in: the day, and for a due date its terms. */
function shownDay(draft: Draft, field: DayField): string {
  const { issueDate, taxPoint, dueDate } = datesOf(draft);
  if (field === 'supplyFrom' || field === 'accountingDate')
    return isIsoDate(draft[field]) ? writeDate(draft[field]) : draft[field];
  const day = { issueDate, taxPoint, due: dueDate }[field];
  if (day === null) return draft[field];
  return field === 'due' && !isIsoDate(draft.due) ? `${writeDate(day)} · ${draft.due}` : writeDate(day);
}

/** A day, typed as `today`, `23/11`, an ISO date or an offset such as `14d`; read when the field is left. */
export function DateSlot({ label, field, store, draft, wrong, placeholder }: DateSlotProps) {
  const id = useId();
  const [typed, setTyped] = useState<string | null>(null);
  const leave = () => {
    if (typed === null) return;
    setTyped(null);
    const text = typed.trim();
    if (text === '' && field !== 'issueDate' && field !== 'due') return store.change({ [field]: '' });
    const day = readTypedDate(text, today(), issue);
    // Terms stay terms, so that they follow the issue date; what can't be read stays as typed and is pointed out.
    const terms = field === 'due' && !isIsoDate(text) && readTerms(issue, text.toLowerCase()) !== null;
    const keep = terms ? text.toLowerCase() : (day ?? text);
    if (keep !== draft[field]) store.change({ [field]: keep });
  };
  const issue = isIsoDate(draft.issueDate) ? draft.issueDate : today();
  const understood = typed === null ? null : readTypedDate(typed.trim(), today(), issue);
  return (
    <Slot label={label} htmlFor={id} said={understood === null ? '' : writeDate(understood)}>
      <input
        id={id}
        data-field={field}
        aria-invalid={wrong.has(field)}
        autoComplete="off"
        className="cell -mx-1.5"
        title={
          field === 'due'
            ? '30d, 2w, 1m, eom+10d, day 15, a date; 30% 0d + 70% 30d; 30d, 2% 10d'
            : 'today, 23/11, 2026-11-23, or from the issue date: 14d, 2w, 1m, eom, eom+10d'
        }
        placeholder={placeholder}
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

interface ChoiceSlotProps {
  readonly label: string;
  readonly field: string;
  readonly value: string;
  readonly options: readonly (readonly [string, string])[];
  readonly onPick: (value: string) => void;
}

/** One of a few. */
export function ChoiceSlot({ label, field, value, options, onPick }: ChoiceSlotProps) {
  const id = useId();
  return (
    <Slot label={label} htmlFor={id}>
      <select
        id={id}
        data-field={field}
        data-pass-over=""
        className="cell -mx-1.5 cursor-pointer"
        value={value}
        onChange={(event) => onPick(event.target.value)}
      >
        {options.map(([key, words]) => (
          <option key={key} value={key}>
            {words}
          </option>
        ))}
      </select>
    </Slot>
  );
}
