import { readFileSync } from 'node:fs';
import {
  addIn,
  all,
  baseInvoice,
  broken,
  brokenInFile,
  type Case,
  type Change,
  dropIn,
  STANDARD,
  set,
  setIn,
} from 'tests/einvoice';
import { ruleTable } from 'tests/ruleTable';
import { checkEInvoice, checkFile, RULES } from './check';
import { ALL_LISTS } from './codes';
import { group } from './model';
import { readEInvoiceText, writeEInvoice } from './syntax';
import type { GroupId, TermId } from './terms';

/* Each rule with one change to a small valid invoice that breaks it. The unchanged base is its passing example. */

const line: readonly GroupId[] = ['BG-25'];
const row: readonly GroupId[] = ['BG-23'];
const representative = (terms: Partial<Record<TermId, string>> = {}, country = 'IE') =>
  group('BG-11', { 'BT-62': 'Agent', 'BT-63': 'IE1', ...terms }, [
    group('BG-12', { 'BT-66': 'Galway', 'BT-69': country }),
  ]);
const allowance = (terms: Partial<Record<TermId, string>> = {}) =>
  group('BG-20', { 'BT-92': '10.00', 'BT-95': 'S', 'BT-96': '23', 'BT-97': 'Discount', ...terms });
const charge = (terms: Partial<Record<TermId, string>> = {}) =>
  group('BG-21', { 'BT-99': '10.00', 'BT-102': 'S', 'BT-103': '23', 'BT-104': 'Freight', ...terms });
const less = (terms: Partial<Record<TermId, string>> = {}) =>
  group('BG-27', { 'BT-136': '0', 'BT-139': 'Discount', ...terms });
const more = (terms: Partial<Record<TermId, string>> = {}) =>
  group('BG-28', { 'BT-141': '0', 'BT-144': 'Surcharge', ...terms });
const withAllowance = (terms: Partial<Record<TermId, string>>): Change => addIn([], allowance(terms));
const withCharge = (terms: Partial<Record<TermId, string>>): Change => addIn([], charge(terms));
const period = (from: string, until: string) => addIn([], group('BG-14', { 'BT-73': from, 'BT-74': until }));
const linePeriod = (from: string, until: string) => addIn(line, group('BG-26', { 'BT-134': from, 'BT-135': until }));
const file = (terms: Parameters<typeof group>[1]) => addIn([], group('BG-24', { 'BT-122': 'x', ...terms }));
const exempt = { 'BT-120': 'Exempt' };

