import { type Binding, branch, fixed, fixedBranch, inTaxCurrency, leaf, readInto, special, writeFrom } from './binding';
import { DATE, DATE_TIME, DUE_CODE, QUALIFIED_DATE_TIME } from './formats';
import { addGroup, addTerm, type Group, groupsOf, newGroup, type Term, termsOf } from './model';
import type { GroupId, TermId } from './terms';
import { childOf, descend, type XmlNode } from './xml/node';
import { element } from './xml/writeXml';

/* UN/CEFACT Cross Industry Invoice D16B: the binding of CEN/TS 16931-3-3, in the order of the schema. */

const VAT = fixed('ram:TypeCode', 'VAT');
const hasScheme = ({ scheme }: Term) => scheme !== '';

/** An identifier stands in GlobalID with its scheme, in ID without one. */
const identifiers = (term: TermId): readonly Binding[] => [
  leaf('ram:ID', term, { writes: (one) => !hasScheme(one) }),
  leaf('ram:GlobalID', term, { scheme: 'schemeID', writes: hasScheme }),
];

const address = (
  id: GroupId,
  [post, line1, line2, line3, city, country, region]: readonly [TermId, TermId, TermId, TermId, TermId, TermId, TermId],
) =>
  branch(
    'ram:PostalTradeAddress',
    [
      leaf('ram:PostcodeCode', post),
      leaf('ram:LineOne', line1),
      leaf('ram:LineTwo', line2),
      leaf('ram:LineThree', line3),
      leaf('ram:CityName', city),
      leaf('ram:CountryID', country),
      leaf('ram:CountrySubDivisionName', region),
    ],
    { group: id },
  );

const contact = (name: TermId, phone: TermId, email: TermId) =>
  branch('ram:DefinedTradeContact', [
    leaf('ram:PersonName', name),
    branch('ram:TelephoneUniversalCommunication', [leaf('ram:CompleteNumber', phone)]),
    branch('ram:EmailURIUniversalCommunication', [leaf('ram:URIID', email)]),
  ]);

const electronic = (term: TermId) =>
  branch('ram:URIUniversalCommunication', [leaf('ram:URIID', term, { scheme: 'schemeID' })]);

/** FC is the number of a tax office; VA, and whatever else stands there, a VAT number. */
const OFFICE = 'FC';

/** Numbers of a party at tax offices: a VAT number, and where a term is given another one (FC). */
const registrations = (vat: TermId, office?: TermId) =>
  special(
    'ram:SpecifiedTaxRegistration',
    (node, into) => {
      const id = childOf(node, 'ram:ID');
      if (id === undefined) return;
      addTerm(into, office !== undefined && id.attributes.schemeID === OFFICE ? office : vat, {
        value: id.text,
        at: id,
      });
    },
    (from) =>
      [office, vat].flatMap((term) =>
        (term === undefined ? [] : termsOf(from, term)).map(({ value }) =>
          element('ram:SpecifiedTaxRegistration', [
            element('ram:ID', value, { schemeID: term === office ? OFFICE : 'VA' }),
          ]),
        ),
      ),
  );

const organization = (id: TermId, trading?: TermId) =>
  branch('ram:SpecifiedLegalOrganization', [
    leaf('ram:ID', id, { scheme: 'schemeID' }),
    ...(trading === undefined ? [] : [leaf('ram:TradingBusinessName', trading)]),
  ]);

const seller = branch(
  'ram:SellerTradeParty',
  [
    ...identifiers('BT-29'),
    leaf('ram:Name', 'BT-27'),
    leaf('ram:Description', 'BT-33'),
    organization('BT-30', 'BT-28'),
    contact('BT-41', 'BT-42', 'BT-43'),
    address('BG-5', ['BT-38', 'BT-35', 'BT-36', 'BT-162', 'BT-37', 'BT-40', 'BT-39']),
    electronic('BT-34'),
    registrations('BT-31', 'BT-32'),
  ],
  { group: 'BG-4' },
);

