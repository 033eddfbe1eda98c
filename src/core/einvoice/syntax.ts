import { accept, type Result, refuse } from '@/core/kernel/result';
import { type Binding, type ReadContext, readInto, writeFrom } from './binding';
import { CII } from './cii';
import { type EInvoice, newGroup, textOf } from './model';
import { isCreditNote, UBL_CREDIT_NOTE, UBL_INVOICE } from './ubl';
import { descend, type XmlNode } from './xml/node';
import { decodeXml, readXml } from './xml/readXml';
import { element, type SettledTexts, writeXml } from './xml/writeXml';

export type Syntax = 'ubl' | 'cii';

/** A file as it was read: its model, its elements, and what of them no term stands for. */
export interface ReadInvoice {
  readonly syntax: Syntax;
  readonly invoice: EInvoice;
  readonly root: XmlNode;
  readonly unknown: readonly XmlNode[];
  /** Elements out of the order of the schema. */
  readonly misplaced: readonly XmlNode[];
}

const UBL_ROOTS: Readonly<Record<string, readonly Binding[]>> = { Invoice: UBL_INVOICE, CreditNote: UBL_CREDIT_NOTE };
const CII_ROOT = 'rsm:CrossIndustryInvoice';

/** Where BT-5 and BT-6 stand. */
const CURRENCIES: Readonly<Record<Syntax, readonly [readonly string[], readonly string[]]>> = {
  ubl: [['cbc:DocumentCurrencyCode'], ['cbc:TaxCurrencyCode']],
  cii: [
    ['rsm:SupplyChainTradeTransaction', 'ram:ApplicableHeaderTradeSettlement', 'ram:InvoiceCurrencyCode'],
    ['rsm:SupplyChainTradeTransaction', 'ram:ApplicableHeaderTradeSettlement', 'ram:TaxCurrencyCode'],
  ],
};

/** Reads a UBL or CII file, given as its bytes. Refuses with the reason in plain words what is neither. */
export function readEInvoice(bytes: Uint8Array): Result<ReadInvoice> {
  const text = decodeXml(bytes);
  return text.ok ? readEInvoiceText(text.value) : text;
}

/** The same from text. */
export function readEInvoiceText(text: string): Result<ReadInvoice> {
  const xml = readXml(text);
  if (!xml.ok) return xml;
  const root = xml.value;
  const syntax: Syntax | null = root.name in UBL_ROOTS ? 'ubl' : root.name === CII_ROOT ? 'cii' : null;
  if (syntax === null)
    return refuse({
      code: 'invalid',
      path: `/${root.name}`,
      wanted: { what: 'e-invoice-root', root: root.name.replace('{}', '') },
    });
  const invoice = newGroup('ROOT', root);
  const [currency, taxCurrency] = CURRENCIES[syntax].map((way) => descend(root, ...way)?.text ?? '') as [
    string,
    string,
  ];
  const context: ReadContext = { root: invoice, currencies: { currency, taxCurrency }, unknown: [], misplaced: [] };
  readInto(root, syntax === 'ubl' ? (UBL_ROOTS[root.name] ?? []) : CII, invoice, context);
  return accept({ syntax, invoice, root, unknown: context.unknown, misplaced: context.misplaced });
}

const CAC = 'urn:oasis:names:specification:ubl:schema:xsd:CommonAggregateComponents-2';
const CBC = 'urn:oasis:names:specification:ubl:schema:xsd:CommonBasicComponents-2';
const CII_NAMESPACE = 'urn:un:unece:uncefact:data:standard:';

function rootOf(
  invoice: EInvoice,
  syntax: Syntax,
): { readonly name: string; readonly attributes: Record<string, string>; readonly bindings: readonly Binding[] } {
  if (syntax === 'cii')
    return {
      name: CII_ROOT,
      attributes: {
        'xmlns:rsm': `${CII_NAMESPACE}CrossIndustryInvoice:100`,
        'xmlns:ram': `${CII_NAMESPACE}ReusableAggregateBusinessInformationEntity:100`,
        'xmlns:udt': `${CII_NAMESPACE}UnqualifiedDataType:100`,
        'xmlns:qdt': `${CII_NAMESPACE}QualifiedDataType:100`,
      },
      bindings: CII,
    };
  const name = isCreditNote(invoice) ? 'CreditNote' : 'Invoice';
  return {
    name,
    attributes: {
      xmlns: `urn:oasis:names:specification:ubl:schema:xsd:${name}-2`,
      'xmlns:cac': CAC,
      'xmlns:cbc': CBC,
    },
    bindings: UBL_ROOTS[name] ?? [],
  };
}

/** A model as the text of a UBL 2.1 or CII D16B file. */
export function writeEInvoice(invoice: EInvoice, syntax: Syntax): string {
  const { name, attributes, bindings } = rootOf(invoice, syntax);
  const lineDepth = syntax === 'cii' ? 2 : 1;
  const settled: SettledTexts = [];
  const context = {
    root: invoice,
    lineDepth,
    settled,
    currency: textOf(invoice, 'BT-5'),
    taxCurrency: textOf(invoice, 'BT-6'),
  };
  return writeXml(element(name, writeFrom(invoice, bindings, context), attributes), settled);
}
