import type { Currency } from '@/core/kernel/currency';
import { writeDate } from '@/core/kernel/date';
import type { AccountBridge, BridgeItem, BridgeKind } from '@/core/returns/accountBridge';
import Link from '@/ui/Link';
import { Money } from '@/ui/Money';
import { routes } from '../shell/routes';

const WORDS: Readonly<Record<BridgeKind, string>> = {
  reported: 'Tax of this return',
  'posted-outside': 'of it posted before or after the period',
  'other-period': 'Posted in the period, reported in another',
  settlement: 'Returns filed, moved to tax payable',
  manual: 'Manual journals',
  unknown: 'Not explained by any line',
};

interface AccountStepsProps {
  readonly account: string;
  readonly bridge: AccountBridge;
  readonly currency: Currency;
}

/** The output tax account from its opening to its closing balance, each step opening its entries. */
export function AccountSteps({ account, bridge, currency }: AccountStepsProps) {
  return (
    <section className="mt-6" aria-label={`Account ${account}`}>
      <h2 className="mb-1 font-semibold font-serif">
        <Link href={routes.account(account)} className="underline decoration-rule underline-offset-4">
          Account {account}
        </Link>
        , from its opening to its closing balance
      </h2>
      <dl className="max-w-[520px]">
        <Row label="Opening balance" amount={bridge.opening} currency={currency} />
        {bridge.steps.map(({ kind, amount, items }) =>
          items.length === 0 ? (
            <Row key={kind} label={WORDS[kind]} amount={amount} currency={currency} />
          ) : (
            <div key={kind}>
              <Row label={WORDS[kind]} amount={amount} currency={currency} />
              <Items items={items} currency={currency} />
            </div>
          ),
        )}
        <Row label="Closing balance" amount={bridge.closing} currency={currency} last />
      </dl>
    </section>
  );
}

interface RowProps {
  readonly label: string;
  readonly amount: AccountBridge['opening'];
  readonly currency: Currency;
  readonly last?: boolean;
}

function Row({ label, amount, currency, last = false }: RowProps) {
  return (
    <div className={`flex justify-between border-rule py-0.5 ${last ? 'border-t font-semibold' : ''}`}>
      <dt>{label}</dt>
      <dd>
        <Money amount={amount} currency={currency} />
      </dd>
    </div>
  );
}

/** Longest list that stands open from the start. */
const SHORT = 6;

function Items({ items, currency }: { readonly items: readonly BridgeItem[]; readonly currency: Currency }) {
  return (
    <details open={items.length <= SHORT} className="mb-1 pl-4 text-sm">
      <summary className="cursor-pointer text-soft">
        {items.length} {items.length === 1 ? 'entry' : 'entries'}
      </summary>
      <ul>
        {items.map(({ entryId, date, subject, amount }) => (
          <li key={entryId} className="flex justify-between gap-3">
            <Link href={routes.entry(entryId)} className="underline decoration-rule underline-offset-2">
              {writeDate(date)} {subject}
            </Link>
            <Money amount={amount} currency={currency} />
          </li>
        ))}
      </ul>
    </details>
  );
}
