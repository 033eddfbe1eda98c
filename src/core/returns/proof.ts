import { bookFigures } from '@/core/documents/bookFigures';
import { type Content, figuresOf, signed } from '@/core/documents/content';
import type { IssuedDocument } from '@/core/documents/issued';
import { sealOf } from '@/core/documents/seal';
import { grouped } from '@/core/kernel/grouped';
import { type Minor, minor, minus, NOTHING, negated, plus, total } from '@/core/kernel/money';
import type { JournalLine } from '@/core/ledger/entry';
import { type AccountBridge, type BridgeMaterial, bridgeAccount, uncleared } from './accountBridge';
import { type Paying, paidInOrder, type Releases, releasedBy } from './release';
import { returnOf, type TaxBalance } from './return';
import type { TaxEntry } from './taxEntry';

/** Why two of the three figures differ. */
export type DifferenceCause =
  | 'manual-journal'
  | 'document-altered'
  | 'entry-differs'
  | 'entry-without-document'
  | 'document-without-entry'
  | 'posting-differs'
  | 'balance-differs'
  | 'not-yet-due-differs'
  | 'account-differs';

export interface Difference {
  readonly cause: DifferenceCause;
  /** How far the two lie apart: what is too much in the second of the pair compared. */
  readonly amount: Minor;
  /** What it concerns, in words: a document number or a journal's text. */
  readonly subject: string;
  /** Document to open, or empty. */
  readonly documentId: string;
  /** Journal entry to open, or empty. */
  readonly entryId: string;
}

/** What a proof looks at, read from the book from scratch. */
export interface ProofMaterial {
  readonly documents: readonly IssuedDocument[];
  readonly taxEntries: readonly TaxEntry[];
  /** Lines of the output tax account that are marked with the period; no filing entry. */
  readonly ledgerLines: readonly JournalLine[];
  /** Lines that manual journals wrote to that account up to the end of the period, oldest first. */
  readonly manualLines: readonly JournalLine[];
  /** The account by posting date. */
  readonly account: BridgeMaterial;
  /** Documents on payment basis issued in the period, with what they wrote as not yet due. */
  readonly notYetDue: readonly NotYetDue[];
  /** Manual journals of the period that touch receivables or money; they part the ledger from what customers owe. */
  readonly touching: readonly TouchingJournal[];
  /** Documents on payment basis that were paid of in the period, with all their allocations. */
  readonly releases: readonly Releases[];
  /** Receipts among them that belong to this period. */
  readonly payingIds: ReadonlySet<string>;
  /** The kept balances that the return on screen is read from. */
  readonly balances: readonly TaxBalance[];
}

/** A document on payment basis with the entries and lines that hold its tax until it is paid. */
export interface NotYetDue {
  readonly document: IssuedDocument;
  readonly entries: readonly TaxEntry[];
  /** On the account for tax not yet due. */
  readonly lines: readonly JournalLine[];
}

/** A manual journal on an account that customers' or bank's own records stand behind. */
export interface TouchingJournal {
  readonly entryId: string;
  readonly subject: string;
  readonly account: string;
  readonly amount: Minor;
}

export interface Proof {
  /** Tax of the documents, computed again from their content. */
  readonly documents: Minor;
  readonly taxEntries: Minor;
  /** Credit side of the output tax account. */
  readonly ledger: Minor;
  readonly documentCount: number;
  /** The output tax account from its opening to its closing balance. */
  readonly account: AccountBridge;
  /** Told beside the proof; the tax is the same with them. */
  readonly touching: readonly TouchingJournal[];
  /** Documents whose tax was typed, with what it differs from the computed one. */
  readonly overridden: readonly Overridden[];
  readonly differences: readonly Difference[];
  readonly holds: boolean;
}

function sumBy<T>(items: readonly T[], keyOf: (item: T) => string, amountOf: (item: T) => Minor): Map<string, Minor> {
  const sums = new Map<string, Minor>();
  for (const item of items) sums.set(keyOf(item), plus(sums.get(keyOf(item)) ?? NOTHING, amountOf(item)));
  return sums;
}

/** Tax by code of a document, computed again. */
function recompute({ content, cancelled }: IssuedDocument): ReadonlyMap<string, Minor> {
  const { groups } = bookFigures(content, figuresOf(content));
  // A cancelled document charges nothing any more: its entries were taken back.
  return new Map(groups.map((g) => [g.tax, cancelled === null ? signed(content, g.taxAmount) : NOTHING]));
}