const BREAKS: readonly (readonly [string, Change])[] = [
  ['FORMAT-NUMBER', setIn(line, { 'BT-131': 'NaN' })],
  ['FORMAT-DATE', set({ 'BT-2': '2026-02-30' })],
  [
    'FORMAT-ONCE',
    (base) => ({
      ...base,
      terms: { ...base.terms, 'BT-1': [...(base.terms['BT-1'] ?? []), ...(base.terms['BT-1'] ?? [])] },
    }),
  ],
  ['BR-01', set({ 'BT-24': '' })],
  ['BR-02', set({ 'BT-1': '' })],
  ['BR-03', set({ 'BT-2': '' })],
  ['BR-04', set({ 'BT-3': '' })],
  ['BR-05', set({ 'BT-5': '' })],
  ['BR-06', setIn(['BG-4'], { 'BT-27': '' })],
  ['BR-07', setIn(['BG-7'], { 'BT-44': '' })],
  ['BR-08', dropIn(['BG-4'], 'BG-5')],
  ['BR-09', setIn(['BG-4', 'BG-5'], { 'BT-40': '' })],
  ['BR-10', dropIn(['BG-7'], 'BG-8')],
  ['BR-11', setIn(['BG-7', 'BG-8'], { 'BT-55': '' })],
  ['BR-12', set({ 'BT-106': '' })],
  ['BR-13', set({ 'BT-109': '' })],
  ['BR-14', set({ 'BT-112': '' })],
  ['BR-15', set({ 'BT-115': '' })],
  ['BR-16', dropIn([], 'BG-25')],
  ['BR-17', addIn([], group('BG-10', { 'BT-60': '7' }))],
  ['BR-17', addIn([], group('BG-10', { 'BT-59': 'Corran Point Instruments Ltd (sample)' }))],
  ['BR-18', addIn([], representative({ 'BT-62': '' }))],
  ['BR-19', addIn([], group('BG-11', { 'BT-62': 'Agent', 'BT-63': 'IE1' }))],
  ['BR-20', addIn([], representative({}, ''))],
  ['BR-21', setIn(line, { 'BT-126': '' })],
  ['BR-22', setIn(line, { 'BT-129': '' })],
  ['BR-23', setIn(line, { 'BT-130': '' })],
  ['BR-24', setIn(line, { 'BT-131': '' })],
  ['BR-25', setIn(line, { 'BT-153': '' })],
  ['BR-26', setIn(line, { 'BT-146': '' })],
  ['BR-27', setIn(line, { 'BT-146': '-50', 'BT-129': '-2' })],
  ['BR-28', setIn(line, { 'BT-148': '-1' })],
  ['BR-29', period('2026-01-31', '2026-01-01')],
  ['BR-30', linePeriod('2026-01-31', '2026-01-01')],
  ['BR-31', withAllowance({ 'BT-92': '' })],
  ['BR-32', withAllowance({ 'BT-95': '' })],
  ['BR-33', withAllowance({ 'BT-97': '' })],
  ['BR-36', withCharge({ 'BT-99': '' })],
  ['BR-37', withCharge({ 'BT-102': '' })],
  ['BR-38', withCharge({ 'BT-104': '' })],
  ['BR-41', addIn(line, less({ 'BT-136': '' }))],
  ['BR-42', addIn(line, less({ 'BT-139': '' }))],
  ['BR-43', addIn(line, more({ 'BT-141': '' }))],
  ['BR-44', addIn(line, more({ 'BT-144': '' }))],
  ['BR-45', setIn(row, { 'BT-116': '' })],
  ['BR-46', setIn(row, { 'BT-117': '' })],
  ['BR-47', setIn(row, { 'BT-118': '' })],
  ['BR-48', setIn(row, { 'BT-119': '' })],
  ['BR-49', setIn(['BG-16'], { 'BT-81': '' })],
  ['BR-50', setIn(['BG-16', 'BG-17'], { 'BT-84': '', 'BT-85': 'Us' })],
  ['BR-51', addIn(['BG-16'], group('BG-18', { 'BT-87': '4000123412341234' }))],
  ['BR-52', file({ 'BT-122': '', 'BT-123': 'Report' })],
  ['BR-53', set({ 'BT-6': 'NOK' })],
  ['BR-54', addIn(line, group('BG-32', { 'BT-160': 'Colour' }))],
  ['BR-55', addIn([], group('BG-3', { 'BT-26': '2026-01-01' }))],
  ['BR-56', addIn([], representative({ 'BT-63': '' }))],
  ['BR-57', setIn(['BG-15'], { 'BT-80': '' })],
  ['BR-61', dropIn(['BG-16'], 'BG-17')],
  ['BR-62', setIn(['BG-4'], { 'BT-34': 'IE7654321G' })],
  ['BR-63', setIn(['BG-7'], { 'BT-49': 'DE812345673' })],
  ['BR-64', setIn(line, { 'BT-157': '1234' })],
  ['BR-65', setIn(line, { 'BT-158': '1234' })],
  ['BR-CO-03', set({ 'BT-7': '2026-01-10', 'BT-8': '35' })],
  ['BR-CO-04', setIn(line, { 'BT-151': '' })],
  ['BR-CO-09', setIn(['BG-4'], { 'BT-31': '7654321G' })],
  ['BR-CO-09', setIn(['BG-7'], { 'BT-48': '812345673' })],
  ['BR-CO-09', addIn([], representative({ 'BT-63': '1' }))],
  ['BR-CO-10', set({ 'BT-106': '100.01' })],
  ['BR-CO-11', set({ 'BT-107': '5.00' })],
  ['BR-CO-12', set({ 'BT-108': '5.00' })],
  ['BR-CO-13', set({ 'BT-109': '99.99' })],
  ['BR-CO-14', set({ 'BT-110': '22.99' })],
  ['BR-CO-15', set({ 'BT-112': '123.01' })],
  ['BR-CO-16', set({ 'BT-115': '122.00' })],
  ['BR-CO-16', set({ 'BT-113': '1.00' })],
  ['BR-CO-17', setIn(row, { 'BT-117': '24.00' })],
  ['BR-CO-18', dropIn([], 'BG-23')],
  ['BR-CO-19', addIn([], group('BG-14', {}))],
  ['BR-CO-20', addIn(line, group('BG-26', {}))],
  ['BR-CO-21', withAllowance({ 'BT-97': '' })],
  ['BR-CO-22', withCharge({ 'BT-104': '' })],
  ['BR-CO-23', addIn(line, less({ 'BT-139': '' }))],
  ['BR-CO-24', addIn(line, more({ 'BT-144': '' }))],
  ['BR-CO-25', set({ 'BT-9': '' })],
  ['BR-CO-26', setIn(['BG-4'], { 'BT-30': '', 'BT-31': '', 'BT-32': '1' })],
  ['BR-DEC-01', withAllowance({ 'BT-92': '10.001' })],
  ['BR-DEC-02', withAllowance({ 'BT-93': '10.001' })],
  ['BR-DEC-05', withCharge({ 'BT-99': '10.001' })],
  ['BR-DEC-06', withCharge({ 'BT-100': '10.001' })],
  ['BR-DEC-09', set({ 'BT-106': '100.001' })],
  ['BR-DEC-10', set({ 'BT-107': '0.001' })],
  ['BR-DEC-11', set({ 'BT-108': '0.001' })],
  ['BR-DEC-12', set({ 'BT-109': '100.001' })],
  ['BR-DEC-13', set({ 'BT-110': '23.001' })],
  ['BR-DEC-14', set({ 'BT-112': '123.001' })],
  ['BR-DEC-15', set({ 'BT-6': 'NOK', 'BT-111': '265.001' })],
  ['BR-DEC-16', set({ 'BT-113': '0.001' })],
  ['BR-DEC-17', set({ 'BT-114': '0.001' })],
  ['BR-DEC-18', set({ 'BT-115': '123.001' })],
  ['BR-DEC-19', setIn(row, { 'BT-116': '100.001' })],
  ['BR-DEC-20', setIn(row, { 'BT-117': '23.001' })],
  ['BR-DEC-23', setIn(line, { 'BT-131': '100.001' })],
  ['BR-DEC-24', addIn(line, less({ 'BT-136': '0.001' }))],
  ['BR-DEC-25', addIn(line, less({ 'BT-137': '0.001' }))],
  ['BR-DEC-27', addIn(line, more({ 'BT-141': '0.001' }))],
  ['BR-DEC-28', addIn(line, more({ 'BT-142': '0.001' }))],
  ['BR-CL-01', set({ 'BT-3': '999' })],
  ['BR-CL-04', set({ 'BT-5': 'EUX' })],
  ['BR-CL-05', set({ 'BT-6': 'EUX' })],
  ['BR-CL-06', set({ 'BT-8': '99' })],
  ['BR-CL-07', set({ 'BT-18': { value: 'x', scheme: '99999' } })],
  ['BR-CL-10', setIn(['BG-4'], { 'BT-29': { value: 'x', scheme: '9999' } })],
  ['BR-CL-11', setIn(['BG-4'], { 'BT-30': { value: 'x', scheme: '9999' } })],
  ['BR-CL-13', setIn(line, { 'BT-158': { value: 'x', scheme: '12345' } })],
  ['BR-CL-14', setIn(['BG-4', 'BG-5'], { 'BT-40': 'QQ' })],
  ['BR-CL-15', setIn(line, { 'BT-159': 'QQ' })],
  ['BR-CL-16', setIn(['BG-16'], { 'BT-81': '999' })],
  ['BR-CL-17', setIn(row, { 'BT-118': 'X' })],
  ['BR-CL-18', setIn(line, { 'BT-151': 'X' })],
  ['BR-CL-19', withAllowance({ 'BT-98': '999' })],
  ['BR-CL-20', withCharge({ 'BT-105': '999' })],
  ['BR-CL-21', setIn(line, { 'BT-157': { value: 'x', scheme: '9999' } })],
  ['BR-CL-22', setIn(row, { 'BT-121': 'VATEX-EU-NO' })],
  ['BR-CL-23', setIn(line, { 'BT-130': 'PIECES' })],
  ['BR-CL-24', file({ 'BT-125': { value: 'eA==', version: 'text/html' } })],
  ['BR-CL-25', setIn(['BG-7'], { 'BT-49': { value: 'x', scheme: '1234' } })],
  ['BR-CL-26', set({ 'BT-71': { value: 'x', scheme: '9999' } })],
  ['BR-O-12', all(addIn([], group('BG-23', { 'BT-116': '0', 'BT-117': '0', 'BT-118': 'O', ...exempt })))],
  ['BR-O-13', all(addIn([], group('BG-23', { 'BT-118': 'O' })), withAllowance({}))],
  ['BR-O-14', all(addIn([], group('BG-23', { 'BT-118': 'O' })), withCharge({}))],
  ['BR-O-11', addIn([], group('BG-23', { 'BT-118': 'O' }))],
  ['PEPPOL-EN16931-R001', set({ 'BT-23': '' })],
  ['PEPPOL-EN16931-R002', all(addIn([], group('BG-1', { 'BT-22': 'a' })), addIn([], group('BG-1', { 'BT-22': 'b' })))],
  ['PEPPOL-EN16931-R003', set({ 'BT-10': '' })],
  ['PEPPOL-EN16931-R004', set({ 'BT-24': 'urn:cen.eu:en16931:2017' })],
  ['PEPPOL-EN16931-R005', set({ 'BT-6': 'EUR', 'BT-111': '23.00' })],
  ['PEPPOL-EN16931-R007', set({ 'BT-23': 'billing' })],
  ['PEPPOL-EN16931-R010', setIn(['BG-7'], { 'BT-49': '' })],
  ['PEPPOL-EN16931-R020', setIn(['BG-4'], { 'BT-34': '' })],
  ['PEPPOL-EN16931-R040', withAllowance({ 'BT-93': '200.00', 'BT-94': '10' })],
  ['PEPPOL-EN16931-R041', withAllowance({ 'BT-94': '10' })],
  ['PEPPOL-EN16931-R042', withCharge({ 'BT-100': '100.00' })],
  ['PEPPOL-EN16931-R046', setIn(line, { 'BT-148': '60', 'BT-147': '5' })],
  ['PEPPOL-EN16931-R055', set({ 'BT-6': 'NOK', 'BT-111': '-265.00' })],
  ['PEPPOL-EN16931-R061', setIn(['BG-16'], { 'BT-81': '59' })],
  ['PEPPOL-EN16931-R110', all(period('2026-01-01', '2026-01-31'), linePeriod('2025-12-31', '2026-01-31'))],
  ['PEPPOL-EN16931-R111', all(period('2026-01-01', '2026-01-31'), linePeriod('2026-01-01', '2026-02-01'))],
  ['PEPPOL-EN16931-R120', setIn(line, { 'BT-146': '49' })],
  ['PEPPOL-EN16931-R121', setIn(line, { 'BT-149': '0', 'BT-150': 'C62' })],
  ['PEPPOL-EN16931-R130', setIn(line, { 'BT-149': '1', 'BT-150': 'HUR' })],
  ['PEPPOL-EN16931-CL001', file({ 'BT-125': { value: 'eA==', version: 'text/html' } })],
  ['PEPPOL-EN16931-CL002', withAllowance({ 'BT-98': '999' })],
  ['PEPPOL-EN16931-CL003', withCharge({ 'BT-105': '999' })],
  ['PEPPOL-EN16931-CL006', set({ 'BT-8': '99' })],
  ['PEPPOL-EN16931-CL007', set({ 'BT-5': 'EUX' })],
  ['PEPPOL-EN16931-CL008', setIn(['BG-4'], { 'BT-34': { value: 'x', scheme: '1234' } })],
  ['PEPPOL-EN16931-P0100', set({ 'BT-3': '130' })],
  ['PEPPOL-EN16931-P0101', set({ 'BT-3': '261' })],
  ['PEPPOL-EN16931-P0112', set({ 'BT-3': '384' })],
  // Each a digit beside a number that holds; see below for those.
  ['PEPPOL-COMMON-R040', setIn(['BG-7'], { 'BT-49': { value: '4012345000291', scheme: '0088' } })],
  ['PEPPOL-COMMON-R041', setIn(['BG-7'], { 'BT-49': { value: '123456786', scheme: '0192' } })],
  ['PEPPOL-COMMON-R042', setIn(['BG-7'], { 'BT-49': { value: '12345678', scheme: '0184' } })],
  ['PEPPOL-COMMON-R043', setIn(['BG-7'], { 'BT-49': { value: '0123456750', scheme: '0208' } })],
  ['PEPPOL-COMMON-R044', setIn(['BG-7'], { 'BT-49': { value: 'UFABC', scheme: '0201' } })],
  ['PEPPOL-COMMON-R045', setIn(['BG-7'], { 'BT-49': { value: 'RSSMRA70A01H501T', scheme: '0210' } })],
  ['PEPPOL-COMMON-R046', setIn(['BG-7'], { 'BT-46': { value: '00743110158', scheme: '9907' } })],
  ['PEPPOL-COMMON-R047', setIn(['BG-7'], { 'BT-49': { value: 'IT00743110158', scheme: '0211' } })],
  ['PEPPOL-COMMON-R049', setIn(['BG-4'], { 'BT-30': { value: '5560360794', scheme: '0007' } })],
  ['PEPPOL-COMMON-R050', setIn(['BG-7'], { 'BT-49': { value: '51824753557', scheme: '0151' } })],
];

