import { type Binding, branch, fixed, fixedBranch, inTaxCurrency, leaf, readInto, special, writeFrom } from './binding';
import { CODES } from './codes';
import { addGroup, addTerm, type Group, groupsOf, newGroup, termsOf, textOf } from './model';
import type { GroupId, TermId } from './terms';
import { childOf, descend, type XmlNode } from './xml/node';
import { element, type OutNode } from './xml/writeXml';

/* UBL 2.1 Invoice and CreditNote: the binding of CEN/TS 16931-3-2, in the order of the schemas. */

/** True for a type (UNTDID 1001) that UBL writes as a credit note. */
export const isCreditNote = (invoice: Group): boolean => CODES.creditNoteTypes.has(textOf(invoice, 'BT-3'));

const VAT = fixedBranch('cac:TaxScheme', fixed('cbc:ID', 'VAT'));
const isVat = (node: XmlNode) => descend(node, 'cac:TaxScheme', 'cbc:ID')?.text.toUpperCase() === 'VAT';
const amount = (el: string, term: TermId) => leaf(el, term, { currency: 'document' });

/** More different values of what is said once than this are a mistake that needs no further proof. */
const MOST_DIFFERENT = 8;

/** Adds a term that every repetition says again, once. */
function addOnce(into: Group, id: TermId, node: XmlNode | undefined): void {
  const known = termsOf(into, id);
  if (node === undefined || known.length >= MOST_DIFFERENT) return;
  if (!known.some(({ value }) => value === node.text)) addTerm(into, id, { value: node.text, at: node });
}

interface AddressTerms {
  readonly line1: TermId;
  readonly line2: TermId;
  readonly line3: TermId;
  readonly city: TermId;
  readonly postCode: TermId;
  readonly region: TermId;
  readonly country: TermId;
}

const address = (el: string, id: GroupId, t: AddressTerms) =>
  branch(
    el,
    [
      leaf('cbc:StreetName', t.line1),
      leaf('cbc:AdditionalStreetName', t.line2),
      leaf('cbc:CityName', t.city),
      leaf('cbc:PostalZone', t.postCode),
      leaf('cbc:CountrySubentity', t.region),
      branch('cac:AddressLine', [leaf('cbc:Line', t.line3)]),
      branch('cac:Country', [leaf('cbc:IdentificationCode', t.country)]),
    ],
    { group: id },
  );

const contact = (name: TermId, phone: TermId, email: TermId) =>
  branch('cac:Contact', [leaf('cbc:Name', name), leaf('cbc:Telephone', phone), leaf('cbc:ElectronicMail', email)]);

/** BT-90 stands among the seller's identifiers, under the scheme SEPA. */
const SEPA = 'SEPA';
const identification = (term: TermId) =>
  branch('cac:PartyIdentification', [leaf('cbc:ID', term, { scheme: 'schemeID' })], {
    each: term,
    reads: (node) => childOf(node, 'cbc:ID')?.attributes.schemeID !== SEPA,
  });

const bankCreditor = special(
  'cac:PartyIdentification',
  (node, _, { root }) => addOnce(root, 'BT-90', childOf(node, 'cbc:ID')),
  (from, { root }) =>
    // A payee's goes to the seller too, where every reader looks for it.
    from.id !== 'BG-4'
      ? []
      : termsOf(root, 'BT-90').map(({ value }) =>
          element('cac:PartyIdentification', [element('cbc:ID', value, { schemeID: SEPA })]),
        ),
);

const vatNumber = (term: TermId) =>
  branch('cac:PartyTaxScheme', [leaf('cbc:CompanyID', term), VAT], { reads: isVat, each: term });

const seller = branch(
  'cac:AccountingSupplierParty',
  [
    branch('cac:Party', [
      leaf('cbc:EndpointID', 'BT-34', { scheme: 'schemeID' }),
      identification('BT-29'),
      bankCreditor,
      branch('cac:PartyName', [leaf('cbc:Name', 'BT-28')]),
      address('cac:PostalAddress', 'BG-5', {
        line1: 'BT-35',
        line2: 'BT-36',
        line3: 'BT-162',
        city: 'BT-37',
        postCode: 'BT-38',
        region: 'BT-39',
        country: 'BT-40',
      }),
      vatNumber('BT-31'),
      branch('cac:PartyTaxScheme', [
        leaf('cbc:CompanyID', 'BT-32'),
        fixedBranch('cac:TaxScheme', fixed('cbc:ID', 'TAX')),
      ]),
      branch('cac:PartyLegalEntity', [
        leaf('cbc:RegistrationName', 'BT-27'),
        leaf('cbc:CompanyID', 'BT-30', { scheme: 'schemeID' }),
        leaf('cbc:CompanyLegalForm', 'BT-33'),
      ]),
      contact('BT-41', 'BT-42', 'BT-43'),
    ]),
  ],
  { group: 'BG-4' },
);