function isAltered({ content, seal }: IssuedDocument): boolean {
  return sealOf(content, seal.previous).hash !== seal.hash;
}

/** A line of a tax account as it counts in a return: credits are above zero. */
const credit = (line: Pick<JournalLine, 'amount'>): Minor => negated(line.amount);

/** A document whose tax was typed instead of computed. */
export interface Overridden {
  readonly documentId: string;
  readonly subject: string;
  /** Typed less computed, in home currency, signed as it counts. */
  readonly amount: Minor;
}

/** What typed taxes of a document come to beyond what its lines would have. Part credits hold shares, not typed taxes. */
function overriddenIn({ id, number, content, cancelled }: IssuedDocument): readonly Overridden[] {
  if (content.overrides === undefined || content.counted !== undefined || cancelled !== null) return [];
  const { overrides: _, ...plain } = content;
  const taxOf = (of: Content) => bookFigures(of, figuresOf(of)).taxAmount;
  return [{ documentId: id, subject: number, amount: signed(content, minus(taxOf(content), taxOf(plain))) }];
}

/** Tax not yet due, computed again, against its entries and its postings. */
function proveNotYetDue(notYetDue: readonly NotYetDue[]): readonly Difference[] {
  return notYetDue.flatMap(({ document, entries, lines }): readonly Difference[] => {
    const due = total(recompute(document).values());
    const entered = total(entries.map((entry) => entry.tax));
    const posted = total(lines.map(credit));
    if (due === entered && due === posted) return [];
    return [
      {
        cause: 'not-yet-due-differs',
        amount: due === entered ? minus(posted, due) : minus(entered, due),
        subject: document.number,
        documentId: document.id,
        entryId: document.entryId,
      },
    ];
  });
}

/** Tax that payments released, computed again from the documents and everything paid of them before. */
function proveReleases(
  releases: readonly Releases[],
  payingIds: ReadonlySet<string>,
  taxEntries: readonly TaxEntry[],
  postedOf: ReadonlyMap<string, readonly JournalLine[]>,
  altered: (document: IssuedDocument) => boolean,
): { readonly tax: Minor; readonly differences: readonly Difference[]; readonly entryIds: ReadonlySet<string> } {
  const differences: Difference[] = [];
  const written = grouped(
    taxEntries.filter((entry) => entry.allocationId !== ''),
    (entry) => `${entry.allocationId}|${entry.documentId}`,
  );
  /** By the entries it is posted in, which several may share. */
  const expected = new Map<string, { readonly paying: Paying; entered: Minor }>();
  const known = new Set<string>();
  let tax = NOTHING;
  for (const one of releases) {
    const { document, registration } = one;
    const at = { subject: document.number, documentId: document.id, entryId: '' };
    if (altered(document)) differences.push({ cause: 'document-altered', amount: NOTHING, ...at });
    for (const paying of paidInOrder(one)) {
      const { id, number, entryIds } = paying;
      if (!payingIds.has(id)) continue;
      const due = total(releasedBy(id, one, registration, paying, '', false).map((e) => e.tax));
      const own = written.get(`${id}|${document.id}`) ?? [];
      const entered = total(own.map((e) => e.tax));
      known.add(`${id}|${document.id}`);
      tax = plus(tax, due);
      const before = expected.get(entryIds.join())?.entered ?? NOTHING;
      expected.set(entryIds.join(), { paying, entered: plus(before, entered) });
      if (entered !== due)
        differences.push({
          cause: own.length === 0 ? 'document-without-entry' : 'entry-differs',
          amount: minus(entered, due),
          ...at,
          subject: `${document.number}, ${number}`,
        });
    }
  }
  for (const { paying, entered } of expected.values()) {
    const posted = total(paying.entryIds.flatMap((id) => (postedOf.get(id) ?? []).map(credit)));
    if (posted !== entered)
      differences.push({
        cause: 'posting-differs',
        amount: minus(posted, entered),
        subject: paying.number,
        documentId: '',
        entryId: paying.entryIds[0] ?? '',
      });
  }
  for (const [key, entries] of written)
    if (!known.has(key))
      differences.push({
        cause: 'entry-without-document',
        amount: total(entries.map((e) => e.tax)),
        subject: entries[0]?.documentNumber ?? key,
        documentId: '',
        entryId: '',
      });
  return { tax, differences, entryIds: new Set([...expected.values()].flatMap(({ paying }) => paying.entryIds)) };
}

