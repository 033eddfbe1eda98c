/** Business terms of EN 16931-1, such as `BT-1`; terms that hang on another one carry its number first (`BT-29-1`). */
export type TermId = `BT-${number}`;
/** Groups of business terms, such as `BG-25`. `ROOT` is the document itself with the groups that occur once (BG-2, BG-13, BG-22). */
export type GroupId = `BG-${number}` | 'ROOT';

/** What a term holds: how its text is read and how many decimals it may have. */
export type TermKind = 'text' | 'code' | 'date' | 'amount' | 'price' | 'quantity' | 'percent' | 'binary';

interface TermRow {
  readonly name: string;
  readonly kind: TermKind;
  /** May occur more than once in its group. */
  readonly many: boolean;
}

/** Number, name, and what is not plain text: `d`ate, `c`ode, `a`mount, unit `p`rice, `q`uantity, `%`, `b`inary; `*` for many. */
const TABLE = `
1 Invoice number|2 Invoice issue date d|3 Invoice type code c|5 Invoice currency code c|6 VAT accounting currency code c
7 Value added tax point date d|8 Value added tax point date code c|9 Payment due date d|10 Buyer reference
11 Project reference|12 Contract reference|13 Purchase order reference|14 Sales order reference
15 Receiving advice reference|16 Despatch advice reference|17 Tender or lot reference|18 Invoiced object identifier
19 Buyer accounting reference|20 Payment terms|21 Invoice note subject code c|22 Invoice note
23 Business process type|24 Specification identifier|25 Preceding invoice reference|26 Preceding invoice issue date d
27 Seller name|28 Seller trading name|29 Seller identifier *|30 Seller legal registration identifier
31 Seller VAT identifier|32 Seller tax registration identifier|33 Seller additional legal information
34 Seller electronic address|35 Seller address line 1|36 Seller address line 2|162 Seller address line 3|37 Seller city
38 Seller post code|39 Seller country subdivision|40 Seller country code c|41 Seller contact point
42 Seller contact telephone number|43 Seller contact email address|44 Buyer name|45 Buyer trading name
46 Buyer identifier|47 Buyer legal registration identifier|48 Buyer VAT identifier|49 Buyer electronic address
50 Buyer address line 1|51 Buyer address line 2|163 Buyer address line 3|52 Buyer city|53 Buyer post code
54 Buyer country subdivision|55 Buyer country code c|56 Buyer contact point|57 Buyer contact telephone number
58 Buyer contact email address|59 Payee name|60 Payee identifier|61 Payee legal registration identifier
62 Seller tax representative name|63 Seller tax representative VAT identifier|64 Tax representative address line 1
65 Tax representative address line 2|164 Tax representative address line 3|66 Tax representative city
67 Tax representative post code|68 Tax representative country subdivision|69 Tax representative country code c
70 Deliver to party name|71 Deliver to location identifier|72 Actual delivery date d|73 Invoicing period start date d
74 Invoicing period end date d|75 Deliver to address line 1|76 Deliver to address line 2|165 Deliver to address line 3
77 Deliver to city|78 Deliver to post code|79 Deliver to country subdivision|80 Deliver to country code c
81 Payment means type code c|82 Payment means text|83 Remittance information|84 Payment account identifier
85 Payment account name|86 Payment service provider identifier|87 Payment card primary account number
88 Payment card holder name|89 Mandate reference identifier|90 Bank assigned creditor identifier
91 Debited account identifier|92 Document level allowance amount a|93 Document level allowance base amount a
94 Document level allowance percentage %|95 Document level allowance VAT category code c
96 Document level allowance VAT rate %|97 Document level allowance reason|98 Document level allowance reason code c
99 Document level charge amount a|100 Document level charge base amount a|101 Document level charge percentage %
102 Document level charge VAT category code c|103 Document level charge VAT rate %|104 Document level charge reason
105 Document level charge reason code c|106 Sum of invoice line net amount a|107 Sum of allowances on document level a
108 Sum of charges on document level a|109 Invoice total amount without VAT a|110 Invoice total VAT amount a
111 Invoice total VAT amount in accounting currency a|112 Invoice total amount with VAT a|113 Paid amount a
114 Rounding amount a|115 Amount due for payment a|116 VAT category taxable amount a|117 VAT category tax amount a
118 VAT category code c|119 VAT category rate %|120 VAT exemption reason text|121 VAT exemption reason code c
122 Supporting document reference|123 Supporting document description|124 External document location
125 Attached document b|126 Invoice line identifier|127 Invoice line note|128 Invoice line object identifier
129 Invoiced quantity q|130 Invoiced quantity unit of measure code c|131 Invoice line net amount a
132 Referenced purchase order line reference|133 Invoice line buyer accounting reference
134 Invoice line period start date d|135 Invoice line period end date d|136 Invoice line allowance amount a
137 Invoice line allowance base amount a|138 Invoice line allowance percentage %|139 Invoice line allowance reason
140 Invoice line allowance reason code c|141 Invoice line charge amount a|142 Invoice line charge base amount a
143 Invoice line charge percentage %|144 Invoice line charge reason|145 Invoice line charge reason code c
146 Item net price p|147 Item price discount p|148 Item gross price p|149 Item price base quantity q
150 Item price base quantity unit of measure code c|151 Invoiced item VAT category code c|152 Invoiced item VAT rate %
153 Item name|154 Item description|155 Item seller's identifier|156 Item buyer's identifier|157 Item standard identifier
158 Item classification identifier *|159 Item country of origin c|160 Item attribute name|161 Item attribute value`;

