import type { IsoDate } from '@/core/kernel/date';
import type { Minor } from '@/core/kernel/money';
import type { BankRule } from './bankRule';
import { bareNumber, nameWords, waysToWrite } from './tokens';

/** An invoice that is open, in the currency of the account. */
export interface OpenDebt {
  readonly id: string;
  readonly number: string;
  readonly customerId: string;
  readonly date: IsoDate;
  readonly due: IsoDate;
  readonly open: Minor;
  /** What the customer is expected to withhold of it; zero for nothing. */
  readonly expected: Minor;
  /** What may be taken off for paying until a day; zero where nothing was offered. */
  readonly discount: Minor;
  readonly discountUntil: IsoDate | '';
  /** Order number, buyer reference and subject. */
  readonly references: readonly string[];
}

/** What the book says moved the account and no bank line has shown yet: receipts, refunds, payments, journals. */
export interface Movement {
  readonly entryId: string;
  readonly date: IsoDate;
  /** In the currency of the account; above zero for money in. */
  readonly amount: Minor;
  /** Number of the receipt or refund, or what a journal is for. */
  readonly number: string;
  readonly customerId: string;
  readonly references: readonly string[];
}

/** Money of a customer that can go back: a credit note, or what is on account. */
export interface OpenCredit {
  readonly id: string;
  readonly number: string;
  readonly customerId: string;
  readonly date: IsoDate;
  readonly open: Minor;
}

/** What is left to pay on a filed return. */
export interface ToPay {
  readonly registrationId: string;
  readonly start: IsoDate;
  readonly name: string;
  readonly date: IsoDate;
  /** Below zero where the authority owes us. */
  readonly left: Minor;
}

/** A line of another account of ours that nothing was found for yet. */
export interface TransferLine {
  readonly lineId: string;
  readonly bankAccountId: string;
  readonly name: string;
  readonly iban: string;
  readonly date: IsoDate;
  readonly amount: Minor;
}

export interface MatchCustomer {
  readonly id: string;
  readonly name: string;
  /** Accounts it is known to pay from. */
  readonly ibans: readonly string[];
}

/** All that a line may be, as the book stands. */
export interface MatchMaterial {
  readonly customers: readonly MatchCustomer[];
  readonly debts: readonly OpenDebt[];
  readonly movements: readonly Movement[];
  readonly credits: readonly OpenCredit[];
  readonly toPay: readonly ToPay[];
  readonly transfers: readonly TransferLine[];
  /** What was paid by card and no payout has brought, oldest first. */
  readonly takings: readonly Movement[];
  readonly rules: readonly BankRule[];
}

/** Values by key, each key with few. */
class Many<T extends object> {
  private readonly found = new Map<string, Set<T>>();

  add(key: string, value: T): void {
    const there = this.found.get(key);
    if (there === undefined) this.found.set(key, new Set([value]));
    else there.add(value);
  }

  remove(key: string, value: T): void {
    this.found.get(key)?.delete(value);
  }

  get(key: string): Iterable<T> {
    return this.found.get(key) ?? [];
  }

  count(key: string): number {
    return this.found.get(key)?.size ?? 0;
  }
}

/** What settles a debt whole: money, and what goes with it. */
export interface Paying {
  readonly money: Minor;
  readonly withheld: Minor;
  readonly discount: Minor;
}

/** The sums that settle a debt on a day, the plain one first. */
export function waysToPay({ open, expected, discount, discountUntil }: OpenDebt, on: IsoDate): readonly Paying[] {
  const none = 0n as Minor;
  const offered = discountUntil !== '' && on <= discountUntil ? discount : none;
  const ways: Paying[] = [{ money: open, withheld: none, discount: none }];
  const way = (withheld: Minor, taken: Minor) => {
    const money = (open - withheld - taken) as Minor;
    if (money > 0n) ways.push({ money, withheld, discount: taken });
  };
  if (expected > 0n) way(expected, none);
  if (offered > 0n) way(none, offered);
  if (expected > 0n && offered > 0n) way(expected, offered);
  return ways;
}

/**
 * What lines are looked up in: debts by number, reference, sum and customer; movements by sum; customers by words of their
 * names and by account. A line asks for what it names, so that its work does not grow with the book.
 */
