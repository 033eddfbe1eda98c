import { agedReport } from '@/core/reports/aged';
import { authoritiesReport } from '@/core/reports/authorities';
import { exchangeReport } from '@/core/reports/exchangeDifferences';
import { expectedCash } from '@/core/reports/expectedCash';
import { incomeCashReport } from '@/core/reports/incomeCash';
import { customerLedger, generalLedger } from '@/core/reports/ledgers';
import type { Report } from '@/core/reports/report';
import { returnReport } from '@/core/reports/returnReport';
import { type SalesBy, salesReport } from '@/core/reports/sales';
import type { ReportSpan } from '@/core/reports/span';
import { balanceSheet, incomeStatement, trialBalanceReport } from '@/core/reports/statements';
import { lateEntries, taxEvidence } from '@/core/reports/taxEvidence';
import { exemptSales, outputTaxReport, recapitulativeList } from '@/core/reports/taxLists';
import { withholdingReport } from '@/core/reports/withheld';
import { exchangeMaterial } from '../ledger/queries/exchangeDifferences';
import type { BookDb } from '../schema';
import { ALL_ACCOUNTS, generalLedgerMaterial, incomeCashMaterial, statementMaterial, tagsInUse } from './ledgers';
import { agedMaterial, customerLedgerMaterial, expectedCashMaterial, withheldMaterial } from './receivables';
import { salesMaterial } from './sales';
import {
  authoritiesMaterial,
  evidenceMaterial,
  exemptMaterial,
  lateMaterial,
  outputTaxMaterial,
  recapitulativeMaterial,
  returnMaterial,
} from './tax';

/** What a report is asked for beside its days. */
export interface ReportOption {
  readonly value: string;
  readonly words: string;
}

/** A report that screens, files and the command line make alike. */
export interface ReportKind {
  /** Its address and its name for the command: `income-statement`. */
  readonly name: string;
  readonly title: string;
  readonly group: 'Statements' | 'Sales' | 'Money' | 'Tax';
  /** Two days, or the end of one. */
  readonly days: 'span' | 'day';
  /** What it is asked for beside its days; the first is meant where nothing is. */
  readonly choice?: { readonly label: string; readonly options: (db: BookDb) => Promise<readonly ReportOption[]> };
  /** @param chosen a value of its choice; of a report without one it is passed over. */
  readonly make: (db: BookDb, span: ReportSpan, chosen?: string) => Promise<Report>;
}

/** What sets a report apart from others of its group, and how it is made. */
type Making = Pick<ReportKind, 'make'> & Partial<Pick<ReportKind, 'days' | 'choice'>>;

const report = (group: ReportKind['group'], name: string, title: string, making: Making): ReportKind => ({
  name,
  title,
  group,
  days: 'span',
  ...making,
});

const sales = (by: SalesBy): ReportKind =>
  report('Sales', `sales-by-${by}`, `Sales by ${by}`, {
    make: async (db, span) => salesReport(await salesMaterial(db, span), by),
  });

const AGED_BY: readonly ReportOption[] = [
  { value: 'due', words: 'By due date' },
  { value: 'date', words: 'By document date' },
];

const accounts = async (db: BookDb): Promise<readonly ReportOption[]> => [
  ...(await db.accounts.orderBy('code').toArray()).map(({ code, name }) => ({ value: code, words: `${code} ${name}` })),
  { value: ALL_ACCOUNTS, words: 'All accounts' },
];

const tags = async (db: BookDb): Promise<readonly ReportOption[]> => [
  { value: '', words: 'The whole book' },
  ...(await tagsInUse(db)).map((tag) => ({ value: tag, words: tag })),
];

const registrations = async (db: BookDb): Promise<readonly ReportOption[]> =>
  (await db.registrations.toArray()).map(({ id, name }) => ({ value: id, words: name }));

/** Every report. A new one is a function in `core/reports/`, what it is made of beside this file, and a row here. */
export const REPORTS: readonly ReportKind[] = [
  report('Statements', 'income-statement', 'Income statement', {
    choice: { label: 'Of', options: tags },
    make: async (db, span, tag) => incomeStatement(await statementMaterial(db, span, tag)),
  }),
  report('Statements', 'balance-sheet', 'Balance sheet', {
    days: 'day',
    choice: { label: 'Of', options: tags },
    make: async (db, span, tag) => balanceSheet(await statementMaterial(db, span, tag)),
  }),
  report('Statements', 'trial-balance', 'Trial balance', {
    make: async (db, span) => trialBalanceReport(await statementMaterial(db, span)),
  }),
  report('Statements', 'general-ledger', 'General ledger', {
    choice: { label: 'Account', options: accounts },
    make: async (db, span, account) => generalLedger(await generalLedgerMaterial(db, span, account)),
  }),
  report('Statements', 'customer-ledger', 'Customer ledger', {
    make: async (db, span) => customerLedger(await customerLedgerMaterial(db, span)),
  }),
  sales('customer'),
  sales('item'),
  sales('tag'),
  sales('salesperson'),
  sales('jurisdiction'),
  report('Money', 'aged-receivables', 'Aged receivables', {
    days: 'day',
    choice: { label: 'Aged', options: async () => AGED_BY },
    make: async (db, { until }, by) => agedReport(await agedMaterial(db, until, by === 'date' ? 'date' : 'due')),
  }),
  report('Money', 'expected-cash', 'Expected cash', {
    days: 'day',
    make: async (db, { until }) => expectedCash(await expectedCashMaterial(db, until)),
  }),
  report('Money', 'income-against-cash', 'Income against cash', {
    make: async (db, span) => incomeCashReport(await incomeCashMaterial(db, span)),
  }),
  report('Money', 'tax-withheld', 'Tax withheld by customers', {
    make: async (db, span) => withholdingReport(await withheldMaterial(db, span)),
  }),
  report('Money', 'exchange-differences', 'Exchange differences', {
    make: async (db, { from, until }) => exchangeReport(await exchangeMaterial(db, from, until)),
  }),
  report('Tax', 'tax-return', 'Return', {
    days: 'day',
    choice: { label: 'Registration', options: registrations },
    make: async (db, { until }, registration) => returnReport(await returnMaterial(db, until, registration)),
  }),
  report('Tax', 'output-tax', 'Output tax', {
    make: async (db, span) => outputTaxReport(await outputTaxMaterial(db, span)),
  }),
  report('Tax', 'authorities', 'Owed to authorities', {
    days: 'day',
    make: async (db, { until }) => authoritiesReport(await authoritiesMaterial(db, until)),
  }),
  report('Tax', 'recapitulative-list', 'Recapitulative list', {
    make: async (db, span) => recapitulativeList(await recapitulativeMaterial(db, span)),
  }),
  report('Tax', 'exempt-sales', 'Exempt sales', {
    make: async (db, span) => exemptSales(await exemptMaterial(db, span)),
  }),
  report('Tax', 'tax-evidence', 'Reverse charge and export', {
    make: async (db, span) => taxEvidence(await evidenceMaterial(db, span)),
  }),
  report('Tax', 'late-entries', 'Late entries', {
    make: async (db, span) => lateEntries(await lateMaterial(db, span)),
  }),
];

/** A report by its name; null where there is none. */
export function reportKind(name: string): ReportKind | null {
  return REPORTS.find((kind) => kind.name === name) ?? null;
}
