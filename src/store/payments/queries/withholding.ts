import type { Currency } from '@/core/kernel/currency';
import { addDays, type IsoDate } from '@/core/kernel/date';
import { type Minor, NOTHING, total } from '@/core/kernel/money';
import { expectedOnPayment } from '@/core/settlement/expected';
import type { Withheld, WithholdingCertificate, WithholdingClaim } from '@/core/settlement/withholding';
import type { BookDb } from '../../schema';

/** Days after which a certificate that is needed counts as missing. */
export const CERTIFICATE_DUE = 30;

/** Tax that customers kept back, with certificates and claims. */
export interface WithholdingView {
  readonly withheld: readonly Withheld[];
  readonly certificates: readonly WithholdingCertificate[];
  readonly claims: readonly WithholdingClaim[];
}

/** Everything withheld, oldest first. */
export async function withholdingView(db: BookDb): Promise<WithholdingView> {
  const [withheld, certificates, claims] = await Promise.all([
    db.withheld.toArray(),
    db.withholdingCertificates.toArray(),
    db.withholdingClaims.toArray(),
  ]);
  return { withheld: withheld.sort((a, b) => (a.date + a.id < b.date + b.id ? -1 : 1)), certificates, claims };
}

/** Withheld amounts whose certificate is needed and has not come within its days, oldest first. */
export async function missingCertificates(db: BookDb, on: IsoDate, limit: number): Promise<Withheld[]> {
  return db.withheld
    .where('[isOpen+date]')
    .between([1, ''], [1, addDays(on, -CERTIFICATE_DUE)], true, true)
    .filter(({ needsCertificate, certified, home, voidOn }) => needsCertificate && voidOn === '' && certified < home)
    .limit(limit)
    .toArray();
}

/** What open documents of a currency are still expected to have kept back, by customer and type. */
export interface Expected {
  readonly customerId: string;
  readonly typeId: string;
  readonly currency: Currency;
  readonly amount: Minor;
}

/** What customers are expected to keep back of what is open. */
export async function expectedWithholding(db: BookDb): Promise<Expected[]> {
  const customers = await db.customers.filter(({ withholding }) => withholding.length > 0).primaryKeys();
  const open = await db.documents
    .where('[customerId+isOpen]')
    .anyOf(customers.map((id) => [id, 1]))
    .toArray();
  const kept = await db.withheld
    .where('documentId')
    .anyOf(open.map(({ id }) => id))
    .toArray();
  return open.flatMap((document) =>
    expectedOnPayment(document).flatMap(({ type, amount }) => {
      const own = kept.filter((one) => one.documentId === document.id && one.typeId === type.id && one.voidOn === '');
      const left = (amount - total(own.map((one) => one.amount))) as Minor;
      const { customerId, content } = document;
      return left > NOTHING ? [{ customerId, typeId: type.id, currency: content.currency, amount: left }] : [];
    }),
  );
}
