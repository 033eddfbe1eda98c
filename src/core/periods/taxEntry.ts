import { type Content, signed } from '@/core/documents/content';
import type { IsoDate } from '@/core/kernel/date';
import type { Minor } from '@/core/kernel/money';
import type { CalcResult, Category } from '@/core/tax/calcTypes';

/** What one document says to one authority under one code. Append-only. */
export interface TaxEntry {
  /** `<document id>:<code>`. */
  readonly id: string;
  readonly periodId: string;
  readonly registrationId: string;
  readonly documentId: string;
  readonly documentNumber: string;
  readonly customerName: string;
  readonly code: string;
  readonly codeName: string;
  readonly category: Category;
  /** Percent, as text. */
  readonly percent: string;
  readonly taxPoint: IsoDate;
  readonly late: boolean;
  /** Signed: credit notes count down. Minor units of the home currency. */
  readonly base: Minor;
  readonly tax: Minor;
}

/** The tax entries of a document, one for each code it carries. */
export function taxEntriesOf(
  documentId: string,
  content: Content,
  figures: CalcResult,
  periodId: string,
  late: boolean,
): readonly TaxEntry[] {
  return figures.groups.map((group): TaxEntry => {
    const tax = content.taxes.find((t) => t.code === group.tax);
    return {
      id: `${documentId}:${group.tax}`,
      periodId,
      registrationId: content.registrationId,
      documentId,
      documentNumber: content.number,
      customerName: content.buyer.name,
      code: group.tax,
      codeName: tax?.name ?? group.tax,
      category: tax?.category ?? 'S',
      percent: tax?.percent ?? '0',
      taxPoint: content.taxPoint,
      late,
      base: signed(content, group.net),
      tax: signed(content, group.taxAmount),
    };
  });
}
