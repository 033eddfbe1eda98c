'use client';

import { type ReactNode, useState } from 'react';
import { type IsoDate, writeDate } from '@/core/kernel/date';
import type { Refusal, Result } from '@/core/kernel/result';
import { readTypedDate } from '@/core/parties/terms';
import { wordRefusal, wordRefusals } from '@/core/wording/refusals';
import { Button } from '@/ui/Button';
import { Dialog } from '@/ui/Dialog';
import { TextField } from '@/ui/Field';
import { today } from '../shell/book';
import { DateField } from './DateField';

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
  const { title, description, words: label, day, action, grave = false, onDo, onClose, children } = props;
  const [words, setWords] = useState('');
  const [date, setDate] = useState('');
  const [refusals, setRefusals] = useState<readonly Refusal[]>([]);
  const [busy, setBusy] = useState(false);
  const errorAt = (...paths: readonly string[]) => {
    const found = refusals.find((refusal) => paths.includes(refusal.path));
    return found && wordRefusal(found);
  };
  const run = async () => {
    if (busy) return;
    setBusy(true);
    try {
      const read: IsoDate | null = date.trim() === '' ? today() : readTypedDate(date, today(), today());
      const result = await onDo(words, read ?? date);
      if (!result.ok) setRefusals(result.refusals);
    } finally {
      setBusy(false);
    }
  };
  const others = refusals.filter(({ path }) => !['reason', 'words', 'how', 'date', 'on'].includes(path));
  return (
    <Dialog open onClose={onClose} title={title} description={description}>
      <form
        onSubmit={(event) => {
          event.preventDefault();
          void run();
        }}
      >
        <TextField
          label={label}
          value={words}
          autoFocus
          error={errorAt('reason', 'words', 'how')}
          onChange={(e) => setWords(e.target.value)}
        />
        {day !== undefined && (
          <DateField
            label={day}
            value={date}
            placeholder={writeDate(today())}
            hint="Empty for today"
            error={errorAt('date', 'on')}
            onChange={(e) => setDate(e.target.value)}
          />
        )}
        {children}
        {others.length > 0 && (
          <p role="alert" className="mb-3 text-brick">
            ▲ {wordRefusals(others)}
          </p>
        )}
        <div className="mt-2 flex gap-2.5">
          <Button weight={grave ? 'grave' : 'main'} type="submit" disabled={busy}>
            {action}
          </Button>
          <Button onClick={onClose}>Leave it as it is</Button>
        </div>
      </form>
    </Dialog>
  );
}