const buyer = branch(
  'ram:BuyerTradeParty',
  [
    ...identifiers('BT-46'),
    leaf('ram:Name', 'BT-44'),
    organization('BT-47', 'BT-45'),
    contact('BT-56', 'BT-57', 'BT-58'),
    address('BG-8', ['BT-53', 'BT-50', 'BT-51', 'BT-163', 'BT-52', 'BT-55', 'BT-54']),
    electronic('BT-49'),
    registrations('BT-48'),
  ],
  { group: 'BG-7' },
);

const representative = branch(
  'ram:SellerTaxRepresentativeTradeParty',
  [
    leaf('ram:Name', 'BT-62'),
    address('BG-12', ['BT-67', 'BT-64', 'BT-65', 'BT-164', 'BT-66', 'BT-69', 'BT-68']),
    registrations('BT-63'),
  ],
  { group: 'BG-11' },
);

const assigned = (el: string, term: TermId) => branch(el, [leaf('ram:IssuerAssignedID', term)]);
const typed = (node: XmlNode) => childOf(node, 'ram:TypeCode')?.text ?? '';

/** References by UNTDID 1001: 50 a tender or lot, 130 the invoiced object, 916 a supporting document. */
const additional: readonly Binding[] = [
  branch(
    'ram:AdditionalReferencedDocument',
    [
      leaf('ram:IssuerAssignedID', 'BT-122'),
      leaf('ram:URIID', 'BT-124'),
      fixed('ram:TypeCode', '916'),
      leaf('ram:Name', 'BT-123'),
      leaf('ram:AttachmentBinaryObject', 'BT-125', { version: 'mimeCode', fileName: 'filename' }),
    ],
    { group: 'BG-24', reads: (node) => typed(node) !== '50' && typed(node) !== '130' },
  ),
  branch('ram:AdditionalReferencedDocument', [leaf('ram:IssuerAssignedID', 'BT-17'), fixed('ram:TypeCode', '50')], {
    reads: (node) => typed(node) === '50',
  }),
];

/** The scheme of an object's identifier is an element of its own here. */
const object = (term: TermId) =>
  special(
    'ram:AdditionalReferencedDocument',
    (node, into) => {
      const id = childOf(node, 'ram:IssuerAssignedID');
      const scheme = childOf(node, 'ram:ReferenceTypeCode')?.text ?? '';
      if (id !== undefined) addTerm(into, term, { value: id.text, scheme, at: id });
    },
    (from) =>
      termsOf(from, term).map(({ value, scheme }) =>
        element('ram:AdditionalReferencedDocument', [
          element('ram:IssuerAssignedID', value),
          element('ram:TypeCode', '130'),
          ...(scheme === '' ? [] : [element('ram:ReferenceTypeCode', scheme)]),
        ]),
      ),
  );

const agreement = branch('ram:ApplicableHeaderTradeAgreement', [
  leaf('ram:BuyerReference', 'BT-10'),
  seller,
  buyer,
  representative,
  assigned('ram:SellerOrderReferencedDocument', 'BT-14'),
  assigned('ram:BuyerOrderReferencedDocument', 'BT-13'),
  assigned('ram:ContractReferencedDocument', 'BT-12'),
  ...additional,
  object('BT-18'),
  branch('ram:SpecifiedProcuringProject', [leaf('ram:ID', 'BT-11'), fixed('ram:Name', 'Project reference')]),
]);

const shipTo = branch('ram:ShipToTradeParty', [
  ...identifiers('BT-71'),
  leaf('ram:Name', 'BT-70'),
  address('BG-15', ['BT-78', 'BT-75', 'BT-76', 'BT-165', 'BT-77', 'BT-80', 'BT-79']),
]);

const delivery = branch('ram:ApplicableHeaderTradeDelivery', [
  shipTo,
  branch('ram:ActualDeliverySupplyChainEvent', [leaf('ram:OccurrenceDateTime', 'BT-72', { format: DATE_TIME })]),
  assigned('ram:DespatchAdviceReferencedDocument', 'BT-16'),
  assigned('ram:ReceivingAdviceReferencedDocument', 'BT-15'),
]);

const period = (start: TermId, end: TermId, id: GroupId) =>
  branch(
    'ram:BillingSpecifiedPeriod',
    [leaf('ram:StartDateTime', start, { format: DATE_TIME }), leaf('ram:EndDateTime', end, { format: DATE_TIME })],
    { group: id },
  );

