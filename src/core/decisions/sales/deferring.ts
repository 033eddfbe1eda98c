import type { Moment } from '@/core/book/changes';
import type { CountedFigures } from '@/core/documents/bookFigures';
import type { Content } from '@/core/documents/content';
import { earnedParts } from '@/core/documents/deferral';
import { type DeferralPlan, type Taken, takenBack, withTaken } from '@/core/documents/deferralPlan';
import type { IssuedDocument } from '@/core/documents/issued';
import { netsByAccount } from '@/core/documents/netsByAccount';
import type { IsoDate } from '@/core/kernel/date';
import { grouped } from '@/core/kernel/grouped';
import { type Minor, minor, NOTHING, total } from '@/core/kernel/money';
import { share } from '@/core/kernel/share';
import type { Account } from '@/core/ledger/account';
import type { PostedEntry } from '@/core/ledger/entry';
import { type DeferredNet, planEntries, takenEntries } from '@/core/ledger/posting/deferral';
import type { CalcResult } from '@/core/tax/calcTypes';

/** Plans as they are after a document, and the entries that were written for them. */
export interface Deferring {
  readonly plans: readonly DeferralPlan[];
  readonly posted: readonly PostedEntry[];
}

const NO_DEFERRING: Deferring = { plans: [], posted: [] };

/** The plans of an invoice with all their entries. @param posted day on which the invoice is posted. */
export function deferredBy(
  { id, number, customerId, customerName, content }: IssuedDocument,
  counted: CountedFigures,
  posted: IsoDate,
  chart: readonly Account[],
  moment: Moment,
): Deferring {
  const entryIds = new Map<IsoDate, string>();
  const idOn = (date: IsoDate): string => {
    const known = entryIds.get(date) ?? moment.newId();
    entryIds.set(date, known);
    return known;
  };
  const plans = content.lines.flatMap((line, i): readonly DeferralPlan[] => {
    if (line.deferral === undefined) return [];
    const entries = earnedParts(counted.lineNets[i] ?? NOTHING, line.deferral, posted).map(({ date, amount }) => ({
      entryId: idOn(date),
      date,
      amount,
      taken: NOTHING,
    }));
    const until = entries.at(-1)?.date;
    if (until === undefined) return [];
    const [description = ''] = line.description.split('\n');
    return [
      {
        id: `${id}:${line.id}`,
        ...{ documentId: id, documentNumber: number, customerId, customerName },
        ...{ lineId: line.id, description, account: line.account, entries, until },
      },
    ];
  });
  if (plans.length === 0) return NO_DEFERRING;
  const text = `Deferred revenue of ${number} ${customerName}`;
  return { plans, posted: planEntries(plans, { chart, sourceId: id, text, at: moment.now }) };
}

/** What a credit note takes back of its invoice's plans. */
export interface Taking {
  readonly taken: readonly Taken[];
  readonly nets: readonly DeferredNet[];
}

const NO_TAKING: Taking = { taken: [], nets: [] };

/** What was credited: of lines where the note names them, else of the accounts that it gives back. */
function creditedOf(
  content: Content,
  figures: CalcResult,
  counted: CountedFigures,
  plans: readonly DeferralPlan[],
): readonly { readonly plans: readonly DeferralPlan[]; readonly home: Minor; readonly own: Minor }[] {
  const { lines } = content;
  if (lines.length > 0 && lines.every(({ of }) => of !== undefined))
    return lines.map(({ of }, i) => ({
      plans: plans.filter(({ lineId }) => lineId === of),
      home: counted.lineNets[i] ?? NOTHING,
      own: figures.lines[i]?.net ?? NOTHING,
    }));
  return [...grouped(netsByAccount(content, figures, counted), ({ account }) => account)].map(([account, nets]) => ({
    plans: plans.filter((plan) => plan.account === account),
    home: total(nets.map(({ home }) => home)),
    own: total(nets.map(({ own }) => own)),
  }));
}

/** What a credit note takes back: what plans have to earn after its day, newest first, up to what it credits of them. */
export function takingOf(
  content: Content,
  figures: CalcResult,
  counted: CountedFigures,
  plans: readonly DeferralPlan[],
  on: IsoDate,
): Taking {
  if (content.kind !== 'credit-note' || plans.length === 0) return NO_TAKING;
  const parts = creditedOf(content, figures, counted, plans).flatMap(({ plans: own, home, own: net }) => {
    const taken = takenBack(own, home, on);
    const account = own[0]?.account;
    if (taken.length === 0 || account === undefined) return [];
    const sum = total(taken.map(({ amount }) => amount));
    const [inOwn = 0n] = share(net, [sum, home - sum]);
    return [{ taken, net: { account, home: sum, own: minor(inOwn) } }];
  });
  return { taken: parts.flatMap(({ taken }) => taken), nets: parts.map(({ net }) => net) };
}

/** The plans of an invoice after a credit note, and the entries that take back what they had to earn. */
export function deferredAfter(
  { id, number, customerName }: IssuedDocument,
  { taken }: Taking,
  plans: readonly DeferralPlan[],
  chart: readonly Account[],
  moment: Moment,
): Deferring {
  if (taken.length === 0) return NO_DEFERRING;
  const text = `Deferred revenue taken back by ${number} ${customerName}`;
  return {
    plans: withTaken(plans, taken),
    posted: takenEntries(taken, { chart, sourceId: id, text, at: moment.now }, moment.newId),
  };
}
