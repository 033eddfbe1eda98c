import { DOCUMENT_STATES } from '@/core/documents/issued';
import { DOCUMENT_KINDS } from '@/core/documents/kinds';
import { MADE_STATES, RECURRING_DOES } from '@/core/documents/recurring';
import { RUN_STATES } from '@/core/documents/run';
import { LOCAL_FORMS } from '@/core/parties/localAccount';
import { PAYMENT_METHODS } from '@/core/parties/paymentMethod';
import { CATEGORIES } from '@/core/tax/calcTypes';
import { SUPPLY_KINDS } from '@/core/tax/decisionTable';
import {
  amount,
  count,
  currency,
  date,
  dateOrNothing,
  flag,
  instant,
  listOf,
  maybe,
  number,
  numberOrNothing,
  oneOf,
  orNull,
  record,
  type Shape,
  text,
  words,
} from '../shape';
import { address, endpoint, rhythm } from './pieces';

const link = record({ id: text, number: text });

const priceMode = oneOf('net', 'gross');

const component = record({
  taxId: text,
  taxName: maybe(words),
  jurisdictionId: words,
  jurisdictionName: words,
  family: words,
  compound: flag,
  percent: numberOrNothing,
  perUnit: numberOrNothing,
  insteadOf: maybe(numberOrNothing),
  since: date,
  source: maybe(words),
  relief: orNull(record({ certificate: words, reason: words })),
});

const frozenTax = record({
  code: text,
  name: words,
  category: oneOf(...CATEGORIES),
  percent: number,
  since: date,
  legend: words,
  exemptionCode: words,
  components: maybe(listOf(component)),
});

const trail = listOf(record({ held: flag, text: words }));

const discount = maybe(record({ percent: maybe(number), amount: maybe(number) }));

/** When the revenue of a line belongs; on a draft its fields hold what was typed. */
const deferralOf = (day: Shape, percent: Shape) =>
  record({
    kind: oneOf('days', 'months', 'parts'),
    from: maybe(day),
    to: maybe(day),
    months: maybe(count),
    first: maybe(words),
    parts: maybe(listOf(record({ date: day, percent }))),
  });

const earlier = record({ documentId: text, number: text, issueDate: date, taxPoint: maybe(date) });

const contentLine = record({
  id: text,
  description: words,
  quantity: number,
  unit: words,
  unitPrice: number,
  discount,
  tax: text,
  taxByHand: flag,
  account: words,
  trail: maybe(trail),
  trailOf: maybe(count),
  priceFrom: maybe(words),
  supply: maybe(oneOf(...SUPPLY_KINDS)),
  deferral: maybe(deferralOf(date, number)),
  itemCode: maybe(words),
  supplied: maybe(date),
  of: maybe(words),
  takesOff: maybe(earlier),
});

const share = record({ net: number, components: listOf(number) });

const content = record({
  kind: oneOf(...DOCUMENT_KINDS),
  number: text,
  registrationId: text,
  customerId: words,
  issueDate: date,
  taxPoint: date,
  dueDate: date,
  instalments: maybe(listOf(record({ percent: number, due: date }))),
  settlement: maybe(record({ percent: number, until: date })),
  supplyFrom: maybe(date),
  currency,
  home: maybe(record({ currency, rate: number, perHome: number, on: date, source: words })),
  priceMode,
  seller: record({
    name: words,
    address,
    legalId: words,
    email: words,
    phone: words,
    taxNumber: words,
    iban: words,
    local: maybe(record({ kind: oneOf(...Object.keys(LOCAL_FORMS)), code: text, number: text })),
    bic: words,
    endpoint,
  }),
  buyer: record({
    name: words,
    address,
    email: words,
    taxNumber: words,
    endpoint,
    language: maybe(words),
    contact: maybe(words),
  }),
  delivery: maybe(address),
  buyerReference: words,
  orderNumber: words,
  subject: maybe(words),
  salesperson: maybe(words),
  note: words,
  conditions: maybe(words),
  paidBy: maybe(oneOf(...PAYMENT_METHODS)),
  rounding: maybe(
    record({
      mode: oneOf('half-up', 'half-even'),
      level: oneOf('document', 'line'),
      wholeUnits: flag,
      cashStep: numberOrNothing,
      amount: maybe(number),
    }),
  ),
  basis: maybe(oneOf('on-payment')),
  withholding: maybe(
    listOf(
      record({
        id: text,
        name: words,
        base: oneOf('net', 'gross', 'tax'),
        when: oneOf('on-issue', 'on-payment'),
        certificate: flag,
        percent: number,
        since: date,
        threshold: number,
        amount: maybe(number),
        amountHome: maybe(number),
      }),
    ),
  ),
  filing: maybe(record({ currency, rate: number })),
  trails: maybe(listOf(trail)),
  taxes: listOf(frozenTax),
  lines: listOf(contentLine),
  adjustments: maybe(
    listOf(
      record({
        id: text,
        kind: oneOf('allowance', 'charge'),
        text: words,
        percent: maybe(number),
        amount: maybe(number),
        tax: maybe(text),
        account: words,
        of: maybe(words),
      }),
    ),
  ),
  overrides: maybe(
    listOf(record({ tax: text, family: text, amount: number, reason: words, parts: maybe(listOf(number)) })),
  ),
  stage: maybe(record({ documentId: text, number: text, words, by: oneOf('quantity', 'sum') })),
  debit: maybe(record({ reference: words, iban: words, creditorId: words })),
  version: maybe(count),
  corrects: maybe(earlier),
  advance: maybe(flag),
  payLink: maybe(words),
  reason: maybe(words),
  counted: maybe(
    listOf(
      record({
        tax: text,
        accounts: listOf(record({ account: words, net: number, home: maybe(number) })),
        home: maybe(share),
        filing: maybe(share),
      }),
    ),
  ),
});

