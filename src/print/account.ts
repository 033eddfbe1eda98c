import type { DocumentStyle } from '@/core/documents/style';
import { PLAIN_STYLE } from '@/core/documents/style';
import type { Currency } from '@/core/kernel/currency';
import type { IsoDate } from '@/core/kernel/date';
import { type Minor, minor, NOTHING, negated, total } from '@/core/kernel/money';
import type { Address } from '@/core/parties/address';
import { type BankAccount, bankAccountFor } from '@/core/parties/bankAccount';
import type { Business } from '@/core/parties/business';
import { writeIban } from '@/core/parties/iban';
import { localAccountOf } from '@/core/parties/localAccount';
import {
  type AccountRows,
  AGE_LIMITS,
  accountMoves,
  agedOf,
  ageHeads,
  type OpenItem,
  openItemsOn,
  statementOf,
} from '@/core/settlement/account';
import type { Allocation } from '@/core/settlement/allocation';
import type { Receipt } from '@/core/settlement/receipt';
import type { Withheld } from '@/core/settlement/withholding';
import { type AccountWording, accountWordingOf } from './wording/account';
import { fill } from './wording/wording';
import { localRows, type PrintedColumn, type PrintedDocument, type PrintedFact, type PrintedLine } from './words';
import { Writer } from './writer';

/* Pages about a customer's account. They stand on the sheet of documents, whose columns take days and amounts here. */

/** Who writes to whom, and how. */
export interface AccountHead {
  readonly business: Pick<Business, 'name' | 'address' | 'phone' | 'email' | 'homeCurrency'>;
  readonly bankAccounts: readonly BankAccount[];
  readonly customer: { readonly name: string; readonly address: Address; readonly language: string };
  readonly style?: DocumentStyle;
}

const EMPTY_LINE: PrintedLine = {
  title: '',
  detail: '',
  supplied: '',
  quantity: '',
  price: '',
  less: '',
  tax: '',
  value: '',
  running: '',
};

interface Body {
  readonly title: string;
  readonly number: string;
  readonly currency: Currency;
  readonly facts: readonly PrintedFact[];
  readonly columns: readonly PrintedColumn[];
  readonly lines: readonly PrintedLine[];
  readonly totals: readonly PrintedFact[];
  readonly below?: readonly PrintedFact[];
  readonly words?: readonly string[];
  readonly payment?: readonly PrintedFact[];
}

function pageOf({ business, customer, style = PLAIN_STYLE }: AccountHead, write: Writer, body: Body): PrintedDocument {
  const { wording } = write;
  const { title, number, currency, facts, columns, lines, totals, below = [], words = [], payment = [] } = body;
  return {
    language: wording.language,
    title,
    stamp: '',
    stampLine: '',
    number,
    currency,
    seller: [business.name, ...write.address(business.address), business.phone, business.email].filter(Boolean),
    buyer: [customer.name, ...write.address(customer.address)],
    facts,
    columns,
    valueHead: columns.at(-1)?.head ?? '',
    lines,
    totals,
    withheld: below,
    homeTax: '',
    legends: [],
    terms: words,
    payment,
    code: null,
    slip: null,
    note: '',
    conditions: '',
    foot: '',
    footer: style.footer?.trim() ?? '',
    seal: '',
    carried: wording.carried,
    brought: wording.brought,
    page: wording.page,
    accent: style.accent,
    window: style.window ?? '',
    logo: style.logo,
  };
}

const writerFor = ({ customer }: AccountHead, currency: Currency) => {
  const write = new Writer(customer.language, currency);
  return { write, words: accountWordingOf(write.wording.language) };
};

/** From a day on until another with everything that happened; or, without `from`, what is open on the last. */
export interface StatementSpan {
  readonly from: IsoDate | null;
  readonly until: IsoDate;
}

