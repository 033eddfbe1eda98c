import type { Currency } from '@/core/kernel/currency';
import { type Minor, minus, NOTHING, negated, plus, total } from '@/core/kernel/money';
import type { Account, AccountType } from '@/core/ledger/account';
import type { Report, ReportRow, ReportTable } from './report';
import type { ReportSpan } from './span';

/** What each account moved by, by code: debits less credits. */
export type AccountSums = ReadonlyMap<string, Minor>;

export interface StatementMaterial extends ReportSpan {
  readonly home: Currency;
  /** Only of documents with this tag; empty for the whole book. */
  readonly tag: string;
  readonly chart: readonly Account[];
  /** Until the day before the first. */
  readonly opening: AccountSums;
  /** From the first day to the last. */
  readonly moved: AccountSums;
  /** As long a time before. */
  readonly before: AccountSums;
  /** What of both is the closing of years, which statements of income pass over. */
  readonly closed: { readonly moved: AccountSums; readonly before: AccountSums };
}

const of = (sums: AccountSums, { code }: Account): Minor => sums.get(code) ?? NOTHING;

/** Accounts that the chart does not hold stand under their code, so that nothing is left out. */
function wholeChart({ chart, opening, moved, before }: StatementMaterial): readonly Account[] {
  const known = new Set(chart.map(({ code }) => code));
  const strange = [...new Set([...opening.keys(), ...moved.keys(), ...before.keys()])].filter(
    (code) => !known.has(code),
  );
  return [
    ...chart,
    ...strange
      .sort()
      .map((code): Account => ({ code, name: 'Not in the chart of accounts', type: 'expense', role: '' })),
  ];
}

/** Each account with what it brought in, its debits less credits, and what it stands at; both columns of sums are equal. */
export function trialBalanceReport(material: StatementMaterial): Report {
  const { home, opening, moved, from, until } = material;
  const amount = (value: Minor) => (value === NOTHING ? '' : { amount: value, currency: home });
  const rows = wholeChart(material).flatMap((account): ReportRow[] => {
    const [begun, change] = [of(opening, account), of(moved, account)];
    const closing = plus(begun, change);
    if (begun === NOTHING && change === NOTHING) return [];
    return [
      {
        key: account.code,
        cells: [
          `${account.code} ${account.name}`,
          amount(begun),
          amount(change),
          amount(closing > 0n ? closing : NOTHING),
          amount(closing < 0n ? negated(closing) : NOTHING),
        ],
        behind: { kind: 'account', id: account.code },
      },
    ];
  });
  const closings = wholeChart(material).map((account) => plus(of(opening, account), of(moved, account)));
  const sum = (values: readonly Minor[]) => ({ amount: total(values), currency: home });
  return {
    title: 'Trial balance',
    from,
    until,
    currency: home,
    tables: [
      {
        caption: 'Accounts',
        columns: [
          { head: 'Account', kind: 'words' },
          { head: 'Opening', kind: 'amount' },
          { head: 'Moved', kind: 'amount' },
          { head: 'Debit', kind: 'amount' },
          { head: 'Credit', kind: 'amount' },
        ],
        rows,
        sums: [
          'Total',
          sum([...opening.values()]),
          sum([...moved.values()]),
          sum(closings.filter((value) => value > 0n)),
          sum(closings.filter((value) => value < 0n).map(negated)),
        ],
        nothing: 'Nothing is posted until that day.',
      },
    ],
    notes: [],
  };
}

/** A table of the accounts of one type, each as it counts up, with its sum. */
function accountsOf(
  material: StatementMaterial,
  type: AccountType,
  caption: string,
  columns: readonly (readonly [head: string, of: (account: Account) => Minor])[],
): { readonly table: ReportTable; readonly sums: readonly Minor[] } {
  const { home } = material;
  const accounts = wholeChart(material).filter((account) => account.type === type);
  const shown = accounts.filter((account) => columns.some(([, amountOf]) => amountOf(account) !== NOTHING));
  const sums = columns.map(([, amountOf]) => total(accounts.map(amountOf)));
  return {
    sums,
    table: {
      caption,
      columns: [{ head: 'Account', kind: 'words' }, ...columns.map(([head]) => ({ head, kind: 'amount' as const }))],
      rows: shown.map((account) => ({
        key: account.code,
        cells: [
          `${account.code} ${account.name}`,
          ...columns.map(([, amountOf]) => ({ amount: amountOf(account), currency: home })),
        ],
        behind: { kind: 'account', id: account.code },
      })),
      sums: [`Total ${caption.toLowerCase()}`, ...sums.map((amount) => ({ amount, currency: home }))],
      nothing: 'Nothing was posted.',
    },
  };
}