const buyer = branch(
  'cac:AccountingCustomerParty',
  [
    branch('cac:Party', [
      leaf('cbc:EndpointID', 'BT-49', { scheme: 'schemeID' }),
      identification('BT-46'),
      branch('cac:PartyName', [leaf('cbc:Name', 'BT-45')]),
      address('cac:PostalAddress', 'BG-8', {
        line1: 'BT-50',
        line2: 'BT-51',
        line3: 'BT-163',
        city: 'BT-52',
        postCode: 'BT-53',
        region: 'BT-54',
        country: 'BT-55',
      }),
      vatNumber('BT-48'),
      branch('cac:PartyLegalEntity', [
        leaf('cbc:RegistrationName', 'BT-44'),
        leaf('cbc:CompanyID', 'BT-47', { scheme: 'schemeID' }),
      ]),
      contact('BT-56', 'BT-57', 'BT-58'),
    ]),
  ],
  { group: 'BG-7' },
);

const payee = branch(
  'cac:PayeeParty',
  [
    identification('BT-60'),
    bankCreditor,
    branch('cac:PartyName', [leaf('cbc:Name', 'BT-59')]),
    branch('cac:PartyLegalEntity', [leaf('cbc:CompanyID', 'BT-61', { scheme: 'schemeID' })]),
  ],
  { group: 'BG-10' },
);

const representative = branch(
  'cac:TaxRepresentativeParty',
  [
    branch('cac:PartyName', [leaf('cbc:Name', 'BT-62')]),
    address('cac:PostalAddress', 'BG-12', {
      line1: 'BT-64',
      line2: 'BT-65',
      line3: 'BT-164',
      city: 'BT-66',
      postCode: 'BT-67',
      region: 'BT-68',
      country: 'BT-69',
    }),
    branch('cac:PartyTaxScheme', [leaf('cbc:CompanyID', 'BT-63'), VAT]),
  ],
  { group: 'BG-11' },
);

const delivery = branch('cac:Delivery', [
  leaf('cbc:ActualDeliveryDate', 'BT-72'),
  branch('cac:DeliveryLocation', [
    leaf('cbc:ID', 'BT-71', { scheme: 'schemeID' }),
    address('cac:Address', 'BG-15', {
      line1: 'BT-75',
      line2: 'BT-76',
      line3: 'BT-165',
      city: 'BT-77',
      postCode: 'BT-78',
      region: 'BT-79',
      country: 'BT-80',
    }),
  ]),
  branch('cac:DeliveryParty', [branch('cac:PartyName', [leaf('cbc:Name', 'BT-70')])]),
]);

const account: readonly Binding[] = [
  leaf('cbc:ID', 'BT-84'),
  leaf('cbc:Name', 'BT-85'),
  branch('cac:FinancialInstitutionBranch', [leaf('cbc:ID', 'BT-86')]),
];
const card: readonly Binding[] = [
  leaf('cbc:PrimaryAccountNumberID', 'BT-87'),
  fixed('cbc:NetworkID', 'NA'),
  leaf('cbc:HolderName', 'BT-88'),
];
const payment: readonly Binding[] = [
  special(
    'cbc:PaymentMeansCode',
    (node, into) => {
      addTerm(into, 'BT-81', { value: node.text, at: node });
      addTerm(into, 'BT-82', { value: node.attributes.name ?? '', at: node });
    },
    (from) => {
      const [code, name] = [textOf(from, 'BT-81'), textOf(from, 'BT-82')];
      if (code === '') return [];
      return [element('cbc:PaymentMeansCode', code, name === '' ? null : { name })];
    },
  ),
  leaf('cbc:PaymentDueDate', 'BT-9'),
  leaf('cbc:PaymentID', 'BT-83'),
  branch('cac:CardAccount', card, { group: 'BG-18' }),
  branch('cac:PayeeFinancialAccount', account, { group: 'BG-17' }),
  branch('cac:PaymentMandate', [
    leaf('cbc:ID', 'BT-89'),
    branch('cac:PayerFinancialAccount', [leaf('cbc:ID', 'BT-91')]),
  ]),
];

