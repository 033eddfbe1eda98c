import { addIn, all, baseInvoice, broken, brokenInFile, readBack, set, setIn } from 'tests/einvoice';
import { wordRefusals } from '@/core/wording/refusals';
import { profileOf } from './check';
import { addTerm, type EInvoice, type Group, group, newGroup, plainModel, textOf } from './model';
import { readEInvoice, readEInvoiceText, writeEInvoice } from './syntax';
import { type GroupId, TERMS, type TermId } from './terms';
import { DEEPEST, LARGEST_FILE, MOST_ELEMENTS } from './xml/readXml';

/** A value of a term that is told from that of every other one. */
function sample(id: TermId): string {
  const number = id.slice(3);
  switch (TERMS.get(id)?.kind) {
    case 'date':
      return `2026-01-${String((Number(number) % 28) + 1).padStart(2, '0')}`;
    case 'amount':
    case 'price':
    case 'quantity':
    case 'percent':
      return `${number}.25`;
    default:
      return `text ${number}`;
  }
}

/** Terms whose text has a shape of its own. */
const SHAPED: Readonly<Partial<Record<TermId, string>>> = {
  'BT-3': '380',
  'BT-5': 'EUR',
  'BT-6': 'NOK',
  'BT-8': '432',
  'BT-21': 'AAI',
};
/** Terms with a scheme, a version or a name of a file. */
const SCHEMES: readonly TermId[] = [
  'BT-18',
  'BT-29',
  'BT-30',
  'BT-34',
  'BT-46',
  'BT-47',
  'BT-49',
  'BT-60',
  'BT-61',
  'BT-71',
  'BT-128',
  'BT-157',
  'BT-158',
];

function filled(id: GroupId, numbers: readonly number[], ...inner: readonly Group[]): Group {
  const made = newGroup(id);
  for (const number of numbers) {
    const term: TermId = `BT-${number}`;
    const scheme = SCHEMES.includes(term) ? '0088' : '';
    const version = term === 'BT-158' ? '19' : term === 'BT-125' ? 'application/pdf' : '';
    addTerm(made, term, {
      value: SHAPED[term] ?? sample(term),
      scheme,
      version,
      fileName: term === 'BT-125' ? 'a.pdf' : '',
    });
  }
  return group(id, made.terms as never, inner);
}

const upTo = (from: number, until: number) => Array.from({ length: until - from + 1 }, (_, i) => from + i);

/** An e-invoice in which every term of the standard says something. */
function wholeInvoice(): EInvoice {
  const line = filled(
    'BG-25',
    [...upTo(126, 133), ...upTo(146, 159)],
    filled('BG-26', [134, 135]),
    filled('BG-27', upTo(136, 140)),
    filled('BG-28', upTo(141, 145)),
    filled('BG-32', [160, 161]),
    filled('BG-32', [160, 161]),
  );
  return filled(
    'ROOT',
    [1, 2, 3, 5, 6, 8, ...upTo(9, 20), 23, 24, 70, 71, 72, 83, 89, 90, ...upTo(106, 115)],
    filled('BG-1', [21, 22]),
    filled('BG-3', [25, 26]),
    filled('BG-3', [25, 26]),
    filled('BG-4', [...upTo(27, 34), 41, 42, 43], filled('BG-5', [...upTo(35, 40), 162])),
    filled('BG-7', [...upTo(44, 49), 56, 57, 58], filled('BG-8', [...upTo(50, 55), 163])),
    filled('BG-10', [59, 60, 61]),
    filled('BG-11', [62, 63], filled('BG-12', [...upTo(64, 69), 164])),
    filled('BG-14', [73, 74]),
    filled('BG-15', [...upTo(75, 80), 165]),
    filled('BG-16', [81, 82, 91], filled('BG-17', [84, 85, 86]), filled('BG-18', [87, 88])),
    filled('BG-20', upTo(92, 98)),
    filled('BG-21', upTo(99, 105)),
    filled('BG-23', upTo(116, 121)),
    filled('BG-24', upTo(122, 125)),
    line,
    line,
  );
}

const plain = (invoice: EInvoice) => JSON.stringify(plainModel(invoice));
const through = (invoice: EInvoice, ...syntaxes: readonly ('ubl' | 'cii')[]): EInvoice =>
  syntaxes.reduce((now, syntax) => readBack(writeEInvoice(now, syntax)).invoice, invoice);

