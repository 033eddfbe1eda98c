import { matchedWith, openOf } from '@/core/bank/bankLine';
import { BOOK_TABLES, type BookContent, type BookTable, descriptorOf } from '@/core/book/tables';
import { amountKey, type IssuedDocument, nextDue, owedOf, stateOf } from '@/core/documents/issued';
import { grouped } from '@/core/kernel/grouped';
import { type Minor, minus, NOTHING, negated, plus, total } from '@/core/kernel/money';
import type { Refusal } from '@/core/kernel/result';
import type { AccountRole } from '@/core/ledger/account';
import type { Cover } from '@/core/settlement/withholding';

const fault = (path: string, expected: string): Refusal => ({ code: 'damaged', path, expected });

const keysOf = (book: BookContent, table: BookTable): ReadonlySet<unknown> => {
  const { key } = descriptorOf(table);
  return new Set(book[table].map((row) => (row as never)[key]));
};

/** Rows that name others which are not there. */
function references(book: BookContent): readonly Refusal[] {
  const known = new Map<string, ReadonlySet<unknown>>();
  const faults: Refusal[] = [];
  for (const table of BOOK_TABLES) {
    const { references: named = [], called = () => table } = descriptorOf(table);
    for (const { table: other, ids, at, what } of named) {
      const keys = known.get(other) ?? keysOf(book, other as BookTable);
      known.set(other, keys);
      for (const row of book[table])
        for (const id of ids(row as never))
          if (!keys.has(id)) faults.push(fault([called(row as never), at].filter(Boolean).join(', '), what));
    }
  }
  return faults;
}

/** What a row says beside its sealed content must be what the content says. */
function rowsAsSealed({ documents }: BookContent): readonly Refusal[] {
  return documents.flatMap((row): readonly Refusal[] => {
    const { content, figures, number, kind, issueDate } = row;
    const wrong = (field: string) => [fault(`${number}, ${field}`, `what its sealed content says`)];
    if (number !== content.number) return wrong('number');
    if (kind !== content.kind) return wrong('kind');
    if (issueDate !== content.issueDate) return wrong('issue date');
    if (row.customerName !== content.buyer.name) return wrong('customer name');
    if (row.amountKey !== amountKey(figures)) return wrong('amount');
    if ((row.quote === null) !== (kind !== 'quote')) return wrong('quote');
    if (row.dueDate !== nextDue(row)) return wrong('due date');
    if (row.state !== stateOf(row)) return wrong('state');
    if (row.isOpen !== (row.open === NOTHING ? 0 : 1)) return wrong('open');
    return [];
  });
}

/** What moved by the allocations that stand: what was received of debts and credit notes, what was taken back, what receipts gave. */
function movedBy(allocations: BookContent['allocations']) {
  const [received, credited, writtenOff] = [
    new Map<string, Minor>(),
    new Map<string, Minor>(),
    new Map<string, Minor>(),
  ];
  const move = (sums: Map<string, Minor>, id: string, by: Minor) => sums.set(id, plus(sums.get(id) ?? NOTHING, by));
  for (const { takesBack, creditKind, creditId, debtId, amount, undone } of allocations) {
    if (undone !== null) continue;
    const sums = creditKind === 'write-off' ? writtenOff : takesBack ? credited : received;
    move(sums, debtId, amount);
    if (creditKind === 'receipt') move(sums, creditId, amount);
    if (creditKind === 'credit-note') move(sums, creditId, negated(amount));
  }
  return { received, credited, writtenOff };
}

