import Dexie from 'dexie';
import { openOf } from '@/core/bank/bankLine';
import type { MatchCustomer, MatchMaterial, OpenDebt, ToPay, TransferLine } from '@/core/bank/matchIndex';
import { KINDS } from '@/core/documents/kinds';
import { addDays, type IsoDate } from '@/core/kernel/date';
import { grouped } from '@/core/kernel/grouped';
import { negated, total } from '@/core/kernel/money';
import type { BankAccount } from '@/core/parties/bankAccount';
import { spanName } from '@/core/returns/calendar';
import { leftOf } from '@/core/returns/taxPayment';
import { discountOffer } from '@/core/settlement/discount';
import { expectedWith } from '@/core/settlement/expected';
import { loadBook } from '../../load';
import type { BookDb } from '../../schema';
import { owedReturns } from '../../tax/queries/owed';
import { cardTakings, unseenMovements } from './movements';

/** Invoices that are open in the currency of an account, and money of customers that can go back. */
async function openItems(db: BookDb, currency: string): Promise<Pick<MatchMaterial, 'debts' | 'credits'>> {
  const [documents, receipts] = await Promise.all([
    db.documents.where('[isOpen+kind+dueDate]').between([1, Dexie.minKey], [1, Dexie.maxKey]).toArray(),
    db.receipts.filter(({ isOpen, dishonoured }) => isOpen === 1 && dishonoured === null).toArray(),
  ]);
  const own = documents.filter(({ content }) => content.currency === currency);
  const owed = own.filter(({ kind, open }) => KINDS[kind].owed && open > 0n);
  const withheld = grouped(
    await db.withheld
      .where('documentId')
      .anyOf(owed.filter(({ content }) => content.withholding !== undefined).map(({ id }) => id))
      .toArray(),
    ({ documentId }) => documentId,
  );
  const debts = owed.map((document): OpenDebt => {
    const { id, number, customerId, issueDate, dueDate, content, open } = document;
    const offer = discountOffer(document);
    return {
      id,
      number,
      customerId,
      date: issueDate,
      due: dueDate,
      open,
      expected: total(expectedWith(document, open, withheld.get(id) ?? []).map(({ amount }) => amount)),
      discount: offer?.most ?? (0n as typeof open),
      discountUntil: offer?.until ?? '',
      references: [content.orderNumber, content.buyerReference, content.subject ?? ''].filter(Boolean),
    };
  });
  const notes = own.filter(({ open }) => open < 0n);
  const credits = [
    ...notes.map(({ id, number, customerId, issueDate, open }) => ({
      id,
      number,
      customerId,
      date: issueDate,
      open: negated(open),
    })),
    ...receipts
      .filter((receipt) => receipt.currency === currency)
      .map(({ id, number, customerId, date, open }) => ({ id, number, customerId, date, open })),
  ];
  return { debts, credits };
}

/** Customers with the accounts they are known to pay from: of their mandates, and of lines that were matched with their receipts. */
async function payers(db: BookDb, bankAccountId: string, since: IsoDate): Promise<readonly MatchCustomer[]> {
  const [customers, lines] = await Promise.all([
    db.customers.toArray(),
    db.bankLines
      .where('[bankAccountId+isOpen+date]')
      .between([bankAccountId, 0, since], [bankAccountId, 0, Dexie.maxKey])
      .toArray(),
  ]);
  const matched = lines.filter(({ iban, matches }) => iban !== '' && matches.some(({ kind }) => kind === 'receipt'));
  const receipts = await db.receipts.bulkGet(matched.map(({ matches }) => matches[0]?.id ?? ''));
  const ibans = new Map<string, Set<string>>();
  matched.forEach(({ iban }, i) => {
    const id = receipts[i]?.customerId;
    if (id !== undefined) ibans.set(id, (ibans.get(id) ?? new Set()).add(iban));
  });
  return customers
    .filter(({ mergedInto }) => mergedInto === '')
    .map(({ id, name, mandate }) => ({
      id,
      name,
      ibans: [...(mandate.iban === '' ? [] : [mandate.iban]), ...(ibans.get(id) ?? [])],
    }));
}

/** What is left to pay on filed returns, or to come back. */
async function returnsToPay(db: BookDb): Promise<readonly ToPay[]> {
  const [registrations, chart] = await Promise.all([db.registrations.toArray(), db.accounts.toArray()]);
  const all = await Promise.all(registrations.map((registration) => owedReturns(db, registration, chart)));
  return all.flatMap(({ returns }, i) =>
    returns.flatMap((one): readonly ToPay[] => {
      const left = leftOf(one);
      const { period } = one;
      const registration = registrations[i];
      if (left === 0n || registration === undefined) return [];
      const name = `${registration.name}, ${spanName({ start: period.start, end: period.end })}`;
      return [{ registrationId: registration.id, start: period.start, name, date: period.end, left }];
    }),
  );
}

/** Open lines of our other accounts, which may be the other side of a transfer. */
async function transferLines(db: BookDb, account: BankAccount): Promise<readonly TransferLine[]> {
  const others = (await db.bankAccounts.toArray()).filter(
    ({ id, currency }) => id !== account.id && currency === account.currency,
  );
  const lines = await Promise.all(
    others.map(({ id }) =>
      db.bankLines.where('[bankAccountId+isOpen+date]').between([id, 1, Dexie.minKey], [id, 1, Dexie.maxKey]).toArray(),
    ),
  );
  return others.flatMap(({ id, name, iban }, i) =>
    (lines[i] ?? []).map((line) => ({
      lineId: line.id,
      bankAccountId: id,
      name,
      iban,
      date: line.date,
      amount: openOf(line),
    })),
  );
}

/** A year back payers are remembered by the accounts they paid from. */
const REMEMBERED = 400;

/** All that lines of an account may be, as the book stands, with its movements so many days around them. */
export async function matchMaterial(
  db: BookDb,
  account: BankAccount,
  days: { readonly from: IsoDate; readonly until: IsoDate },
): Promise<MatchMaterial> {
  const { business } = await loadBook(db);
  const [items, customers, movements, toPay, transfers, takings, rules] = await Promise.all([
    openItems(db, account.currency),
    payers(db, account.id, addDays(days.from, -REMEMBERED)),
    unseenMovements(db, account, business.homeCurrency, days.from, days.until),
    account.currency === business.homeCurrency ? returnsToPay(db) : [],
    transferLines(db, account),
    account.currency === business.homeCurrency ? cardTakings(db, business.homeCurrency, days.until) : [],
    db.bankRules.toArray(),
  ]);
  return { ...items, customers, movements, toPay, transfers, takings, rules };
}