/** Payment instructions: what the document says once (BT-9 of a credit note, BT-83, BT-89) stands in each of them. */
const paymentMeans = special(
  'cac:PaymentMeans',
  (node, into, context) => {
    const means = newGroup('BG-16', node);
    addGroup(into, means);
    readInto(node, payment, means, context);
    for (const id of ['BT-9', 'BT-83', 'BT-89'] as const) {
      addOnce(into, id, means.terms[id]?.[0]?.at);
      delete means.terms[id];
    }
  },
  (from, context) =>
    groupsOf(from, 'BG-16').map((means, i): OutNode => {
      const once: Group['terms'] = {};
      const take = (id: TermId) => {
        const terms = from.terms[id];
        if (terms !== undefined) once[id] = terms;
      };
      if (isCreditNote(from)) take('BT-9');
      take('BT-83');
      if (i === 0) take('BT-89');
      const full: Group = { ...means, terms: { ...means.terms, ...once } };
      return element('cac:PaymentMeans', writeFrom(full, payment, context));
    }),
);

const CATEGORY = (category: TermId, percent: TermId, more: readonly Binding[] = []): readonly Binding[] => [
  leaf('cbc:ID', category),
  leaf('cbc:Percent', percent),
  ...more,
  VAT,
];

interface AdjustmentTerms {
  readonly code: TermId;
  readonly reason: TermId;
  readonly percent: TermId;
  readonly amount: TermId;
  readonly base: TermId;
  readonly tax?: readonly [TermId, TermId];
}

const isCharge = (node: XmlNode) => childOf(node, 'cbc:ChargeIndicator')?.text === 'true';

const adjustment = (id: GroupId, charge: boolean, t: AdjustmentTerms) =>
  branch(
    'cac:AllowanceCharge',
    [
      fixed('cbc:ChargeIndicator', String(charge)),
      leaf('cbc:AllowanceChargeReasonCode', t.code),
      leaf('cbc:AllowanceChargeReason', t.reason),
      leaf('cbc:MultiplierFactorNumeric', t.percent),
      amount('cbc:Amount', t.amount),
      amount('cbc:BaseAmount', t.base),
      ...(t.tax === undefined ? [] : [branch('cac:TaxCategory', CATEGORY(t.tax[0], t.tax[1]))]),
    ],
    { group: id, reads: (node) => isCharge(node) === charge },
  );

const subtotal = branch(
  'cac:TaxSubtotal',
  [
    amount('cbc:TaxableAmount', 'BT-116'),
    amount('cbc:TaxAmount', 'BT-117'),
    branch(
      'cac:TaxCategory',
      CATEGORY('BT-118', 'BT-119', [
        leaf('cbc:TaxExemptionReasonCode', 'BT-121'),
        leaf('cbc:TaxExemptionReason', 'BT-120'),
      ]),
    ),
  ],
  { group: 'BG-23' },
);

/** The total in the currency of the document has the breakdown; one in the tax currency stands alone (BT-111). */
const totalCurrency = (node: XmlNode) => childOf(node, 'cbc:TaxAmount')?.attributes.currencyID;

const taxTotals: readonly Binding[] = [
  branch('cac:TaxTotal', [amount('cbc:TaxAmount', 'BT-110'), subtotal], {
    reads: (node, context) => !inTaxCurrency(totalCurrency(node), context),
  }),
  branch('cac:TaxTotal', [leaf('cbc:TaxAmount', 'BT-111', { currency: 'tax' })]),
];

const totals = branch('cac:LegalMonetaryTotal', [
  amount('cbc:LineExtensionAmount', 'BT-106'),
  amount('cbc:TaxExclusiveAmount', 'BT-109'),
  amount('cbc:TaxInclusiveAmount', 'BT-112'),
  amount('cbc:AllowanceTotalAmount', 'BT-107'),
  amount('cbc:ChargeTotalAmount', 'BT-108'),
  amount('cbc:PrepaidAmount', 'BT-113'),
  amount('cbc:PayableRoundingAmount', 'BT-114'),
  amount('cbc:PayableAmount', 'BT-115'),
]);

