import { matchedWith, openOf } from '@/core/bank/bankLine';
import { BOOK_TABLES, type BookTable, descriptorOf } from '@/core/book/tables';
import { amountKey, type IssuedDocument, nextDue, owedOf, stateOf } from '@/core/documents/issued';
import type { Series } from '@/core/documents/series';
import type { IsoDate } from '@/core/kernel/date';
import { grouped } from '@/core/kernel/grouped';
import { type Minor, minus, NOTHING, negated, plus, total } from '@/core/kernel/money';
import type { Refusal } from '@/core/kernel/result';
import type { Account, AccountRole } from '@/core/ledger/account';
import type { JournalEntry, JournalLine } from '@/core/ledger/entry';
import type { Cover, Withheld } from '@/core/settlement/withholding';
import { type Check, damaged, type Gathering, type Looks } from './gathering';

/** Amounts that are added up by a key. */
class Sums {
  private readonly of = new Map<string, Minor>();

  add(key: string, amount: Minor): void {
    this.of.set(key, plus(this.get(key), amount));
  }

  get(key: string): Minor {
    return this.of.get(key) ?? NOTHING;
  }
}

/** A check of rows by themselves. */
function ofRows(looks: (fault: (path: string, expected: string) => void) => Looks): Gathering {
  const faults: Refusal[] = [];
  return { looks: looks((path, expected) => faults.push(damaged(path, expected))), faults: () => faults };
}

/** Rows that name others which are not there. What is named before it was seen waits until the end. */
function references(): Gathering {
  const known = new Map<BookTable, Set<unknown>>();
  for (const table of BOOK_TABLES)
    for (const { table: other } of descriptorOf(table).references ?? []) known.set(other as BookTable, new Set());
  const waiting: { readonly keys: ReadonlySet<unknown>; readonly id: unknown; readonly fault: Refusal }[] = [];
  const lookOf = (table: BookTable) => {
    const { references: named = [], called = () => table, key } = descriptorOf(table);
    const own = known.get(table);
    return (row: never) => {
      own?.add(row[key]);
      for (const { table: other, ids, at, what } of named) {
        const keys = known.get(other as BookTable) ?? new Set();
        for (const id of ids(row))
          if (!keys.has(id))
            waiting.push({ keys, id, fault: damaged([called(row), at].filter(Boolean).join(', '), what) });
      }
    };
  };
  return {
    looks: Object.fromEntries(BOOK_TABLES.map((table) => [table, lookOf(table)])) as Looks,
    faults: () => waiting.flatMap(({ keys, id, fault }) => (keys.has(id) ? [] : [fault])),
  };
}

/** What a row says beside its sealed content must be what the content says. */
const rowsAsSealed = () =>
  ofRows((fault) => ({
    documents: (row) => {
      const { content, figures, number, kind, issueDate } = row;
      const wrong = (field: string) => fault(`${number}, ${field}`, `what its sealed content says`);
      if (number !== content.number) return wrong('number');
      if (kind !== content.kind) return wrong('kind');
      if (issueDate !== content.issueDate) return wrong('issue date');
      if (row.customerName !== content.buyer.name) return wrong('customer name');
      if (row.amountKey !== amountKey(figures)) return wrong('amount');
      if ((row.quote === null) !== (kind !== 'quote')) return wrong('quote');
      if (row.dueDate !== nextDue(row)) return wrong('due date');
      if (row.state !== stateOf(row)) return wrong('state');
      if (row.isOpen !== (row.open === NOTHING ? 0 : 1)) return wrong('open');
    },
  }));

/** An open amount as a row says it, held against what allocations settled. */
interface Open {
  readonly id: string;
  readonly number: string;
}