/**
 * Compares three sources of a period's tax: documents computed again from their content, tax
 * entries (with the return that is kept of them), and the ledger's output tax account. Every difference is named with its cause; when no
 * difference is named the three sums are equal. Manual journals on the account are named in each period until they are cleared.
 * @param alteredIds ids of documents that no longer fit their seals, where all seals were looked at before.
 */
export function prove(material: ProofMaterial, alteredIds: ReadonlySet<string> | null = null): Proof {
  const altered = alteredIds === null ? isAltered : ({ id }: IssuedDocument) => alteredIds.has(id);
  const { documents, taxEntries, ledgerLines, balances, releases, payingIds } = material;
  const differences: Difference[] = [];
  const entriesOf = grouped(
    taxEntries.filter((entry) => entry.allocationId === ''),
    (entry) => entry.documentId,
  );
  const marked = ledgerLines.filter((line) => line.taxCode !== '');
  const postedOf = grouped(marked, (line) => line.entryId);
  const known = new Set<string>();
  const knownEntries = new Set<string>();
  let documentTax = NOTHING;

  for (const document of documents) {
    known.add(document.id);
    knownEntries.add(document.entryId);
    const byCode = recompute(document);
    const at = { subject: document.number, documentId: document.id, entryId: '' };
    const recomputed = total(byCode.values());
    documentTax = plus(documentTax, recomputed);

    const own = entriesOf.get(document.id) ?? [];
    const written = sumBy(
      own,
      (e) => e.code,
      (e) => e.tax,
    );
    const entryDifference = minus(total(written.values()), recomputed);
    const agree = [...byCode].every(([code, tax]) => (written.get(code) ?? NOTHING) === tax);
    if (altered(document)) differences.push({ cause: 'document-altered', amount: entryDifference, ...at });
    else if (own.length === 0 && byCode.size > 0)
      differences.push({ cause: 'document-without-entry', amount: entryDifference, ...at });
    else if (!agree || entryDifference !== 0n)
      differences.push({ cause: 'entry-differs', amount: entryDifference, ...at });

    const entryIds = [document.entryId, document.cancelled?.entryId ?? ''];
    if (document.cancelled !== null) knownEntries.add(document.cancelled.entryId);
    const posted = total(entryIds.flatMap((id) => (postedOf.get(id) ?? []).map((line) => minor(-line.amount))));
    const postingDifference = minus(posted, total(written.values()));
    if (postingDifference !== 0n)
      differences.push({ cause: 'posting-differs', amount: postingDifference, ...at, entryId: document.entryId });
  }
  const released = proveReleases(releases, payingIds, taxEntries, postedOf, altered);
  documentTax = plus(documentTax, released.tax);
  differences.push(...released.differences);
  for (const entryId of released.entryIds) knownEntries.add(entryId);
  for (const [documentId, entries] of entriesOf)
    if (!known.has(documentId))
      differences.push({
        cause: 'entry-without-document',
        amount: total(entries.map((e) => e.tax)),
        subject: entries[0]?.documentNumber ?? documentId,
        documentId: '',
        entryId: '',
      });
  const manual = uncleared(material.manualLines);
  for (const line of [...ledgerLines.filter(({ entryId }) => !knownEntries.has(entryId)), ...manual])
    differences.push({
      cause: line.taxCode === '' ? 'manual-journal' : 'posting-differs',
      amount: credit(line),
      subject: line.text,
      documentId: '',
      entryId: line.entryId,
    });
  differences.push(...proveNotYetDue(material.notYetDue));
  const account = bridgeAccount(material.account);
  const unexplained = account.steps.find((step) => step.kind === 'unknown');
  if (unexplained !== undefined)
    differences.push({
      cause: 'account-differs',
      amount: unexplained.amount,
      subject: 'The account',
      documentId: '',
      entryId: '',
    });
  const returned = returnOf(balances).tax;
  const entered = total(taxEntries.map((entry) => entry.tax));
  if (returned !== entered)
    differences.push({
      cause: 'balance-differs',
      amount: minus(returned, entered),
      subject: 'The return',
      documentId: '',
      entryId: '',
    });
  return {
    documents: documentTax,
    taxEntries: entered,
    ledger: total([...ledgerLines, ...manual].map(credit)),
    documentCount: documents.length,
    account,
    touching: material.touching,
    overridden: documents.flatMap(overriddenIn),
    differences,
    holds: differences.length === 0,
  };
}
