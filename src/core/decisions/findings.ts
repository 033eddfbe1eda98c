import { type Content, figuresOf } from '@/core/documents/content';
import { CONTENT_RULES, contentFindings } from '@/core/documents/contentRules';
import type { Finding } from '@/core/documents/finding';
import { einvoiceOf } from '@/core/einvoice/fromDocument';
import { RULES, ruleFindings } from '@/core/einvoice/rules';

const ORDER: Readonly<Record<Finding['severity'], number>> = { must: 0, should: 1, note: 2 };

/** All findings on a document's content, gravest first. */
export function findingsOn(content: Content): readonly Finding[] {
  const findings = [...contentFindings(content), ...ruleFindings(einvoiceOf(content, figuresOf(content)))];
  return findings.sort((a, b) => ORDER[a.severity] - ORDER[b.severity]);
}

/** Findings on a quote: nothing blocks it; what an invoice will need is noted. */
export function quoteFindings(content: Content): readonly Finding[] {
  return findingsOn({ ...content, kind: 'invoice' }).map((finding) =>
    finding.severity === 'must' ? { ...finding, severity: 'note' } : finding,
  );
}

/** How many rules were looked at. */
export const CHECK_COUNT = CONTENT_RULES.length + RULES.length;
