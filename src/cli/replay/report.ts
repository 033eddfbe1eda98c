import type { IssuedDocument } from '@/core/documents/issued';
import { firstBroken } from '@/core/documents/seal';
import type { Currency } from '@/core/kernel/currency';
import { type IsoDate, isoDate } from '@/core/kernel/date';
import { grouped } from '@/core/kernel/grouped';
import { type Minor, NOTHING, negated, total, writeMoney } from '@/core/kernel/money';
import type { Account } from '@/core/ledger/account';
import { prove } from '@/core/returns/proof';
import type { Receipt } from '@/core/settlement/receipt';
import { sumWithheld } from '@/core/settlement/withholding';
import type { BookDb } from '@/store/schema';
import { periodReturn } from '@/store/tax/queries/periods';
import { proofMaterial } from '@/store/tax/queries/proofMaterial';

/** What an account is reported as: all income together, but for settlement discounts. */
function reportedRole({ role, type }: Account): string {
  if (role === 'settlement-discounts') return 'discounts';
  return type === 'income' ? 'income' : role;
}

/** Balances of all entries up to a day by role, debits above zero; income is all accounts of income. */
async function balances(db: BookDb, at: IsoDate, home: Currency): Promise<Record<string, string>> {
  const [accounts, lines] = await Promise.all([db.accounts.toArray(), db.journalLines.toArray()]);
  const roles = new Map(accounts.map((account) => [account.code, reportedRole(account)]));
  const dated = lines.filter(({ date }) => date <= at);
  const sums = [...grouped(dated, ({ account }) => roles.get(account) ?? '')].map(
    ([role, group]) => [role, total(group.map(({ amount }) => amount))] as const,
  );
  return Object.fromEntries(
    sums.flatMap(([role, sum]) => (role === '' || sum === NOTHING ? [] : [[role, writeMoney(sum, home)]])),
  );
}

interface Standing {
  readonly id: string;
  readonly open: string;
  readonly openHome: string;
  readonly state: string;
}

const usedState = (open: Minor, all: Minor): string =>
  open === NOTHING ? 'used' : open === all ? 'open' : 'part-used';

function documentStanding(id: string, document: IssuedDocument, home: Currency): Standing {
  const { open, openHome, content, kind, figures, state } = document;
  const own = kind === 'credit-note' ? usedState(negated(open), figures.totals.payable) : state;
  return { id, open: writeMoney(open, content.currency), openHome: writeMoney(openHome, home), state: own };
}

function receiptStanding(id: string, receipt: Receipt, home: Currency): Standing {
  const { open, openHome, amount, currency, dishonoured } = receipt;
  return {
    id,
    open: writeMoney(negated(open), currency),
    openHome: writeMoney(negated(openHome), home),
    state: dishonoured === null ? usedState(open, amount) : 'dishonoured',
  };
}

/** Every named invoice, receipt and note as it stands, by its id; credits below zero. */
async function standings(db: BookDb, ids: ReadonlyMap<string, string>, home: Currency): Promise<readonly Standing[]> {
  const found = await Promise.all(
    [...ids].map(async ([name, id]) => {
      const [document, receipt] = await Promise.all([db.documents.get(id), db.receipts.get(id)]);
      if (document !== undefined) return documentStanding(name, document, home);
      return receipt === undefined ? null : receiptStanding(name, receipt, home);
    }),
  );
  return found.flatMap((one) => one ?? []).sort((a, b) => (a.id < b.id ? -1 : 1));
}

/** Returns and proofs of every period that has entries or was filed. */
async function periods(db: BookDb, home: Currency) {
  const [registrations, rows, entries] = await Promise.all([
    db.registrations.toArray(),
    db.taxPeriods.toArray(),
    db.taxEntries.toArray(),
  ]);
  const reported = new Set(entries.map(({ periodId }) => periodId));
  const shown = rows
    .filter(({ id, filed }) => filed !== null || reported.has(id))
    .sort((a, b) => (a.id < b.id ? -1 : 1));
  const returns: object[] = [];
  const proofs: object[] = [];
  for (const { registrationId, start } of shown) {
    const registration = registrations.find(({ id }) => id === registrationId);
    if (registration === undefined) continue;
    const at = { registration: registrationId, from: start };
    const { period, figures } = await periodReturn(db, registration, isoDate(start));
    const { base, tax } = figures;
    const filed = period?.filed !== null && period !== null;
    returns.push({ ...at, base: writeMoney(base, home), tax: writeMoney(tax, home), filed });
    proofs.push({ ...at, holds: prove(await proofMaterial(db, registration, isoDate(start))).holds });
  }
  return { returns, proofs };
}

/** What is withheld, certified and claimed, by type. */
async function withholding(db: BookDb, home: Currency) {
  const [types, rows] = await Promise.all([db.withholdingTypes.toArray(), db.withheld.toArray()]);
  return types
    .map(({ id }) => id)
    .sort()
    .map((type) => {
      const sums = sumWithheld(rows.filter(({ typeId }) => typeId === type));
      const { withheld, certified, claimed } = sums;
      return {
        type,
        withheld: writeMoney(withheld, home),
        certified: writeMoney(certified, home),
        claimed: writeMoney(claimed, home),
      };
    });
}

/** Whether every chain of seals is whole. */
async function sealed(db: BookDb): Promise<boolean> {
  const documents = await db.documents.toArray();
  return [...grouped(documents, ({ seriesId }) => seriesId).values()].every(
    (chain) => firstBroken([...chain].sort((a, b) => a.position - b.position)) === null,
  );
}

/** What the book says at the end of a scenario. */
export async function reportOf(db: BookDb, ids: ReadonlyMap<string, string>, at: IsoDate, home: Currency) {
  const { returns, proofs } = await periods(db, home);
  return {
    balances: await balances(db, at, home),
    open: await standings(db, ids, home),
    returns,
    withholding: await withholding(db, home),
    proofs,
    seals: await sealed(db),
  };
}
