'use client';

import { useEffect, useState } from 'react';
import { dayOf, writeDate } from '@/core/kernel/date';
import { countEvents } from '@/store/records';
import { BringBack } from '../../shared/BringBack';
import { today, useBook } from '../../shell/book';
import { lastSaved, saveReminder } from '../../shell/lastSaved';

/** Whether the browser promised to keep the book when space runs low. */
type Promised = 'asking' | 'promised' | 'not promised' | 'unknown';

const PROMISE: Readonly<Record<Promised, string>> = {
  asking: 'Asking the browser whether it keeps the book when disk space runs low…',
  promised: 'The browser has promised to keep the book when disk space runs low.',
  'not promised': 'The browser has not promised to keep the book when disk space runs low: save it to a file often.',
  unknown: 'This browser does not say whether it keeps the book when disk space runs low: save it to a file often.',
};

/** When the book was saved last, what the browser promises, and the copy of a book that was replaced. */
export function SafeKeeping() {
  const [promised, setPromised] = useState<Promised>('asking');
  const events = useBook(countEvents);
  useEffect(() => {
    const { storage } = navigator;
    if (storage?.persist === undefined) return setPromised('unknown');
    storage
      .persist()
      .then((kept) => setPromised(kept ? 'promised' : 'not promised'))
      .catch(() => setPromised('unknown'));
  }, []);
  const saved = lastSaved();
  const reminder = events === undefined ? '' : saveReminder(saved, events, today());
  return (
    <section aria-label="Safe keeping" className="mb-6 max-w-[64ch]">
      <h2 className="mb-1 font-semibold font-serif">Safe keeping</h2>
      <p>
        {reminder !== ''
          ? `${reminder} Save it now.`
          : saved === null
            ? 'Not saved to a file by this browser yet.'
            : `Last saved to a file on ${writeDate(dayOf(saved.at))}.`}
      </p>
      <p className="text-soft">{PROMISE[promised]}</p>
      <BringBack />
    </section>
  );
}
