import { type Currency, exponentOf } from '@/core/kernel/currency';
import { isIsoDate } from '@/core/kernel/date';
import type { Refusal } from '@/core/kernel/result';
import type { Customer } from '@/core/parties/customer';
import type { Reason } from '@/core/tax/determine';
import type { ContentAdjustment, ContentLine, FrozenTax, TaxOverride } from './content';
import { type Draft, type DraftLine, writtenLines } from './draft';
import { type DraftTaxes, liveOverrides } from './draftTaxes';
import { lineTrail, verdictsOn } from './lineTax';
import { calcAdjustmentOf, calcLineOf, calcOverrideOf, currencyOf } from './readLine';
import type { Setting } from './setting';

/** What keeps a line's or a charge's tax from being frozen, or null. */
function taxRefusal(
  draft: Draft,
  line: Pick<DraftLine, 'taxCode' | 'taxByHand' | 'supply' | 'taxClass'>,
  at: string,
  verdictOf: ReturnType<typeof verdictsOn>,
  setting: Setting,
  known: DraftTaxes,
): Refusal | null {
  const path = `${at}.taxCode`;
  const problem = known.unresolved.get(line.taxCode);
  if (problem !== undefined) return { code: 'undecided', path, why: problem };
  if (line.taxByHand) return null;
  const { registrationId } = verdictOf(line);
  if (registrationId === '' || registrationId === draft.registrationId) return null;
  const nameOf = (id: string) => setting.setup.registrations.find((r) => r.id === id)?.name ?? id;
  return {
    code: 'invalid',
    path,
    wanted: {
      what: 'line-of-one-registration',
      line: nameOf(registrationId),
      document: nameOf(draft.registrationId),
    },
  };
}

/** Trails that several lines share are kept once. */
class Trails {
  readonly list: (readonly Reason[])[] = [];
  private readonly at = new Map<string, number>();

  place(key: string, make: () => readonly Reason[]): number {
    const known = this.at.get(key);
    if (known !== undefined) return known;
    this.at.set(key, this.list.length);
    return this.list.push(make()) - 1;
  }
}

/** The lines and charges of a draft, frozen. */
export interface FrozenLines {
  readonly lines: readonly ContentLine[];
  readonly adjustments: readonly ContentAdjustment[];
  readonly trails: readonly (readonly Reason[])[];
}

/** Freezes lines and charges; what keeps one from it goes to `refusals`. */
export function freezeLines(
  draft: Draft,
  customer: Customer,
  setting: Setting,
  known: DraftTaxes,
  refusals: Refusal[],
): FrozenLines {
  const currency = currencyOf(draft, setting.business.homeCurrency);
  const lines: ContentLine[] = [];
  const trails = new Trails();
  const verdictOf = verdictsOn(draft, customer, setting);
  for (const { line, index } of writtenLines(draft)) {
    const figures = calcLineOf(line, currency);
    if (figures === null) continue;
    const wrong = taxRefusal(draft, line, `lines[${index}]`, verdictOf, setting, known);
    if (wrong !== null) refusals.push(wrong);
    lines.push({
      id: line.id,
      description: line.description.trim(),
      quantity: figures.quantity,
      unit: line.unit,
      unitPrice: figures.unitPrice,
      ...(figures.discount && { discount: figures.discount }),
      tax: line.taxCode,
      taxByHand: line.taxByHand,
      taxClass: line.taxClass,
      supply: line.supply,
      account: line.account,
      ...(line.priceFrom !== '' && { priceFrom: line.priceFrom }),
      ...(line.itemId !== '' && { itemId: line.itemId }),
      ...(line.itemCode && { itemCode: line.itemCode }),
      ...(line.deferral !== undefined && draft.kind !== 'cash-sale' && { deferral: line.deferral }),
      ...(isIsoDate(line.supplied) && { supplied: line.supplied }),
      ...(line.of !== '' && { of: line.of }),
      ...(line.takesOff !== undefined && { takesOff: line.takesOff }),
      trailOf: trails.place(`${line.supply}|${line.taxClass}`, () => lineTrail(draft, line, customer, setting)),
    });
  }
  const adjustments = draft.adjustments.flatMap((adjustment, index): readonly ContentAdjustment[] => {
    const figures = calcAdjustmentOf(adjustment, currency);
    if (figures === null) return [];
    const wrong = adjustment.spread
      ? null
      : taxRefusal(draft, adjustment, `adjustments[${index}]`, verdictOf, setting, known);
    if (wrong !== null) refusals.push(wrong);
    return [{ ...figures, text: adjustment.text.trim(), account: adjustment.account }];
  });
  return { lines, adjustments, trails: trails.list };
}

/** Taxes typed by hand, each with its reason; those of a tax that no line carries any more say nothing. */
export function freezeOverrides(
  draft: Draft,
  taxes: readonly FrozenTax[],
  currency: Currency,
  refusals: Refusal[],
): readonly TaxOverride[] {
  return liveOverrides(draft, taxes).flatMap(({ override, index }) => {
    const read = calcOverrideOf(override, currency);
    if (read === null)
      refusals.push({
        code: 'invalid',
        path: `overrides[${index}].amount`,
        wanted: { what: 'tax-amount', whole: exponentOf(currency) === 0 },
        found: override.amount,
      });
    if (override.reason.trim() === '')
      refusals.push({ code: 'missing', path: `overrides[${index}].reason`, wanted: 'say-why-tax-is-typed' });
    return read === null ? [] : [{ ...read, reason: override.reason.trim() }];
  });
}
