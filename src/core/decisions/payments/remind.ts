import type { Changes, Decision, Moment } from '@/core/book/changes';
import { joinChanges } from '@/core/book/joinChanges';
import { blankDraft, blankLine, type Draft, type DraftLine } from '@/core/documents/draft';
import type { IssuedDocument } from '@/core/documents/issued';
import { decideTaxes } from '@/core/documents/lineTax';
import type { Setting } from '@/core/documents/setting';
import { type IsoDate, isIsoDate } from '@/core/kernel/date';
import { type Minor, NOTHING, writeMoney } from '@/core/kernel/money';
import { accept, refuse } from '@/core/kernel/result';
import type { Customer } from '@/core/parties/customer';
import type { Reminder, ReminderHold, ReminderPlan } from '@/core/settlement/reminder';
import { type MailMaterial, type MailToQueue, queueMails } from '../delivery/mailing';
import { NOTHING_STORED, saveDraft } from '../sales/draft';

/** One letter as the person agreed to it. */
export interface RemindInput {
  readonly customerId: string;
  readonly currency: string;
  readonly level: number;
  /** What it tells of, in any order: where that is not what is due any more, nothing goes out. */
  readonly documentIds: readonly string[];
  /** Null where it is printed. */
  readonly mail: MailToQueue | null;
  /** Begins a draft invoice for fee and interest, with these words on its lines; null for none. */
  readonly charge: { readonly fee: string; readonly interest: string } | null;
}

export interface RemindMaterial {
  /** What is due for the customer now. */
  readonly plans: readonly ReminderPlan[];
  readonly mail: MailMaterial;
  readonly customer: Customer;
  /** For the draft of the charge. */
  readonly setting: Setting;
  readonly registrationId: string;
  readonly account: string;
}

/** A draft invoice for what a reminder costs the customer; fee and interest are no part of what was supplied. */
function chargeDraft(
  { customer, setting, registrationId, account }: RemindMaterial,
  lines: readonly { readonly words: string; readonly amount: Minor }[],
  moment: Moment,
): Decision<Draft> {
  const { homeCurrency } = setting.business;
  const draft: Draft = {
    ...blankDraft(moment.newId(), 'invoice', registrationId, moment.today),
    customerId: customer.id,
    due: customer.terms,
    lines: lines.map(
      ({ words, amount }): DraftLine => ({
        ...blankLine(moment.newId(), account),
        description: words,
        price: writeMoney(amount, homeCurrency),
        supply: 'service',
      }),
    ),
  };
  return saveDraft(decideTaxes(draft, customer, setting), NOTHING_STORED, customer, setting, moment);
}

/** Sends a reminder, by mail or for the post, and writes down what it told; refused where it is not due as it was shown. */
export function remind(input: RemindInput, material: RemindMaterial, moment: Moment): Decision<Reminder> {
  const plan = material.plans.find(({ currency }) => currency === input.currency);
  const ids = plan?.items.map(({ document }) => document.id) ?? [];
  const wanted = new Set(input.documentIds);
  if (
    plan === undefined ||
    plan.level !== input.level ||
    ids.length !== wanted.size ||
    ids.some((id) => !wanted.has(id))
  )
    return refuse({ code: 'stale', path: '' });
  const mails = queueMails(input.mail === null ? [] : [input.mail], material.mail, moment);
  if (!mails.ok) return mails;
  const inHome = plan.currency === material.setting.business.homeCurrency;
  const lines = [
    { words: input.charge?.fee ?? '', amount: plan.fee },
    { words: input.charge?.interest ?? '', amount: inHome ? plan.interest : NOTHING },
  ].filter(({ amount }) => amount > 0n);
  const charge = input.charge === null || lines.length === 0 ? null : chargeDraft(material, lines, moment);
  if (charge !== null && !charge.ok) return charge;
  const { customerId, customerName, currency, amountDue, fee, interest, level } = plan;
  const value: Reminder = {
    id: moment.newId(),
    customerId,
    customerName,
    level,
    on: moment.today,
    documentIds: ids,
    currency,
    amountDue,
    fee,
    interest,
    mailId: mails.value.value[0]?.id ?? '',
    chargeDraftId: charge === null ? '' : charge.value.value.id,
    at: moment.now,
    operator: moment.operator,
  };
  const own: Changes = {
    add: { reminders: [value] },
    audit: { subject: customerName, about: [customerId, ...ids], after: value },
  };
  const parts = [{ changes: own }, { changes: mails.value.changes, action: 'queue mail' }];
  const changes = joinChanges(
    ...parts,
    ...(charge === null ? [] : [{ changes: charge.value.changes, action: 'begin draft' }]),
  );
  return accept({ value, changes });
}

export interface HoldInput {
  readonly documentId: string;
  readonly kind: ReminderHold['kind'];
  /** ISO date; a dispute may have none. */
  readonly until: string;
  readonly words: string;
}

/** Leaves a document out of reminders: it is disputed, or its payment was promised for a day. */
export function holdReminders(
  input: HoldInput,
  document: IssuedDocument | undefined,
  before: ReminderHold | undefined,
  moment: Moment,
): Decision<ReminderHold> {
  const { kind, until, words } = input;
  if (document === undefined) return refuse({ code: 'not-found', path: 'documentId' });
  if (words.trim() === '') return refuse({ code: 'missing', path: 'words', wanted: 'say-what-was-said' });
  const isDay = isIsoDate(until) && until >= moment.today;
  if (!isDay && (kind === 'promise' || until !== ''))
    return refuse({ code: 'invalid', path: 'until', wanted: 'day-from-today', found: until });
  const value: ReminderHold = {
    documentId: document.id,
    kind,
    until: until as IsoDate | '',
    words: words.trim(),
    at: moment.now,
    operator: moment.operator,
  };
  return accept({
    value,
    changes: {
      put: { reminderHolds: [value] },
      audit: {
        subject: document.number,
        about: [document.id, document.customerId],
        ...(before && { before }),
        after: value,
      },
    },
  });
}
