import { create } from 'xmlbuilder2';
import type { XMLBuilder } from 'xmlbuilder2/lib/interfaces';
import { type Decimal, ratioOf } from '@/core/kernel/decimal';
import type { EAdjustment, EBreakdown, EInvoice, ELine, EParty, EPayment } from './model';

const CAC = 'urn:oasis:names:specification:ubl:schema:xsd:CommonAggregateComponents-2';
const CBC = 'urn:oasis:names:specification:ubl:schema:xsd:CommonBasicComponents-2';

/** Root, names of the parts that differ between the two kinds of UBL document. */
const KINDS = {
  '380': { root: 'Invoice', type: 'InvoiceTypeCode', line: 'InvoiceLine', quantity: 'InvoicedQuantity' },
  '381': { root: 'CreditNote', type: 'CreditNoteTypeCode', line: 'CreditNoteLine', quantity: 'CreditedQuantity' },
} as const;

/** Characters that XML 1.0 has no place for. */
const ILLEGAL = /[^\t\n\r\u0020-\ud7ff\ue000-\ufffd\u{10000}-\u{10ffff}]/gu;

class Writer {
  constructor(
    private readonly at: XMLBuilder,
    private readonly currency: string,
  ) {}

  /** A basic component; left out when the value is empty, since empty elements are not allowed. */
  basic(name: string, value: string, attributes: Record<string, string> = {}): this {
    if (value !== '') this.at.ele(`cbc:${name}`, attributes).txt(value.replace(ILLEGAL, ''));
    return this;
  }

  amount(name: string, value: Decimal): this {
    return this.basic(name, value, { currencyID: this.currency });
  }

  group(name: string, fill: (writer: Writer) => void): this {
    fill(new Writer(this.at.ele(`cac:${name}`), this.currency));
    return this;
  }
}

function writeParty(writer: Writer, role: string, party: EParty): void {
  const { address } = party;
  writer.group(role, (outer) =>
    outer.group('Party', (w) => {
      if (party.endpoint !== null) w.basic('EndpointID', party.endpoint.id, { schemeID: party.endpoint.scheme });
      w.group('PartyName', (n) => n.basic('Name', party.name));
      w.group('PostalAddress', (a) =>
        a
          .basic('StreetName', address.street)
          .basic('AdditionalStreetName', address.extra)
          .basic('CityName', address.city)
          .basic('PostalZone', address.postalCode)
          .basic('CountrySubentity', address.region)
          .group('Country', (c) => c.basic('IdentificationCode', address.country)),
      );
      if (party.taxNumber !== '')
        w.group('PartyTaxScheme', (t) =>
          t.basic('CompanyID', party.taxNumber).group('TaxScheme', (s) => s.basic('ID', 'VAT')),
        );
      w.group('PartyLegalEntity', (l) => l.basic('RegistrationName', party.name).basic('CompanyID', party.legalId));
      if (party.phone !== '' || party.email !== '')
        w.group('Contact', (c) => c.basic('Telephone', party.phone).basic('ElectronicMail', party.email));
    }),
  );
}

function writePayment(writer: Writer, payment: EPayment): void {
  writer.group('PaymentMeans', (w) =>
    w
      .basic('PaymentMeansCode', payment.means)
      .basic('PaymentID', payment.remittance)
      .group('PayeeFinancialAccount', (a) => {
        a.basic('ID', payment.iban).basic('Name', payment.accountName);
        if (payment.bic !== '') a.group('FinancialInstitutionBranch', (b) => b.basic('ID', payment.bic));
      }),
  );
}

function writeCategory(
  writer: Writer,
  name: string,
  row: Pick<ELine, 'category' | 'percent'> & Partial<EBreakdown>,
): void {
  writer.group(name, (w) => {
    w.basic('ID', row.category);
    // BR-O-05: what is outside the scope of tax has no rate.
    if (row.category !== 'O') w.basic('Percent', row.percent);
    w.basic('TaxExemptionReasonCode', row.exemptionCode ?? '')
      .basic('TaxExemptionReason', row.exemptionReason ?? '')
      .group('TaxScheme', (s) => s.basic('ID', 'VAT'));
  });
}

function writeAdjustment(writer: Writer, { charge, amount, reason, ...tax }: EAdjustment): void {
  writer.group('AllowanceCharge', (w) => {
    w.basic('ChargeIndicator', charge ? 'true' : 'false')
      .basic('AllowanceChargeReason', reason)
      .amount('Amount', amount);
    writeCategory(w, 'TaxCategory', tax);
  });
}

