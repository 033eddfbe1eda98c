'use client';

import type { ReactNode } from 'react';
import { writeDate } from '@/core/kernel/date';
import type { Result } from '@/core/kernel/result';
import { Dialog } from '@/ui/Dialog';
import { TextField } from '@/ui/Field';
import { today } from '../shell/book';
import { DateField } from './DateField';
import { SlipFoot } from './FormFoot';
import { typedDay } from './typedDay';
import { useActionForm } from './useActionForm';

export interface WordDayProps {
  readonly title: string;
  readonly description: ReactNode;
  /** Label of the words that are asked for. */
  readonly words: string;
  /** Label of the day; no day is asked for without it. */
  readonly day?: string;
  /** What the button does. */
  readonly action: string;
  readonly grave?: boolean;
  /** Does it; `on` is an ISO date where the day could be read, else what was typed. */
  readonly onDo: (words: string, on: string) => Promise<Result<unknown>>;
  readonly onClose: () => void;
  readonly children?: ReactNode;
}

/** Asks for a few words and a day, and does something with them. Refusals stand at their field. */
export function WordDayDialog(props: WordDayProps) {
  const { title, description, words, day, action, grave = false, onDo, onClose, children } = props;
  const { submit, field, errorAt, general, busy, isDirty } = useActionForm({
    initial: { words: '', on: '' },
    run: (typed) => onDo(typed.words, typed.on.trim() === '' ? today() : typedDay(typed.on)),
    onDone: () => {},
  });
  return (
    <Dialog unsaved={isDirty} open onClose={onClose} title={title} description={description}>
      <form onSubmit={submit}>
        <TextField
          label={words}
          autoFocus
          {...field('words')}
          error={errorAt('words') ?? errorAt('reason') ?? errorAt('how')}
        />
        {day !== undefined && (
          <DateField
            label={day}
            placeholder={writeDate(today())}
            hint="Empty for today"
            {...field('on')}
            error={errorAt('on') ?? errorAt('date') ?? errorAt('until')}
          />
        )}
        {children}
        <SlipFoot
          label={action}
          grave={grave}
          busy={busy}
          general={general}
          leave="Leave it as it is"
          onClose={onClose}
        />
      </form>
    </Dialog>
  );
}
