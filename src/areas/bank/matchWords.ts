import type { MatchReason, MatchTarget } from '@/core/bank/suggest';
import type { Currency } from '@/core/kernel/currency';
import { showMoney } from '@/core/kernel/show';
import type { Account } from '@/core/ledger/account';

/** Why something may be what a line is. */
export function reasonWords(reason: MatchReason, currency: Currency): string {
  switch (reason.why) {
    case 'number':
      return `names ${reason.words}`;
    case 'reference':
      return `names order ${reason.words}`;
    case 'account':
      return 'known bank account of the customer';
    case 'name':
      return `from ${reason.words}`;
    case 'part-of-name':
      return `part of the name ${reason.words}`;
    case 'amount':
      return 'same amount';
    case 'withheld':
      return `less ${showMoney(reason.amount, currency)} withheld`;
    case 'discount':
      return `less ${showMoney(reason.amount, currency)} discount`;
    case 'charge':
      return `less ${showMoney(reason.amount, currency)} bank charge`;
    case 'short':
      return `${showMoney(reason.amount, currency)} stays open`;
    case 'over':
      return `${showMoney(reason.amount, currency)} stays on account`;
    case 'sum':
      return `${reason.count} make the sum`;
    case 'days':
      return reason.days === 0 ? 'same day' : `${Math.abs(reason.days)} days ${reason.days > 0 ? 'after' : 'before'}`;
    case 'fee':
      return `less ${showMoney(reason.amount, currency)} card fee`;
    case 'rule':
      return `rule “${reason.words}”`;
  }
}

/** What a line would become. */
export function targetWords(target: MatchTarget, accounts: readonly Account[]): string {
  switch (target.kind) {
    case 'movements': {
      const [first] = target.movements;
      const more = target.movements.length - 1;
      return `Recorded: ${first?.number ?? ''}${more > 0 ? ` and ${more} more` : ''}`;
    }
    case 'documents':
      return `Receipt for ${target.paid.map(({ number }) => number).join(', ')}`;
    case 'refund':
      return `Refund of ${target.number}`;
    case 'tax':
      return `Tax of ${target.name}`;
    case 'transfer':
      return `Transfer, ${target.name}`;
    case 'payout':
      return `Payout of ${target.takings.length} card ${target.takings.length === 1 ? 'payment' : 'payments'}`;
    case 'account': {
      const account = accounts.find(({ code }) => code === target.account);
      return `${target.account} ${account?.name ?? ''}`;
    }
  }
}