function ages(
  items: readonly OpenItem[],
  until: IsoDate,
  write: Writer,
  words: AccountWording,
): readonly PrintedFact[] {
  const { columns, held } = agedOf(items, until);
  const heads = ageHeads(AGE_LIMITS);
  const named = columns.map((amount, i): PrintedFact => {
    const days = heads[i - 1] ?? '';
    const last = i === columns.length - 1;
    const head =
      i === 0 ? words.notYetDue : fill(last ? words.over : words.overdue, { days: days.replace(/^over /, '') });
    return [head, write.money(amount)];
  });
  const shown = named.filter((_, i) => columns[i] !== NOTHING);
  return held === NOTHING ? shown : [...shown, [words.held, write.money(held)]];
}

/** A statement of account in one currency, with what is owed by age below it. */
export function printedStatement(
  head: AccountHead,
  rows: AccountRows,
  currency: Currency,
  { from, until }: StatementSpan,
): PrintedDocument {
  const { write, words } = writerFor(head, currency);
  const items = openItemsOn(rows, until).filter((item) => item.currency === currency);
  const cheques = rows.receipts.filter(
    (receipt) => receipt.currency === currency && receipt.date <= until && receipt.valueDate > until,
  );
  const notes = cheques.map(({ parts, valueDate, amount }) =>
    fill(words.cheque, {
      number: parts[0]?.cheque?.number ?? '',
      date: write.day(valueDate),
      amount: `${write.money(amount)} ${currency}`,
    }),
  );
  const { business, bankAccounts, style } = head;
  const paidInto = bankAccountFor(bankAccounts, currency, business.homeCurrency, style?.bankAccountId);
  const payment: readonly PrintedFact[] =
    paidInto === undefined
      ? []
      : [
          [write.wording.payTo, business.name],
          ...(paidInto.iban === '' ? [] : [['IBAN', writeIban(paidInto.iban)] as const]),
          ...localRows(localAccountOf(paidInto.local), write.wording),
          ...(paidInto.bic === '' ? [] : [['BIC', paidInto.bic] as const]),
        ];
  const common = { title: words.statement, number: '', currency, words: notes, payment };
  if (from === null) {
    let running = NOTHING;
    const balance = total(items.map(({ open }) => open));
    return pageOf(head, write, {
      ...common,
      facts: [[words.asAt, write.day(until)]],
      columns: [
        { field: 'title', head: words.document },
        { field: 'supplied', head: words.date, whole: true },
        { field: 'quantity', head: words.due, whole: true },
        { field: 'price', head: words.amount },
        { field: 'value', head: words.open },
      ],
      lines: items.map(({ number, reference, date, due, amount, open }) => {
        running = minor(running + open);
        return {
          ...EMPTY_LINE,
          title: number,
          detail: reference,
          supplied: write.day(date),
          quantity: open < 0n ? '' : write.day(due),
          price: write.money(amount),
          value: write.money(open),
          running: write.money(running),
        };
      }),
      totals: [[words.balance, write.money(balance)]],
      below: ages(items, until, write, words),
    });
  }
  const { opening, moves, closing } = statementOf(accountMoves(rows, currency), from, until);
  return pageOf(head, write, {
    ...common,
    facts: [[words.asAt, fill(words.period, { from: write.day(from), until: write.day(until) })]],
    columns: [
      { field: 'title', head: words.document },
      { field: 'supplied', head: words.date, whole: true },
      { field: 'quantity', head: words.debit },
      { field: 'price', head: words.credit },
      { field: 'value', head: words.balance },
    ],
    lines: [
      { ...EMPTY_LINE, title: words.opening, value: write.money(opening), running: write.money(opening) },
      ...moves.map(({ event, number, reference, date, amount, balance }) => ({
        ...EMPTY_LINE,
        title: `${words.events[event]} ${number}`,
        detail: reference,
        supplied: write.day(date),
        quantity: amount > 0n ? write.money(amount) : '',
        price: amount < 0n ? write.money(negated(amount)) : '',
        value: write.money(balance),
        running: write.money(balance),
      })),
    ],
    totals: [[words.balance, write.money(closing)]],
    below: ages(items, until, write, words),
  });
}

