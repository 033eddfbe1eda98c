import { writeCanonical } from '@/core/kernel/canonical';
import { type IsoDate, isIsoDate } from '@/core/kernel/date';
import { reliefOf } from '@/core/parties/certificate';
import { type Customer, numberStateFor, whereaboutsOf } from '@/core/parties/customer';
import { readTerms } from '@/core/parties/terms';
import { determine, explainDecision, type Reason, type Supply, type Verdict } from '@/core/tax/determine';
import { type ResolvedTax, resolveTax, type Unresolved } from '@/core/tax/resolve';
import { withRatesOf } from '@/core/tax/taxKey';
import type { TaxSetup } from '@/core/tax/taxSetup';
import type { FrozenTax } from './content';
import { type Draft, type DraftAdjustment, type DraftLine, isBlank, writtenLines } from './draft';
import type { Setting } from './setting';

/** The days of a draft once read; null where the text is not a day. */
export interface DraftDates {
  readonly issueDate: IsoDate | null;
  readonly taxPoint: IsoDate | null;
  readonly dueDate: IsoDate | null;
}

export function datesOf(draft: Pick<Draft, 'issueDate' | 'taxPoint' | 'due'>): DraftDates {
  const issueDate = isIsoDate(draft.issueDate) ? draft.issueDate : null;
  const taxPoint = draft.taxPoint === '' ? issueDate : isIsoDate(draft.taxPoint) ? draft.taxPoint : null;
  const dueDate = issueDate === null ? null : (readTerms(issueDate, draft.due)?.dueDate ?? null);
  return { issueDate, taxPoint, dueDate };
}

/** The set-up a draft is decided by: one registration alone when the bookkeeper chose it. */
function setupFor(draft: Draft, setting: Setting): TaxSetup {
  const { setup } = setting;
  if (!draft.registrationByHand) return setup;
  return { ...setup, registrations: setup.registrations.filter((r) => r.id === draft.registrationId) };
}

/** A line as the decision table looks at it; null while the customer or the tax point is missing. */
export function supplyOf(
  draft: Draft,
  line: Pick<DraftLine, 'supply' | 'taxClass'>,
  customer: Customer | null,
  setting: Setting,
): Supply | null {
  const day = datesOf(draft).taxPoint;
  if (day === null) return null;
  const shipFrom = setting.business.address;
  // Without a customer the sale is looked at as one to a consumer at our own address.
  const shipTo = draft.delivery ?? (customer === null ? shipFrom : whereaboutsOf(customer));
  return {
    supply: line.supply,
    taxClass: line.taxClass,
    customer: customer?.kind ?? 'consumer',
    number: customer === null ? 'none' : numberStateFor(customer, shipTo.country),
    shipFrom,
    shipTo,
    day,
  };
}

const UNDATED: Verdict = { key: '', rowId: '', registrationId: '', problem: 'Enter the tax point first.' };

/** What a line takes by itself: the customer's own code, else what the decision table says. */
export function lineVerdict(
  draft: Draft,
  line: Pick<DraftLine, 'supply' | 'taxClass'>,
  customer: Customer | null,
  setting: Setting,
): Verdict {
  const supply = supplyOf(draft, line, customer, setting);
  if (supply === null) return UNDATED;
  const setup = setupFor(draft, setting);
  const verdict = determine(setup, supply);
  if (customer === null || !setup.code.has(customer.taxCode)) return verdict;
  return { key: customer.taxCode, rowId: '', registrationId: verdict.registrationId, problem: '' };
}

/** Verdicts on the lines of one draft, each kind of supply decided once. */
export function verdictsOn(
  draft: Draft,
  customer: Customer | null,
  setting: Setting,
): (line: Pick<DraftLine, 'supply' | 'taxClass'>) => Verdict {
  const known = new Map<string, Verdict>();
  return (line) => {
    const key = `${line.supply}|${line.taxClass}`;
    const verdict = known.get(key) ?? lineVerdict(draft, line, customer, setting);
    known.set(key, verdict);
    return verdict;
  };
}