export class MatchIndex {
  readonly customers = new Map<string, MatchCustomer>();
  private readonly byWord = new Map<string, string[]>();
  private readonly byIban = new Map<string, string>();
  private readonly numbers = new Many<OpenDebt>();
  private readonly references = new Many<OpenDebt>();
  private readonly sums = new Many<OpenDebt>();
  private readonly ofCustomer = new Many<OpenDebt>();
  /** What was asked of `ofCustomer` in order, until a debt of the customer comes or goes. */
  private readonly oldestFirst = new Map<string, readonly OpenDebt[]>();
  private readonly moved = new Many<Movement>();
  private readonly movedOn = new Many<Movement>();

  constructor(readonly material: MatchMaterial) {
    for (const customer of material.customers) {
      this.customers.set(customer.id, customer);
      for (const word of nameWords(customer.name))
        this.byWord.set(word, [...(this.byWord.get(word) ?? []), customer.id]);
      for (const iban of customer.ibans) this.byIban.set(bareNumber(iban), customer.id);
    }
    for (const debt of material.debts) this.addDebt(debt);
    for (const movement of material.movements) this.addMovement(movement);
  }

  private *keysOf(debt: OpenDebt): Iterable<readonly [Many<OpenDebt>, string]> {
    for (const way of waysToWrite(debt.number)) yield [this.numbers, way];
    for (const reference of debt.references) yield [this.references, bareNumber(reference)];
    // Whatever the day is: whether a discount is in time is seen when it is looked at.
    for (const { money } of waysToPay(debt, debt.discountUntil || debt.date)) yield [this.sums, String(money)];
    yield [this.ofCustomer, debt.customerId];
  }

  addDebt(debt: OpenDebt): void {
    for (const [index, key] of this.keysOf(debt)) index.add(key, debt);
    this.oldestFirst.delete(debt.customerId);
  }

  /** A debt that was settled is looked for no longer. */
  removeDebt(debt: OpenDebt): void {
    for (const [index, key] of this.keysOf(debt)) index.remove(key, debt);
    this.oldestFirst.delete(debt.customerId);
  }

  addMovement(movement: Movement): void {
    this.moved.add(String(movement.amount), movement);
    this.movedOn.add(movement.date, movement);
  }

  removeMovement(movement: Movement): void {
    this.moved.remove(String(movement.amount), movement);
    this.movedOn.remove(movement.date, movement);
  }

  /** The customer that pays from an account, where one is known to. */
  payingFrom(iban: string): string | undefined {
    return iban === '' ? undefined : this.byIban.get(bareNumber(iban));
  }

  /** Customers that share words with a line, each with the part of their name that stands there: 1 for all of it. */
  namedIn(words: readonly string[]): ReadonlyMap<string, number> {
    const shared = new Map<string, number>();
    for (const word of words) {
      const having = this.byWord.get(word) ?? [];
      // A word of very many names tells nothing.
      if (having.length <= 50) for (const id of having) shared.set(id, (shared.get(id) ?? 0) + 1);
    }
    return new Map(
      [...shared].map(([id, count]) => [id, count / Math.max(1, nameWords(this.customers.get(id)?.name ?? '').length)]),
    );
  }

  numbered(number: string): Iterable<OpenDebt> {
    return this.numbers.get(number);
  }

  referred(reference: string): Iterable<OpenDebt> {
    return this.references.get(reference);
  }

  paidBy(amount: Minor): Iterable<OpenDebt> {
    return this.sums.get(String(amount));
  }

  /** Debts of a customer, the first due first. */
  debtsOf(customerId: string): readonly OpenDebt[] {
    const known = this.oldestFirst.get(customerId);
    if (known !== undefined) return known;
    const sorted = [...this.ofCustomer.get(customerId)].sort((a, b) => (a.due + a.number < b.due + b.number ? -1 : 1));
    this.oldestFirst.set(customerId, sorted);
    return sorted;
  }

  movedBy(amount: Minor): Iterable<Movement> {
    return this.moved.get(String(amount));
  }

  movementsOn(date: IsoDate): readonly Movement[] {
    return [...this.movedOn.get(date)];
  }
}
