import { draftFindings, type Known } from '@/core/decisions/sales/draftFindings';
import { type Checks, checksOf } from '@/core/decisions/sales/findings';
import type { Draft } from '@/core/documents/draft';
import type { Finding } from '@/core/documents/finding';
import { freezeDraft } from '@/core/documents/freeze';
import type { Setting } from '@/core/documents/setting';
import type { Refusal } from '@/core/kernel/result';
import type { Customer } from '@/core/parties/customer';
import { wordRefusal } from '@/core/wording/refusals';
import { orderUsedBefore } from '@/store/sales/queries/orderUsed';
import { inChecker } from '@/workers/client';
import { bookDb, today } from '../../shell/book';

/** What keeps a draft from being looked at as a document: fields that are missing or wrong, each at its place. */
function refusedChecks(refusals: readonly Refusal[]): Checks {
  const findings = refusals.map(
    (refusal): Finding => ({
      rule: '',
      severity: 'must',
      field: refusal.path,
      message: wordRefusal(refusal),
      source: '',
    }),
  );
  return { findings, holding: 0, by: '' };
}

/** What the rules say of a document with what is unusual about its draft, gravest first. */
function withUnusual(checks: Checks, unusual: readonly Finding[]): Checks {
  if (unusual.length === 0) return checks;
  const all = [...checks.findings, ...unusual];
  const by = (severity: Finding['severity']) => all.filter((finding) => finding.severity === severity);
  return { ...checks, findings: [...by('must'), ...by('should'), ...by('note')] };
}

const knownOf = async (draft: Draft): Promise<Known> => ({
  today: today(),
  orderUsed: await orderUsedBefore(bookDb(), draft),
});

/** What is missing or wrong on a draft. While fields are missing only those are told. */
export async function checkDraft(
  draft: Draft,
  number: string,
  customer: Customer | null,
  setting: Setting,
): Promise<Checks> {
  const frozen = freezeDraft(draft, number, customer, setting);
  if (!frozen.ok) return refusedChecks(frozen.refusals);
  return withUnusual(
    checksOf(frozen.value),
    draftFindings(draft, frozen.value, customer, setting, await knownOf(draft)),
  );
}

/** The same with the rules asked in a worker, so that keys typed meanwhile need not wait for them. */
export async function checkDraftInWorker(
  draft: Draft,
  number: string,
  customer: Customer | null,
  setting: Setting,
): Promise<Checks> {
  const frozen = freezeDraft(draft, number, customer, setting);
  if (!frozen.ok) return refusedChecks(frozen.refusals);
  const { value } = frozen;
  const checks = await inChecker(
    (face) => face.checkContent(value),
    () => checksOf(value),
  );
  return withUnusual(checks, draftFindings(draft, value, customer, setting, await knownOf(draft)));
}
