import type { Moment } from '@/core/book/changes';
import { draftFindings } from '@/core/decisions/sales/draftFindings';
import { findingsOn } from '@/core/decisions/sales/findings';
import { numberOf } from '@/core/decisions/sales/issue';
import type { Draft } from '@/core/documents/draft';
import { freezeDraft } from '@/core/documents/freeze';
import type { IssuedDocument } from '@/core/documents/issued';
import { traitsOfDraft } from '@/core/documents/kinds';
import type { RecurringMade } from '@/core/documents/recurring';
import { registrationFor } from '@/core/documents/setting';
import { dayOf, type IsoDate, writeDate } from '@/core/kernel/date';
import { accept, type Result } from '@/core/kernel/result';
import { wordRefusals } from '@/core/wording/refusals';
import { mailsAbout } from '@/store/delivery/queries/mail';
import { transmissionsOf } from '@/store/delivery/queries/sent';
import { loadSetting } from '@/store/load';
import { perform } from '@/store/perform';
import { issueInvoice } from '@/store/sales/actions/issueInvoice';
import { sendQuoteDraft } from '@/store/sales/actions/quotes';
import { makeRecurring, settleRecurring } from '@/store/sales/actions/recurring';
import { dueRecurring, goingRecurring } from '@/store/sales/queries/recurring';
import type { BookDb } from '@/store/schema';
import type { Job } from './runJobs';

/** Sends a document as its customer is sent documents; what was sent before is not sent again. Why it waits, or empty. */
export type SendDocument = (documentId: string) => Promise<string>;

/** Dates that one round makes. */
const AT_ONCE = 20;

/** What a person would be asked about before the draft is issued; empty where nothing is. */
async function whyItWaits(db: BookDb, draft: Draft, moment: Moment): Promise<string> {
  const customer = (await db.customers.get(draft.customerId)) ?? null;
  const setting = await loadSetting(db, draft, customer);
  const frozen = freezeDraft(draft, numberOf(draft, await db.series.toArray()), customer, setting);
  if (!frozen.ok) return wordRefusals(frozen.refusals);
  const { filedUntil = '' } = registrationFor(setting, frozen.value.registrationId) ?? {};
  if (traitsOfDraft(draft.kind).posts && frozen.value.taxPoint <= filedUntil)
    return `Its tax period is filed, until ${writeDate(filedUntil as IsoDate)}.`;
  const [asked] = [
    ...findingsOn(frozen.value),
    ...draftFindings(draft, frozen.value, customer, setting, { today: moment.today, orderUsed: '' }),
  ].filter(({ severity, rule }) => severity !== 'note' && !OWN_DAY.has(rule));
  return asked?.message ?? '';
}

/** Dated its own day by intention, however long ago that is. */
const OWN_DAY: ReadonlySet<string> = new Set(['DATE-ISSUE']);

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
