import type { Currency } from '@/core/kernel/currency';
import type { Decimal } from '@/core/kernel/decimal';
import { type Minor, NOTHING, readMoney, total, writeMoney } from '@/core/kernel/money';
import type { Content, CountedPart } from './content';

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