/** Rules that only a file can break: what to do to the text of the base. */
const IN_FILE: readonly (readonly [string, Change, (xml: string) => string])[] = [
  ['BR-CL-03', set({}), (xml) => xml.replace('currencyID="EUR">50', 'currencyID="EUX">50')],
  [
    'PEPPOL-EN16931-R006',
    set({}),
    (xml) =>
      xml.replace(
        '<cac:AccountingSupplierParty>',
        `${'<cac:AdditionalDocumentReference><cbc:ID>7</cbc:ID><cbc:DocumentTypeCode>130</cbc:DocumentTypeCode></cac:AdditionalDocumentReference>'.repeat(2)}$&`,
      ),
  ],
  ['PEPPOL-EN16931-R008', set({}), (xml) => xml.replace('<cbc:BuyerReference>', '<cbc:AccountingCost/>$&')],
  [
    'PEPPOL-EN16931-R043',
    withCharge({}),
    (xml) => xml.replace('<cbc:ChargeIndicator>true', '<cbc:ChargeIndicator>yes'),
  ],
  [
    'PEPPOL-EN16931-R044',
    setIn(line, { 'BT-148': '50', 'BT-147': '0' }),
    (xml) => xml.replace(/(<cac:Price>[\s\S]*?<cbc:ChargeIndicator>)false/, '$1true'),
  ],
  ['PEPPOL-EN16931-R051', set({}), (xml) => xml.replace('currencyID="EUR">50', 'currencyID="USD">50')],
  ['PEPPOL-EN16931-R053', set({}), (xml) => xml.replace(/<cac:TaxTotal>[\s\S]*<\/cac:TaxTotal>/, '$&$&')],
  [
    'PEPPOL-EN16931-R054',
    set({}),
    (xml) =>
      xml.replace(
        /<cac:LegalMonetaryTotal>/,
        '<cac:TaxTotal><cbc:TaxAmount currencyID="EUR">1.00</cbc:TaxAmount></cac:TaxTotal>$&',
      ),
  ],
  [
    'PEPPOL-EN16931-R080',
    set({}),
    (xml) =>
      xml.replace(
        '<cac:AccountingSupplierParty>',
        `${'<cac:ProjectReference><cbc:ID>7</cbc:ID></cac:ProjectReference>'.repeat(2)}$&`,
      ),
  ],
  [
    'PEPPOL-EN16931-R100',
    set({}),
    (xml) =>
      xml.replace(
        '<cac:Item>',
        `${'<cac:DocumentReference><cbc:ID>7</cbc:ID><cbc:DocumentTypeCode>130</cbc:DocumentTypeCode></cac:DocumentReference>'.repeat(2)}$&`,
      ),
  ],
  [
    'PEPPOL-EN16931-R101',
    set({}),
    (xml) => xml.replace('<cac:Item>', '<cac:DocumentReference><cbc:ID>7</cbc:ID></cac:DocumentReference>$&'),
  ],
  ['PEPPOL-EN16931-F001', set({}), (xml) => xml.replace('<cbc:IssueDate>2026-01-15', '<cbc:IssueDate>15.01.2026')],
];

