import type { TaxCode } from './taxCode';

/** One condition that was looked at, and whether it held. */
export interface Reason {
  readonly held: boolean;
  /** A sentence for the bookkeeper. */
  readonly text: string;
}

/** The code that applies and how it was found. `code` is null when nothing fits. */
export interface Verdict {
  readonly code: TaxCode | null;
  readonly trail: readonly Reason[];
}

/** Class of a line that is typed freely. */
const TYPED_LINE_CLASS = 'standard';

/**
 * Which code a line takes by itself: the customer's own code, else the code of the item's tax
 * class (`standard` for a typed line), else none. Every condition looked at is in the trail.
 */
export function determineCode(
  codes: readonly TaxCode[],
  customer: { readonly name: string; readonly taxCode: string } | null,
  taxClass: string,
): Verdict {
  const trail: Reason[] = [];
  if (customer !== null) {
    const own = codes.find((code) => code.id === customer.taxCode) ?? null;
    trail.push(
      own === null
        ? { held: false, text: `${customer.name} has no tax code of its own` }
        : { held: true, text: `${customer.name} takes ${own.name} on everything` },
    );
    if (own !== null) return { code: own, trail };
  }
  if (taxClass === '')
    trail.push({ held: false, text: `the line names no item, so the class “${TYPED_LINE_CLASS}” is taken` });
  const wanted = taxClass === '' ? TYPED_LINE_CLASS : taxClass;
  const ofClass = codes.find((code) => code.taxClass === wanted) ?? null;
  trail.push(
    ofClass === null
      ? { held: false, text: `no tax code is set for the class “${wanted}”` }
      : { held: true, text: `the class is “${wanted}”, which takes ${ofClass.name}` },
  );
  return { code: ofClass, trail };
}
