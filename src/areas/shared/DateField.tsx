'use client';

import { type ChangeEvent, type ComponentProps, type SyntheticEvent, useState } from 'react';
import { writeDate } from '@/core/kernel/date';
import { readTypedDate } from '@/core/parties/terms';
import { TextField } from '@/ui/Field';
import { today } from '../shell/book';

type DateFieldProps = ComponentProps<typeof TextField>;

/**
 * A day, typed as people say it: `24`, `1/10`, `today`, `14d`. What was understood stands below while it is typed; once
 * the field is left it holds the day as an ISO date. What is no day stays as it was typed, for the form to refuse.
 */
export function DateField({ hint, onChange, onBlur, ...field }: DateFieldProps) {
  const [typed, setTyped] = useState('');
  const read = readTypedDate(typed, today(), today());
  const change = (event: ChangeEvent<HTMLInputElement>) => {
    setTyped(event.target.value);
    onChange?.(event);
  };
  /** Puts the day in place of what was typed, before a form looks at it. */
  const settle = (event: SyntheticEvent<HTMLInputElement>) => {
    const input = event.currentTarget;
    if (read === null || input.value !== typed || typed === read) return;
    input.value = read;
    change({ ...event, target: input, currentTarget: input } as ChangeEvent<HTMLInputElement>);
  };
  return (
    <TextField
      {...field}
      hint={read === null ? (hint ?? '') : writeDate(read)}
      onChange={change}
      onKeyDown={(event) => event.key === 'Enter' && settle(event)}
      onBlur={(event) => {
        settle(event);
        onBlur?.(event);
      }}
    />
  );
}
