import type { Moment } from '@/core/book/changes';
import { askedAbout } from '@/core/decisions/sales/run';
import type { Draft } from '@/core/documents/draft';
import type { IssuedDocument } from '@/core/documents/issued';
import { traitsOfDraft } from '@/core/documents/kinds';
import type { RecurringDoes, RecurringMade } from '@/core/documents/recurring';
import { dayOf } from '@/core/kernel/date';
import { accept, type Result } from '@/core/kernel/result';
import { wordRefusals } from '@/core/wording/refusals';
import { mailsAbout } from '@/store/delivery/queries/mail';
import { transmissionsOf } from '@/store/delivery/queries/sent';
import { loadSetting } from '@/store/load';
import { perform } from '@/store/perform';
import { issueInvoice } from '@/store/sales/actions/issueInvoice';
import { sendQuoteDraft } from '@/store/sales/actions/quotes';
import { makeRecurring, settleRecurring } from '@/store/sales/actions/recurring';
import { makeRunDocument } from '@/store/sales/actions/runs';
import { dueRecurring, goingRecurring } from '@/store/sales/queries/recurring';
import { documentsOfRun, rowsOfRun } from '@/store/sales/queries/runs';
import type { BookDb } from '@/store/schema';
import type { Job } from './runJobs';

/** Sends a document as its customer is sent documents; what was sent before is not sent again. Why it waits, or empty. */
export type SendDocument = (documentId: string) => Promise<string>;

/** Dates that one round makes. */
const AT_ONCE = 20;

/** What a person would be asked about before the draft is issued; empty where nothing is. */
async function whyItWaits(db: BookDb, draft: Draft, { today }: Moment): Promise<string> {
  const customer = (await db.customers.get(draft.customerId)) ?? null;
  const setting = await loadSetting(db, draft, customer);
  const issuing = { series: await db.series.toArray() };
  return askedAbout({ draft, customer, setting, issuing, say: wordRefusals }, today, true);
}

/** Takes one date as far as it goes by itself: issued, then sent. */
async function goOn(
  db: BookDb,
  made: RecurringMade,
  moment: () => Moment,
  send: SendDocument,
): Promise<Result<unknown>> {
  const settle = (state: RecurringMade['state'], why: string, isGoing: boolean) =>
    perform(db, settleRecurring, { id: made.id, state, why, isGoing }, moment());
  const recurring = await db.recurring.get(made.recurringId);
  const run = await db.runs.get(made.documentId);
  if (run !== undefined) {
    const { state, why } = await runGoesOn(db, run.id, recurring?.does ?? 'draft', moment, send);
    return settle(state, why, false);
  }
  const sends = recurring?.does === 'send';
  const draft = await db.drafts.get(made.documentId);
  const fault = draft === undefined ? '' : await issueFault(db, draft, moment);
  const document = await db.documents.get(made.documentId);
  // Whatever kept it from being issued here, another tab may have done it.
  if (document === undefined) return settle('waits', fault || 'Its draft was deleted.', false);
  if (!sends) return settle('issued', '', false);
  const why = (await isOnItsWay(db, document)) ? '' : await send(document.id);
  return why === '' ? settle('sent', '', false) : settle('issued', why, false);
}

const howMany = (count: number, words: string): string => (count === 0 ? '' : `${count} ${words}`);

/** Does for each customer of a date's run what is to be done; what is done already is left as it is. */
async function runGoesOn(
  db: BookDb,
  runId: string,
  does: RecurringDoes,
  moment: () => Moment,
  send: SendDocument,
): Promise<Pick<RecurringMade, 'state' | 'why'>> {
  const runDoes = does === 'draft' ? 'drafts' : 'issue-sound';
  const faults: string[] = [];
  for (const { id, state, left, customerName } of await rowsOfRun(db, runId)) {
    if (state !== 'planned' || left) continue;
    const made = await perform(db, makeRunDocument, { rowId: id, does: runDoes }, moment());
    if (!made.ok) faults.push(`${customerName}: ${wordRefusals(made.refusals)}`);
  }
  const rows = await rowsOfRun(db, runId);
  const waits = rows.filter(({ state }) => state === 'waits').length + faults.length;
  const unsent: string[] = [];
  if (does === 'send')
    for (const document of await documentsOfRun(
      db,
      rows.filter(({ state }) => state === 'issued'),
    )) {
      const why = (await isOnItsWay(db, document)) ? '' : await send(document.id);
      if (why !== '') unsent.push(document.number);
    }
  const why = [
    howMany(waits, waits === 1 ? 'customer needs a look' : 'customers need a look'),
    howMany(unsent.length, `not sent: ${unsent.slice(0, NAMED).join(', ')}`),
    faults[0] ?? '',
  ];
  const state =
    waits > 0 ? 'waits' : does === 'draft' ? 'draft' : does === 'send' && unsent.length === 0 ? 'sent' : 'issued';
  return { state, why: why.filter(Boolean).join('; ') };
}

/** Documents that are named where many were not sent. */
const NAMED = 5;

/** Issues the draft of a date; why it was not, or empty. */
async function issueFault(db: BookDb, draft: Draft, moment: () => Moment): Promise<string> {
  const why = await whyItWaits(db, draft, moment());
  if (why !== '') return why;
  const draftId = draft.id;
  const issued = traitsOfDraft(draft.kind).posts
    ? await perform(db, issueInvoice, { draftId }, moment())
    : await perform(db, sendQuoteDraft, { draftId }, moment());
  return issued.ok ? '' : wordRefusals(issued.refusals);
}

/** What was sent before, or waits in a queue, is not sent again. */
async function isOnItsWay(db: BookDb, { id, sentOn }: IssuedDocument): Promise<boolean> {
  return sentOn !== '' || (await mailsAbout(db, id)).length > 0 || (await transmissionsOf(db, id)).length > 0;
}

/**
 * Makes recurring documents as they fall due, oldest date first, each dated its own date and made once: the row of a date
 * is written with its draft, and what is left of it is taken up again wherever it was cut.
 */
export const recurringJob = (send: SendDocument): Job => ({
  what: 'Recurring documents',
  isDue: async (db, now) =>
    (await dueRecurring(db, dayOf(now), 1)).length > 0 || (await goingRecurring(db, 1)).length > 0,
  async round(db, moment) {
    let done = 0;
    const going = await goingRecurring(db, AT_ONCE);
    for (const made of going) {
      const kept = await goOn(db, made, moment, send);
      if (!kept.ok) return kept;
      done++;
    }
    if (done > 0) return accept(done);
    const due = (await dueRecurring(db, moment().today, AT_ONCE)).sort((a, b) => (a.nextDue < b.nextDue ? -1 : 1));
    for (const { id, nextDue } of due) {
      if (nextDue === '') continue;
      const made = await perform(db, makeRecurring, { id, date: nextDue }, moment());
      if (!made.ok) return made;
      done++;
      if (made.value !== null && made.value.isGoing === 1) {
        const kept = await goOn(db, made.value, moment, send);
        if (!kept.ok) return kept;
      }
    }
    return accept(done);
  },
});
