import type { Decision, Moment } from '@/core/book/changes';
import type { CustomerRow } from '@/core/book/rows';
import type { Currency } from '@/core/kernel/currency';
import { isIsoDate } from '@/core/kernel/date';
import { type Minor, minor, NOTHING, negated, total } from '@/core/kernel/money';
import { accept, refuse } from '@/core/kernel/result';
import { type Account, accountFor } from '@/core/ledger/account';
import { entryOf } from '@/core/ledger/entry';
import {
  type Cover,
  type CoverKind,
  covered,
  coversOf,
  type Room,
  roomIn,
  type Withheld,
  type WithholdingCertificate,
  type WithholdingClaim,
} from '@/core/settlement/withholding';
import type { Registration } from '@/core/tax/registration';
import type { WithholdingType } from '@/core/tax/withholding';

export interface CertifyInput {
  readonly customerId: string;
  readonly typeId: string;
  readonly number: string;
  /** ISO date. */
  readonly date: string;
  /** In home currency. */
  readonly amount: Minor;
  /** Withheld amounts that it covers, of which it covers the oldest first. */
  readonly withheldIds: readonly string[];
}

export interface CertifyMaterial {
  readonly customer: CustomerRow | undefined;
  /** All that is withheld by the customer. */
  readonly withheld: readonly Withheld[];
  readonly homeCurrency: Currency;
}

const freeIn = (rooms: readonly Room[]): Minor => total(rooms.map(({ free }) => free));

const coveredRows = (rows: readonly Withheld[], covers: readonly Cover[], by: CoverKind, sign: 1n | -1n) =>
  rows.flatMap((one) => {
    const cover = covers.find(({ withheldId }) => withheldId === one.id);
    return cover === undefined ? [] : [covered(one, by, minor(sign * cover.amount))];
  });

/** Enters a certificate of a customer over what it kept back. */
export function certify(
  input: CertifyInput,
  { customer, withheld, homeCurrency }: CertifyMaterial,
  moment: Moment,
): Decision<WithholdingCertificate> {
  const { date, amount, typeId } = input;
  const number = input.number.trim();
  if (customer === undefined) return refuse({ code: 'missing', path: 'customerId', wanted: 'choose-customer' });
  if (!isIsoDate(date)) return refuse({ code: 'invalid', path: 'date', wanted: 'give-a-day', found: date });
  if (number === '') return refuse({ code: 'missing', path: 'number', wanted: 'give-certificate-number' });
  if (amount <= 0n) return refuse({ code: 'invalid', path: 'amount', wanted: 'amount-above-zero' });
  const chosen = new Set(input.withheldIds);
  const own = withheld.filter((one) => one.typeId === typeId && one.customerId === customer.id);
  const rooms = roomIn(own, 'certified').filter(({ withheld: { id } }) => chosen.has(id));
  const covers = coversOf(rooms, amount);
  if (covers === null)
    return refuse({
      code: 'over-claimed',
      path: 'amount',
      left: freeIn(rooms),
      currency: homeCurrency,
      of: 'withheld',
    });
  const certificate: WithholdingCertificate = {
    id: moment.newId(),
    number,
    date,
    customerId: customer.id,
    typeId,
    amount,
    covers,
    enteredAt: moment.now,
  };
  const rows = coveredRows(own, covers, 'certified', 1n);
  return accept({
    value: certificate,
    changes: {
      add: { withholdingCertificates: [certificate] },
      put: { withheld: rows },
      audit: {
        subject: number,
        about: [certificate.id, customer.id, ...new Set(rows.flatMap((row) => [row.receiptId, row.documentId]))].filter(
          (id) => id !== '',
        ),
        after: { customer: customer.name, type: typeId, amount },
      },
    },
  });
}

