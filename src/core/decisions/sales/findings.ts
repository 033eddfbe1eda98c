import { type Content, figuresOf } from '@/core/documents/content';
import { contentChecks, contentFindings } from '@/core/documents/contentRules';
import type { Finding } from '@/core/documents/finding';
import { checkEInvoice, type RuleFinding, rulesFor } from '@/core/einvoice/check';
import { einvoiceOf } from '@/core/einvoice/fromDocument';
import { exponentOf } from '@/core/kernel/currency';
import { fieldOf, lineFieldOf } from './fields';

const ORDER: Readonly<Record<Finding['severity'], number>> = { must: 0, should: 1, note: 2 };

/** Asked about rather than blocking: the invoice is whole without them, an e-invoice is not. */
const ASKED: ReadonlySet<string> = new Set([
  'PEPPOL-EN16931-R003',
  'PEPPOL-EN16931-R010',
  'PEPPOL-EN16931-R020',
  'BR-61',
]);
/** Blocking for everyone: the law asks for both tax numbers on the document itself. */
const ALWAYS: ReadonlySet<string> = new Set(['BR-AE-02', 'BR-IC-02', 'BR-16']);

/**
 * Currencies of three decimals: the standard takes two at most (BR-DEC-01 and those behind it). Said
 * once, with the way out, instead of for each amount.
 */
function decimalsOnce(findings: readonly Finding[], { currency }: Content): readonly Finding[] {
  if (exponentOf(currency) <= 2) return findings;
  const isDecimals = ({ rule }: Finding) => rule.startsWith('BR-DEC');
  const [first] = findings.filter(isDecimals);
  if (first === undefined) return findings;
  const message = `An e-invoice takes amounts of two decimals at most, and those in ${currency} have ${exponentOf(currency)}. Set prices so that lines, tax and total end in 0, invoice in another currency, or clear the customer’s e-invoice address and send it on paper.`;
  return [...findings.filter((finding) => !isDecimals(finding)), { ...first, field: 'totals', message }];
}

const sourceOf = (rule: string): string => (rule.startsWith('PEPPOL') ? 'Peppol BIS Billing 3.0' : 'EN 16931-1');

function asFinding({ rule, severity, term, message, line }: RuleFinding): Finding {
  const field = line === null ? (fieldOf(term) ?? 'totals') : (lineFieldOf(term, line) ?? `lines[${line}].price`);
  const grave = severity === 'error' && !ASKED.has(rule) ? 'must' : 'should';
  return { rule, severity: grave, field, message, source: sourceOf(rule) };
}

/** What all rules say of a document. */
export interface Checks {
  /** Gravest first. */
  readonly findings: readonly Finding[];
  /** How many rules hold. One that fails and is not told does not hold. */
  readonly holding: number;
  /** What the rules are of. */
  readonly by: string;
}

const broken = (found: readonly { readonly rule: string }[]): number => new Set(found.map(({ rule }) => rule)).size;

function look(content: Content): Checks {
  const figures = figuresOf(content);
  const pack = contentChecks(content, figures);
  const own = contentFindings(content, figures);
  const invoice = einvoiceOf(content, figures);
  const found = checkEInvoice(invoice, 'peppol');
  // A customer who takes no e-invoices is told only what the law asks for all the same.
  const takesThem = content.buyer.endpoint.id !== '';
  const told = decimalsOnce(found.filter(({ rule }) => takesThem || ALWAYS.has(rule)).map(asFinding), content);
  return {
    findings: [...own, ...told].sort((a, b) => ORDER[a.severity] - ORDER[b.severity]),
    holding: pack.rules - broken(own) + (takesThem ? rulesFor(invoice, 'peppol').length - broken(found) : 0),
    by: takesThem ? `${pack.title}, EN 16931, Peppol profile` : pack.title,
  };
}

/** What all rules say of a document, in one look. Of a quote only what its invoice will need is noted. */
export function checksOf(content: Content): Checks {
  if (content.kind !== 'quote') return look(content);
  const checks = look({ ...content, kind: 'invoice' });
  return { ...checks, findings: checks.findings.map((finding) => ({ ...finding, severity: 'note' })) };
}

/** The findings alone. */
export function findingsOn(content: Content): readonly Finding[] {
  return checksOf(content).findings;
}