const REASON = { 'BT-120': 'As the law says' };
const CASES: Readonly<Record<string, Case>> = {
  S: STANDARD,
  Z: { category: 'Z', rate: '0', tax: '0.00', reason: {} },
  E: { category: 'E', rate: '0', tax: '0.00', reason: REASON },
  AE: { category: 'AE', rate: '0', tax: '0.00', reason: { 'BT-121': 'VATEX-EU-AE' } },
  IC: { category: 'K', rate: '0', tax: '0.00', reason: { 'BT-121': 'VATEX-EU-IC' } },
  G: { category: 'G', rate: '0', tax: '0.00', reason: { 'BT-121': 'VATEX-EU-G' } },
  O: { category: 'O', rate: '', tax: '0.00', reason: { 'BT-121': 'VATEX-EU-O' } },
  IG: { category: 'L', rate: '7', tax: '7.00', reason: {} },
  IP: { category: 'M', rate: '4', tax: '4.00', reason: {} },
};

/** The base as a German public-sector invoice. */
const german: Change = all(
  set({ 'BT-24': 'urn:cen.eu:en16931:2017#compliant#urn:xeinkauf.de:kosit:xrechnung_3.0' }),
  setIn(['BG-4'], { 'BT-41': 'Aoife', 'BT-42': '+353 91 000 000', 'BT-43': 'accounts@corranpoint.example' }),
  setIn(['BG-4', 'BG-5'], { 'BT-38': 'H91 X0X0' }),
  setIn(['BG-7', 'BG-8'], { 'BT-53': '27568' }),
  setIn(['BG-15'], { 'BT-78': '27568' }),
);
const GERMAN_BREAKS: readonly (readonly [string, Change])[] = [
  ['BR-DE-1', dropIn([], 'BG-16')],
  ['BR-DE-3', setIn(['BG-4', 'BG-5'], { 'BT-37': '' })],
  ['BR-DE-4', setIn(['BG-4', 'BG-5'], { 'BT-38': '' })],
  ['BR-DE-5', setIn(['BG-4'], { 'BT-41': '' })],
  ['BR-DE-6', setIn(['BG-4'], { 'BT-42': '' })],
  ['BR-DE-7', setIn(['BG-4'], { 'BT-43': '' })],
  ['BR-DE-8', setIn(['BG-7', 'BG-8'], { 'BT-52': '' })],
  ['BR-DE-9', setIn(['BG-7', 'BG-8'], { 'BT-53': '' })],
  ['BR-DE-10', setIn(['BG-15'], { 'BT-77': '' })],
  ['BR-DE-11', setIn(['BG-15'], { 'BT-78': '' })],
  ['BR-DE-15', set({ 'BT-10': '' })],
];