const indicator = (node: XmlNode) => descend(node, 'ram:ChargeIndicator', 'udt:Indicator')?.text;

interface AdjustmentTerms {
  readonly percent: TermId;
  readonly base: TermId;
  readonly amount: TermId;
  readonly code: TermId;
  readonly reason: TermId;
  readonly tax?: readonly [TermId, TermId];
}

const adjustment = (id: GroupId, charge: boolean, t: AdjustmentTerms) =>
  branch(
    'ram:SpecifiedTradeAllowanceCharge',
    [
      fixedBranch('ram:ChargeIndicator', fixed('udt:Indicator', String(charge))),
      leaf('ram:CalculationPercent', t.percent),
      leaf('ram:BasisAmount', t.base),
      leaf('ram:ActualAmount', t.amount),
      leaf('ram:ReasonCode', t.code),
      leaf('ram:Reason', t.reason),
      ...(t.tax === undefined
        ? []
        : [
            branch('ram:CategoryTradeTax', [
              VAT,
              leaf('ram:CategoryCode', t.tax[0]),
              leaf('ram:RateApplicablePercent', t.tax[1]),
            ]),
          ]),
    ],
    { group: id, reads: (node) => (indicator(node) === 'true') === charge },
  );

const breakdown: readonly Binding[] = [
  leaf('ram:CalculatedAmount', 'BT-117'),
  VAT,
  leaf('ram:ExemptionReason', 'BT-120'),
  leaf('ram:BasisAmount', 'BT-116'),
  leaf('ram:CategoryCode', 'BT-118'),
  leaf('ram:ExemptionReasonCode', 'BT-121'),
  leaf('ram:TaxPointDate', 'BT-7', { format: DATE }),
  leaf('ram:DueDateTypeCode', 'BT-8', { format: DUE_CODE }),
  leaf('ram:RateApplicablePercent', 'BT-119'),
];

/** More different values of what is said once than this are a mistake that needs no further proof. */
const MOST_DIFFERENT = 8;

/** What each part of the file says again belongs to the document, once. */
function lift(from: Group, to: Group, ids: readonly TermId[]): void {
  for (const id of ids) {
    for (const term of termsOf(from, id))
      if (termsOf(to, id).length < MOST_DIFFERENT && !termsOf(to, id).some(({ value }) => value === term.value))
        addTerm(to, id, term);
    delete from.terms[id];
  }
}

/** The tax point stands in every row of the breakdown. */
const TAX_POINT = ['BT-7', 'BT-8'] as const;
const tax = special(
  'ram:ApplicableTradeTax',
  (node, into, context) => {
    const row = newGroup('BG-23', node);
    addGroup(into, row);
    readInto(node, breakdown, row, context);
    lift(row, into, TAX_POINT);
  },
  (from, context) =>
    groupsOf(from, 'BG-23').map((row) => {
      const terms = { ...row.terms };
      for (const id of TAX_POINT) {
        const said = from.terms[id];
        if (said !== undefined) terms[id] = said;
      }
      const content = writeFrom({ ...row, terms }, breakdown, context);
      return element('ram:ApplicableTradeTax', content);
    }),
);

const payment = branch(
  'ram:SpecifiedTradeSettlementPaymentMeans',
  [
    leaf('ram:TypeCode', 'BT-81'),
    leaf('ram:Information', 'BT-82'),
    branch(
      'ram:ApplicableTradeSettlementFinancialCard',
      [leaf('ram:ID', 'BT-87'), leaf('ram:CardholderName', 'BT-88')],
      { group: 'BG-18' },
    ),
    branch('ram:PayerPartyDebtorFinancialAccount', [leaf('ram:IBANID', 'BT-91')]),
    special(
      'ram:PayeePartyCreditorFinancialAccount',
      (node, into, context) => {
        const account = newGroup('BG-17', node);
        addGroup(into, account);
        readInto(node, ACCOUNT, account, context);
        const bic = node.parent && descend(node.parent, 'ram:PayeeSpecifiedCreditorFinancialInstitution', 'ram:BICID');
        if (bic) addTerm(account, 'BT-86', { value: bic.text, at: bic });
      },
      (from, context) =>
        groupsOf(from, 'BG-17').map((account) =>
          element('ram:PayeePartyCreditorFinancialAccount', writeFrom(account, ACCOUNT, context)),
        ),
    ),
    special(
      'ram:PayeeSpecifiedCreditorFinancialInstitution',
      () => undefined,
      (from) =>
        groupsOf(from, 'BG-17').flatMap((account) =>
          termsOf(account, 'BT-86').map(({ value }) =>
            element('ram:PayeeSpecifiedCreditorFinancialInstitution', [element('ram:BICID', value)]),
          ),
        ),
    ),
  ],
  { group: 'BG-16' },
);

