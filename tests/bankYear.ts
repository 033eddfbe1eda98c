import type { MatchCustomer, MatchMaterial, OpenDebt } from '@/core/bank/matchIndex';
import type { StatementLine } from '@/core/bank/statement';
import { currency } from '@/core/kernel/currency';
import { addDays, isoDate } from '@/core/kernel/date';
import { type Minor, minor, writeMoney } from '@/core/kernel/money';
import { statementLine } from './statements';

/** A line whose truth is known: the invoices that it pays. */
export interface TrueLine {
  readonly line: StatementLine;
  readonly how: string;
  readonly pays: readonly string[];
}

export interface BankYear {
  readonly material: MatchMaterial;
  readonly lines: readonly TrueLine[];
}

const PLACES =
  'Ardmore Ballycotton Carna Dunmore Easkey Fenit Greencastle Howth Inver Kilronan Lahinch Mulroy Narin Omey Portrane Quilty Roundstone Schull Tarbert Ventry'.split(
    ' ',
  );
const TRADES =
  'Shellfish Chandlers Pilots Salvage Ferries Hatchery Moorings Surveys Sailmakers Boatyard Trawlers Divers Dredging Icehouse Netmakers Rigging Slipway Smokehouse Tugs Weathermen'.split(
    ' ',
  );
const EUR = currency('EUR');

/** Numbers below a bound that look random and are the same each time. */
function picker(seed: number): (below: number) => number {
  let state = seed >>> 0;
  return (below) => {
    state = (Math.imul(state, 1664525) + 1013904223) >>> 0;
    return Math.floor((state / 2 ** 32) * below);
  };
}