/** The changes that break the rules of one family, from the base in its category. */
function familyBreaks(family: string, { category, rate, tax }: Case): readonly (readonly [string, Change])[] {
  const outside = category === 'O';
  const parties: Change = outside ? setIn(['BG-4'], { 'BT-31': 'IE7654321G' }) : setIn(['BG-4'], { 'BT-31': '' });
  const taxed = outside || ['Z', 'E', 'AE', 'K', 'G'].includes(category) ? '5' : category === 'S' ? '0' : '-1';
  const own = { 'BT-95': category, 'BT-96': rate };
  const ownCharge = { 'BT-102': category, 'BT-103': rate };
  const silent = ['S', 'Z', 'L', 'M'].includes(category);
  return [
    [`BR-${family}-01`, dropIn([], 'BG-23')],
    [`BR-${family}-02`, parties],
    [`BR-${family}-03`, all(parties, withAllowance(own))],
    [`BR-${family}-04`, all(parties, withCharge(ownCharge))],
    [`BR-${family}-05`, setIn(line, { 'BT-152': taxed })],
    [`BR-${family}-06`, withAllowance({ ...own, 'BT-96': taxed })],
    [`BR-${family}-07`, withCharge({ ...ownCharge, 'BT-103': taxed })],
    [`BR-${family}-08`, setIn(row, { 'BT-116': '90.00' })],
    [`BR-${family}-09`, setIn(row, { 'BT-117': String(Number(tax) + 2) })],
    [`BR-${family}-10`, setIn(row, silent ? REASON : { 'BT-120': '', 'BT-121': '' })],
  ];
}

