import { type HoldInput, holdReminders, type RemindInput, remind } from '@/core/decisions/payments/remind';
import { blankDraft } from '@/core/documents/draft';
import { accept, refuse } from '@/core/kernel/result';
import { accountFor } from '@/core/ledger/account';
import { type Reminder, type ReminderHold, remindersDue } from '@/core/settlement/reminder';
import { loadBook, loadSetting, present } from '../../load';
import type { Action } from '../../perform';
import { reminderMaterial } from '../queries/reminders';

/** Sends one reminder, as it was shown; where it is not due as it was shown any more, nothing goes out. */
export const sendReminder: Action<RemindInput, Reminder> = {
  name: 'remind',
  async decide(db, input, moment) {
    const [material, customer, { business }, chart, registrations] = await Promise.all([
      reminderMaterial(db, moment.today, input.customerId),
      db.customers.get(input.customerId),
      loadBook(db),
      db.accounts.toArray(),
      db.registrations.toArray(),
    ]);
    if (customer === undefined) return refuse({ code: 'not-found', path: 'customerId' });
    const digests = input.mail?.files.map(({ sha256 }) => sha256) ?? [];
    const keptFiles = new Set(await db.mailFiles.where('sha256').anyOf(digests).primaryKeys());
    const registrationId = present(registrations[0], 'a registration').id;
    const draft = { ...blankDraft('charge', 'invoice', registrationId, moment.today), customerId: customer.id };
    const setting = await loadSetting(db, draft, customer);
    return remind(
      input,
      {
        plans: remindersDue(material).plans,
        mail: { business, customers: new Map([[customer.id, customer]]), keptFiles, replaced: new Map() },
        customer,
        setting,
        registrationId,
        account: accountFor(chart, 'charges'),
      },
      moment,
    );
  },
};

/** Leaves a document out of reminders for a while. */
export const holdReminding: Action<HoldInput, ReminderHold> = {
  name: 'hold reminders',
  async decide(db, input, moment) {
    const [document, before] = await Promise.all([
      db.documents.get(input.documentId),
      db.reminderHolds.get(input.documentId),
    ]);
    return holdReminders(input, document, before, moment);
  },
};

/** Takes that back. */
export const goOnReminding: Action<{ readonly documentId: string }, null> = {
  name: 'go on with reminders',
  async decide(db, { documentId }) {
    const before = await db.reminderHolds.get(documentId);
    if (before === undefined) return refuse({ code: 'not-found', path: 'documentId' });
    return accept({
      value: null,
      changes: {
        remove: { reminderHolds: [documentId] },
        audit: { subject: before.kind, about: [documentId], before },
      },
    });
  },
};
