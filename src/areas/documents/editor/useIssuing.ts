'use client';

import { useRouter } from 'next/navigation';
import { useState } from 'react';
import { toast } from 'sonner';
import type { Finding } from '@/core/documents/finding';
import { traitsOfDraft } from '@/core/documents/kinds';
import type { Setting } from '@/core/documents/setting';
import type { Refusal } from '@/core/kernel/result';
import type { Customer } from '@/core/parties/customer';
import { wordRefusal } from '@/core/wording/refusals';
import { issueInvoice } from '@/store/sales/actions/issueInvoice';
import { sendQuoteDraft } from '@/store/sales/actions/quotes';
import { act } from '../../shell/book';
import { routes } from '../../shell/routes';
import { checkDraft } from './draftChecks';
import type { DraftStore } from './draftStore';
import { focusField } from './moveOn';
import type { Save } from './useAutosave';

/** Billing more than was quoted is agreed to under this name. */
const OVERRUN = 'overrun';

const askedOf = (refusal: Refusal): Finding => ({
  rule: OVERRUN,
  severity: 'should',
  field: refusal.path,
  message: wordRefusal(refusal),
  source: '',
});

export interface Issuing {
  readonly busy: boolean;
  /** Findings that are asked about before issuing; null while nothing is asked. */
  readonly asking: readonly Finding[] | null;
  /** Issues, or asks first when something should still be done. */
  readonly issue: () => Promise<void>;
  /** Issues in spite of what was asked. */
  readonly issueAllTheSame: () => Promise<void>;
  readonly stepBack: () => void;
}

/** Issuing a draft: look, ask, keep, issue, and go to the document; or back to the first wrong field. */
export function useIssuing(
  store: DraftStore,
  save: Save,
  number: string,
  now: () => { readonly customer: Customer | null; readonly setting: Setting | null },
): Issuing {
  const router = useRouter();
  const [asking, setAsking] = useState<readonly Finding[] | null>(null);
  const [busy, setBusy] = useState(false);

  const issueAllTheSame = async () => {
    const consent = { overrun: asking?.some((finding) => finding.rule === OVERRUN) ?? false };
    setAsking(null);
    setBusy(true);
    try {
      if (!(await save({ even: 'unchanged' }))) return;
      const { id: draftId, kind } = store.getState().draft;
      const { posts } = traitsOfDraft(kind);
      const result = posts ? await act(issueInvoice, { draftId, consent }) : await act(sendQuoteDraft, { draftId });
      if (result.ok) {
        toast(`${result.value.number} is ${posts ? 'issued' : 'sent'}`);
        router.push(routes.document(result.value.id));
        return;
      }
      const beyond = result.refusals.filter((refusal) => refusal.code === 'overrun');
      if (beyond.length > 0) return setAsking(beyond.map(askedOf));
      store.setProblems(result.refusals);
      focusField(result.refusals[0]?.path ?? '');
    } finally {
      setBusy(false);
    }
  };
  const issue = async () => {
    if (busy) return;
    // What was picked in the last moment counts, as the person has chosen it already.
    await store.answered();
    const { customer, setting } = now();
    if (setting === null) return;
    // What has to be asked is looked up afresh: the figures on screen may be a moment behind the keys.
    const { draft } = store.getState();
    const { findings } = await checkDraft(draft, number, customer, setting);
    const should = findings.filter((finding) => finding.severity === 'should');
    const blocked = findings.some((finding) => finding.severity === 'must');
    if (blocked || should.length === 0) await issueAllTheSame();
    else setAsking(should);
  };
  return { busy, asking, issue, issueAllTheSame, stepBack: () => setAsking(null) };
}
