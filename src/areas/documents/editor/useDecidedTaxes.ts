'use client';

import { useEffect, useRef } from 'react';
import { type Draft, isBlank } from '@/core/documents/draft';
import { decideTaxes } from '@/core/documents/lineTax';
import type { Customer } from '@/core/parties/customer';
import type { DraftStore } from './draftStore';
import { type ReadSetting, settingKey } from './useSetting';

/** What the decision rests on in the draft itself, line by line. */
function factsOf(draft: Draft): string {
  const lines = [...draft.lines, ...draft.adjustments].map((one) => `${one.supply}/${one.taxClass}`);
  const registration = draft.registrationByHand ? draft.registrationId : '';
  return [settingKey(draft), registration, ...lines].join(' ');
}

/**
 * Decides the taxes of lines again when what they rest on has changed. A draft that is opened keeps
 * what it has, but for lines that have no tax yet.
 */
export function useDecidedTaxes(
  store: DraftStore,
  draft: Draft,
  customer: Customer | null,
  read: ReadSetting | undefined,
): void {
  const decidedFor = useRef<string | null>(null);
  useEffect(() => {
    // A setting that was read for another customer or day would decide wrongly for a moment.
    if (read === undefined || read.key !== settingKey(draft)) return;
    if (draft.customerId !== '' && customer?.id !== draft.customerId) return;
    const facts = factsOf(draft);
    const lacking =
      draft.lines.some((line) => line.taxCode === '' && !line.taxByHand && !isBlank(line)) ||
      draft.adjustments.some((one) => one.taxCode === '' && !one.taxByHand && !one.spread);
    const same = decidedFor.current === null || decidedFor.current === facts;
    const decided = same && !lacking ? draft : decideTaxes(draft, customer, read.setting);
    if (decided === draft || store.decide(draft, decided)) decidedFor.current = facts;
  }, [store, draft, customer, read]);
}
