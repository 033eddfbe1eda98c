/*
 * What a line carries as its tax: the id of a code, or the key of a place's stack (`@WA-SEATTLE/standard`), behind a
 * tilde each with what the bookkeeper left out (`-`) or added (`+`, with the class of its rate) on this line:
 * `STD~-BC-PST~+ECO/standard`.
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
  return {
    base,
    without: those('-'),
    added: those('+').map((change) => {
      const [taxId, taxClass] = slashed(change);
      return { taxId, taxClass };
    }),
  };
}

/** The key of it; what is left out and what is added each once, in the same order whoever chose it. */
export function taxKeyOf({ base, without, added }: TaxKey): string {
  const changes = [...without.map((id) => `-${id}`), ...added.map(({ taxId, taxClass }) => `+${taxId}/${taxClass}`)];
  return [base, ...[...new Set(changes)].sort()].join('~');
}

/** Place and class of a stack, or null for a code. */
export function readStackKey(key: string): { readonly placeId: string; readonly taxClass: string } | null {
  const { base } = readTaxKey(key);
  if (!base.startsWith('@')) return null;
  const [placeId, taxClass] = slashed(base.slice(1));
  return { placeId, taxClass };
}

/** True where a line leaves out or adds a tax. */
export function isChangedKey(key: string): boolean {
  return key.includes('~');
}
