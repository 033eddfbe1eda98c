'use client';

import { useEffect } from 'react';
import { toast } from 'sonner';
import { wordRefusals } from '@/core/wording/refusals';
import { cardJob } from '@/jobs/cardRound';
import { eInvoiceJob } from '@/jobs/eInvoiceRound';
import { journalJob } from '@/jobs/journalRound';
import { mailJob, type WriteMail } from '@/jobs/mailRound';
import { recurringJob, type SendDocument } from '@/jobs/recurringRound';
import { type Job, runJobs } from '@/jobs/runJobs';
import { bookDb, moment, useBookAtRest } from './book';
import { cardCompany } from './cardCompany';
import { accessPoint } from './delivery/accessPoint';
import { mailServer } from './delivery/mailServer';

/** Loaded with the first message that goes out. */
const writeMail: WriteMail = async (mail, files) => (await import('@/print/eml')).writeEml(mail, files);

/** Loaded with the first document that is sent by itself. */
const sendDocument: SendDocument = async (documentId) => {
  const { sendByWay } = await import('./delivery/sendByWay');
  const { kind, words } = await sendByWay(documentId);
  return kind === 'sent' ? '' : words;
};

/** All that is done later, in the order it is done. */
const JOBS: readonly Job[] = [
  eInvoiceJob(accessPoint),
  recurringJob(sendDocument),
  journalJob,
  mailJob(mailServer, writeMail),
  cardJob(cardCompany),
];

/** How often is looked for what has fallen due, in milliseconds. */
const LOOK_EVERY_MS = 5000;
/** Held by the tab that works on what is due. */
const LOCK = 'able-ledger-jobs';

let going = false;

/** Does what is due, in one tab at a time; nothing where that is going on. */
async function work(): Promise<void> {
  if (going) return;
  going = true;
  try {
    await navigator.locks.request(LOCK, { ifAvailable: true }, async (lock) => {
      if (lock === null) return;
      for (const { what, refusals } of await runJobs(bookDb(), JOBS, moment))
        toast.error(`${what} wait: ${wordRefusals(refusals)} They are tried again.`, { id: what });
    });
  } finally {
    going = false;
  }
}

/** Does what falls due while a book is open: at once when the book changes, else within seconds. */
export function useJobs(): void {
  const due = useBookAtRest(async (db) => {
    const { now } = moment();
    return (await Promise.all(JOBS.map((job) => job.isDue(db, now)))).some(Boolean);
  });
  useEffect(() => {
    if (due) void work();
  }, [due]);
  useEffect(() => {
    const timer = setInterval(() => void work(), LOOK_EVERY_MS);
    return () => clearInterval(timer);
  }, []);
}