const FAMILY_BREAKS = Object.entries(CASES).flatMap(([family, how]) =>
  familyBreaks(family, how).map(([rule, change]) => [rule, change, how] as const),
);
const MORE_BREAKS: readonly (readonly [string, Change, Case])[] = [
  ['BR-IC-11', set({ 'BT-72': '' }), CASES.IC as Case],
  ['BR-IC-12', dropIn([], 'BG-15'), CASES.IC as Case],
  ['BR-AE-02', setIn(['BG-7'], { 'BT-48': '' }), CASES.AE as Case],
  ['BR-IC-02', setIn(['BG-7'], { 'BT-48': '' }), CASES.IC as Case],
  ['PEPPOL-EN16931-P0104', setIn(row, { 'BT-121': 'VATEX-EU-O' }), CASES.G as Case],
  ['PEPPOL-EN16931-P0105', setIn(row, { 'BT-121': 'VATEX-EU-G' }), CASES.O as Case],
  ['PEPPOL-EN16931-P0106', setIn(row, { 'BT-121': 'VATEX-EU-G' }), CASES.IC as Case],
  ['PEPPOL-EN16931-P0107', setIn(row, { 'BT-121': 'VATEX-EU-G' }), CASES.AE as Case],
  ['PEPPOL-EN16931-P0108', setIn(row, { 'BT-121': 'VATEX-EU-D' }), CASES.G as Case],
  ['PEPPOL-EN16931-P0109', setIn(row, { 'BT-121': 'VATEX-EU-F' }), CASES.G as Case],
  ['PEPPOL-EN16931-P0110', setIn(row, { 'BT-121': 'VATEX-EU-I' }), CASES.G as Case],
  ['PEPPOL-EN16931-P0111', setIn(row, { 'BT-121': 'VATEX-EU-J' }), CASES.G as Case],
];

