import { checksOn, findingsOn, quoteFindings } from '@/core/decisions/findings';
import { figuresOf } from '@/core/documents/content';
import type { Draft } from '@/core/documents/draft';
import type { Finding } from '@/core/documents/finding';
import { freezeDraft } from '@/core/documents/freeze';
import type { Setting } from '@/core/documents/setting';
import type { Customer } from '@/core/parties/customer';
import { wordRefusal } from '../../shell/wording';

export interface DraftChecks {
  readonly findings: readonly Finding[];
  readonly holding: number;
  /** What the rules are of. */
  readonly by: string;
}

/** What is missing or wrong on a draft. While fields are missing only those are told, each at its place. */
export function checkDraft(draft: Draft, number: string, customer: Customer | null, setting: Setting): DraftChecks {
  const frozen = freezeDraft(draft, number, customer, setting);
  if (!frozen.ok)
    return {
      findings: frozen.refusals.map(
        (refusal): Finding => ({
          rule: '',
          severity: 'must',
          field: refusal.path,
          message: wordRefusal(refusal),
          source: '',
        }),
      ),
      holding: 0,
      by: '',
    };
  const content = frozen.value;
  const figures = figuresOf(content);
  const findings = draft.kind === 'quote' ? quoteFindings(content, figures) : findingsOn(content, figures);
  const rules = new Set(findings.map((finding) => finding.rule));
  const { words, count } = checksOn(content, figures);
  return { findings, holding: count - rules.size, by: words };
}
