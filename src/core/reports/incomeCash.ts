import type { Currency } from '@/core/kernel/currency';
import { type Minor, minus, NOTHING, negated, plus, total } from '@/core/kernel/money';
import type { Account, AccountRole } from '@/core/ledger/account';
import type { JournalLine } from '@/core/ledger/entry';
import type { Behind, Report, ReportRow } from './report';
import type { ReportSpan } from './span';

export interface IncomeCashMaterial extends ReportSpan {
  readonly home: Currency;
  readonly chart: readonly Account[];
  /** Codes of the accounts that customers' money is kept on: bank, cash, cards. */
  readonly money: ReadonlySet<string>;
  /** Codes of the accounts of output tax, also those of one registration. */
  readonly tax: ReadonlySet<string>;
  /** What stood on receivables before the first day. */
  readonly opening: Minor;
  /** Every line of the entries that moved receivables between the days. */
  readonly lines: readonly JournalLine[];
  /** What income accounts moved by in all between the days, as credits less debits. */
  readonly income: Minor;
}

/** Steps between what was billed and what came in, in their order, by the role of the account on the other side. */
const STEPS: readonly (readonly [words: string, roles: readonly AccountRole[]])[] = [
  ['Revenue that belongs to other days', ['deferred-income']],
  ['Tax withheld by customers', ['withholding-claims', 'withholding-refunds']],
  ['Bank charges', ['bank-charges']],
  ['Differences of exchange', ['exchange', 'exchange-unrealised']],
  ['Rounding', ['rounding']],
  ['Bad debts written off', ['bad-debts']],
  ['Opening balances taken over', ['opening']],
];

interface Step {
  readonly words: string;
  readonly amount: Minor;
  readonly behind?: Behind;
}

/**
 * The bridge from the income of a period to the money that customers paid in it. It is made of the entries that moved
 * receivables, each of which comes to nothing: so what came in is what was billed, less what more is owed than before, less
 * what went another way, to the cent.
 */
export function bridgeSteps(material: IncomeCashMaterial): {
  readonly steps: readonly Step[];
  readonly closing: Minor;
  readonly cash: Minor;
} {
  const { chart, money, tax, opening, lines, income } = material;
  const accounts = new Map(chart.map((account) => [account.code, account]));
  const receivables = chart.find(({ role }) => role === 'receivables')?.code ?? '';
  const credits = new Map<string, Minor>();
  for (const { account, amount } of lines) credits.set(account, minus(credits.get(account) ?? NOTHING, amount));
  const used = new Set<string>([receivables, ...money]);
  const take = (
    fits: (account: Account | undefined) => boolean,
  ): { readonly amount: Minor; readonly codes: readonly string[] } => {
    const codes = [...credits.keys()].filter((code) => !used.has(code) && fits(accounts.get(code)));
    for (const code of codes) used.add(code);
    return { amount: total(codes.map((code) => credits.get(code) ?? NOTHING)), codes };
  };
  const behindOf = (codes: readonly string[]): { readonly behind?: Behind } =>
    codes.length === 1 ? { behind: { kind: 'account', id: codes[0] ?? '' } } : {};
  const billed = take((account) => account?.type === 'income');
  const taxes = take((account) => account !== undefined && tax.has(account.code));
  const named = STEPS.map(([words, roles]): Step => {
    const { amount, codes } = take((account) => account !== undefined && roles.includes(account.role));
    return { words, amount, ...behindOf(codes) };
  });
  const rest = take(() => true);
  const change = negated(credits.get(receivables) ?? NOTHING);
  const closing = plus(opening, change);
  const onReceivables = { behind: { kind: 'account', id: receivables } } as const;
  const all: readonly Step[] = [
    { words: 'Income', amount: income },
    { words: 'Of which not billed to customers', amount: minus(billed.amount, income) },
    { words: 'Tax on what was billed', amount: taxes.amount, ...behindOf(taxes.codes) },
    ...named,
    { words: 'On other accounts', amount: rest.amount, ...behindOf(rest.codes) },
    { words: 'Owed by customers at the beginning', amount: opening, ...onReceivables },
    { words: 'Owed by customers at the end', amount: negated(closing), ...onReceivables },
  ];
  const steps = all.filter(({ amount }, i) => i === 0 || amount !== NOTHING);
  const cash = negated(total([...money].map((code) => credits.get(code) ?? NOTHING)));
  return { steps, closing, cash };
}

/** Income against cash between two days. */
export function incomeCashReport(material: IncomeCashMaterial): Report {
  const { home, from, until } = material;
  const { steps, cash } = bridgeSteps(material);
  const said = total(steps.map(({ amount }) => amount));
  return {
    title: 'Income against cash',
    from,
    until,
    currency: home,
    tables: [
      {
        caption: 'From income to money received',
        columns: [
          { head: 'Step', kind: 'words' },
          { head: 'Amount', kind: 'amount' },
        ],
        rows: steps.map(
          ({ words, amount, behind }): ReportRow => ({
            key: words,
            cells: [words, { amount, currency: home }],
            ...(behind && { behind }),
          }),
        ),
        sums: ['Received from customers', { amount: cash, currency: home }],
        nothing: 'Nothing moved between these days.',
      },
    ],
    ...(steps.length > 1 && {
      chart: {
        kind: 'steps' as const,
        caption: 'From income to money received',
        names: [...steps.map(({ words }) => words), 'Received from customers'],
        series: [{ name: 'Amount', amounts: [...steps.map(({ amount }) => amount), cash] }],
      },
    }),
    notes: said === cash ? [] : ['The steps do not come to what was received: prove the book.'],
  };
}