describe('a small valid invoice', () => {
  test.each(Object.entries(CASES))('of category %s keeps every rule, as a model and as a file', (_, how) => {
    const base = baseInvoice(how);
    expect(broken(base)).toEqual([]);
    expect(brokenInFile(base, 'ubl')).toEqual([]);
    expect(brokenInFile(base, 'cii')).toEqual([]);
  });
});

describe('one change', () => {
  test.each(BREAKS)('breaks %s', (rule, change) => {
    expect(broken(change(baseInvoice()))).toContain(rule);
  });
  test.each([...FAMILY_BREAKS, ...MORE_BREAKS])('breaks %s', (rule, change, how) => {
    expect(broken(change(baseInvoice(how)))).toContain(rule);
  });
  test.each(IN_FILE)('of the file breaks %s', (rule, change, edit) => {
    expect(brokenInFile(change(baseInvoice()), 'ubl')).not.toContain(rule);
    expect(brokenInFile(change(baseInvoice()), 'ubl', edit)).toContain(rule);
  });
  test.each(GERMAN_BREAKS)('breaks %s of a flavour, which others are not asked', (rule, change) => {
    expect(broken(german(baseInvoice()), 'en16931')).toEqual([]);
    expect(broken(change(german(baseInvoice())), 'en16931')).toContain(rule);
    expect(broken(change(baseInvoice()), 'en16931')).not.toContain(rule);
  });
  test('is shown above for every rule there is', () => {
    const shown = new Set(
      [...GERMAN_BREAKS, ...BREAKS, ...FAMILY_BREAKS, ...MORE_BREAKS, ...IN_FILE].map(([rule]) => rule),
    );
    expect(RULES.map(({ id }) => id).filter((id) => !shown.has(id))).toEqual([]);
    expect(new Set(RULES.map(({ id }) => id)).size).toBe(RULES.length);
  });
});

describe('findings', () => {
  test('show the sum where the arithmetic is off', () => {
    const [found] = checkEInvoice(set({ 'BT-112': '124.00', 'BT-115': '124.00' })(baseInvoice()), 'en16931');
    expect(found?.message).toBe(
      'The Invoice total amount with VAT (BT-112) is 124.00, but 100.00 + 23.00 = 123.00: correct the total or its parts.',
    );
  });
  test('name the line and say how to mend it', () => {
    const [found] = checkEInvoice(setIn(line, { 'BT-153': '' })(baseInvoice()), 'en16931');
    expect(found).toMatchObject({ rule: 'BR-25', term: 'BT-153', line: 0, message: 'Enter the Item name (BT-153).' });
  });
  test('of the profile are left out where only the standard is asked for', () => {
    expect(broken(set({ 'BT-10': '' })(baseInvoice()), 'en16931')).toEqual([]);
  });
  test('of a rule with very many faults end', () => {
    const many = { ...baseInvoice() };
    many.groups = { ...many.groups, 'BG-25': Array.from({ length: 400 }, () => group('BG-25', { 'BT-126': '1' })) };
    const found = checkEInvoice(many, 'en16931').filter(({ rule }) => rule === 'BR-25');
    expect(found).toHaveLength(50);
  });
});

test('code lists have a name and an edition, and know their codes', () => {
  for (const list of ALL_LISTS) {
    expect(list.name.length + list.edition.length).toBeGreaterThan(8);
    expect(list.has('')).toBe(false);
    expect(list.has('no such code')).toBe(false);
  }
});

test('the table in the docs is what the definitions say; `npm run docs:rules` writes it', () => {
  expect(readFileSync('docs/e-invoice-rules.md', 'utf8')).toBe(ruleTable());
});

