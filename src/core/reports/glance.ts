import { daysBetween, endOfMonth, type IsoDate } from '@/core/kernel/date';
import { type Minor, minus, NOTHING, plus, total } from '@/core/kernel/money';
import { leftOf } from '@/core/returns/taxPayment';
import type { AuthoritiesMaterial } from './authorities';
import { type ExpectedCashMaterial, type ExpectedPart, expectedBetween } from './expectedCash';
import { bridgeSteps, type IncomeCashMaterial } from './incomeCash';

export interface GlanceMaterial {
  readonly on: IsoDate;
  readonly expected: ExpectedCashMaterial;
  readonly authorities: AuthoritiesMaterial;
  /** Of the month up to the day. */
  readonly month: IncomeCashMaterial;
}

/** What matters on a day, in home currency; each figure is that of a report. */
export interface Glance {
  readonly owed: Minor;
  readonly overdue: Minor;
  /** Days by which the oldest is overdue; 0 where nothing is. */
  readonly oldest: number;
  /** Cash that is expected until the end of the month, and what should have come by habit before the day. */
  readonly expected: Minor;
  readonly late: Minor;
  /** By registration: filed and not paid, and what periods that are not filed come to so far. */
  readonly authorities: readonly { readonly name: string; readonly toPay: Minor; readonly unfiled: Minor }[];
  /** Income and money received of the month so far. */
  readonly income: Minor;
  readonly received: Minor;
}

function taxToPay({ returns, unfiled, setOff }: AuthoritiesMaterial): Glance['authorities'] {
  const names = [...new Set([...returns, ...unfiled].map(({ registration }) => registration))].sort();
  return names.map((name) => ({
    name,
    toPay: minus(
      total(returns.filter(({ registration }) => registration === name).map(leftOf)),
      setOff.get(name) ?? NOTHING,
    ),
    unfiled: total(unfiled.filter(({ registration }) => registration === name).map(({ tax }) => tax)),
  }));
}

/** The four figures that matter on a day. */
export function glanceOf({ on, expected, authorities, month }: GlanceMaterial): Glance {
  const late = expected.parts.filter(({ due }) => due < on);
  const worth = (parts: readonly ExpectedPart[]) => total(parts.map(({ cash, withheld }) => plus(cash, withheld)));
  return {
    owed: worth(expected.parts),
    overdue: worth(late),
    oldest: Math.max(0, ...late.map(({ due }) => daysBetween(due, on))),
    late: total(expected.parts.flatMap(({ on: by, cash }) => (by < on ? [cash] : []))),
    expected: expectedBetween(expected.parts, on, endOfMonth(on)),
    authorities: taxToPay(authorities),
    income: month.income,
    received: bridgeSteps(month).cash,
  };
}
