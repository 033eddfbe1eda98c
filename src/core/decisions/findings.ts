import { type Content, figuresOf } from '@/core/documents/content';
import { contentChecks, contentFindings } from '@/core/documents/contentRules';
import type { Finding } from '@/core/documents/finding';
import { checkEInvoice, type RuleFinding, rulesFor } from '@/core/einvoice/check';
import { einvoiceOf } from '@/core/einvoice/fromDocument';
import type { GroupId, TermId } from '@/core/einvoice/terms';
import type { CalcResult } from '@/core/tax/calcTypes';

const ORDER: Readonly<Record<Finding['severity'], number>> = { must: 0, should: 1, note: 2 };

/** Fields in which a term is mended; a term of a line is mended in the line. */
const FIELDS: Readonly<Partial<Record<TermId | GroupId, string>>> = {
  'BT-9': 'due',
  'BT-10': 'buyerReference',
  'BT-13': 'orderNumber',
  'BT-29': 'business.legalId',
  'BT-31': 'registration.number',
  'BT-34': 'business.endpoint',
  'BT-40': 'business.address',
  'BT-48': 'customer.taxNumber',
  'BT-49': 'customer.endpoint',
  'BT-55': 'customer.address',
  'BT-72': 'taxPoint',
  'BT-80': 'delivery',
  'BT-84': 'business.iban',
  'BG-5': 'business.address',
  'BG-8': 'customer.address',
  'BG-25': 'lines',
};
const LINE_FIELDS: Readonly<Partial<Record<TermId | GroupId, string>>> = {
  'BT-129': 'quantity',
  'BT-130': 'unit',
  'BT-151': 'taxCode',
  'BT-152': 'taxCode',
  'BT-153': 'description',
};

/** Asked about rather than blocking: the invoice is whole without them, an e-invoice is not. */
const ASKED: ReadonlySet<string> = new Set([
  'PEPPOL-EN16931-R003',
  'PEPPOL-EN16931-R010',
  'PEPPOL-EN16931-R020',
  'BR-61',
]);
/** Blocking for everyone: the law asks for both tax numbers on the document itself. */
const ALWAYS: ReadonlySet<string> = new Set(['BR-AE-02', 'BR-IC-02', 'BR-16']);

const sourceOf = (rule: string): string => (rule.startsWith('PEPPOL') ? 'Peppol BIS Billing 3.0' : 'EN 16931-1');

function asFinding({ rule, severity, term, message, line }: RuleFinding): Finding {
  const field = line === null ? (FIELDS[term] ?? 'totals') : `lines[${line}].${LINE_FIELDS[term] ?? 'price'}`;
  const grave = severity === 'error' && !ASKED.has(rule) ? 'must' : 'should';
  return { rule, severity: grave, field, message, source: sourceOf(rule) };
}

/** What keeps a document from being an e-invoice. A customer who takes none is told what the law asks for all the same. */
function einvoiceFindings(content: Content, figures: CalcResult): readonly Finding[] {
  const found = checkEInvoice(einvoiceOf(content, figures), 'peppol');
  const takesNone = content.buyer.endpoint.id === '';
  return found.filter(({ rule }) => !takesNone || ASKED.has(rule) || ALWAYS.has(rule)).map(asFinding);
}

/** All findings on a document's content, gravest first. */
export function findingsOn(content: Content, figures: CalcResult = figuresOf(content)): readonly Finding[] {
  const findings = [...contentFindings(content, figures), ...einvoiceFindings(content, figures)];
  return findings.sort((a, b) => ORDER[a.severity] - ORDER[b.severity]);
}

/** Findings on a quote: nothing blocks it or is asked about; what an invoice will need is noted. */
export function quoteFindings(content: Content, figures?: CalcResult): readonly Finding[] {
  return findingsOn({ ...content, kind: 'invoice' }, figures).map((finding) => ({ ...finding, severity: 'note' }));
}

/** What looked at a document, in words, and how many rules that were. */
export function checksOn(content: Content, figures: CalcResult): { readonly words: string; readonly count: number } {
  const { title, rules } = contentChecks(content, figures);
  return {
    words: `${title}, EN 16931, Peppol profile`,
    count: rules + rulesFor(einvoiceOf(content, figures), 'peppol').length,
  };
}

/** What all rules say of a document, in one look. */
export function checksOf(content: Content): {
  readonly findings: readonly Finding[];
  /** How many rules hold. */
  readonly holding: number;
  /** What the rules are of. */
  readonly by: string;
} {
  const figures = figuresOf(content);
  const findings = content.kind === 'quote' ? quoteFindings(content, figures) : findingsOn(content, figures);
  const { words, count } = checksOn(content, figures);
  return { findings, holding: count - new Set(findings.map(({ rule }) => rule)).size, by: words };
}
