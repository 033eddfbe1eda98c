import { type Minor, NOTHING, plus, readMoney } from '@/core/kernel/money';
import type { CalcResult } from '@/core/tax/calcTypes';
import type { CountedFigures } from './bookFigures';
import type { Content } from './content';

/** Net of one tax code on one income account, in the document's currency and in the one that counts. */
export interface AccountNet {
  readonly tax: string;
  readonly account: string;
  readonly own: Minor;
  readonly home: Minor;
}

type Accounted = {
  readonly lines: readonly { readonly account: string }[];
  readonly adjustments?: readonly { readonly id: string; readonly account: string }[];
} & Pick<Content, 'counted'>;

/** What a document earns by tax code and account; a part credit says it itself, others by their lines and charges. */
export function netsByAccount(content: Accounted, figures: CalcResult, counted: CountedFigures): readonly AccountNet[] {
  if (content.counted !== undefined)
    return content.counted.flatMap(({ tax, accounts }) =>
      accounts.map(({ account, net, home }) => {
        const own = readMoney(net, figures.currency) ?? NOTHING;
        return { tax, account, own, home: home === undefined ? own : (readMoney(home, counted.currency) ?? NOTHING) };
      }),
    );
  const nets = new Map<string, AccountNet>();
  const earn = (tax: string, account: string, own: Minor, home: Minor) => {
    const key = `${tax}|${account}`;
    const before = nets.get(key);
    nets.set(key, {
      tax,
      account,
      own: plus(before?.own ?? NOTHING, own),
      home: plus(before?.home ?? NOTHING, home),
    });
  };
  figures.lines.forEach(({ tax, net }, i) => {
    const account = content.lines[i]?.account;
    if (account !== undefined) earn(tax, account, net, counted.lineNets[i] ?? NOTHING);
  });
  figures.adjustments.forEach(({ id, tax, net }, i) => {
    const account = content.adjustments?.find((adjustment) => adjustment.id === id)?.account;
    if (account !== undefined) earn(tax, account, net, counted.adjustmentNets[i] ?? NOTHING);
  });
  return [...nets.values()];
}
