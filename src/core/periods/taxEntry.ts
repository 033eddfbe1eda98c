import { type Content, calcInputOf, type FrozenTax, signed } from '@/core/documents/content';
import type { Currency } from '@/core/kernel/currency';
import type { IsoDate } from '@/core/kernel/date';
import { type Minor, minor, NOTHING } from '@/core/kernel/money';
import { share } from '@/core/kernel/share';
import type { CalcResult, Category, GroupResult } from '@/core/tax/calcTypes';
import { calculate } from '@/core/tax/calculate';
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
  readonly taxPoint: IsoDate;
  readonly late: boolean;
  /**
   * `exempt` where the customer's certificate or standing took the tax away. On payment basis a
   * document says `not-yet-due`, outside all periods, and each receipt releases its part.
   */
  readonly kind: 'due' | 'exempt' | 'not-yet-due' | 'released';
  /** Receipt that released it, or empty. */
  readonly receiptId: string;
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
}

interface InFiling {
  readonly base: Minor;
  /** Tax of each component of the code. */
  readonly taxes: readonly Minor[];
}

/** A group's figures in the currency of the return: net by what is left of the gross, families rounded, then split. */
function inFiling(content: Content, figures: CalcResult): ReadonlyMap<string, InFiling> {
  const { filing } = content;
  if (filing === undefined)
    return new Map(figures.groups.map((g) => [g.tax, { base: g.net, taxes: g.components.map((c) => c.amount) }]));
  const { home } = calculate({ ...calcInputOf(content), home: filing });
  const nets = new Map<string, bigint>();
  figures.lines.forEach((line, i) => {
    nets.set(line.tax, (nets.get(line.tax) ?? 0n) + (home?.lineNets[i] ?? 0n));
  });
  return new Map(
    figures.groups.map((group): [string, InFiling] => {
      const taxes = group.components.map(() => 0n);
      for (const { family, amount } of home?.groups.find((g) => g.tax === group.tax)?.families ?? []) {
        const at = group.components.flatMap((component, i) => (component.family === family ? [i] : []));
        const parts = share(
          amount,
          at.map((i) => group.components[i]?.amount ?? 0n),
        );
        at.forEach((i, k) => {
          taxes[i] = parts[k] ?? 0n;
        });
      }
      return [group.tax, { base: minor(nets.get(group.tax) ?? 0n), taxes: taxes.map(minor) }];
    }),
  );
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
  const filed = inFiling(content, figures);
  return figures.groups.flatMap((group) => {
    const tax = content.taxes.find((t) => t.code === group.tax);
    const filing = filed.get(group.tax);
    return partsOf(tax, group).map((component, part): TaxEntry => {
      const relief = component?.relief ?? null;
      return {
        id: part === 0 ? `${documentId}:${group.tax}` : `${documentId}:${group.tax}:${part}`,
        periodId,
        registrationId: content.registrationId,
        jurisdictionId: component?.jurisdictionId ?? registration.jurisdictionId,
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
        taxPoint: content.taxPoint,
        late,
        kind: content.basis === 'on-payment' ? 'not-yet-due' : relief === null ? 'due' : 'exempt',
        receiptId: '',
        certificate: relief?.certificate ?? '',
        boxBase: tax?.boxBase ?? '',
        boxTax: tax?.boxTax ?? '',
        base: signed(content, group.net),
        tax: signed(content, group.components[part]?.amount ?? NOTHING),
        filingCurrency: registration.filingCurrency,
        filingBase: signed(content, filing?.base ?? NOTHING),
        filingTax: signed(content, filing?.taxes[part] ?? NOTHING),
      };
    });
  });
}
