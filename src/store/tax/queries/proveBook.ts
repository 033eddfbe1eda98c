import { stillDeferred } from '@/core/documents/deferralPlan';
import { SEALS } from '@/core/files/bookFaults';
import { type IsoDate, laterOf, monthOf, writeDate } from '@/core/kernel/date';
import { type Minor, minor, minus, NOTHING, plus, total } from '@/core/kernel/money';
import type { AccountRole } from '@/core/ledger/account';
import type { JournalLine } from '@/core/ledger/entry';
import { amountsAgree, type BookCheck, type BookDifference } from '@/core/returns/bookProof';
import { type Span, spanName, spansUntil } from '@/core/returns/calendar';
import { prove } from '@/core/returns/proof';
import { sumWithheld } from '@/core/settlement/withholding';
import type { Registration } from '@/core/tax/registration';
import { wordRefusal } from '@/core/wording/refusals';
import { checkBook, type OnRows } from '../../archive';
import { accountOn, reconciliationsOf } from '../../bank/queries/reconciliation';
import { wholeTable } from '../../batches';
import { checkSeals } from '../../sales/queries/seals';
import type { BookDb } from '../../schema';
import { proofMaterial } from './proofMaterial';

const BATCH = 5000;

/** What one pass through all lines of the journal tells. */
interface Passed {
  readonly balances: ReadonlyMap<string, Minor>;
  /** By account and month, `4000|2026-01`. */
  readonly months: ReadonlyMap<string, Minor>;
  /** By account, what manual journals put there. */
  readonly manual: ReadonlyMap<string, readonly BookDifference[]>;
  readonly unbalanced: readonly BookDifference[];
  /** Lines of deferred income, by day. */
  readonly deferred: readonly Pick<JournalLine, 'date' | 'amount'>[];
}

/** Goes through the journal, a batch at a time. */
async function passThrough(db: BookDb, deferredAccount: string): Promise<Passed> {
  const manualIds = new Set(
    await db.journal.where('[kind+date]').between(['journal', ''], ['journal', '~']).primaryKeys(),
  );
  const [balances, months, entries] = [new Map<string, Minor>(), new Map<string, Minor>(), new Map<string, Minor>()];
  const manual = new Map<string, BookDifference[]>();
  const deferred: Pick<JournalLine, 'date' | 'amount'>[] = [];
  const add = (sums: Map<string, Minor>, key: string, amount: Minor) =>
    sums.set(key, plus(sums.get(key) ?? NOTHING, amount));
  await wholeTable(db, 'journalLines', BATCH, (lines) => {
    for (const { entryId, account, date, amount, text } of lines) {
      add(balances, account, amount);
      add(months, `${account}|${monthOf(date)}`, amount);
      add(entries, entryId, amount);
      if (account === deferredAccount) deferred.push({ date, amount });
      if (manualIds.has(entryId))
        manual.set(account, [...(manual.get(account) ?? []), { subject: text, cause: 'manual journal', amount }]);
    }
  });
  const unbalanced = [...entries].flatMap(([subject, amount]) =>
    amount === NOTHING ? [] : [{ subject, cause: 'debits and credits differ', amount }],
  );
  return { balances, months, manual, unbalanced, deferred };
}

async function keptBalances(db: BookDb, months: Passed['months']): Promise<BookCheck> {
  const kept = await db.accountMonths.toArray();
  const keys = new Set([...months.keys(), ...kept.map(({ account, month }) => `${account}|${month}`)]);
  const keptOf = new Map(kept.map(({ account, month, amount }) => [`${account}|${month}`, amount]));
  const differences = [...keys].flatMap((key): readonly BookDifference[] => {
    const amount = minus(keptOf.get(key) ?? NOTHING, months.get(key) ?? NOTHING);
    return amount === NOTHING ? [] : [{ subject: key.replace('|', ', '), cause: 'balance kept differs', amount }];
  });
  return { check: 'kept-balances', holds: differences.length === 0, compared: null, differences };
}

interface PeriodOf extends Span {
  readonly registration: Registration;
}

/** Every period in which something was reported, or might have been posted to a tax account by hand. */
async function periodsOf(db: BookDb): Promise<readonly PeriodOf[]> {
  const [registrations, kept, newest] = await Promise.all([
    db.registrations.toArray(),
    db.taxPeriods.toArray(),
    db.journal.orderBy('[date+id]').last(),
  ]);
  return registrations.flatMap((registration) => {
    const spans = new Map<string, Span>();
    if (newest !== undefined) for (const span of spansUntil(registration, newest.date)) spans.set(span.start, span);
    for (const { registrationId, start, end } of kept)
      if (registrationId === registration.id) spans.set(start, { start, end });
    return [...spans.values()].map((span) => ({ registration, ...span }));
  });
}

async function periods(db: BookDb, altered: ReadonlySet<string>): Promise<BookCheck> {
  const differences: BookDifference[] = [];
  for (const { registration, start, end } of await periodsOf(db)) {
    const registrationId = registration.id;
    const proof = prove(await proofMaterial(db, registration, start), altered);
    const name = `${registration.name}, ${spanName({ start, end })}`;
    differences.push(
      ...proof.differences.map(({ cause, amount, subject }) => ({
        subject: `${name}: ${subject}`,
        cause: cause.replaceAll('-', ' '),
        amount,
        period: { registrationId, start },
      })),
    );
  }
  return { check: 'periods', holds: differences.length === 0, compared: null, differences };
}