/** A table of one line that says what comes of those above it. */
function resultTable(
  caption: string,
  words: string,
  heads: readonly string[],
  amounts: readonly Minor[],
  home: Currency,
): ReportTable {
  return {
    caption,
    columns: [{ head: 'Of all accounts', kind: 'words' }, ...heads.map((head) => ({ head, kind: 'amount' as const }))],
    rows: [{ key: words, cells: [words, ...amounts.map((amount) => ({ amount, currency: home }))] }],
    sums: null,
    nothing: '',
  };
}

const titled = (title: string, tag: string): string => (tag === '' ? title : `${title} of documents tagged “${tag}”`);

/** What a statement of one tag leaves out. */
const notOfTag = (tag: string): readonly string[] =>
  tag === ''
    ? []
    : [
        'Documents with the tag, and what was posted for them: money that was received for them is not in it, nor are journals.',
      ];

/** What was earned and spent between two days, compared with as long a time before. */
export function incomeStatement(material: StatementMaterial): Report {
  const { home, tag, from, until, moved, before, closed } = material;
  const heads = ['Amount', 'Before'] as const;
  const now = (account: Account) => minus(of(moved, account), of(closed.moved, account));
  const then = (account: Account) => minus(of(before, account), of(closed.before, account));
  const earned = accountsOf(material, 'income', 'Income', [
    [heads[0], (account) => negated(now(account))],
    [heads[1], (account) => negated(then(account))],
  ]);
  const spent = accountsOf(material, 'expense', 'Expenses', [
    [heads[0], now],
    [heads[1], then],
  ]);
  const results = heads.map((_, i) => minus(earned.sums[i] ?? NOTHING, spent.sums[i] ?? NOTHING));
  return {
    title: titled('Income statement', tag),
    from,
    until,
    currency: home,
    tables: [earned.table, spent.table, resultTable('Result', 'Income less expenses', heads, results, home)],
    notes: notOfTag(tag),
  };
}

/** What there is and what is owed at the end of a day; the result of all days stands with equity, so that both sides are equal. */
export function balanceSheet(material: StatementMaterial): Report {
  const { home, tag, until, opening, moved } = material;
  const closing = (account: Account) => plus(of(opening, account), of(moved, account));
  const head = 'Amount';
  const assets = accountsOf(material, 'asset', 'Assets', [[head, closing]]);
  const owed = accountsOf(material, 'liability', 'Liabilities', [[head, (account) => negated(closing(account))]]);
  const equity = accountsOf(material, 'equity', 'Equity', [[head, (account) => negated(closing(account))]]);
  const result = negated(
    total(wholeChart(material).flatMap((a) => (a.type === 'income' || a.type === 'expense' ? [closing(a)] : []))),
  );
  const [assetSum = NOTHING, owedSum = NOTHING, equitySum = NOTHING] = [assets, owed, equity].flatMap(
    ({ sums }) => sums,
  );
  const otherSide = plus(plus(owedSum, equitySum), result);
  return {
    title: titled('Balance sheet', tag),
    from: until,
    until,
    currency: home,
    tables: [
      assets.table,
      owed.table,
      equity.table,
      resultTable('Result', 'Result not yet carried to equity', [head], [result], home),
      resultTable('Liabilities, equity and result', 'Total', [head], [otherSide], home),
    ],
    notes: [
      ...notOfTag(tag),
      ...(assetSum === otherSide ? [] : ['Assets and the other side are not equal: prove the book.']),
    ],
  };
}