const draftLine = record({
  id: text,
  itemId: words,
  description: words,
  quantity: words,
  unit: words,
  price: words,
  discount: words,
  taxClass: words,
  supply: oneOf(...SUPPLY_KINDS),
  taxCode: words,
  taxByHand: flag,
  priceFrom: words,
  itemCode: maybe(words),
  deferral: maybe(deferralOf(words, words)),
  account: words,
  supplied: words,
  of: words,
  takesOff: maybe(earlier),
});

const draftAdjustment = record({
  id: text,
  kind: oneOf('allowance', 'charge'),
  text: words,
  amount: words,
  spread: flag,
  taxClass: words,
  supply: oneOf(...SUPPLY_KINDS),
  taxCode: words,
  taxByHand: flag,
  account: words,
});

const DRAFT_WORDS = [
  'registrationId',
  'customerId',
  'issueDate',
  'taxPoint',
  'supplyFrom',
  'accountingDate',
  'due',
  'currency',
  'perHome',
  'contact',
  'buyerReference',
  'orderNumber',
  'subject',
  'salesperson',
  'carrier',
  'tracking',
  'note',
  'conditions',
  'remarks',
  'styleId',
  'savedAt',
] as const;

const draft = record({
  ...Object.fromEntries(DRAFT_WORDS.map((name) => [name, words])),
  id: text,
  kind: oneOf('invoice', 'quote', 'cash-sale'),
  origin: orNull(
    record({
      how: oneOf('copy', 'stage', 'version', 'correction'),
      documentId: text,
      number: words,
      words,
      by: oneOf('quantity', 'sum'),
    }),
  ),
  familyId: text,
  revision: count,
  registrationByHand: flag,
  delivery: orNull(address),
  priceMode,
  tags: listOf(words),
  paidBy: oneOf(...PAYMENT_METHODS),
  bankAccountId: maybe(words),
  advance: maybe(flag),
  lines: listOf(draftLine),
  adjustments: listOf(draftAdjustment),
  overrides: listOf(record({ tax: words, family: words, amount: words, reason: words })),
  held: orNull(record({ taxPoint: words, customerId: words, taxes: listOf(frozenTax) })),
  keys: listOf(words),
});

/** Rows of drafts and documents, of what repeats, and of runs. */
export const DOCUMENT_ROWS = {
  drafts: draft,
  documents: record({
    id: text,
    kind: oneOf(...DOCUMENT_KINDS),
    number: text,
    customerId: words,
    customerName: words,
    issueDate: date,
    dueDate: date,
    content,
    figures: record({}),
    seal: record({ hash: text, previous: words }),
    seriesId: text,
    position: count,
    periodId: words,
    late: flag,
    entryId: words,
    issuedAt: instant,
    open: amount,
    openHome: amount,
    received: amount,
    credited: amount,
    writtenOff: amount,
    creditNotes: listOf(link),
    isOpen: oneOf(0, 1),
    state: oneOf(...DOCUMENT_STATES),
    familyId: text,
    sentOn: dateOrNothing,
    cancelled: orNull(record({ on: date, reason: words, entryId: text })),
    quote: orNull(
      record({
        answer: orNull(record({ kind: oneOf('accepted', 'declined'), on: date, words })),
        replacedBy: orNull(link),
        billed: amount,
      }),
    ),
    tags: listOf(words),
    remarks: words,
    styleId: words,
    lookId: words,
    amountKey: text,
    words: listOf(words),
  }),
  deferrals: record({
    id: text,
    documentId: text,
    documentNumber: text,
    customerId: text,
    customerName: words,
    lineId: text,
    description: words,
    account: text,
    entries: listOf(record({ entryId: text, date, amount, taken: amount })),
    until: date,
  }),
  recurring: record({
    id: text,
    name: words,
    rhythm,
    first: date,
    until: dateOrNothing,
    times: count,
    does: oneOf(...RECURRING_DOES),
    priceChanges: listOf(record({ from: date, percent: words, priceListId: words })),
    skipped: listOf(date),
    paused: flag,
    nextDue: dateOrNothing,
    groupId: maybe(words),
  }),
  recurringMade: record({
    id: text,
    recurringId: text,
    date,
    documentId: text,
    state: oneOf(...MADE_STATES),
    why: words,
    isGoing: oneOf(0, 1),
    at: instant,
  }),
  runs: record({ id: text, name: text, date, at: instant, operator: words, recurringId: maybe(words) }),
  runRows: record({
    id: text,
    runId: text,
    customerId: text,
    customerName: words,
    left: flag,
    quantity: words,
    price: words,
    documentId: words,
    state: oneOf(...RUN_STATES),
    why: words,
  }),
  customerGroups: record({
    id: text,
    name: text,
    customerIds: listOf(text),
    rule: orNull(record({ country: words, kind: words, text: words })),
  }),
} as const satisfies Readonly<Record<string, Shape>>;
