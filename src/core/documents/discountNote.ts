import type { Currency } from '@/core/kernel/currency';
import type { Decimal } from '@/core/kernel/decimal';
import { type Minor, NOTHING, readMoney, total, writeMoney } from '@/core/kernel/money';
import type { Content, CountedPart } from './content';
import { blankLine, type DraftLine } from './draft';
import type { IssuedDocument } from './issued';

const sumIn = (amounts: readonly Decimal[], currency: Currency): Decimal =>
  writeMoney(total(amounts.map((amount): Minor => readMoney(amount, currency) ?? NOTHING)), currency);

/** A part credit for a discount: its net goes to one account instead of those that earned it. */
export function discounted(content: Content, account: string): Content {
  const { currency, home } = content;
  const counted = (content.counted ?? []).map((part): CountedPart => {
    const net = sumIn(
      part.accounts.map((one) => one.net),
      currency,
    );
    const atHome =
      home === undefined
        ? {}
        : {
            home: sumIn(
              part.accounts.map((one) => one.home ?? one.net),
              home.currency,
            ),
          };
    return { ...part, accounts: [{ account, net, ...atHome }] };
  });
  return { ...content, lines: content.lines.map((line) => ({ ...line, account })), counted };
}

/** True for a credit note that is a discount: all of it stands on the account of settlement discounts. */
export function isDiscountNote({ kind, content }: Pick<IssuedDocument, 'kind' | 'content'>, account: string): boolean {
  return kind === 'credit-note' && content.lines.length > 0 && content.lines.every((line) => line.account === account);
}

/** Lines of a draft that charges again what discounts took, each at its tax; `lineId` gives each its own id. */
export function discountsTakenBack(
  notes: readonly Pick<IssuedDocument, 'content'>[],
  lineId: (at: number) => string,
): readonly DraftLine[] {
  return notes
    .flatMap(({ content }) => content.lines.map((line) => ({ line, of: content.corrects?.number ?? '' })))
    .map(({ line, of }, i) => ({
      ...blankLine(lineId(i), line.account),
      description: `Discount on ${of} taken back`,
      quantity: '1',
      price: line.unitPrice,
      taxCode: line.tax,
      taxByHand: true,
    }));
}
