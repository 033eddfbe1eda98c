'use client';

import { useEffect } from 'react';
import { toast } from 'sonner';
import type { Result } from '@/core/kernel/result';
import { wordRefusals } from '@/core/wording/refusals';
import { exchangeRound } from '@/jobs/eInvoiceRound';
import { dueTransmissions } from '@/store/delivery/queries/sent';
import { bookDb, moment, useBook } from '../book';
import { accessPoint } from './accessPoint';

/** How often the queue is looked at for what has fallen due. */
const EVERY = 5000;

let going = false;

/** Rounds until nothing is due, in one tab at a time; nothing where they are going on. */
async function doRounds(): Promise<void> {
  if (going) return;
  going = true;
  try {
    await navigator.locks.request('able-ledger-exchange', { ifAvailable: true }, async (lock) => {
      if (lock === null) return;
      let round: Result<number>;
      do round = await exchangeRound(bookDb(), accessPoint, moment);
      while (round.ok && round.value > 0);
      if (!round.ok)
        toast.error(`E-invoices wait: ${wordRefusals(round.refusals)} They are tried again.`, { id: 'exchange' });
    });
  } finally {
    going = false;
  }
}

/** Sends what waits and hears what was answered while a book is open. */
export function useExchange(): void {
  // Asked again when the queue changes, so that what was just queued goes out at once.
  const due = useBook(async (db) => (await dueTransmissions(db, moment().now, 1)).length > 0, []);
  useEffect(() => {
    if (due) void doRounds();
  }, [due]);
  useEffect(() => {
    const timer = setInterval(() => void doRounds(), EVERY);
    return () => clearInterval(timer);
  }, []);
}