describe('identifiers of parties', () => {
  const rulesOn = (term: 'BT-49' | 'BT-46', scheme: string, value: string) =>
    checkEInvoice(setIn(['BG-7'], { [term]: { value, scheme } })(baseInvoice()), 'peppol')
      .map(({ rule }) => rule)
      .filter((rule) => rule.startsWith('PEPPOL-COMMON'));
  // Numbers whose check digits hold, worked by hand: 0123456749 is 97 − 1234567 mod 97 = 97 − 48.
  test.each([
    ['0088', '4012345000290'],
    ['0192', '123456785'],
    ['0184', 'DK12345678'],
    ['0208', '0123456749'],
    ['0201', 'UFABC1'],
    ['0210', 'RSSMRA70A01H501S'],
    ['9907', '00743110157'],
    ['0211', 'IT00123450009'],
    ['0007', '5560360793'],
    ['0151', '56000123455'],
    // A scheme without a rule says nothing.
    ['9930', 'anything'],
  ])('of scheme %s pass by their check digits: %s', (scheme, id) => expect(rulesOn('BT-49', scheme, id)).toEqual([]));
  test('are looked at wherever they stand', () => {
    expect(rulesOn('BT-46', '0088', '4012345000291')).toEqual(['PEPPOL-COMMON-R040']);
  });
});

describe('what the schema forbids', () => {
  const found = (syntax: 'ubl' | 'cii', edit: (xml: string) => string) => {
    const read = readEInvoiceText(edit(writeEInvoice(baseInvoice(), syntax)));
    if (!read.ok) throw new Error(JSON.stringify(read.refusals));
    return checkFile(read.value)
      .findings.filter(({ severity }) => severity === 'error')
      .map(({ rule, path }) => `${rule} ${path}`);
  };
  const twice = (pattern: RegExp) => (xml: string) => xml.replace(pattern, '$&$&');
  test.each<[string, 'ubl' | 'cii', (xml: string) => string, string]>([
    ['two ids', 'ubl', twice(/<cbc:ID>[^<]*<\/cbc:ID>/), 'FORMAT-ONCE /Invoice/cbc:ID[2]'],
    [
      'two sellers',
      'ubl',
      twice(/<cac:AccountingSupplierParty>[\s\S]*<\/cac:AccountingSupplierParty>/),
      'FORMAT-ONCE /Invoice/cac:AccountingSupplierParty[2]',
    ],
    [
      'two totals',
      'ubl',
      twice(/<cac:LegalMonetaryTotal>[\s\S]*<\/cac:LegalMonetaryTotal>/),
      'FORMAT-ONCE /Invoice/cac:LegalMonetaryTotal[2]/cbc:PayableAmount',
    ],
    ['two sellers', 'cii', twice(/<ram:SellerTradeParty>[\s\S]*<\/ram:SellerTradeParty>/), 'ram:SellerTradeParty[2]'],
    [
      'the date before the id',
      'ubl',
      (xml) => xml.replace(/(<cbc:ID>[^<]*<\/cbc:ID>)(\s*<cbc:IssueDate>[^<]*<\/cbc:IssueDate>)/, '$2$1'),
      'FORMAT-ORDER /Invoice/cbc:ID',
    ],
    [
      'the total before the breakdown',
      'ubl',
      (xml) =>
        xml.replace(
          /(<cac:TaxTotal>[\s\S]*<\/cac:TaxTotal>)(\s*<cac:LegalMonetaryTotal>[\s\S]*<\/cac:LegalMonetaryTotal>)/,
          '$2$1',
        ),
      'FORMAT-ORDER /Invoice/cac:TaxTotal',
    ],
    [
      'the type before the id',
      'cii',
      (xml) =>
        xml.replace(
          /(<rsm:ExchangedDocument>\s*)(<ram:ID>[^<]*<\/ram:ID>)(\s*<ram:TypeCode>[^<]*<\/ram:TypeCode>)/,
          '$1$3$2',
        ),
      'FORMAT-ORDER',
    ],
    [
      'an element of another namespace',
      'ubl',
      (xml) => xml.replace('<cac:AccountingSupplierParty>', '<x:Extra xmlns:x="urn:other">1</x:Extra>$&'),
      'FORMAT-UNKNOWN /Invoice/{urn:other}Extra',
    ],
  ])('%s in %s is an error with its path', (_, syntax, edit, expected) => {
    expect(found(syntax, (xml) => xml)).toEqual([]);
    expect(found(syntax, edit).join()).toContain(expected);
  });
  test('allowances and charges may stand in any order among themselves', () => {
    const mixed = all(withCharge({}), withAllowance({}))(baseInvoice());
    const text = writeEInvoice(mixed, 'ubl');
    const parts = [...text.matchAll(/<cac:AllowanceCharge>[\s\S]*?<\/cac:AllowanceCharge>/g)].map(([part]) => part);
    const [first = '', second = ''] = parts;
    const read = readEInvoiceText(text.replace(first, 'HERE').replace(second, first).replace('HERE', second));
    expect(read.ok && read.value.misplaced).toEqual([]);
  });
});