const KINDS: Readonly<Record<string, TermKind>> = {
  d: 'date',
  c: 'code',
  a: 'amount',
  p: 'price',
  q: 'quantity',
  '%': 'percent',
  b: 'binary',
};

function readRow(row: string): readonly [TermId, TermRow] {
  const [, number = '', name = '', mark = ''] = /^(\d+) (.*?)(?: ([dcapqb%*]))?$/.exec(row.trim()) ?? [];
  return [`BT-${Number(number)}`, { name, kind: KINDS[mark] ?? 'text', many: mark === '*' }];
}

/** Every term by its id. Names are those of EN 16931-1:2017. */
export const TERMS: ReadonlyMap<TermId, TermRow> = new Map(
  TABLE.trim()
    .split(/[|\n]/)
    .map((row) => readRow(row)),
);

/** Groups, named as in EN 16931-1:2017. */
export const GROUPS: Readonly<Partial<Record<GroupId, string>>> = {
  'BG-1': 'Invoice note',
  'BG-3': 'Preceding invoice reference',
  'BG-4': 'Seller',
  'BG-5': 'Seller postal address',
  'BG-7': 'Buyer',
  'BG-8': 'Buyer postal address',
  'BG-10': 'Payee',
  'BG-11': 'Seller tax representative party',
  'BG-12': 'Seller tax representative postal address',
  'BG-14': 'Invoicing period',
  'BG-15': 'Deliver to address',
  'BG-16': 'Payment instructions',
  'BG-17': 'Credit transfer',
  'BG-18': 'Payment card information',
  'BG-20': 'Document level allowances',
  'BG-21': 'Document level charges',
  'BG-22': 'Document totals',
  'BG-23': 'VAT breakdown',
  'BG-24': 'Additional supporting documents',
  'BG-25': 'Invoice line',
  'BG-26': 'Invoice line period',
  'BG-27': 'Invoice line allowances',
  'BG-28': 'Invoice line charges',
  'BG-32': 'Item attributes',
};

/** `Invoice number (BT-1)`. */
export function termName(id: TermId): string {
  return `${TERMS.get(id)?.name ?? id} (${id})`;
}

/** `Seller postal address (BG-5)`. */
export function groupName(id: GroupId): string {
  return id === 'ROOT' ? 'the document' : `${GROUPS[id] ?? id} (${id})`;
}