/** A receipt under its own number: how the money came, what it settles, and what of it is kept on account. */
export function printedReceipt(
  head: AccountHead,
  receipt: Receipt,
  settles: readonly Allocation[],
  withheld: readonly Withheld[],
): PrintedDocument {
  const { currency, number, date, reference, parts, amount, open } = receipt;
  const { write, words } = writerFor(head, currency);
  const how = (method: string) => write.wording.methods[method] ?? '';
  const came = [
    ...parts.map(({ method, amount: part, cheque }): PrintedFact => {
      const received = fill(words.received, { how: how(method) });
      return [cheque === null || cheque.number === '' ? received : `${received}, ${cheque.number}`, write.money(part)];
    }),
    ...withheld.map(
      ({ typeName, amount: part }): PrintedFact => [fill(words.withheld, { type: typeName }), write.money(part)],
    ),
  ];
  return pageOf(head, write, {
    title: words.receipt,
    number,
    currency,
    facts: [
      [write.wording.number, number],
      [words.date, write.day(date)],
      ...(reference === '' ? [] : [[words.reference, reference] as const]),
    ],
    columns: [
      { field: 'title', head: words.document },
      { field: 'value', head: words.amount },
    ],
    lines: [
      ...settles.map((one) => ({ ...EMPTY_LINE, title: one.debtNumber, value: write.money(one.amount) })),
      ...(open === NOTHING ? [] : [{ ...EMPTY_LINE, title: words.onAccount, value: write.money(open) }]),
    ],
    totals: [...came, [write.wording.total, write.money(amount)]],
    words: [words.thanks],
  });
}

/** A letter that asks a customer for the certificates of what it kept back; amounts in home currency. */
export function printedLetter(
  head: AccountHead,
  missing: readonly Withheld[],
  home: Currency,
  on: IsoDate,
): PrintedDocument {
  const { write, words } = writerFor(head, home);
  const lacking = (one: Withheld): Minor => minor(one.home - one.certified);
  return pageOf(head, write, {
    title: words.letter,
    number: '',
    currency: home,
    facts: [[words.date, write.day(on)]],
    columns: [
      { field: 'title', head: words.document },
      { field: 'supplied', head: words.date, whole: true },
      { field: 'tax', head: words.type },
      { field: 'value', head: words.amount },
    ],
    lines: missing.map((one) => ({
      ...EMPTY_LINE,
      title: one.documentNumber,
      detail: one.receiptNumber,
      supplied: write.day(one.date),
      tax: one.typeName,
      value: write.money(lacking(one)),
    })),
    totals: [[write.wording.total, write.money(total(missing.map(lacking)))]],
    words: [words.asks, words.please],
  });
}

/** What a reminder on paper says. */
export interface ReminderWords {
  readonly subject: string;
  /** Its paragraphs, parted by empty lines. */
  readonly text: string;
}

/** A reminder for the post, with everything that is overdue in one currency. */
export function printedReminder(
  head: AccountHead,
  { subject, text }: ReminderWords,
  items: readonly { readonly number: string; readonly date: IsoDate; readonly due: IsoDate; readonly open: Minor }[],
  currency: Currency,
  on: IsoDate,
): PrintedDocument {
  const { write, words } = writerFor(head, currency);
  return pageOf(head, write, {
    title: subject,
    number: '',
    currency,
    facts: [[words.date, write.day(on)]],
    columns: [
      { field: 'title', head: words.document },
      { field: 'supplied', head: words.date, whole: true },
      { field: 'quantity', head: words.due, whole: true },
      { field: 'value', head: words.open },
    ],
    lines: items.map(({ number, date, due, open }) => ({
      ...EMPTY_LINE,
      title: number,
      supplied: write.day(date),
      quantity: write.day(due),
      value: write.money(open),
    })),
    totals: [[words.balance, write.money(total(items.map(({ open }) => open)))]],
    words: text.split(/\n{2,}/),
  });
}