const line = (el: string, quantity: string) =>
  branch(
    el,
    [
      leaf('cbc:ID', 'BT-126'),
      leaf('cbc:Note', 'BT-127'),
      leaf(quantity, 'BT-129', { attributes: { unitCode: 'BT-130' } }),
      amount('cbc:LineExtensionAmount', 'BT-131'),
      leaf('cbc:AccountingCost', 'BT-133'),
      branch('cac:InvoicePeriod', [leaf('cbc:StartDate', 'BT-134'), leaf('cbc:EndDate', 'BT-135')], { group: 'BG-26' }),
      branch('cac:OrderLineReference', [leaf('cbc:LineID', 'BT-132')]),
      branch('cac:DocumentReference', [
        leaf('cbc:ID', 'BT-128', { scheme: 'schemeID' }),
        fixed('cbc:DocumentTypeCode', '130'),
      ]),
      adjustment('BG-27', false, {
        code: 'BT-140',
        reason: 'BT-139',
        percent: 'BT-138',
        amount: 'BT-136',
        base: 'BT-137',
      }),
      adjustment('BG-28', true, {
        code: 'BT-145',
        reason: 'BT-144',
        percent: 'BT-143',
        amount: 'BT-141',
        base: 'BT-142',
      }),
      branch('cac:Item', [
        leaf('cbc:Description', 'BT-154'),
        leaf('cbc:Name', 'BT-153'),
        branch('cac:BuyersItemIdentification', [leaf('cbc:ID', 'BT-156')]),
        branch('cac:SellersItemIdentification', [leaf('cbc:ID', 'BT-155')]),
        branch('cac:StandardItemIdentification', [leaf('cbc:ID', 'BT-157', { scheme: 'schemeID' })]),
        branch('cac:OriginCountry', [leaf('cbc:IdentificationCode', 'BT-159')]),
        branch(
          'cac:CommodityClassification',
          [leaf('cbc:ItemClassificationCode', 'BT-158', { scheme: 'listID', version: 'listVersionID' })],
          { each: 'BT-158' },
        ),
        branch('cac:ClassifiedTaxCategory', CATEGORY('BT-151', 'BT-152')),
        branch('cac:AdditionalItemProperty', [leaf('cbc:Name', 'BT-160'), leaf('cbc:Value', 'BT-161')], {
          group: 'BG-32',
        }),
      ]),
      branch('cac:Price', [
        amount('cbc:PriceAmount', 'BT-146'),
        leaf('cbc:BaseQuantity', 'BT-149', { attributes: { unitCode: 'BT-150' } }),
        branch('cac:AllowanceCharge', [
          fixed('cbc:ChargeIndicator', 'false'),
          amount('cbc:Amount', 'BT-147'),
          amount('cbc:BaseAmount', 'BT-148'),
        ]),
      ]),
    ],
    { group: 'BG-25' },
  );

