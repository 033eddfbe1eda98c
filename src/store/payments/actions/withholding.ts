import {
  type CertifyInput,
  type ClaimInput,
  certify,
  claim,
  withdrawCertificate as withdraw,
} from '@/core/decisions/payments/withholding';
import type { WithholdingCertificate, WithholdingClaim } from '@/core/settlement/withholding';
import { loadBook } from '../../load';
import type { Action } from '../../perform';
import { payableOn } from '../queries/payable';

/** Enters a certificate over what a customer kept back. */
export const enterCertificate: Action<CertifyInput, WithholdingCertificate> = {
  name: 'enter withholding certificate',
  async decide(db, input, moment) {
    const [customer, withheld, book] = await Promise.all([
      db.customers.get(input.customerId),
      db.withheld.where('customerId').equals(input.customerId).toArray(),
      loadBook(db),
    ]);
    return certify(input, { customer, withheld, homeCurrency: book.business.homeCurrency }, moment);
  },
};

/** Takes a certificate back while nothing of it is claimed. */
export const withdrawCertificate: Action<{ readonly id: string }, null> = {
  name: 'withdraw withholding certificate',
  async decide(db, { id }) {
    const certificate = await db.withholdingCertificates.get(id);
    const withheld = await db.withheld.bulkGet(certificate?.covers.map(({ withheldId }) => withheldId) ?? []);
    return withdraw(
      certificate,
      withheld.flatMap((one) => one ?? []),
    );
  },
};

/** Sets withheld tax against what returns are owed, or asks for it back. */
export const claimWithheld: Action<ClaimInput, WithholdingClaim> = {
  name: 'claim withheld tax',
  async decide(db, input, moment) {
    const { typeId, registrationId, date } = input;
    const [type, registration, withheld, chart, book] = await Promise.all([
      db.withholdingTypes.get(typeId),
      db.registrations.get(registrationId),
      db.withheld.where('[typeId+isOpen]').equals([typeId, 1]).toArray(),
      db.accounts.toArray(),
      loadBook(db),
    ]);
    const payable = await payableOn(db, registration, chart, date);
    const { homeCurrency } = book.business;
    return claim(input, { type, registration, withheld, payable, chart, homeCurrency }, moment);
  },
};
