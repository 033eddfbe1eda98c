import type { Currency } from '@/core/kernel/currency';
import type { IsoDate } from '@/core/kernel/date';
import { type Minor, minus, NOTHING, plus, total } from '@/core/kernel/money';

/**
 * Tax that a customer kept back, from a document when it was issued or from what it paid, by type. A claim on the authority
 * until it is set against a return or asked back. Of a credit note, below zero: what goes back.
 */
export interface Withheld {
  readonly id: string;
  readonly customerId: string;
  readonly customerName: string;
  readonly typeId: string;
  readonly typeName: string;
  /** A certificate of the customer is needed to claim it. */
  readonly needsCertificate: boolean;
  readonly documentId: string;
  readonly documentNumber: string;
  /** Receipt it was kept back with; both empty for what was kept back at issue. */
  readonly receiptId: string;
  readonly receiptNumber: string;
  readonly date: IsoDate;
  readonly currency: Currency;
  readonly amount: Minor;
  /** The same in home currency, as it stands on withholding claims. */
  readonly home: Minor;
  /** Of `home`, what certificates cover. Kept beside them. */
  readonly certified: Minor;
  /** Of `home`, what claims took. Kept beside them. */
  readonly claimed: Minor;
  /** 1 while something of it is not claimed: database indexes hold no booleans. */
  readonly isOpen: 0 | 1;
  /** Day on which its receipt came back unpaid; empty while it stands. */
  readonly voidOn: IsoDate | '';
}

/** What of one withheld amount a certificate covers or a claim takes, in home currency. */
export interface Cover {
  readonly withheldId: string;
  readonly amount: Minor;
}

/** The customer's proof of what it kept back and handed to the authority. */
export interface WithholdingCertificate {
  readonly id: string;
  readonly number: string;
  readonly date: IsoDate;
  readonly customerId: string;
  readonly typeId: string;
  /** In home currency; what `covers` add up to. */
  readonly amount: Minor;
  readonly covers: readonly Cover[];
  readonly enteredAt: string;
}

/** Withheld tax that was set against what a return is owed, or asked back. */
export interface WithholdingClaim {
  readonly id: string;
  readonly typeId: string;
  readonly registrationId: string;
  readonly date: IsoDate;
  readonly by: 'set-off' | 'refund';
  /** In home currency; what `covers` add up to. */
  readonly amount: Minor;
  readonly covers: readonly Cover[];
  readonly entryId: string;
  readonly claimedAt: string;
}

/** The withheld amount with more of it certified or claimed; below zero for what is taken back. */
export function covered(withheld: Withheld, by: CoverKind, amount: Minor): Withheld {
  const after = { ...withheld, [by]: plus(withheld[by], amount) };
  return { ...after, isOpen: after.claimed === after.home || after.voidOn !== '' ? 0 : 1 };
}

/** What covers a withheld amount: a certificate, or a claim. */
export type CoverKind = 'certified' | 'claimed';

/** A withheld amount with what of it is free to be covered, in home currency. */
export interface Room {
  readonly withheld: Withheld;
  readonly free: Minor;
}

/** Oldest first; of one day by the numbers they came with. */
const ageKey = ({ date, receiptNumber, documentNumber, id }: Withheld): string =>
  [date, receiptNumber, documentNumber, id].join(' ');

const least = (a: Minor, b: Minor): Minor => (a < b ? a : b);

/**
 * What of withheld amounts a certificate can cover, or a claim can take (what is certified, where that is needed), oldest
 * first. What a credit note took back is no longer there in the oldest of its document and type.
 */
export function roomIn(withheld: readonly Withheld[], by: CoverKind): readonly Room[] {
  const key = ({ documentId, typeId }: Withheld) => `${documentId}|${typeId}`;
  const back = new Map<string, Minor>();
  for (const one of withheld)
    if (one.home < 0n && one.voidOn === '') back.set(key(one), minus(back.get(key(one)) ?? NOTHING, one.home));
  return withheld
    .filter(({ home, voidOn }) => home > 0n && voidOn === '')
    .sort((a, b) => (ageKey(a) < ageKey(b) ? -1 : 1))
    .flatMap((one) => {
      const taken = least(back.get(key(one)) ?? NOTHING, one.home);
      back.set(key(one), minus(back.get(key(one)) ?? NOTHING, taken));
      const net = minus(one.home, taken);
      const most = by === 'claimed' && one.needsCertificate ? least(one.certified, net) : net;
      const free = minus(most, one[by]);
      return free > 0n ? [{ withheld: one, free }] : [];
    });
}

/** Spreads an amount over what is free, in its order; null where there is not as much. */
export function coversOf(rooms: readonly Room[], amount: Minor): readonly Cover[] | null {
  let left = amount;
  const covers: Cover[] = [];
  for (const { withheld, free } of rooms) {
    if (left <= 0n) break;
    const part = least(left, free);
    covers.push({ withheldId: withheld.id, amount: part });
    left = minus(left, part);
  }
  return left > 0n ? null : covers;
}

/** What withheld amounts come to, in home currency. */
export interface WithheldSums {
  readonly withheld: Minor;
  readonly certified: Minor;
  readonly claimed: Minor;
}

/** Sums of withheld amounts; those of receipts that came back unpaid do not count. */
export function sumWithheld(rows: readonly Withheld[]): WithheldSums {
  const standing = rows.filter(({ voidOn }) => voidOn === '');
  return {
    withheld: total(standing.map(({ home }) => home)),
    certified: total(standing.map(({ certified }) => certified)),
    claimed: total(standing.map(({ claimed }) => claimed)),
  };
}