/** BG-1: the subject stands before the text between marks, as in `#AAI#text`. */
const note = special(
  'cbc:Note',
  (node, into) => {
    const [, subject = '', text = ''] = /^(?:#([A-Z]{3})#)?([\s\S]*)$/.exec(node.text) ?? [];
    const made = newGroup('BG-1', node);
    addTerm(made, 'BT-21', { value: subject, at: node });
    addTerm(made, 'BT-22', { value: text, at: node });
    addGroup(into, made);
  },
  (from) =>
    groupsOf(from, 'BG-1').map((one) => {
      const subject = textOf(one, 'BT-21');
      return element('cbc:Note', `${subject === '' ? '' : `#${subject}#`}${textOf(one, 'BT-22')}`);
    }),
);

const periodDays: readonly Binding[] = [leaf('cbc:StartDate', 'BT-73'), leaf('cbc:EndDate', 'BT-74')];

/** BG-14 and BT-8 share an element; one that says BT-8 alone is no invoicing period. */
const period = special(
  'cac:InvoicePeriod',
  (node, into, context) => {
    const code = childOf(node, 'cbc:DescriptionCode');
    if (code !== undefined) addTerm(into, 'BT-8', { value: code.text, at: code });
    const others = node.children.filter((child) => child !== code);
    if (code !== undefined && others.length === 0) return;
    const made = newGroup('BG-14', node);
    addGroup(into, made);
    readInto({ ...node, children: others }, periodDays, made, context);
  },
  (from, context) => {
    const code = termsOf(from, 'BT-8').map(({ value }): OutNode => element('cbc:DescriptionCode', value));
    const days = groupsOf(from, 'BG-14').map((one) => writeFrom(one, periodDays, context));
    const contents =
      days.length === 0 && code.length > 0 ? [code] : days.map((one, i) => (i === 0 ? [...one, ...code] : one));
    return contents.map((content) => element('cac:InvoicePeriod', content));
  },
);

/** BT-13 and BT-14 share an element whose ID is not to be left out: NA stands for none. */
const NONE = 'NA';
const order = special(
  'cac:OrderReference',
  (node, into) => {
    const [id, sales] = [childOf(node, 'cbc:ID'), childOf(node, 'cbc:SalesOrderID')];
    if (id !== undefined && !(id.text === NONE && sales !== undefined))
      addTerm(into, 'BT-13', { value: id.text, at: id });
    if (sales !== undefined) addTerm(into, 'BT-14', { value: sales.text, at: sales });
  },
  (from) => {
    const [id, sales] = [textOf(from, 'BT-13'), textOf(from, 'BT-14')];
    if (id === '' && sales === '') return [];
    const content: OutNode[] = [element('cbc:ID', id === '' ? NONE : id)];
    if (sales !== '') content.push(element('cbc:SalesOrderID', sales));
    return [element('cac:OrderReference', content)];
  },
);

const reference = (el: string, term: TermId) => branch(el, [leaf('cbc:ID', term)]);
const typed = (node: XmlNode) => childOf(node, 'cbc:DocumentTypeCode')?.text ?? '';

const object = branch(
  'cac:AdditionalDocumentReference',
  [leaf('cbc:ID', 'BT-18', { scheme: 'schemeID' }), fixed('cbc:DocumentTypeCode', '130')],
  { reads: (node) => typed(node) === '130' },
);
const projectOfCreditNote = branch(
  'cac:AdditionalDocumentReference',
  [leaf('cbc:ID', 'BT-11'), fixed('cbc:DocumentTypeCode', '50')],
  { reads: (node) => typed(node) === '50' },
);
const supporting = branch(
  'cac:AdditionalDocumentReference',
  [
    leaf('cbc:ID', 'BT-122'),
    leaf('cbc:DocumentDescription', 'BT-123'),
    branch('cac:Attachment', [
      leaf('cbc:EmbeddedDocumentBinaryObject', 'BT-125', { version: 'mimeCode', fileName: 'filename' }),
      branch('cac:ExternalReference', [leaf('cbc:URI', 'BT-124')]),
    ]),
  ],
  { group: 'BG-24' },
);

const preceding = branch(
  'cac:BillingReference',
  [branch('cac:InvoiceDocumentReference', [leaf('cbc:ID', 'BT-25'), leaf('cbc:IssueDate', 'BT-26')])],
  { group: 'BG-3' },
);

const MIDDLE: readonly Binding[] = [
  leaf('cbc:DocumentCurrencyCode', 'BT-5'),
  leaf('cbc:TaxCurrencyCode', 'BT-6'),
  leaf('cbc:AccountingCost', 'BT-19'),
  leaf('cbc:BuyerReference', 'BT-10'),
  period,
  order,
  preceding,
  reference('cac:DespatchDocumentReference', 'BT-16'),
  reference('cac:ReceiptDocumentReference', 'BT-15'),
];

const END: readonly Binding[] = [
  seller,
  buyer,
  payee,
  representative,
  delivery,
  paymentMeans,
  branch('cac:PaymentTerms', [leaf('cbc:Note', 'BT-20')]),
  adjustment('BG-20', false, {
    code: 'BT-98',
    reason: 'BT-97',
    percent: 'BT-94',
    amount: 'BT-92',
    base: 'BT-93',
    tax: ['BT-95', 'BT-96'],
  }),
  adjustment('BG-21', true, {
    code: 'BT-105',
    reason: 'BT-104',
    percent: 'BT-101',
    amount: 'BT-99',
    base: 'BT-100',
    tax: ['BT-102', 'BT-103'],
  }),
  ...taxTotals,
  totals,
];

const START: readonly Binding[] = [
  leaf('cbc:CustomizationID', 'BT-24'),
  leaf('cbc:ProfileID', 'BT-23'),
  leaf('cbc:ID', 'BT-1'),
  leaf('cbc:IssueDate', 'BT-2'),
];

const tender = reference('cac:OriginatorDocumentReference', 'BT-17');
const contract = reference('cac:ContractDocumentReference', 'BT-12');

export const UBL_INVOICE: readonly Binding[] = [
  ...START,
  leaf('cbc:DueDate', 'BT-9'),
  leaf('cbc:InvoiceTypeCode', 'BT-3'),
  note,
  leaf('cbc:TaxPointDate', 'BT-7'),
  ...MIDDLE,
  tender,
  contract,
  object,
  supporting,
  reference('cac:ProjectReference', 'BT-11'),
  ...END,
  line('cac:InvoiceLine', 'cbc:InvoicedQuantity'),
];

export const UBL_CREDIT_NOTE: readonly Binding[] = [
  ...START,
  leaf('cbc:TaxPointDate', 'BT-7'),
  leaf('cbc:CreditNoteTypeCode', 'BT-3'),
  note,
  ...MIDDLE,
  contract,
  object,
  projectOfCreditNote,
  supporting,
  tender,
  ...END,
  line('cac:CreditNoteLine', 'cbc:CreditedQuantity'),
];