/** What is open follows from what was owed or received, and from the allocations that stand. */
function openAmounts(): Gathering {
  // What allocations that stand moved: received of debts and credit notes, taken back, written off, given by receipts.
  const [received, credited, writtenOff] = [new Sums(), new Sums(), new Sums()];
  const receipts: (Open & { readonly whole: Minor; readonly open: Minor; readonly isOpen: 0 | 1 })[] = [];
  const refunds: (Open & { readonly whole: Minor })[] = [];
  const documents: (Open &
    Pick<IssuedDocument, 'received' | 'credited' | 'writtenOff' | 'open'> & { readonly owed: Minor })[] = [];
  return {
    looks: {
      allocations: ({ takesBack, creditKind, creditId, debtId, amount, undone }) => {
        if (undone !== null) return;
        const sums = creditKind === 'write-off' ? writtenOff : takesBack ? credited : received;
        sums.add(debtId, amount);
        if (creditKind === 'receipt') sums.add(creditId, amount);
        if (creditKind === 'credit-note') sums.add(creditId, negated(amount));
      },
      receipts: ({ id, number, amount, open, isOpen, dishonoured }) => {
        receipts.push({ id, number, open, isOpen, whole: dishonoured === null ? amount : NOTHING });
      },
      refunds: ({ id, number, amount, undone }) => {
        refunds.push({ id, number, whole: undone === null ? amount : NOTHING });
      },
      documents: (document) => {
        const { id, number, open } = document;
        documents.push({
          ...{ id, number, open, owed: owedNow(document) },
          ...{ received: document.received, credited: document.credited, writtenOff: document.writtenOff },
        });
      },
    },
    faults: () => [
      ...receipts.flatMap(({ id, number, whole, open, isOpen }) =>
        open === minus(whole, received.get(id)) && isOpen === (open === NOTHING ? 0 : 1)
          ? []
          : [damaged(`receipt ${number}, open amount`, 'what is left of it by its allocations')],
      ),
      ...refunds.flatMap(({ id, number, whole }) =>
        whole === received.get(id) ? [] : [damaged(`refund ${number}`, 'what its credit gave for it')],
      ),
      ...documents.flatMap((document) => {
        const wrong = (expected: string) => [damaged(`${document.number}, open amount`, expected)];
        if (document.received !== received.get(document.id)) return wrong('what its receipts add up to');
        if (document.credited !== credited.get(document.id)) return wrong('what its credit notes were set off by');
        if (document.writtenOff !== writtenOff.get(document.id)) return wrong('what was written off of it');
        return document.open === document.owed ? [] : wrong('what is owed less what was settled');
      }),
    ],
  };
}

/** What bank lines were matched with: never more than the line, and what is kept beside it follows from it. */
const bankMatches = () =>
  ofRows((fault) => ({
    bankLines: (line) => {
      const { date, position, amount, matches } = line;
      const open = openOf(line);
      const beyond = amount < 0n ? open < amount || open > 0n : open > amount || open < 0n;
      const asKept = matchedWith(line, matches);
      const kept = asKept.isOpen === line.isOpen && asKept.entryIds.join() === line.entryIds.join();
      if (beyond || !kept) fault(`bank line ${date}, ${position}`, 'what is left of it by its matches');
    },
  }));

/** What a document still is owed; takings, quotes and cancelled documents are owed nothing. */
function owedNow(document: IssuedDocument): Minor {
  const { kind, content, figures, received, credited, writtenOff, cancelled } = document;
  if (kind === 'quote' || kind === 'takings' || cancelled !== null) return NOTHING;
  return minus(minus(minus(owedOf(content, figures), received), credited), writtenOff);
}

/** What stands on the account of a role but for manual journals, gathered from accounts, entries and lines. */
function onAccount(role: AccountRole): { readonly looks: Looks; readonly standing: () => Minor } {
  let account: string | undefined;
  const manual = new Set<string>();
  let sum = NOTHING;
  return {
    // Lines are gone through after the entries and accounts that they name.
    looks: {
      accounts: (one: Account) => {
        if (one.role === role) account ??= one.code;
      },
      journal: ({ id, kind }: JournalEntry) => {
        if (kind === 'journal') manual.add(id);
      },
      journalLines: (line: JournalLine) => {
        if (line.account === account && !manual.has(line.entryId)) sum = plus(sum, line.amount);
      },
    },
    standing: () => sum,
  };
}

/** What customers owe, in home currency, is what stands on receivables but for manual journals. */
function receivables(): Gathering {
  const { looks, standing } = onAccount('receivables');
  let owed = NOTHING;
  return {
    looks: {
      ...looks,
      documents: ({ openHome }) => {
        owed = plus(owed, openHome);
      },
      receipts: ({ openHome }) => {
        owed = minus(owed, openHome);
      },
    },
    faults: () =>
      standing() === owed
        ? []
        : [damaged('receivables', 'the sum of what is open on all documents, less money on account')],
  };
}