/** A year of one bank account: `lines` payments of 400 customers among `documents` invoices, with all that goes wrong. */
export function bankYear(documents: number, lines: number, seed = 7): BankYear {
  const pick = picker(seed);
  const one = <T>(of: readonly T[]): T => of[pick(of.length)] as T;
  const customers: readonly MatchCustomer[] = PLACES.flatMap((place, p) =>
    TRADES.map((trade, t) => ({
      id: `c${p}-${t}`,
      name: `${place} ${trade} Ltd (sample)`,
      ibans: t % 2 === 0 ? [`IE00TEST${p}${String(t).padStart(8, '0')}`] : [],
    })),
  );
  const debts = Array.from({ length: documents }, (_, i): OpenDebt => {
    const date = addDays(isoDate('2026-01-01'), pick(330));
    const open = minor(BigInt(2000 + pick(498_000)));
    return {
      id: `d${i}`,
      number: `INV-2026-${String(i + 1).padStart(5, '0')}`,
      customerId: one(customers).id,
      date,
      due: addDays(date, 30),
      open,
      expected: i % 9 === 0 ? minor(open / 20n) : minor(0n),
      discount: i % 7 === 0 ? minor(open / 50n) : minor(0n),
      discountUntil: i % 7 === 0 ? addDays(date, 14) : '',
      references: i % 5 === 0 ? [`PO ${40_000 + i}`] : [],
    };
  });
  const nameOf = new Map(customers.map(({ id, name }) => [id, name]));
  const ibanOf = new Map(customers.map(({ id, ibans }) => [id, ibans[0] ?? '']));
  const paid = new Set<string>();
  const made: TrueLine[] = [];

  const written = ({ number, references }: OpenDebt): string => {
    const tail = String(Number(number.slice(9)));
    const forms = [
      number,
      number.toLowerCase(),
      number.replaceAll('-', ' '),
      number.replaceAll('-', ''),
      `Invoice 2026-${tail.padStart(5, '0')}`,
      `INV 2026 ${tail} thank you`,
    ];
    return references.length > 0 && pick(4) === 0 ? `order ${references[0]}` : one(forms);
  };
  const named = (customerId: string): string =>
    one([
      nameOf.get(customerId) ?? '',
      (nameOf.get(customerId) ?? '').toUpperCase(),
      (nameOf.get(customerId) ?? '').replace(' Ltd (sample)', ''),
    ]);
  const add = (
    how: string,
    pays: readonly OpenDebt[],
    amount: bigint,
    text: string,
    over: Partial<StatementLine> = {},
  ) => {
    const [first] = pays;
    if (first === undefined || amount <= 0n) return;
    for (const { id } of pays) paid.add(id);
    const day = addDays(first.due, one([-25, -3, 0, 0, 1, 2, 5, 9, 21, 60, 150]));
    const line = statementLine({
      amount: amount as Minor,
      date: day,
      text,
      name: pick(10) < 8 ? named(first.customerId) : '',
      ...over,
    });
    made.push({ line, how, pays: pays.map(({ id }) => id) });
  };
  const byCustomer = new Map(customers.map(({ id }) => [id, debts.filter((debt) => debt.customerId === id)]));
  const others = ({ id, customerId }: OpenDebt) =>
    (byCustomer.get(customerId) ?? []).filter((debt) => debt.id !== id && !paid.has(debt.id));

  while (made.length < lines) {
    const debt = one(debts);
    if (paid.has(debt.id)) continue;
    const { customerId, open, expected, discount } = debt;
    const name = { name: named(customerId) };
    const iban = ibanOf.get(customerId) ?? '';
    const how = pick(100);
    const inTime = { date: addDays(debt.date, pick(13)) };
    if (how < 46) add('named', [debt], open, written(debt));
    else if (how < 58) add('by name alone', [debt], open, one(['payment', 'thank you', 'Q3']), name);
    else if (how < 63 && expected > 0n)
      add('withheld', [debt], open - expected, pick(10) < 7 ? written(debt) : '', name);
    else if (how < 68 && discount > 0n)
      add('discount', [debt], open - discount, pick(10) < 7 ? written(debt) : '', { ...name, ...inTime });
    else if (how < 73) add('charge', [debt], open - BigInt(500 + pick(1900)), written(debt), name);
    else if (how < 82) {
      const several = [debt, ...others(debt).slice(0, 1 + pick(3))];
      const sum = several.reduce((all, { open: part }) => all + part, 0n);
      if (several.length > 1) add('sum, named', several, sum, several.map(written).join(' + '), name);
    } else if (how < 86) {
      const [oldest, next] = [debt, ...others(debt)].sort((a, b) => (a.due + a.number < b.due + b.number ? -1 : 1));
      if (oldest && next) add('sum, not named', [oldest, next], oldest.open + next.open, 'statement', name);
    } else if (how < 91) {
      const [wrong] = others(debt);
      if (wrong !== undefined) add('wrong number', [debt], open, wrong.number, name);
    } else if (how < 95) add('part', [debt], open / 3n, `${debt.number} first of three ${writeMoney(open, EUR)}`, name);
    else if (iban !== '') add('by account', [debt], open, '', { name: '', iban });
  }
  made.sort((a, b) => (a.line.date < b.line.date ? -1 : a.line.date > b.line.date ? 1 : 0));
  return {
    material: { customers, debts, movements: [], credits: [], toPay: [], transfers: [], takings: [], rules: [] },
    lines: made,
  };
}

/** How the lines of a year are found, each taken for what it truly is before the next: shares in one, and what was wrong. */
export function tally(
  { material, lines }: BankYear,
  firstOf: (line: StatementLine) => { readonly pays: readonly string[]; readonly certain: boolean } | null,
  settle: (debt: OpenDebt) => void,
): {
  readonly right: number;
  readonly certainWrong: readonly string[];
  readonly wrong: ReadonlyMap<string, number>;
  readonly certain: number;
} {
  const byId = new Map(material.debts.map((debt) => [debt.id, debt]));
  let right = 0;
  let certain = 0;
  const certainWrong: string[] = [];
  const wrong = new Map<string, number>();
  for (const { line, how, pays } of lines) {
    const first = firstOf(line);
    const good = first !== null && [...first.pays].sort().join() === [...pays].sort().join();
    if (good) right++;
    else wrong.set(how, (wrong.get(how) ?? 0) + 1);
    if (first?.certain) certain++;
    if (first?.certain && !good) certainWrong.push(`${how}: ${line.text}`);
    for (const id of pays) {
      const debt = byId.get(id);
      if (debt !== undefined) settle(debt);
    }
  }
  return { right: right / lines.length, certainWrong, wrong, certain: certain / lines.length };
}