/** An IBAN has an element of its own; any other account number is the bank's own. */
const isIban = ({ value }: Pick<Term, 'value'>) => /^[A-Z]{2}\d{2}[A-Z0-9]{10,30}$/.test(value.replace(/\s/g, ''));
const ACCOUNT: readonly Binding[] = [
  leaf('ram:IBANID', 'BT-84', { writes: isIban }),
  leaf('ram:AccountName', 'BT-85'),
  leaf('ram:ProprietaryID', 'BT-84', { writes: (term) => !isIban(term) }),
];

const terms = branch('ram:SpecifiedTradePaymentTerms', [
  leaf('ram:Description', 'BT-20'),
  leaf('ram:DueDateDateTime', 'BT-9', { format: DATE_TIME }),
  leaf('ram:DirectDebitMandateID', 'BT-89'),
]);

const totals = branch('ram:SpecifiedTradeSettlementHeaderMonetarySummation', [
  leaf('ram:LineTotalAmount', 'BT-106'),
  leaf('ram:ChargeTotalAmount', 'BT-108'),
  leaf('ram:AllowanceTotalAmount', 'BT-107'),
  leaf('ram:TaxBasisTotalAmount', 'BT-109'),
  leaf('ram:TaxTotalAmount', 'BT-110', {
    currency: 'document',
    reads: (node, context) => !inTaxCurrency(node.attributes.currencyID, context),
  }),
  leaf('ram:TaxTotalAmount', 'BT-111', { currency: 'tax' }),
  leaf('ram:RoundingAmount', 'BT-114'),
  leaf('ram:GrandTotalAmount', 'BT-112'),
  leaf('ram:TotalPrepaidAmount', 'BT-113'),
  leaf('ram:DuePayableAmount', 'BT-115'),
]);

const preceding = branch(
  'ram:InvoiceReferencedDocument',
  [leaf('ram:IssuerAssignedID', 'BT-25'), leaf('ram:FormattedIssueDateTime', 'BT-26', { format: QUALIFIED_DATE_TIME })],
  { group: 'BG-3' },
);

const costCentre = (term: TermId) => branch('ram:ReceivableSpecifiedTradeAccountingAccount', [leaf('ram:ID', term)]);

const settlement = branch('ram:ApplicableHeaderTradeSettlement', [
  leaf('ram:CreditorReferenceID', 'BT-90'),
  leaf('ram:PaymentReference', 'BT-83'),
  leaf('ram:TaxCurrencyCode', 'BT-6'),
  leaf('ram:InvoiceCurrencyCode', 'BT-5'),
  branch('ram:PayeeTradeParty', [...identifiers('BT-60'), leaf('ram:Name', 'BT-59'), organization('BT-61')], {
    group: 'BG-10',
  }),
  payment,
  tax,
  period('BT-73', 'BT-74', 'BG-14'),
  adjustment('BG-20', false, {
    percent: 'BT-94',
    base: 'BT-93',
    amount: 'BT-92',
    code: 'BT-98',
    reason: 'BT-97',
    tax: ['BT-95', 'BT-96'],
  }),
  adjustment('BG-21', true, {
    percent: 'BT-101',
    base: 'BT-100',
    amount: 'BT-99',
    code: 'BT-105',
    reason: 'BT-104',
    tax: ['BT-102', 'BT-103'],
  }),
  terms,
  totals,
  preceding,
  costCentre('BT-19'),
]);