function writeLine(writer: Writer, names: (typeof KINDS)['380'] | (typeof KINDS)['381'], line: ELine): void {
  writer.group(names.line, (w) => {
    w.basic('ID', line.id).basic(names.quantity, line.quantity, { unitCode: line.unit });
    w.amount('LineExtensionAmount', line.net);
    const { allowance } = line;
    if (allowance !== null) {
      // A negative discount raises the line: UBL writes it as a charge with a positive amount.
      const charge = allowance.startsWith('-');
      w.group('AllowanceCharge', (a) =>
        a
          .basic('ChargeIndicator', charge ? 'true' : 'false')
          .basic('AllowanceChargeReasonCode', charge ? '' : '95')
          .basic('AllowanceChargeReason', charge ? 'Surcharge' : 'Discount')
          .amount('Amount', (charge ? allowance.slice(1) : allowance) as Decimal),
      );
    }
    w.group('Item', (i) => {
      i.basic('Description', line.description).basic('Name', line.name);
      writeCategory(i, 'ClassifiedTaxCategory', line);
    });
    w.group('Price', (p) => {
      p.amount('PriceAmount', line.price);
      if (line.baseQuantity !== '1') p.basic('BaseQuantity', line.baseQuantity, { unitCode: line.unit });
    });
  });
}

/** UBL 2.1 Invoice or CreditNote of the model (EN 16931 binding CEN/TS 16931-3-2, Peppol profile). */
export function writeUbl(invoice: EInvoice): string {
  const names = KINDS[invoice.typeCode];
  const namespace = `urn:oasis:names:specification:ubl:schema:xsd:${names.root}-2`;
  const root = create({ version: '1.0', encoding: 'UTF-8' }).ele(names.root, {
    xmlns: namespace,
    'xmlns:cac': CAC,
    'xmlns:cbc': CBC,
  });
  const isInvoice = invoice.typeCode === '380';
  const w = new Writer(root, invoice.currency);
  w.basic('CustomizationID', invoice.specification)
    .basic('ProfileID', invoice.process)
    .basic('ID', invoice.number)
    .basic('IssueDate', invoice.issueDate)
    .basic('DueDate', isInvoice ? invoice.dueDate : '');
  // The two kinds order these differently: CreditNote puts the tax point before its type.
  if (isInvoice)
    w.basic(names.type, invoice.typeCode).basic('Note', invoice.note).basic('TaxPointDate', invoice.taxPointDate);
  else w.basic('TaxPointDate', invoice.taxPointDate).basic(names.type, invoice.typeCode).basic('Note', invoice.note);
  w.basic('DocumentCurrencyCode', invoice.currency)
    .basic('TaxCurrencyCode', invoice.taxInHome?.currency ?? '')
    .basic('BuyerReference', invoice.buyerReference);
  if (invoice.orderReference !== '') w.group('OrderReference', (o) => o.basic('ID', invoice.orderReference));
  const { preceding } = invoice;
  if (preceding !== undefined)
    w.group('BillingReference', (b) =>
      b.group('InvoiceDocumentReference', (r) =>
        r.basic('ID', preceding.number).basic('IssueDate', preceding.issueDate),
      ),
    );
  writeParty(w, 'AccountingSupplierParty', invoice.seller);
  writeParty(w, 'AccountingCustomerParty', invoice.buyer);
  if (invoice.payment !== null) writePayment(w, invoice.payment);
  if (invoice.terms !== '') w.group('PaymentTerms', (t) => t.basic('Note', invoice.terms));
  for (const adjustment of invoice.adjustments) writeAdjustment(w, adjustment);
  w.group('TaxTotal', (t) => {
    t.amount('TaxAmount', invoice.totals.tax);
    for (const row of invoice.breakdown)
      t.group('TaxSubtotal', (s) => {
        s.amount('TaxableAmount', row.base).amount('TaxAmount', row.tax);
        writeCategory(s, 'TaxCategory', row);
      });
  });
  const { totals, taxInHome } = invoice;
  if (taxInHome !== null)
    w.group('TaxTotal', (t) => t.basic('TaxAmount', taxInHome.tax, { currencyID: taxInHome.currency }));
  const someOf = (name: string, value: Decimal, writer: Writer) => {
    if (ratioOf(value).n !== 0n) writer.amount(name, value);
  };
  w.group('LegalMonetaryTotal', (m) => {
    m.amount('LineExtensionAmount', totals.lineNet)
      .amount('TaxExclusiveAmount', totals.withoutTax)
      .amount('TaxInclusiveAmount', totals.withTax);
    someOf('AllowanceTotalAmount', totals.allowances, m);
    someOf('ChargeTotalAmount', totals.charges, m);
    someOf('PrepaidAmount', totals.prepaid, m);
    someOf('PayableRoundingAmount', totals.rounding, m);
    m.amount('PayableAmount', totals.payable);
  });
  for (const line of invoice.lines) writeLine(w, names, line);
  return root.end({ prettyPrint: true });
}
