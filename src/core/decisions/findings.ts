import { type Content, figuresOf } from '@/core/documents/content';
import { contentChecks, contentFindings } from '@/core/documents/contentRules';
import type { Finding } from '@/core/documents/finding';
import { einvoiceOf } from '@/core/einvoice/fromDocument';
import { RULES, ruleFindings } from '@/core/einvoice/rules';
import type { CalcResult } from '@/core/tax/calcTypes';

const ORDER: Readonly<Record<Finding['severity'], number>> = { must: 0, should: 1, note: 2 };

/** All findings on a document's content, gravest first. */
export function findingsOn(content: Content, figures: CalcResult = figuresOf(content)): readonly Finding[] {
  const findings = [...contentFindings(content, figures), ...ruleFindings(einvoiceOf(content, figures))];
  return findings.sort((a, b) => ORDER[a.severity] - ORDER[b.severity]);
}

/** Findings on a quote: nothing blocks it or is asked about; what an invoice will need is noted. */
export function quoteFindings(content: Content, figures?: CalcResult): readonly Finding[] {
  return findingsOn({ ...content, kind: 'invoice' }, figures).map((finding) => ({ ...finding, severity: 'note' }));
}

/** What looked at a document, in words, and how many rules that were. */
export function checksOn(content: Content, figures: CalcResult): { readonly words: string; readonly count: number } {
  const { title, rules } = contentChecks(content, figures);
  return { words: `${title}, EN 16931, Peppol profile`, count: rules + RULES.length };
}
