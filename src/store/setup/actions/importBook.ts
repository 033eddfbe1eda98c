import type { Changes } from '@/core/book/changes';
import { joinChanges } from '@/core/book/joinChanges';
import { postJournal } from '@/core/decisions/ledger/journal';
import { keepAccount } from '@/core/decisions/ledger/keepAccount';
import { openAccounts } from '@/core/decisions/ledger/openAccounts';
import { NOTHING_STORED, saveDraft } from '@/core/decisions/sales/draft';
import { keepTypedBoxes } from '@/core/decisions/tax/typedBoxes';
import { readBalances } from '@/core/files/balancesFile';
import { readBoxes } from '@/core/files/boxesFile';
import { readDrafts } from '@/core/files/draftsFile';
import { atRow, readAccounts, readEntries } from '@/core/files/entriesFile';
import { accept, type Refusal, refuse } from '@/core/kernel/result';
import type { Account } from '@/core/ledger/account';
import { openingBalances } from '../../ledger/queries/openingBalances';
import { loadBook, loadSetting } from '../../load';
import type { Action } from '../../perform';
import { typedBoxesMaterial } from '../../tax/actions/typedBoxes';
import { draftsMaterial } from '../queries/importMaterial';

/** How many records a file brought. */
type Imported = Action<{ readonly text: string }, number>;

/** Most refusals of a file that are told. */
const MOST_WRONG = 50;

/** All parts of a file as one, or what is wrong with any of them. */
function whole(parts: readonly Changes[], wrong: readonly Refusal[], count: number) {
  if (wrong.length > 0) return refuse(...(wrong.slice(0, MOST_WRONG) as [Refusal]));
  if (count === 0) return refuse({ code: 'missing', path: '', wanted: 'rows-in-file' });
  return accept({ value: count, changes: joinChanges(...parts.map((changes) => ({ changes }))) });
}

/** Takes in a file of manual journals, whole or not at all; refusals say their rows. */
export const importJournals: Imported = {
  name: 'import journals',
  async decide(db, { text }, moment) {
    const [{ business }, chart, registrations] = await Promise.all([
      loadBook(db),
      db.accounts.toArray(),
      db.registrations.toArray(),
    ]);
    const read = readEntries(text, business.homeCurrency);
    if (!read.ok) return read;
    const wrong = [...read.value.wrong];
    const parts: Changes[] = [];
    for (const one of read.value.entries) {
      const posted = postJournal(one.input, { chart, registrations }, moment);
      if (posted.ok) parts.push(posted.value.changes);
      else wrong.push(...posted.refusals.map((refusal) => atRow(one.rows, refusal)));
    }
    return whole(parts, wrong, read.value.entries.length);
  },
};

/** Takes in a file of opening balances by account, whole or not at all; refusals say their rows. */
export const importBalances: Imported = {
  name: 'import opening balances',
  async decide(db, { text }, moment) {
    const { business } = await loadBook(db);
    const read = readBalances(text, business.homeCurrency, moment.today);
    if (!read.ok) return read;
    const { rows, input, wrong } = read.value;
    const opened = rows.length === 0 ? null : openAccounts(input, await openingBalances(db), moment);
    const parts = opened?.ok ? [opened.value.changes] : [];
    const refused = opened?.ok === false ? opened.refusals.map((refusal) => atRow(rows, refusal)) : [];
    return whole(parts, [...wrong, ...refused], rows.length);
  },
};

/**
 * Takes in a file of amounts that other books feed into returns, whole or not at all; refusals say their rows. They take the
 * place of what was typed for these returns.
 */
export const importBoxes: Imported = {
  name: 'import amounts of returns',
  async decide(db, { text }, moment) {
    const read = readBoxes(text, await db.registrations.toArray(), moment.today);
    if (!read.ok) return read;
    const wrong = [...read.value.wrong];
    const parts: Changes[] = [];
    for (const { rows, registration, start, typed } of read.value.returns) {
      const kept = keepTypedBoxes(await typedBoxesMaterial(db, registration, start), start, typed);
      if (kept.ok) parts.push(kept.value.changes);
      else wrong.push(...kept.refusals.map((refusal) => atRow(rows, refusal)));
    }
    return whole(
      parts,
      wrong,
      parts.reduce((sum, { put }) => sum + (put?.returnBoxes?.[0]?.typed.length ?? 0), 0),
    );
  },
};

/** Takes in a file of accounts: new ones, and other names of those that are there; whole or not at all. */
export const importAccounts: Imported = {
  name: 'import accounts',
  async decide(db, { text }) {
    const [chart, posted] = await Promise.all([db.accounts.toArray(), db.accountMonths.toArray()]);
    const used = new Set(posted.map(({ account }) => account));
    const read = readAccounts(text);
    if (!read.ok) return read;
    const wrong: Refusal[] = [];
    const parts: Changes[] = [];
    const known: Account[] = [...chart];
    for (const { row, account } of read.value) {
      const isNew = !known.some(({ code }) => code === account.code);
      const kept = keepAccount({ chart: known, isPosted: used.has(account.code) }, account, isNew);
      if (!kept.ok)
        wrong.push(...kept.refusals.map((refusal) => ({ ...refusal, path: `row ${row}, ${refusal.path}` })));
      else if (known.includes(kept.value.value)) continue;
      else {
        // One code in two rows is said to be there already.
        if (parts.some(({ put }) => put?.accounts?.some(({ code }) => code === account.code)))
          wrong.push({ code: 'duplicate', path: `row ${row}, code`, found: account.code });
        parts.push(kept.value.changes);
        known.push(kept.value.value);
      }
    }
    return whole(parts, wrong, read.value.length);
  },
};

/** Takes in a file of invoices and quotes with their lines, as drafts; whole or not at all. */
export const importDrafts: Imported = {
  name: 'import drafts',
  async decide(db, { text }, moment) {
    const material = await draftsMaterial(db);
    const read = readDrafts(text, { ...material, today: moment.today, newId: moment.newId });
    if (!read.ok) return read;
    if (read.value.wrong.length > 0) return whole([], read.value.wrong, 0);
    const parts: Changes[] = [];
    const wrong: Refusal[] = [];
    for (const draft of read.value.drafts) {
      const customer = await db.customers.get(draft.customerId);
      const setting = await loadSetting(db, draft, customer ?? null);
      const kept = saveDraft(draft, NOTHING_STORED, customer, setting, moment);
      if (kept.ok) parts.push(kept.value.changes);
      else wrong.push(...kept.refusals);
    }
    return whole(parts, wrong, read.value.drafts.length);
  },
};
