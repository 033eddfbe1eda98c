'use client';

import { useRouter } from 'next/navigation';
import { useRef, useState } from 'react';
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
import { sendByWay } from '../../shell/delivery/sendByWay';
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
  /** The same, and sends it as its customer is sent documents. */
  readonly issueAndSend: () => Promise<void>;
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
  /** Whether what is being issued is sent as well; kept over the question in between. */
  const sending = useRef(false);

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
        const { id, number: issued } = result.value;
        if (sending.current) {
          const { kind: came, words } = await sendByWay(id);
          if (came === 'sent') toast(`${issued} is issued and goes ${words}`);
          else toast.warning(`${issued} is issued, but not sent. ${words}`);
        } else toast(`${issued} is ${posts ? 'issued' : 'sent'}`);
        router.push(routes.document(id));
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
  const begin = async (send: boolean) => {
    if (busy) return;
    sending.current = send;
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
  const issue = () => begin(false);
  const issueAndSend = () => begin(true);
  return { busy, asking, issue, issueAndSend, issueAllTheSame, stepBack: () => setAsking(null) };
}
