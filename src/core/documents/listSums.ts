import type { Currency } from '@/core/kernel/currency';
import { grouped } from '@/core/kernel/grouped';
import { type Minor, total } from '@/core/kernel/money';
import { signed } from './content';
import type { IssuedDocument } from './issued';
import { KINDS } from './kinds';

/** What some documents come to, in one currency. */
export interface ListSum {
  readonly currency: Currency;
  readonly count: number;
  /** Payable, credit notes counted down; minor units. */
  readonly total: Minor;
  readonly open: Minor;
}

/** What some documents come to by currency. Quotes and cancelled documents are owed by nobody and are not counted. */
export function sumsOf(documents: readonly IssuedDocument[]): readonly ListSum[] {
  const counted = documents.filter(({ kind, cancelled }) => KINDS[kind].posts && cancelled === null);
  return [...grouped(counted, ({ content }) => content.currency)].map(([currency, of]) => ({
    currency: currency as Currency,
    count: of.length,
    total: total(of.map(({ content, figures }) => signed(content, figures.totals.payable))),
    open: total(of.map(({ open }) => open)),
  }));
}

/** The same by tag, in the order of the alphabet; a document counts under each of its tags. */
export function sumsByTag(
  documents: readonly IssuedDocument[],
): readonly { readonly tag: string; readonly sums: readonly ListSum[] }[] {
  const tags = [...new Set(documents.flatMap((document) => document.tags))].sort((a, b) => a.localeCompare(b, 'en'));
  return tags.map((tag) => ({ tag, sums: sumsOf(documents.filter((document) => document.tags.includes(tag))) }));
}
