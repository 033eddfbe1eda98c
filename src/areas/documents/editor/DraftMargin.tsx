'use client';

import { useRouter } from 'next/navigation';
import { useEffect, useMemo, useState } from 'react';
import { useStore } from 'zustand';
import { draftSides } from '@/core/decisions/sales/draftSides';
import type { Checks } from '@/core/decisions/sales/findings';
import type { Draft } from '@/core/documents/draft';
import type { Finding } from '@/core/documents/finding';
import { traitsOfDraft } from '@/core/documents/kinds';
import { datesOf } from '@/core/documents/lineTax';
import type { Preview } from '@/core/documents/preview';
import { registrationFor, type Setting } from '@/core/documents/setting';
import type { Customer } from '@/core/parties/customer';
import { placeInPeriod, spanName } from '@/core/returns/calendar';
import { Margin } from '@/ui/Page';
import { ChecksNote } from '../../shared/MarginNotes';
import { UnverifiedNumbers } from '../../shared/NumberChecks';
import { useOpenBook } from '../../shell/BookContext';
import { EntriesNote } from '../../shell/EntriesNote';
import { routes } from '../../shell/routes';
import { keyOfSide, totalNames } from '../totalNames';
import { checkDraftInWorker } from './draftChecks';
import type { DraftStore } from './draftStore';
import { LineNote } from './LineNote';
import { focusField } from './moveOn';
import { TotalNote } from './TotalNote';

/** Checks wait for a pause in typing; figures do not. */
const CHECK_PAUSE = 150;

interface DraftMarginProps {
  readonly store: DraftStore;
  readonly draft: Draft;
  readonly shown: Preview;
  readonly customer: Customer | null;
  readonly number: string;
  readonly setting: Setting;
}

function useChecks({
  draft,
  customer,
  number,
  setting,
}: Pick<DraftMarginProps, 'draft' | 'customer' | 'number' | 'setting'>): Checks {
  const [checks, setChecks] = useState<Checks>({ findings: [], holding: 0, by: '' });
  useEffect(() => {
    let current = true;
    const look = async () => {
      const found = await checkDraftInWorker(draft, number, customer, setting);
      if (current) setChecks(found);
    };
    const timer = setTimeout(() => void look(), CHECK_PAUSE);
    return () => {
      current = false;
      clearTimeout(timer);
    };
  }, [draft, number, customer, setting]);
  return checks;
}

/** Workings of the focused line, what the invoice will post, and what is missing. */
export function DraftMargin(props: DraftMarginProps) {
  const { store, draft, shown, customer, setting } = props;
  const router = useRouter();
  const { accounts } = useOpenBook();
  const focus = useStore(store, (state) => state.focus);
  const checks = useChecks(props);

  const at = Math.max(
    0,
    draft.lines.findIndex((line) => line.id === focus?.lineId),
  );
  const registration = registrationFor(setting, draft.registrationId);
  const names = totalNames({
    taxes: shown.taxes,
    lines: draft.lines,
    adjustments: draft.adjustments,
    withholding: shown.withholding,
  });
  const ids = [...draft.lines, ...draft.adjustments].map(({ id }) => id);

  const sides = useMemo(() => draftSides(draft, shown, registration, accounts), [draft, shown, registration, accounts]);

  const { taxPoint } = datesOf(draft);
  const placed = taxPoint === null || registration === undefined ? null : placeInPeriod(registration, taxPoint);

  const wayTo = ({ field }: Finding) => {
    if (field.startsWith('business.')) return () => router.push(routes.section('business'));
    if (field === 'bankAccount') return () => router.push(routes.section('bank-accounts'));
    if (field.startsWith('registration.')) return () => router.push(routes.section('registrations'));
    if (field === 'held') return () => store.change({ held: null });
    if (field.startsWith('customer.')) return () => router.push(routes.record('customers', draft.customerId));
    if (field === 'totals') return null;
    return () => focusField(field === 'lines' ? 'lines[0].description' : field);
  };
  return (
    <Margin>
      {focus?.lineId === '' ? (
        <TotalNote store={store} shown={shown} total={focus.field} names={names} draft={draft} />
      ) : (
        <LineNote store={store} draft={draft} at={at} shown={shown} customer={customer} setting={setting} />
      )}
      {customer !== null && registration !== undefined && (
        <UnverifiedNumbers customer={customer} home={registration.country} />
      )}
      <EntriesNote sides={sides} onOpen={(side) => store.setFocus({ lineId: '', field: keyOfSide(side, names, ids) })}>
        {registration?.basis === 'on-payment' && !traitsOfDraft(draft.kind).paidAtOnce && (
          <p className="mt-1 text-soft text-sm">Cash basis: its tax is due when it is paid.</p>
        )}
        {placed !== null && registration?.basis === 'on-issue' && (
          <p className="mt-1 text-soft text-sm">
            Will be reported in {spanName(placed.span)}
            {placed.late && ', late: its own period is filed already'}.
          </p>
        )}
      </EntriesNote>
      <ChecksNote {...checks} wayTo={wayTo} />
    </Margin>
  );
}