describe('every term of the standard', () => {
  const whole = wholeInvoice();
  test('stands in the test invoice, but for the tax point as a date', () => {
    const found = new Set<string>(JSON.stringify(plainModel(whole)).match(/BT-\d+/g));
    expect([...TERMS.keys()].filter((id) => !found.has(id))).toEqual(['BT-7']);
  });
  test.each([
    ['an invoice', whole],
    ['a credit note', set({ 'BT-3': '381' })(whole)],
    ['an invoice with its tax point as a date', set({ 'BT-8': '', 'BT-7': '2026-01-09' })(whole)],
    [
      'an account that is no IBAN, an identifier without a scheme',
      all(setIn(['BG-16', 'BG-17'], { 'BT-84': 'acc 1' }), setIn(['BG-4'], { 'BT-29': 'own' }))(whole),
    ],
    ['a sales order without an order', set({ 'BT-13': '' })(whole)],
    [
      'a tax point code without a period',
      (({ groups, ...rest }) => ({ ...rest, groups: { ...groups, 'BG-14': [] } }))(whole),
    ],
  ])('comes back from UBL, from CII and from one through the other: %s', (_, invoice) => {
    expect(plain(through(invoice, 'ubl'))).toBe(plain(invoice));
    expect(plain(through(invoice, 'cii'))).toBe(plain(invoice));
    expect(plain(through(invoice, 'ubl', 'cii', 'ubl'))).toBe(plain(invoice));
  });
  test('is written in the order of the schemas, with no element unknown', () => {
    for (const syntax of ['ubl', 'cii'] as const)
      expect(readBack(writeEInvoice(whole, syntax)).unknown.map(({ name }) => name)).toEqual([]);
    const xml = writeEInvoice(whole, 'ubl');
    const places = [
      'ID',
      'IssueDate',
      'DueDate',
      'InvoiceTypeCode',
      'Note',
      'DocumentCurrencyCode',
      'TaxCurrencyCode',
      'AccountingCost',
      'BuyerReference',
    ].map((name) => xml.indexOf(`<cbc:${name}>`));
    expect(places).toEqual([...places].sort((a, b) => a - b));
  });
  test('that a reader does not know is named, not lost in silence', () => {
    const xml = writeEInvoice(baseInvoice(), 'ubl').replace('<cbc:BuyerReference>', '<cbc:UUID>1</cbc:UUID>$&');
    expect(readBack(xml).unknown.map(({ name, line }) => [name, line > 1])).toEqual([['cbc:UUID', true]]);
    expect(brokenInFile(baseInvoice(), 'ubl', () => xml)).toEqual(['FORMAT-UNKNOWN']);
  });
});

describe('figures of the open specifications', () => {
  test('seven at 400.00 less three at 500.00 and a charge of 25.00 at 25 % are 1,325.00, 331.25 and 1,656.25', () => {
    const rate = { 'BT-151': 'S', 'BT-152': '25' };
    const base = baseInvoice();
    const line = (id: string, quantity: string, price: string, net: string) =>
      group('BG-25', {
        'BT-126': id,
        'BT-129': quantity,
        'BT-130': 'DAY',
        'BT-131': net,
        'BT-146': price,
        'BT-153': 'item',
        ...rate,
      });
    const invoice: EInvoice = {
      ...set({
        'BT-106': '1300',
        'BT-108': '25',
        'BT-109': '1325',
        'BT-110': '331.25',
        'BT-112': '1656.25',
        'BT-115': '1656.25',
      })(base),
    };
    invoice.groups['BG-25'] = [line('1', '7', '400', '2800'), line('2', '-3', '500', '-1500')];
    invoice.groups['BG-21'] = [group('BG-21', { 'BT-99': '25', 'BT-102': 'S', 'BT-103': '25', 'BT-104': 'Insurance' })];
    invoice.groups['BG-23'] = [group('BG-23', { 'BT-116': '1325', 'BT-117': '331.25', 'BT-118': 'S', 'BT-119': '25' })];
    expect(broken(invoice)).toEqual([]);
    expect(broken(set({ 'BT-112': '1656.26' })(invoice))).toEqual(['BR-CO-15', 'BR-CO-16']);
  });
});