/** Why a line takes what it takes by itself: every condition that held or failed. */
export function lineTrail(
  draft: Draft,
  line: Pick<DraftLine, 'supply' | 'taxClass'>,
  customer: Customer | null,
  setting: Setting,
): readonly Reason[] {
  const supply = supplyOf(draft, line, customer, setting);
  if (supply === null) return [{ held: false, text: UNDATED.problem }];
  const setup = setupFor(draft, setting);
  const own = customer === null ? undefined : setup.code.get(customer.taxCode);
  if (customer !== null && own !== undefined)
    return [{ held: true, text: `${customer.name} takes ${own.name} on everything` }];
  return explainDecision(setup, supply);
}

/** A line's tax on the draft's tax point with the customer's relief, by today's set-up. */
export function resolveKey(
  key: string,
  day: IsoDate,
  customer: Customer | null,
  setting: Setting,
): ResolvedTax | Unresolved {
  return resolveTax(setting.setup, key, day, reliefOf(customer, setting.certificates, day), customer?.language ?? 'en');
}

/** The rates of a tax as one text: two taxes charge the same where these are the same. */
export const ratesOf = ({ components = [] }: Pick<FrozenTax, 'components'>): string =>
  writeCanonical(components.map(({ taxId, percent, perUnit, relief }) => ({ taxId, percent, perUnit, relief })));

/** The tax of a line that takes an advance off: by the rates that the advance was charged at, where they have changed since. */
function advanceKey(line: DraftLine, day: IsoDate, customer: Customer | null, setting: Setting): string {
  if (line.takesOff === undefined) return line.taxCode;
  const plain = withRatesOf(line.taxCode, '');
  const dated = withRatesOf(plain, line.takesOff.taxPoint ?? line.takesOff.issueDate);
  const [now, then] = [plain, dated].map((key) => resolveKey(key, day, customer, setting));
  if (now === undefined || then === undefined || 'problem' in then) return plain;
  return 'problem' in now || ratesOf(now) !== ratesOf(then) ? dated : plain;
}

/**
 * The draft with every tax that was not chosen by hand decided again, that of an advance taken off by its own day, and with the registration that
 * its first line belongs to. Lines stay the same objects where nothing changes; without a tax point
 * nothing can be decided and all stays as it is.
 */
export function decideTaxes(draft: Draft, customer: Customer | null, setting: Setting): Draft {
  const day = datesOf(draft).taxPoint;
  if (day === null) return draft;
  const verdictOf = verdictsOn(draft, customer, setting);
  const lines = draft.lines.map((line) => {
    if (line.taxByHand && line.takesOff === undefined) return line;
    const key = line.taxByHand ? advanceKey(line, day, customer, setting) : verdictOf(line).key;
    return key === line.taxCode ? line : { ...line, taxCode: key };
  });
  const adjustments = draft.adjustments.map((adjustment): DraftAdjustment => {
    if (adjustment.taxByHand || adjustment.spread) return adjustment;
    const { key } = verdictOf(adjustment);
    return key === adjustment.taxCode ? adjustment : { ...adjustment, taxCode: key };
  });
  const first = writtenLines(draft)[0]?.line ?? draft.lines[0];
  const decided = first === undefined ? '' : verdictOf(first).registrationId;
  const registrationId = draft.registrationByHand || decided === '' ? draft.registrationId : decided;
  const same =
    registrationId === draft.registrationId &&
    lines.every((line, i) => line === draft.lines[i]) &&
    adjustments.every((adjustment, i) => adjustment === draft.adjustments[i]);
  return same ? draft : { ...draft, lines, adjustments, registrationId };
}

/** What lines and charges carry, each once; blank lines carry nothing yet. */
export function taxKeysOf(draft: Draft): readonly string[] {
  const keys = [
    ...draft.lines.filter((line) => !isBlank(line)).map((line) => line.taxCode),
    ...draft.adjustments.filter((adjustment) => !adjustment.spread).map((adjustment) => adjustment.taxCode),
  ];
  return [...new Set(keys)].filter(Boolean);
}
