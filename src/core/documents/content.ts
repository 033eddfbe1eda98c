import type { Currency } from '@/core/kernel/currency';
import type { IsoDate } from '@/core/kernel/date';
import type { Decimal } from '@/core/kernel/decimal';
import type { Minor } from '@/core/kernel/money';
import type { Address } from '@/core/parties/address';
import type { Endpoint } from '@/core/parties/endpoint';
import type { CalcInput, CalcLine, CalcResult, CalcTax, Category, PriceMode } from '@/core/tax/calcTypes';
import { calculate } from '@/core/tax/calculate';
import type { Reason } from '@/core/tax/determine';
import type { RegistrationRounding } from '@/core/tax/registration';
import type { ResolvedComponent } from '@/core/tax/resolve';
import type { WithholdingType } from '@/core/tax/withholding';

export type DocumentKind = 'invoice' | 'credit-note';

/** The seller as it was on the day of issue. */
export interface FrozenSeller {
  readonly name: string;
  readonly address: Address;
  readonly legalId: string;
  readonly email: string;
  readonly phone: string;
  readonly taxNumber: string;
  readonly iban: string;
  readonly bic: string;
  readonly endpoint: Endpoint;
}

/** The customer as it was on the day of issue. */
export interface FrozenBuyer {
  readonly name: string;
  readonly address: Address;
  readonly email: string;
  readonly taxNumber: string;
  readonly endpoint: Endpoint;
}

/** A tax code, or the stack of a place, with the rates that the tax point chose. */
export interface FrozenTax {
  /** Id of the code, or the key of a place's stack. */
  readonly code: string;
  readonly name: string;
  readonly category: Category;
  /** Percent, all components together. */
  readonly percent: Decimal;
  readonly since: IsoDate;
  readonly legend: string;
  readonly exemptionCode: string;
  readonly boxBase?: string;
  readonly boxTax?: string;
  /** Missing in books of version 1, where a code had one rate and no jurisdiction. */
  readonly components?: readonly ResolvedComponent[];
}

/** A withholding type with the rate that the tax point chose. */
export interface FrozenWithholding extends Pick<WithholdingType, 'id' | 'name' | 'base' | 'when' | 'certificate'> {
  readonly percent: Decimal;
  readonly since: IsoDate;
  /** Base below which nothing is withheld, in currency units; `0` for none. */
  readonly threshold: Decimal;
}

export interface ContentLine {
  readonly id: string;
  readonly description: string;
  readonly quantity: Decimal;
  readonly unit: string;
  readonly unitPrice: Decimal;
  readonly discount?: CalcLine['discount'];
  readonly tax: string;
  readonly taxByHand: boolean;
  readonly account: string;
  /** In books of version 1; later ones keep trails once for lines that share them. */
  readonly trail?: readonly Reason[];
  /** Position in `Content.trails`. */
  readonly trailOf?: number;
  /** How the price came from another one; missing when it was typed. */
  readonly priceFrom?: string;
}

/**
 * Everything a document says, frozen at issue and sealed. A credit note holds the quantities of the
 * invoice it takes back, not negative ones; `signOf` says which way it counts.
 */
export interface Content {
  readonly kind: DocumentKind;
  readonly number: string;
  readonly registrationId: string;
  readonly customerId: string;
  readonly issueDate: IsoDate;
  readonly taxPoint: IsoDate;
  readonly dueDate: IsoDate;
  readonly currency: Currency;
  readonly priceMode: PriceMode;
  readonly seller: FrozenSeller;
  readonly buyer: FrozenBuyer;
  /** Where it goes, when that is not the buyer's address. */
  readonly delivery?: Address;
  readonly buyerReference: string;
  readonly orderNumber: string;
  readonly note: string;
  readonly rounding?: RegistrationRounding;
  /** Missing where tax falls due on issue. */
  readonly basis?: 'on-payment';
  readonly withholding?: readonly FrozenWithholding[];
  /** Currency of the return, and its units for one unit of the document's, where they differ. */
  readonly filing?: { readonly currency: Currency; readonly rate: Decimal };
  /** Why each line carries its tax: what the decision table said. */
  readonly trails?: readonly (readonly Reason[])[];
  readonly taxes: readonly FrozenTax[];
  readonly lines: readonly ContentLine[];
  /** The invoice a credit note takes back, and why. */
  readonly corrects?: { readonly documentId: string; readonly number: string; readonly issueDate: IsoDate };
  readonly reason?: string;
}

/** Invoices count up, credit notes down, in entries and returns. */
export function signOf(kind: DocumentKind): 1n | -1n {
  return kind === 'invoice' ? 1n : -1n;
}

/** An amount of the document, signed as it counts in entries and returns. */
export function signed(content: Pick<Content, 'kind'>, amount: Minor): Minor {
  return (signOf(content.kind) * amount) as Minor;
}

const NO_RATE = '0' as Decimal;

function calcTax(tax: FrozenTax): CalcTax {
  const { category, code, percent, components } = tax;
  if (components === undefined) return { category, components: [{ id: code, rate: percent }] };
  return {
    category,
    components: components.map((component) => ({
      id: component.taxId,
      family: component.family,
      compound: component.compound,
      ...(component.perUnit === '' ? { rate: component.percent || NO_RATE } : { perUnit: component.perUnit }),
    })),
  };
}

type Computed = Pick<Content, 'currency' | 'priceMode' | 'taxes' | 'lines' | 'rounding' | 'withholding'>;

/** The engine's input for a document; half-up and per document, as EN 16931 needs, unless the registration says else. */
export function calcInputOf(content: Computed): CalcInput {
  const { mode = 'half-up', level = 'document', cashStep = '' } = content.rounding ?? {};
  return {
    currency: content.currency,
    priceMode: content.priceMode,
    rounding: { mode, level, ...(cashStep !== '' && { cashStep: cashStep as Decimal }) },
    taxes: Object.fromEntries(content.taxes.map((tax) => [tax.code, calcTax(tax)])),
    lines: content.lines.map(({ id, quantity, unitPrice, discount, tax }) => ({
      id,
      quantity,
      unitPrice,
      tax,
      ...(discount && { discount }),
    })),
    adjustments: [],
    overrides: [],
    withholding: (content.withholding ?? []).map(({ id, base, percent, threshold }) => ({
      id,
      base,
      rate: percent,
      threshold,
    })),
  };
}

/** The figures of a document, computed from its content alone. */
export function figuresOf(content: Content): CalcResult {
  return calculate(calcInputOf(content));
}

/** Why a line carries its tax. */
export function trailOf(content: Pick<Content, 'trails'>, line: ContentLine): readonly Reason[] {
  return line.trail ?? content.trails?.[line.trailOf ?? 0] ?? [];
}
