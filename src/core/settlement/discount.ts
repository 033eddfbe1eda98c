import type { IssuedDocument } from '@/core/documents/issued';
import type { IsoDate } from '@/core/kernel/date';
import { ratioOf } from '@/core/kernel/decimal';
import { type Minor, minor, NOTHING } from '@/core/kernel/money';
import { halfUp } from '@/core/kernel/rounding';

/** The discount for paying early that a document offers on what is open. */
export interface DiscountOffer {
  /** R(open × percent). */
  readonly most: Minor;
  /** Its last day. */
  readonly until: IsoDate;
}

/** What a document offers for paying early; null where it offers nothing or nothing is open. */
export function discountOffer({ content, open }: Pick<IssuedDocument, 'content' | 'open'>): DiscountOffer | null {
  const { settlement } = content;
  if (settlement === undefined || open <= 0n) return null;
  const { n, d } = ratioOf(settlement.percent);
  return { most: minor(halfUp({ n: open * n, d: 100n * d })), until: settlement.until };
}

/** Why a discount is asked about; null where it is as offered. */
export function discountDoubt(
  document: Pick<IssuedDocument, 'content' | 'open'>,
  discount: Minor,
  on: IsoDate,
): 'late' | 'too-high' | 'not-offered' | null {
  if (discount === NOTHING) return null;
  const offer = discountOffer(document);
  if (offer === null) return 'not-offered';
  if (on > offer.until) return 'late';
  return discount > offer.most ? 'too-high' : null;
}