/** What is open on documents less money on account, in home currency; read a batch at a time. */
async function owed(db: BookDb): Promise<Minor> {
  let sum = NOTHING;
  await db.documents
    .where('[isOpen+kind+dueDate]')
    .between([1, ''], [1, '~'])
    .each(({ openHome }) => {
      sum = plus(sum, openHome);
    });
  await wholeTable(db, 'receipts', BATCH, (receipts) => {
    for (const { isOpen, openHome } of receipts) if (isOpen === 1) sum = minus(sum, openHome);
  });
  return sum;
}

/** Day of the newest entry of a document; before it, what was still to be invoiced or credited is not in the plans. */
async function newestPosting(db: BookDb): Promise<IsoDate | null> {
  const newest = await Promise.all(
    (['invoice', 'credit-note', 'cancellation'] as const).map((kind) =>
      db.journal.where('[kind+date]').between([kind, ''], [kind, '~']).last(),
    ),
  );
  const days = newest.flatMap((entry) => (entry === undefined ? [] : [entry.date]));
  return days.length === 0 ? null : days.reduce(laterOf);
}

/** Deferred income is what plans still have to earn, on the day of the newest document and at the end of all. */
async function deferredIncome(
  db: BookDb,
  lines: Passed['deferred'],
  explained: readonly BookDifference[],
): Promise<BookCheck> {
  const plans = await db.deferrals.toArray();
  const end = lines.reduce<IsoDate | null>((last, { date }) => (last === null || date > last ? date : last), null);
  const checks = [await newestPosting(db), end].flatMap((day) => {
    if (day === null) return [];
    const expected = minor(-total(plans.map((plan) => stillDeferred(plan, day))));
    const found = total(lines.filter(({ date }) => date <= day).map(({ amount }) => amount));
    return [amountsAgree('deferred-income', expected, found, explained)];
  });
  return checks.find(({ holds }) => !holds) ?? checks[0] ?? amountsAgree('deferred-income', NOTHING, NOTHING);
}

/** Each bank account on the day it was last reconciled: the ledger and the lines still lead to its statement as they did. */
async function bankAccounts(db: BookDb): Promise<BookCheck> {
  const differences: BookDifference[] = [];
  for (const { id, name } of await db.bankAccounts.toArray()) {
    const [newest] = await reconciliationsOf(db, id, 1);
    if (newest === undefined) continue;
    const now = await accountOn(db, id, newest.date, newest.statementBalance);
    const off = minus(now?.bridge.difference ?? NOTHING, newest.difference);
    if (off !== NOTHING)
      differences.push({
        subject: `${name}, ${writeDate(newest.date)}`,
        cause: 'changed since it was reconciled',
        amount: off,
      });
  }
  return { check: 'bank', holds: differences.length === 0, compared: null, differences };
}

/** What the figures of the book say of each other: all checks but that of the rows. */
async function figuresCheck(db: BookDb): Promise<readonly BookCheck[]> {
  const accounts = await db.accounts.toArray();
  const codeOf = (role: AccountRole) => accounts.find((account) => account.role === role)?.code ?? '';
  const [passed, chains] = await Promise.all([
    passThrough(db, codeOf('deferred-income')),
    checkSeals(db, () => undefined),
  ]);
  const standing = (role: AccountRole) => passed.balances.get(codeOf(role)) ?? NOTHING;
  const byHand = (role: AccountRole) => passed.manual.get(codeOf(role)) ?? [];
  const { withheld, claimed } = sumWithheld(await db.withheld.toArray());
  const broken = chains.flatMap(({ seriesId, broken: first, cut }): readonly BookDifference[] => [
    ...(first === null ? [] : [{ subject: first.number, cause: 'does not fit its seal or its place', amount: null }]),
    ...(cut ? [{ subject: seriesId, cause: 'documents at the end are missing', amount: null }] : []),
  ]);
  const [kept, proofs, open, deferred, banks] = await Promise.all([
    keptBalances(db, passed.months),
    periods(db, new Set(chains.flatMap(({ altered }) => altered))),
    owed(db),
    deferredIncome(db, passed.deferred, byHand('deferred-income')),
    bankAccounts(db),
  ]);
  return [
    { check: 'entries', holds: passed.unbalanced.length === 0, compared: null, differences: passed.unbalanced },
    kept,
    proofs,
    amountsAgree('receivables', open, standing('receivables'), byHand('receivables')),
    amountsAgree('withholding', minus(withheld, claimed), standing('withholding-claims'), byHand('withholding-claims')),
    deferred,
    amountsAgree('unrealised', NOTHING, standing('exchange-unrealised'), byHand('exchange-unrealised')),
    banks,
    { check: 'seals', holds: broken.length === 0, compared: null, differences: broken },
  ];
}

/** What the check of book files says of the book as it stands: `documents, row 4, open` and why. */
async function rowsCheck(db: BookDb, onRows: OnRows): Promise<BookCheck> {
  const differences = (await checkBook(db, [SEALS], onRows)).map((refusal) => ({
    subject: refusal.path,
    cause: refusal.code === 'damaged' ? `${refusal.expected} was expected` : wordRefusal(refusal),
    amount: null,
  }));
  return { check: 'rows', holds: differences.length === 0, compared: null, differences };
}

/**
 * Proves the whole book: entries, kept balances, every period, receivables, withholding claims, deferred income, unrealised
 * differences, bank accounts, seals and numbers, and what rows say of each other. Nothing is written.
 */
export async function proveBook(db: BookDb, onRows: OnRows): Promise<readonly BookCheck[]> {
  // While one waits for its rows the other works on its own. All rows take longer than the figures.
  const [figures, rows] = await Promise.all([figuresCheck(db), rowsCheck(db, onRows)]);
  return [...figures, rows];
}