/** Takes a certificate back that was entered wrongly, while nothing of it is claimed. */
export function withdrawCertificate(
  certificate: WithholdingCertificate | undefined,
  withheld: readonly Withheld[],
): Decision<null> {
  if (certificate === undefined) return refuse({ code: 'not-found', path: 'id' });
  const rows = coveredRows(withheld, certificate.covers, 'certified', -1n);
  if (rows.some((one) => one.needsCertificate && one.claimed > one.certified))
    return refuse({ code: 'used-since', path: 'id', by: 'claimed' });
  return accept({
    value: null,
    changes: {
      put: { withheld: rows },
      remove: { withholdingCertificates: [certificate.id] },
      audit: {
        subject: certificate.number,
        about: [certificate.customerId],
        before: { type: certificate.typeId, amount: certificate.amount },
      },
    },
  });
}

export interface ClaimInput {
  readonly typeId: string;
  readonly registrationId: string;
  /** ISO date. */
  readonly date: string;
  /** In home currency. */
  readonly amount: Minor;
  /** Set against what the registration's returns are owed, or asked back. */
  readonly by: WithholdingClaim['by'];
}

export interface ClaimMaterial {
  readonly type: WithholdingType | undefined;
  readonly registration: Registration | undefined;
  /** All that is withheld by the type and not claimed. */
  readonly withheld: readonly Withheld[];
  /** What stands on tax payable of the registration on the day, above zero what we owe; home currency. */
  readonly payable: Minor;
  readonly chart: readonly Account[];
  readonly homeCurrency: Currency;
}

/** Claims withheld tax: sets it against what returns are owed, or asks for it back. */
export function claim(input: ClaimInput, material: ClaimMaterial, moment: Moment): Decision<WithholdingClaim> {
  const { date, amount, by } = input;
  const { type, registration, withheld, payable, chart, homeCurrency: currency } = material;
  if (type === undefined) return refuse({ code: 'not-found', path: 'typeId' });
  if (registration === undefined) return refuse({ code: 'not-found', path: 'registrationId', what: 'registration' });
  if (!isIsoDate(date)) return refuse({ code: 'invalid', path: 'date', wanted: 'give-a-day', found: date });
  if (amount <= 0n) return refuse({ code: 'invalid', path: 'amount', wanted: 'amount-above-zero' });
  const own = withheld.filter((one) => one.typeId === type.id && one.date <= date);
  const rooms = roomIn(own, 'claimed');
  const covers = coversOf(rooms, amount);
  if (covers === null)
    return refuse({ code: 'over-claimed', path: 'amount', left: freeIn(rooms), currency, of: 'certified' });
  if (by === 'set-off' && amount > payable)
    return refuse({
      code: 'over-claimed',
      path: 'amount',
      left: payable < 0n ? NOTHING : payable,
      currency,
      of: 'payable',
    });
  const posted = entryOf(
    {
      id: moment.newId(),
      date,
      kind: 'claim',
      text: `${type.name} claimed, ${registration.name}`,
      sourceId: registration.id,
      at: moment.now,
    },
    [
      {
        account:
          by === 'refund'
            ? accountFor(chart, 'withholding-refunds')
            : registration.accounts.payable || accountFor(chart, 'tax-payable'),
        amount,
      },
      { account: accountFor(chart, 'withholding-claims'), amount: negated(amount) },
    ],
  );
  const made: WithholdingClaim = {
    id: moment.newId(),
    typeId: type.id,
    registrationId: registration.id,
    date,
    by,
    amount,
    covers,
    entryId: posted.entry.id,
    claimedAt: moment.now,
  };
  const rows = coveredRows(own, covers, 'claimed', 1n);
  return accept({
    value: made,
    changes: {
      add: { withholdingClaims: [made], journal: [posted.entry], journalLines: posted.lines },
      put: { withheld: rows },
      audit: {
        subject: `${type.name}, ${registration.name}`,
        about: [made.id, registration.id, ...new Set(rows.map(({ customerId }) => customerId))],
        after: { amount, by },
      },
    },
  });
}
