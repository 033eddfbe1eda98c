import { type IsoDate, isIsoDate } from '@/core/kernel/date';

/*
 * What a line carries as its tax: the id of a code, or the key of a place's stack (`@WA-SEATTLE/standard`), behind a
 * tilde each with what the bookkeeper left out (`-`) or added (`+`, with the class of its rate) on this line:
 * `STD~-BC-PST~+ECO/standard`; and with the day whose rates it takes (`=`), where that is not the tax point of its document:
 * `STD~=2026-06-30` takes an advance off by the rate that the advance was charged at.
 */

/** A tax that one line carries beside those of its code. */
export interface AddedTax {
  readonly taxId: string;
  readonly taxClass: string;
}

/** A key taken apart. */
export interface TaxKey {
  /** Id of a code or key of a stack. */
  readonly base: string;
  /** Ids of taxes that this line leaves out. */
  readonly without: readonly string[];
  readonly added: readonly AddedTax[];
  /** Day whose rates it takes; empty for the tax point of its document. */
  readonly ratesOf: IsoDate | '';
}

/** Sets the stack of a place apart from codes: `@WA-SEATTLE/standard`. */
export function stackKey(placeId: string, taxClass: string): string {
  return `@${placeId}/${taxClass}`;
}

function slashed(text: string): readonly [string, string] {
  const at = text.lastIndexOf('/');
  return [text.slice(0, at), text.slice(at + 1)];
}

/** A key taken apart; of a plain one nothing is left out or added. */
export function readTaxKey(key: string): TaxKey {
  const [base = '', ...changes] = key.split('~');
  const those = (sign: string) => changes.filter((change) => change.startsWith(sign)).map((change) => change.slice(1));
  const [day = ''] = those('=');
  return {
    base,
    without: those('-'),
    added: those('+').map((change) => {
      const [taxId, taxClass] = slashed(change);
      return { taxId, taxClass };
    }),
    ratesOf: isIsoDate(day) ? day : '',
  };
}

/** The key of it; what is left out and what is added each once, in the same order whoever chose it. */
export function taxKeyOf({ base, without, added, ratesOf }: TaxKey): string {
  const changes = [
    ...without.map((id) => `-${id}`),
    ...added.map(({ taxId, taxClass }) => `+${taxId}/${taxClass}`),
    ...(ratesOf === '' ? [] : [`=${ratesOf}`]),
  ];
  return [base, ...[...new Set(changes)].sort()].join('~');
}

/** Place and class of a stack, or null for a code. */
export function readStackKey(key: string): { readonly placeId: string; readonly taxClass: string } | null {
  const { base } = readTaxKey(key);
  if (!base.startsWith('@')) return null;
  const [placeId, taxClass] = slashed(base.slice(1));
  return { placeId, taxClass };
}

/** The same key by the rates of a day; of none for those of the tax point. */
export function withRatesOf(key: string, ratesOf: IsoDate | ''): string {
  return taxKeyOf({ ...readTaxKey(key), ratesOf });
}

/** True where a line leaves out or adds a tax, or takes the rates of another day. */
export function isChangedKey(key: string): boolean {
  return key.includes('~');
}
