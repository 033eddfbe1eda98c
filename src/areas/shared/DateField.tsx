'use client';

import { type ChangeEvent, type ComponentProps, type FocusEvent, useImperativeHandle, useRef, useState } from 'react';
import { isIsoDate, writeDate } from '@/core/kernel/date';
import { readTypedDate } from '@/core/parties/terms';
import { TextField } from '@/ui/Field';
import { today } from '../shell/book';

type DateFieldProps = ComponentProps<typeof TextField>;

/** A day as it is read, also one that a form begins with in words (`today`). */
function written(held: string): string {
  const day = isIsoDate(held) ? held : readTypedDate(held, today(), today());
  return day === null ? held : writeDate(day);
}

/**
 * A day, typed as people say it (`24`, `1/10`, `today`, `14d`) and written as they read it (`24 Nov 2026`). What was
 * understood stands below while it is typed; for the form the field holds an ISO date once it is left. What is no day
 * stays as it was typed, for the form to refuse.
 */
export function DateField({ hint, onChange, onBlur, ref, value, name, ...field }: DateFieldProps) {
  const input = useRef<HTMLInputElement>(null);
  const [held, setHeld] = useState(String(value ?? ''));
  /** What stands in the field while it is typed. */
  const [typed, setTyped] = useState<string | null>(null);
  const read = readTypedDate(typed ?? '', today(), today());
  const now = useRef(held);
  // A form reads and writes the day that is held, not what is seen of it.
  useImperativeHandle(
    ref as React.Ref<unknown>,
    () => ({
      name,
      type: 'text',
      get value() {
        return now.current;
      },
      set value(day: string) {
        // A form that is drawn again says once more what it holds.
        if (day === now.current) return;
        now.current = day ?? '';
        setHeld(now.current);
        setTyped(null);
      },
      focus: () => input.current?.focus(),
    }),
    [name],
  );
  const tell = (text: string) => {
    now.current = text;
    setHeld(text);
    const target = { name, value: text };
    onChange?.({ type: 'change', target, currentTarget: target } as ChangeEvent<HTMLInputElement>);
  };
  /** Puts the day in place of what was typed, before a form looks at it. */
  const settle = () => {
    if (read !== null) tell(read);
    setTyped(null);
  };
  return (
    <TextField
      {...field}
      ref={input}
      name={name}
      value={typed ?? written(value === undefined ? held : String(value))}
      hint={read === null ? (hint ?? '') : writeDate(read)}
      onChange={(event) => {
        setTyped(event.target.value);
        tell(event.target.value);
      }}
      onKeyDown={(event) => event.key === 'Enter' && settle()}
      onBlur={() => {
        settle();
        onBlur?.({ type: 'blur', target: { name, value: now.current } } as FocusEvent<HTMLInputElement>);
      }}
    />
  );
}
