import { buyerAmong, buyerWords, draftFromEInvoice } from '@/core/decisions/delivery/receivedFile';
import { NOTHING_STORED, saveDraft } from '@/core/decisions/sales/draft';
import { blankDraft } from '@/core/documents/draft';
import type { ViewGroup } from '@/core/einvoice/view';
import { accept, refuse } from '@/core/kernel/result';
import { searchParts } from '@/core/kernel/words';
import { accountFor } from '@/core/ledger/account';
import { loadSetting } from '../../load';
import type { Action } from '../../perform';

/** Customers looked at when the buyer of a file is looked for. */
const MOST_ALIKE = 500;

/** Begins a draft that says what a received e-invoice says; `name` is the file's. Gives the draft's id, and what is to be looked at. */
export const draftFromFile: Action<
  { invoice: ViewGroup; name: string; registrationId: string },
  { readonly draftId: string; readonly remarks: string }
> = {
  name: 'begin draft from e-invoice',
  async decide(db, { invoice, name, registrationId }, moment) {
    const words = buyerWords(invoice).flatMap(searchParts);
    const [alike, accounts] = await Promise.all([
      db.customers.where('keys').anyOf(words).distinct().limit(MOST_ALIKE).toArray(),
      db.accounts.toArray(),
    ]);
    const customer = buyerAmong(alike, invoice);
    const blank = blankDraft(moment.newId(), 'invoice', registrationId, moment.today);
    const setting = await loadSetting(db, blank, customer);
    const income = accounts.find(({ type }) => type === 'income')?.code;
    if (income === undefined) return refuse({ code: 'unknown', path: '', wanted: 'add-income-account' });
    const booked = { income, discounts: accountFor(accounts, 'discounts') };
    const draft = draftFromEInvoice(invoice, name, blank, customer, booked, setting, moment.newId);
    if (!draft.ok) return draft;
    const saved = saveDraft(draft.value, NOTHING_STORED, customer ?? undefined, setting, moment);
    if (!saved.ok) return saved;
    const { id, remarks } = saved.value.value;
    return accept({ value: { draftId: id, remarks }, changes: saved.value.changes });
  },
};
