import { bookFigures, filingFigures } from '@/core/documents/bookFigures';
import { type Content, type FrozenTax, signed } from '@/core/documents/content';
import type { Currency } from '@/core/kernel/currency';
import type { IsoDate } from '@/core/kernel/date';
import { type Minor, NOTHING, negated } from '@/core/kernel/money';
import type { CalcResult, Category, GroupResult } from '@/core/tax/calcTypes';
import type { Registration } from '@/core/tax/registration';
import type { ResolvedComponent } from '@/core/tax/resolve';

/** What one document says to one authority about one tax under one code. Append-only. */
export interface TaxEntry {
  /** `<document id>:<code>`, with `:<part>` behind it for parts after the first. */
  readonly id: string;
  readonly periodId: string;
  readonly registrationId: string;
  /** Territory whose tax it is; that of the registration where the code names none. */
  readonly jurisdictionId: string;
  readonly jurisdictionName: string;
  /** Empty where the code charges nothing. */
  readonly taxId: string;
  readonly documentId: string;
  readonly documentNumber: string;
  readonly customerName: string;
  readonly code: string;
  readonly codeName: string;
  readonly category: Category;
  /** Percent, as text. */
  readonly percent: string;
  /** Position of the tax in its code; bases of parts after the first are not summed again. */
  readonly part: number;
  /** The same among the taxes of its jurisdiction, whose base is summed once too. */
  readonly partOfJurisdiction: number;
  readonly taxPoint: IsoDate;
  readonly late: boolean;
  /**
   * `exempt` where the customer's certificate or standing took the tax away. On payment basis a
   * document says `not-yet-due`, outside all periods, and each allocation of money releases its part. `relief` takes tax of a
   * bad debt back.
   */
  readonly kind: 'due' | 'exempt' | 'not-yet-due' | 'released' | 'relief';
  /** Allocation that released it, or its undoing that took it back; empty for what a document itself says. */
  readonly allocationId: string;
  /** Number of the exemption certificate, or empty. */
  readonly certificate: string;
  readonly boxBase: string;
  readonly boxTax: string;
  /** Signed: credit notes count down. Minor units of the home currency. */
  readonly base: Minor;
  readonly tax: Minor;
  /** The same in the currency of the return, in its minor units. */
  readonly filingCurrency: Currency;
  readonly filingBase: Minor;
  readonly filingTax: Minor;
  /** The same in the currency of the document, where that is not the home currency. */
  readonly inDocument?: { readonly currency: Currency; readonly base: Minor; readonly tax: Minor };
}

/** The entries that take others back, as when their document is cancelled. */
export function reversedEntries(entries: readonly TaxEntry[]): readonly TaxEntry[] {
  return entries.map((entry) => ({
    ...entry,
    id: `${entry.id}:cancelled`,
    base: negated(entry.base),
    tax: negated(entry.tax),
    filingBase: negated(entry.filingBase),
    filingTax: negated(entry.filingTax),
    ...(entry.inDocument && {
      inDocument: {
        ...entry.inDocument,
        base: negated(entry.inDocument.base),
        tax: negated(entry.inDocument.tax),
      },
    }),
  }));
}

function partsOf(tax: FrozenTax | undefined, group: GroupResult): readonly (ResolvedComponent | null)[] {
  if (tax?.components === undefined) return group.components.map(() => null);
  return tax.components.length === 0 ? [null] : tax.components;
}

/** The tax entries of a document, one for each tax of each code it carries. */
export function taxEntriesOf(
  documentId: string,
  content: Content,
  figures: CalcResult,
  registration: Pick<Registration, 'id' | 'jurisdictionId' | 'filingCurrency'>,
  periodId: string,
  late: boolean,
): readonly TaxEntry[] {
  const home = bookFigures(content, figures);
  const filed = filingFigures(content, figures);
  return figures.groups.flatMap((group, at) => {
    const tax = content.taxes.find((t) => t.code === group.tax);
    const counted = home.groups[at];
    const filing = filed.groups[at];
    const parts = partsOf(tax, group);
    const jurisdictions = parts.map((component) => component?.jurisdictionId ?? registration.jurisdictionId);
    return parts.map((component, part): TaxEntry => {
      const relief = component?.relief ?? null;
      return {
        id: part === 0 ? `${documentId}:${group.tax}` : `${documentId}:${group.tax}:${part}`,
        periodId,
        registrationId: content.registrationId,
        jurisdictionId: jurisdictions[part] ?? registration.jurisdictionId,
        jurisdictionName: component?.jurisdictionName ?? registration.jurisdictionId,
        taxId: component?.taxId ?? '',
        documentId,
        documentNumber: content.number,
        customerName: content.buyer.name,
        code: group.tax,
        codeName: tax?.name ?? group.tax,
        category: tax?.category ?? 'S',
        percent: component === null ? (tax?.percent ?? '0') : component.percent || '0',
        part,
        partOfJurisdiction: jurisdictions.slice(0, part).filter((id) => id === jurisdictions[part]).length,
        taxPoint: content.taxPoint,
        late,
        kind: content.basis === 'on-payment' ? 'not-yet-due' : relief === null ? 'due' : 'exempt',
        allocationId: '',
        certificate: relief?.certificate ?? '',
        boxBase: tax?.boxBase ?? '',
        boxTax: tax?.boxTax ?? '',
        base: signed(content, counted?.net ?? NOTHING),
        tax: signed(content, counted?.components[part] ?? NOTHING),
        filingCurrency: registration.filingCurrency,
        filingBase: signed(content, filing?.net ?? NOTHING),
        filingTax: signed(content, filing?.components[part] ?? NOTHING),
        ...(content.home && {
          inDocument: {
            currency: content.currency,
            base: signed(content, group.net),
            tax: signed(content, group.components[part]?.amount ?? NOTHING),
          },
        }),
      };
    });
  });
}