/** What is open follows from what was owed or received, and from the allocations that stand. */
function openAmounts({ documents, receipts, refunds, allocations }: BookContent): readonly Refusal[] {
  const { received, credited, writtenOff } = movedBy(allocations);
  const ofReceipts = receipts.flatMap(({ id, number, amount, open, isOpen, dishonoured }): readonly Refusal[] =>
    open === minus(dishonoured === null ? amount : NOTHING, received.get(id) ?? NOTHING) &&
    isOpen === (open === NOTHING ? 0 : 1)
      ? []
      : [fault(`receipt ${number}, open amount`, 'what is left of it by its allocations')],
  );
  const ofDocuments = documents.flatMap((document): readonly Refusal[] => {
    const wrong = (expected: string) => [fault(`${document.number}, open amount`, expected)];
    if (document.received !== (received.get(document.id) ?? NOTHING)) return wrong('what its receipts add up to');
    if (document.credited !== (credited.get(document.id) ?? NOTHING))
      return wrong('what its credit notes were set off by');
    if (document.writtenOff !== (writtenOff.get(document.id) ?? NOTHING)) return wrong('what was written off of it');
    return document.open === owedNow(document) ? [] : wrong('what is owed less what was settled');
  });
  const ofRefunds = refunds.flatMap(({ id, number, amount, undone }): readonly Refusal[] =>
    (undone === null ? amount : NOTHING) === (received.get(id) ?? NOTHING)
      ? []
      : [fault(`refund ${number}`, 'what its credit gave for it')],
  );
  return [...ofReceipts, ...ofRefunds, ...ofDocuments];
}

/** What bank lines were matched with: never more than the line, and what is kept beside it follows from it. */
function bankMatches({ bankLines }: BookContent): readonly Refusal[] {
  return bankLines.flatMap((line): readonly Refusal[] => {
    const { date, position, amount, matches } = line;
    const open = openOf(line);
    const beyond = amount < 0n ? open < amount || open > 0n : open > amount || open < 0n;
    const asKept = matchedWith(line, matches);
    const kept = asKept.isOpen === line.isOpen && asKept.entryIds.join() === line.entryIds.join();
    return !beyond && kept ? [] : [fault(`bank line ${date}, ${position}`, 'what is left of it by its matches')];
  });
}

/** What a document still is owed; takings, quotes and cancelled documents are owed nothing. */
function owedNow(document: IssuedDocument): Minor {
  const { kind, content, figures, received, credited, writtenOff, cancelled } = document;
  if (kind === 'quote' || kind === 'takings' || cancelled !== null) return NOTHING;
  return minus(minus(minus(owedOf(content, figures), received), credited), writtenOff);
}

/** What stands on the account of a role but for manual journals. */
function onAccount(
  { accounts, journal, journalLines }: Pick<BookContent, 'accounts' | 'journal' | 'journalLines'>,
  role: AccountRole,
): Minor {
  const account = accounts.find((one) => one.role === role)?.code;
  const manual = new Set(journal.filter(({ kind }) => kind === 'journal').map(({ id }) => id));
  return total(
    journalLines.flatMap((line) => (line.account === account && !manual.has(line.entryId) ? [line.amount] : [])),
  );
}

/** What customers owe, in home currency, is what stands on receivables but for manual journals. */
function receivables(book: BookContent): readonly Refusal[] {
  const { documents, receipts } = book;
  const owed = minus(total(documents.map(({ openHome }) => openHome)), total(receipts.map(({ openHome }) => openHome)));
  return onAccount(book, 'receivables') === owed
    ? []
    : [fault('receivables', 'the sum of what is open on all documents, less money on account')];
}