const product = branch('ram:SpecifiedTradeProduct', [
  leaf('ram:GlobalID', 'BT-157', { scheme: 'schemeID' }),
  leaf('ram:SellerAssignedID', 'BT-155'),
  leaf('ram:BuyerAssignedID', 'BT-156'),
  leaf('ram:Name', 'BT-153'),
  leaf('ram:Description', 'BT-154'),
  branch('ram:ApplicableProductCharacteristic', [leaf('ram:Description', 'BT-160'), leaf('ram:Value', 'BT-161')], {
    group: 'BG-32',
  }),
  branch(
    'ram:DesignatedProductClassification',
    [leaf('ram:ClassCode', 'BT-158', { scheme: 'listID', version: 'listVersionID' })],
    { each: 'BT-158' },
  ),
  branch('ram:OriginTradeCountry', [leaf('ram:ID', 'BT-159')]),
]);

const lineAgreement = branch('ram:SpecifiedLineTradeAgreement', [
  branch('ram:BuyerOrderReferencedDocument', [leaf('ram:LineID', 'BT-132')]),
  branch('ram:GrossPriceProductTradePrice', [
    leaf('ram:ChargeAmount', 'BT-148'),
    special(
      'ram:BasisQuantity',
      () => undefined,
      () => [],
    ),
    branch('ram:AppliedTradeAllowanceCharge', [
      fixedBranch('ram:ChargeIndicator', fixed('udt:Indicator', 'false')),
      leaf('ram:ActualAmount', 'BT-147'),
    ]),
  ]),
  branch('ram:NetPriceProductTradePrice', [
    leaf('ram:ChargeAmount', 'BT-146'),
    leaf('ram:BasisQuantity', 'BT-149', { attributes: { unitCode: 'BT-150' } }),
  ]),
]);

const lineSettlement = branch('ram:SpecifiedLineTradeSettlement', [
  branch('ram:ApplicableTradeTax', [
    VAT,
    leaf('ram:CategoryCode', 'BT-151'),
    leaf('ram:RateApplicablePercent', 'BT-152'),
  ]),
  period('BT-134', 'BT-135', 'BG-26'),
  adjustment('BG-27', false, { percent: 'BT-138', base: 'BT-137', amount: 'BT-136', code: 'BT-140', reason: 'BT-139' }),
  adjustment('BG-28', true, { percent: 'BT-143', base: 'BT-142', amount: 'BT-141', code: 'BT-145', reason: 'BT-144' }),
  branch('ram:SpecifiedTradeSettlementLineMonetarySummation', [leaf('ram:LineTotalAmount', 'BT-131')]),
  object('BT-128'),
  costCentre('BT-133'),
]);

const line = branch(
  'ram:IncludedSupplyChainTradeLineItem',
  [
    branch('ram:AssociatedDocumentLineDocument', [
      leaf('ram:LineID', 'BT-126'),
      branch('ram:IncludedNote', [leaf('ram:Content', 'BT-127')]),
    ]),
    product,
    lineAgreement,
    branch('ram:SpecifiedLineTradeDelivery', [
      leaf('ram:BilledQuantity', 'BT-129', { attributes: { unitCode: 'BT-130' } }),
    ]),
    lineSettlement,
  ],
  { group: 'BG-25' },
);

export const CII: readonly Binding[] = [
  branch('rsm:ExchangedDocumentContext', [
    branch('ram:BusinessProcessSpecifiedDocumentContextParameter', [leaf('ram:ID', 'BT-23')]),
    branch('ram:GuidelineSpecifiedDocumentContextParameter', [leaf('ram:ID', 'BT-24')]),
  ]),
  branch('rsm:ExchangedDocument', [
    leaf('ram:ID', 'BT-1'),
    leaf('ram:TypeCode', 'BT-3'),
    leaf('ram:IssueDateTime', 'BT-2', { format: DATE_TIME }),
    branch('ram:IncludedNote', [leaf('ram:Content', 'BT-22'), leaf('ram:SubjectCode', 'BT-21')], { group: 'BG-1' }),
  ]),
  branch('rsm:SupplyChainTradeTransaction', [line, agreement, delivery, settlement]),
];