describe('text', () => {
  test('is escaped, and freed of what XML has no place for', () => {
    const invoice = setIn(['BG-25'], { 'BT-153': '<b> & "c" \u0000\u0008]]>' })(baseInvoice());
    for (const syntax of ['ubl', 'cii'] as const)
      expect(textOf(through(invoice, syntax).groups['BG-25']?.[0] as Group, 'BT-153')).toBe('<b> & "c" ]]>');
  });
  test('of a note keeps its subject', () => {
    const noted = addIn([], group('BG-1', { 'BT-21': 'AAI', 'BT-22': 'on two\nlines' }))(baseInvoice());
    expect(writeEInvoice(noted, 'ubl')).toContain('<cbc:Note>#AAI#on two\nlines</cbc:Note>');
  });
  test('in any encoding that it names is read', () => {
    const xml = writeEInvoice(setIn(['BG-7'], { 'BT-44': 'Træna Sjømat Müller' })(baseInvoice()), 'ubl');
    const latin = Buffer.from(xml.replace('UTF-8', 'ISO-8859-1'), 'latin1');
    const wide = Buffer.from(`\ufeff${xml.replace('UTF-8', 'UTF-16')}`, 'utf16le');
    for (const bytes of [latin, wide, Buffer.from(`\ufeff${xml}`)]) {
      const read = readEInvoice(bytes);
      expect(read.ok && textOf(read.value.invoice.groups['BG-7']?.[0] as Group, 'BT-44')).toBe('Træna Sjømat Müller');
    }
  });
});

describe('a file from a stranger', () => {
  const why = (text: string) => {
    const read = readEInvoiceText(text);
    return read.ok ? 'read' : wordRefusals(read.refusals);
  };
  const xml = writeEInvoice(baseInvoice(), 'ubl');
  test.each<[string, string, RegExp]>([
    ['no XML', 'Dear customer,', /not well-formed/],
    ['nothing', '', /not well-formed|empty/],
    ['cut off', xml.slice(0, 900), /not well-formed/],
    ['another root', '<Order xmlns="urn:oasis:names:specification:ubl:schema:xsd:Order-2"/>', /no e-invoice/],
    ['no namespace', '<Invoice/>', /no e-invoice/],
    ['a DTD', xml.replace('?>', '?><!DOCTYPE Invoice>'), /DTD/],
    ['an entity bomb', xml.replace('?>', '?><!DOCTYPE Invoice [<!ENTITY a "b"><!ENTITY c "&a;&a;">]>'), /DTD/],
    ['an unknown entity', xml.replace('INV-1', '&lol;'), /not well-formed/],
    ['deep nesting', `${'<a>'.repeat(100_000)}${'</a>'.repeat(100_000)}`, new RegExp(`deeper than ${DEEPEST}`)],
    ['too many elements', `<a>${'<b/>'.repeat(MOST_ELEMENTS)}</a>`, /more than/],
    ['an unbound prefix', '<x:Invoice/>', /not well-formed/],
    ['two roots', '<a/><b/>', /not well-formed/],
  ])('with %s is refused with the reason', (_, text, reason) => {
    expect(why(text)).toMatch(reason);
  });
  test('that is too large or in broken encoding is refused', () => {
    const large = readEInvoice(new Uint8Array(LARGEST_FILE + 1));
    const torn = readEInvoice(Buffer.from(xml.replace('INV-1', '\u00fc'), 'latin1'));
    const strange = readEInvoice(Buffer.from(xml.replace('UTF-8', 'KLINGON-8')));
    expect([large, torn, strange].map((read) => (read.ok ? '' : wordRefusals(read.refusals)))).toEqual([
      'The file is larger than 20 MB.',
      'The text of the file is not in the encoding it names (UTF-8).',
      'The text of the file is not in the encoding it names (KLINGON-8).',
    ]);
  });
  test.each<[string, Partial<Record<TermId, string>>, string]>([
    ['a number that is none', { 'BT-131': 'NaN' }, 'FORMAT-NUMBER'],
    ['an endless number', { 'BT-146': '9'.repeat(5000) }, 'FORMAT-NUMBER'],
    ['an exponent', { 'BT-129': '1e3' }, 'FORMAT-NUMBER'],
    ['an impossible day', {}, 'FORMAT-DATE'],
  ])('with %s is found', (_, terms, rule) => {
    const base =
      Object.keys(terms).length === 0
        ? set({ 'BT-2': '2026-13-41' })(baseInvoice())
        : setIn(['BG-25'], terms)(baseInvoice());
    for (const syntax of ['ubl', 'cii'] as const) expect(brokenInFile(base, syntax)).toContain(rule);
  });
  test('of very many lines is written again in the other syntax', () => {
    const many = baseInvoice();
    many.groups['BG-25'] = Array.from({ length: 150_000 }, (_, i) => group('BG-25', { 'BT-126': String(i) }));
    expect(writeEInvoice(many, 'cii').match(/<ram:LineID>/g)).toHaveLength(150_000);
  });
  test('says which profile it keeps', () => {
    expect(profileOf(baseInvoice())).toBe('peppol');
    expect(profileOf(set({ 'BT-24': 'urn:cen.eu:en16931:2017' })(baseInvoice()))).toBe('en16931');
  });
});