/** What is certified and claimed of withheld amounts is what certificates and claims say, and they add up themselves. */
function withholding({ withheld, withholdingCertificates, withholdingClaims }: BookContent): readonly Refusal[] {
  const sums = (rows: readonly { readonly covers: readonly Cover[] }[]) => {
    const covered = new Map<string, Minor>();
    for (const { withheldId, amount } of rows.flatMap(({ covers }) => covers))
      covered.set(withheldId, plus(covered.get(withheldId) ?? NOTHING, amount));
    return covered;
  };
  const [certified, claimed] = [sums(withholdingCertificates), sums(withholdingClaims)];
  const rows = withheld.flatMap((row): readonly Refusal[] => {
    const called = `${row.typeName} withheld from ${row.documentNumber}`;
    if (row.certified !== (certified.get(row.id) ?? NOTHING)) return [fault(called, 'what its certificates cover')];
    return row.claimed === (claimed.get(row.id) ?? NOTHING) ? [] : [fault(called, 'what its claims took')];
  });
  const whole = [...withholdingCertificates, ...withholdingClaims].flatMap((one) =>
    one.amount === total(one.covers.map(({ amount }) => amount))
      ? []
      : [
          fault(
            'number' in one ? `withholding certificate ${one.number}` : `claim ${one.id}`,
            'the sum of what it covers',
          ),
        ],
  );
  return [...rows, ...whole];
}

/** What is withheld and not claimed, in home currency, is what stands on withholding claims but for manual journals. */
function withholdingClaims({ withheld, accounts, journal, journalLines }: BookContent): readonly Refusal[] {
  const owed = total(withheld.flatMap(({ home, claimed, voidOn }) => (voidOn === '' ? [minus(home, claimed)] : [])));
  return onAccount({ accounts, journal, journalLines }, 'withholding-claims') === owed
    ? []
    : [fault('withholding claims', 'what is withheld and not claimed')];
}

/** Numbers are used once, and the counters of series stand behind them. */
function numbers({ documents, receipts, refunds, series }: BookContent): readonly Refusal[] {
  const faults: Refusal[] = [];
  const bySeries = grouped(documents, ({ seriesId }) => seriesId);
  const seen = new Set<string>();
  for (const { number, quote, content } of documents) {
    const key = quote === null ? number : `${number} ${content.version ?? 1}`;
    if (seen.has(key)) faults.push(fault(number, 'a number that is used once'));
    seen.add(key);
  }
  for (const one of series) {
    const own = bySeries.get(one.id) ?? [];
    const money = one.kind === 'receipt' ? receipts : one.kind === 'refund' ? refunds : null;
    const used = money?.map(({ number, date }) => ({ number, issueDate: date })) ?? own;
    for (const { number, issueDate } of used) {
      const prefixed = number.startsWith(`${one.prefix}-`);
      const counter = Number(/(\d+)$/.exec(number)?.[1] ?? '0');
      const next = one.next[one.yearly ? issueDate.slice(0, 4) : 'all'] ?? 0;
      if (prefixed && counter >= next) faults.push(fault(`series ${one.prefix}`, `a next number after ${number}`));
    }
    if (money !== null) continue;
    const last = [...own].sort((a, b) => a.position - b.position).at(-1);
    if (one.count !== own.length || (last !== undefined && last.position !== own.length))
      faults.push(fault(`series ${one.prefix}`, `as many documents as it counts, ${one.count}`));
    if (one.lastSeal !== (last?.seal.hash ?? ''))
      faults.push(fault(`series ${one.prefix}`, 'the seal of its last document'));
  }
  return faults;
}

/** How the rows of a book must agree with each other; each check names every row that does not. */
export const BOOK_RELATIONS: readonly {
  readonly name: string;
  readonly faultsIn: (book: BookContent) => readonly Refusal[];
}[] = [
  { name: 'What rows name is there', faultsIn: references },
  { name: 'Documents say what was sealed', faultsIn: rowsAsSealed },
  { name: 'Open amounts follow from receipts and credit notes', faultsIn: openAmounts },
  { name: 'Receivables are what customers owe', faultsIn: receivables },
  { name: 'Numbers are used once, and counters stand behind them', faultsIn: numbers },
  { name: 'Withheld tax is what certificates and claims say', faultsIn: withholding },
  { name: 'Withholding claims are what is withheld and not claimed', faultsIn: withholdingClaims },
  { name: 'Bank lines are open by what they were not matched with', faultsIn: bankMatches },
];
