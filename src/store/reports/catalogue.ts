import { exchangeReport } from '@/core/reports/exchangeDifferences';
import { incomeCashReport } from '@/core/reports/incomeCash';
import type { Report } from '@/core/reports/report';
import { type SalesBy, salesReport } from '@/core/reports/sales';
import type { ReportSpan } from '@/core/reports/span';
import { balanceSheet, incomeStatement, trialBalanceReport } from '@/core/reports/statements';
import { exemptSales, outputTaxReport, recapitulativeList } from '@/core/reports/taxLists';
import { exchangeMaterial } from '../ledger/queries/exchangeDifferences';
import type { BookDb } from '../schema';
import {
  exemptMaterial,
  incomeCashMaterial,
  outputTaxMaterial,
  recapitulativeMaterial,
  salesMaterial,
  statementMaterial,
} from './material';

/** A report that screens, files and the command line make alike. */
export interface ReportKind {
  /** Its address and its name for the command: `income-statement`. */
  readonly name: string;
  readonly title: string;
  readonly group: 'Statements' | 'Sales' | 'Money' | 'Tax';
  /** Two days, or the end of one. */
  readonly days: 'span' | 'day';
  readonly make: (db: BookDb, span: ReportSpan) => Promise<Report>;
}

const sales = (by: SalesBy): ReportKind => ({
  name: `sales-by-${by}`,
  title: `Sales by ${by}`,
  group: 'Sales',
  days: 'span',
  make: async (db, span) => salesReport(await salesMaterial(db, span), by),
});

/** Every report. A new one is a function in `core/reports/`, what it is made of in `material.ts`, and a row here. */
export const REPORTS: readonly ReportKind[] = [
  {
    name: 'income-statement',
    title: 'Income statement',
    group: 'Statements',
    days: 'span',
    make: async (db, span) => incomeStatement(await statementMaterial(db, span)),
  },
  {
    name: 'balance-sheet',
    title: 'Balance sheet',
    group: 'Statements',
    days: 'day',
    make: async (db, span) => balanceSheet(await statementMaterial(db, span)),
  },
  {
    name: 'trial-balance',
    title: 'Trial balance',
    group: 'Statements',
    days: 'span',
    make: async (db, span) => trialBalanceReport(await statementMaterial(db, span)),
  },
  sales('customer'),
  sales('item'),
  sales('tag'),
  sales('salesperson'),
  sales('jurisdiction'),
  {
    name: 'income-against-cash',
    title: 'Income against cash',
    group: 'Money',
    days: 'span',
    make: async (db, span) => incomeCashReport(await incomeCashMaterial(db, span)),
  },
  {
    name: 'exchange-differences',
    title: 'Exchange differences',
    group: 'Money',
    days: 'span',
    make: async (db, { from, until }) => exchangeReport(await exchangeMaterial(db, from, until)),
  },
  {
    name: 'output-tax',
    title: 'Output tax',
    group: 'Tax',
    days: 'span',
    make: async (db, span) => outputTaxReport(await outputTaxMaterial(db, span)),
  },
  {
    name: 'recapitulative-list',
    title: 'Recapitulative list',
    group: 'Tax',
    days: 'span',
    make: async (db, span) => recapitulativeList(await recapitulativeMaterial(db, span)),
  },
  {
    name: 'exempt-sales',
    title: 'Exempt sales',
    group: 'Tax',
    days: 'span',
    make: async (db, span) => exemptSales(await exemptMaterial(db, span)),
  },
];

/** A report by its name; null where there is none. */
export function reportKind(name: string): ReportKind | null {
  return REPORTS.find((kind) => kind.name === name) ?? null;
}