/** What is certified and claimed of withheld amounts is what certificates and claims say, and they add up themselves. */
function withholding(): Gathering {
  const [certified, claimed] = [new Sums(), new Sums()];
  const withheld: Pick<Withheld, 'id' | 'typeName' | 'documentNumber' | 'certified' | 'claimed'>[] = [];
  const faults: Refusal[] = [];
  const cover = (into: Sums, called: string, amount: Minor, covers: readonly Cover[]) => {
    for (const one of covers) into.add(one.withheldId, one.amount);
    if (amount !== total(covers.map((one) => one.amount))) faults.push(damaged(called, 'the sum of what it covers'));
  };
  return {
    looks: {
      withheld: (row) => {
        withheld.push(row);
      },
      withholdingCertificates: ({ number, amount, covers }) =>
        cover(certified, `withholding certificate ${number}`, amount, covers),
      withholdingClaims: ({ id, amount, covers }) => cover(claimed, `claim ${id}`, amount, covers),
    },
    faults: () => [
      ...withheld.flatMap((row) => {
        const called = `${row.typeName} withheld from ${row.documentNumber}`;
        if (row.certified !== certified.get(row.id)) return [damaged(called, 'what its certificates cover')];
        return row.claimed === claimed.get(row.id) ? [] : [damaged(called, 'what its claims took')];
      }),
      ...faults,
    ],
  };
}

/** What is withheld and not claimed, in home currency, is what stands on withholding claims but for manual journals. */
function withholdingClaims(): Gathering {
  const { looks, standing } = onAccount('withholding-claims');
  let owed = NOTHING;
  return {
    looks: {
      ...looks,
      withheld: ({ home, claimed, voidOn }) => {
        if (voidOn === '') owed = plus(owed, minus(home, claimed));
      },
    },
    faults: () => (standing() === owed ? [] : [damaged('withholding claims', 'what is withheld and not claimed')]),
  };
}

/** A number that was used, and the day it was. */
interface Used {
  readonly number: string;
  readonly on: IsoDate;
}

function counterFaults({ prefix, next, yearly }: Series, used: readonly Used[]): readonly Refusal[] {
  return used.flatMap(({ number, on }) => {
    const counter = Number(/(\d+)$/.exec(number)?.[1] ?? '0');
    const behind = number.startsWith(`${prefix}-`) && counter >= (next[yearly ? on.slice(0, 4) : 'all'] ?? 0);
    return behind ? [damaged(`series ${prefix}`, `a next number after ${number}`)] : [];
  });
}

/** Numbers are used once, and the counters of series stand behind them. */
function numbers(): Gathering {
  const faults: Refusal[] = [];
  const seen = new Set<string>();
  const series: Series[] = [];
  const money = { receipt: [] as Used[], refund: [] as Used[] };
  const documents: (Used & { readonly seriesId: string; readonly position: number; readonly hash: string })[] = [];
  return {
    looks: {
      series: (one) => {
        series.push(one);
      },
      receipts: ({ number, date }) => {
        money.receipt.push({ number, on: date });
      },
      refunds: ({ number, date }) => {
        money.refund.push({ number, on: date });
      },
      documents: ({ number, quote, content, seriesId, position, issueDate, seal }) => {
        const key = quote === null ? number : `${number} ${content.version ?? 1}`;
        if (seen.has(key)) faults.push(damaged(number, 'a number that is used once'));
        seen.add(key);
        documents.push({ number, on: issueDate, seriesId, position, hash: seal.hash });
      },
    },
    faults: () => {
      const bySeries = grouped(documents, ({ seriesId }) => seriesId);
      const ofSeries = series.flatMap((one): readonly Refusal[] => {
        if (one.kind === 'receipt' || one.kind === 'refund') return counterFaults(one, money[one.kind]);
        const own = bySeries.get(one.id) ?? [];
        const last = own.toSorted((a, b) => a.position - b.position).at(-1);
        const counted = one.count === own.length && (last === undefined || last.position === own.length);
        return [
          ...counterFaults(one, own),
          ...(counted ? [] : [damaged(`series ${one.prefix}`, `as many documents as it counts, ${one.count}`)]),
          ...(one.lastSeal === (last?.hash ?? '')
            ? []
            : [damaged(`series ${one.prefix}`, 'the seal of its last document')]),
        ];
      });
      return [...faults, ...ofSeries];
    },
  };
}

/** How the rows of a book must agree with each other; each check names every row that does not. */
export const BOOK_RELATIONS: readonly Check[] = [
  { name: 'What rows name is there', begin: references },
  { name: 'Documents say what was sealed', begin: rowsAsSealed },
  { name: 'Open amounts follow from receipts and credit notes', begin: openAmounts },
  { name: 'Receivables are what customers owe', begin: receivables },
  { name: 'Numbers are used once, and counters stand behind them', begin: numbers },
  { name: 'Withheld tax is what certificates and claims say', begin: withholding },
  { name: 'Withholding claims are what is withheld and not claimed', begin: withholdingClaims },
  { name: 'Bank lines are open by what they were not matched with', begin: bankMatches },
];
