import type { Currency } from '@/core/kernel/currency';
import { type Minor, minus, total } from '@/core/kernel/money';
import { byJurisdiction, type TaxReturn } from '@/core/returns/return';
import type { StatedForm, TypedBox } from '@/core/returns/statedForm';
import type { TaxEntry } from '@/core/returns/taxEntry';
import type { Registration } from '@/core/tax/registration';
import type { Report, ReportTable } from './report';
import type { ReportSpan } from './span';

export interface ReturnReportMaterial extends ReportSpan {
  readonly registration: Pick<Registration, 'authority' | 'number' | 'filingCurrency'>;
  readonly home: Currency;
  readonly figures: TaxReturn;
  /** Null where no form comes with the program. */
  readonly stated: StatedForm | null;
  readonly typed: readonly TypedBox[];
  /** Everything that it reports, by document. */
  readonly entries: readonly TaxEntry[];
}

/** A return on paper: its form, and the same by code, by jurisdiction and by document. */
export function returnReport(material: ReturnReportMaterial): Report {
  const { from, until, registration, home, figures, stated, typed, entries } = material;
  const { filingCurrency, authority, number } = registration;
  const filed = (amount: Minor) => ({ amount, currency: filingCurrency });
  const money = (amount: Minor) => ({ amount, currency: home });
  const words = (head: string) => ({ head, kind: 'words' as const });
  const amounts = (head: string) => ({ head, kind: 'amount' as const });
  const form: readonly ReportTable[] =
    stated === null
      ? []
      : [
          {
            caption: stated.title,
            columns: [words('Box'), words('As the form says'), amounts('Amount')],
            rows: stated.boxes.map(({ box, words: said, amount }) => ({
              key: box,
              cells: [
                box,
                [said, ...typed.filter((one) => one.box === box).map((one) => `typed: ${one.words}`)].join('; '),
                filed(amount),
              ],
            })),
            sums: ['', `Due to ${authority}`, filed(stated.due)],
            nothing: '',
          },
        ];
  const codes: ReportTable = {
    caption: 'By tax code',
    columns: [words('Tax code'), words('Rate'), amounts('Taxable amount'), amounts('Tax')],
    rows: figures.rows.map((row, i) => ({
      key: String(i),
      cells: [
        [row.codeName, row.kind === 'exempt' ? '(exempt)' : ''].filter(Boolean).join(' '),
        `${row.percent} %`,
        money(row.base),
        money(row.tax),
      ],
    })),
    sums: ['Total', '', money(figures.base), money(figures.tax)],
    nothing: 'No document has its tax point in this period.',
  };
  const places = byJurisdiction(figures.rows);
  const jurisdictions: ReportTable = {
    caption: 'By jurisdiction',
    columns: [
      words('Jurisdiction'),
      amounts('Taxable'),
      amounts('Exempt with certificate'),
      amounts('Not liable'),
      amounts('Tax'),
    ],
    rows: places.map(({ jurisdictionId, jurisdictionName, base, exempt, notLiable, tax }) => ({
      key: jurisdictionId,
      cells: [jurisdictionName, money(minus(base, notLiable)), money(exempt), money(notLiable), money(tax)],
    })),
    sums: null,
    nothing: 'No document has its tax point in this period.',
  };
  const documents: ReportTable = {
    caption: 'By document',
    columns: [
      words('Document'),
      { head: 'Tax point', kind: 'date' },
      words('Customer'),
      words('Jurisdiction'),
      words('Tax code'),
      amounts('Taxable amount'),
      amounts('Tax'),
    ],
    rows: entries.map((entry) => ({
      key: entry.id,
      cells: [
        entry.documentNumber,
        entry.taxPoint,
        entry.customerName,
        entry.jurisdictionName,
        [entry.codeName, entry.late ? '(late)' : ''].filter(Boolean).join(' '),
        money(entry.base),
        money(entry.tax),
      ],
      behind: { kind: 'document', id: entry.documentId },
    })),
    sums: ['Total', '', '', '', '', '', money(total(entries.map(({ tax }) => tax)))],
    nothing: 'No document has its tax point in this period.',
  };
  return {
    title: `Return, ${authority}, ${number}`,
    from,
    until,
    currency: home,
    tables: [...form, codes, jurisdictions, documents],
    notes: [],
  };
}
