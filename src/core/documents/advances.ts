import type { Currency } from '@/core/kernel/currency';
import { type Minor, minus, NOTHING, negated, plus, writeMoney } from '@/core/kernel/money';
import type { PriceMode } from '@/core/tax/calcTypes';
import { withRatesOf } from '@/core/tax/taxKey';
import type { Content, EarlierInvoice } from './content';
import type { DraftLine } from './draft';
import { blankLine } from './draft';
import { type IssuedDocument, owedOf } from './issued';

/** What of an advance invoice later ones can still take off, by what it charged. */
export interface AdvanceLeft extends EarlierInvoice {
  readonly currency: Currency;
  /** Its values hold the tax or leave it out; only documents of the same mode take it off. */
  readonly priceMode: PriceMode;
  readonly parts: readonly { readonly tax: string; readonly account: string; readonly left: Minor }[];
}

type Figured = Pick<IssuedDocument, 'content' | 'figures'>;

/** What a document comes to by tax, with discounts and charges, in the mode of its prices. */
function valuesOf({ content, figures }: Figured): ReadonlyMap<string, Minor> {
  const gross = content.priceMode === 'gross';
  return new Map(figures.groups.map(({ tax, net, gross: withTax }) => [tax, gross ? withTax : net]));
}

/** Whether a document still stands as it was issued: what it took off is free again once all of it was taken back. */
function stands({ kind, content, figures, cancelled, credited }: IssuedDocument): boolean {
  return kind === 'invoice' && cancelled === null && (credited === NOTHING || credited < owedOf(content, figures));
}

/** What lines of a document take off an advance, by the tax that the advance charged; above zero. */
function takenBy({ content, figures }: Figured, advanceId: string): readonly (readonly [string, Minor])[] {
  return content.lines.flatMap(({ takesOff, tax }, i) =>
    takesOff?.documentId === advanceId
      ? [[withRatesOf(tax, ''), negated(figures.lines[i]?.value ?? NOTHING)] as const]
      : [],
  );
}

/**
 * What is left to take off of each advance invoice among the documents of a customer: what it charged, less its credit notes
 * and what others took off, as far as their own credit notes did not give that line back. One that bills a stage of a quote is taken off by the later stages, and not here.
 */
export function advancesLeft(documents: readonly IssuedDocument[]): readonly AdvanceLeft[] {
  const advances = documents.filter(
    ({ kind, content, cancelled }) =>
      kind === 'invoice' && content.advance === true && content.stage === undefined && cancelled === null,
  );
  const standing = new Set(documents.filter(stands).map(({ id }) => id));
  return advances.map((advance): AdvanceLeft => {
    const { id, number, issueDate, content } = advance;
    const used = new Map<string, Minor>();
    const use = (tax: string, amount: Minor) => used.set(tax, plus(used.get(tax) ?? NOTHING, amount));
    for (const other of documents) {
      const corrected = other.cancelled === null ? other.content.corrects?.documentId : undefined;
      if (corrected === id) for (const [tax, value] of valuesOf(other)) use(tax, value);
      if (standing.has(other.id)) for (const [tax, value] of takenBy(other, id)) use(tax, value);
      if (corrected !== undefined && standing.has(corrected))
        for (const [tax, value] of takenBy(other, id)) use(tax, negated(value));
    }
    const parts = [...valuesOf(advance)].map(([tax, value]) => ({
      tax,
      account: content.lines.find((line) => line.tax === tax)?.account ?? '',
      left: minus(value, used.get(tax) ?? NOTHING),
    }));
    return {
      documentId: id,
      number,
      issueDate,
      ...(content.taxPoint !== issueDate && { taxPoint: content.taxPoint }),
      currency: content.currency,
      priceMode: content.priceMode,
      parts: parts.filter(({ left }) => left > 0n),
    };
  });
}

/** Lines that take all that is left of an advance off a draft, one for each tax that it charged. */
export function takingOff(advance: AdvanceLeft, words: string, newId: () => string): readonly DraftLine[] {
  const { documentId, number, issueDate, taxPoint, currency, parts } = advance;
  return parts.map(({ tax, account, left }) => ({
    ...blankLine(newId(), account),
    description: words,
    quantity: '-1',
    price: writeMoney(left, currency),
    taxCode: tax,
    taxByHand: true,
    takesOff: { documentId, number, issueDate, ...(taxPoint && { taxPoint }) },
  }));
}

/** The first advance of which a document takes off more than is left, with what is; null where there is none. */
export function overTaken(
  document: { readonly content: Content; readonly figures: IssuedDocument['figures'] },
  left: readonly AdvanceLeft[],
): { readonly number: string; readonly left: Minor } | null {
  const known = new Map(left.map((advance) => [advance.documentId, advance]));
  const ids = new Map(
    document.content.lines.flatMap(({ takesOff }) => (takesOff ? [[takesOff.documentId, takesOff.number]] : [])),
  );
  for (const [id, number] of ids) {
    const advance = known.get(id);
    const fits = advance?.priceMode === document.content.priceMode && advance.currency === document.content.currency;
    const sums = new Map<string, Minor>();
    for (const [tax, value] of takenBy(document, id)) sums.set(tax, plus(sums.get(tax) ?? NOTHING, value));
    for (const [tax, value] of sums) {
      const most = fits ? (advance.parts.find((part) => part.tax === tax)?.left ?? NOTHING) : NOTHING;
      if (value > most) return { number, left: most };
    }
  }
  return null;
}
