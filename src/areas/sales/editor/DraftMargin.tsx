'use client';

import { useRouter } from 'next/navigation';
import { useEffect, useMemo, useState } from 'react';
import { useStore } from 'zustand';
import { type Draft, isBlank } from '@/core/documents/draft';
import type { Finding } from '@/core/documents/finding';
import { datesOf, lineTrail } from '@/core/documents/lineTax';
import type { Preview } from '@/core/documents/preview';
import { registrationFor, type Setting } from '@/core/documents/setting';
import { documentSides, notYetDueAccountOf, outputAccountOf, type PostedContent } from '@/core/ledger/posting';
import type { Customer } from '@/core/parties/customer';
import { placeInPeriod, spanName } from '@/core/periods/calendar';
import { knownClasses } from '@/core/tax/taxSetup';
import { explainLine } from '@/core/tax/workings';
import { ChoiceField } from '@/ui/Field';
import { Margin, Note } from '@/ui/Page';
import { useOpenBook } from '../../shell/BookContext';
import { EntriesNote } from '../../shell/EntriesNote';
import { Because, ChecksNote, componentNames, Steps, TrailList } from '../MarginNotes';
import { checkDraft, type DraftChecks } from './draftChecks';
import type { DraftStore } from './draftStore';
import { LineTaxNote } from './LineTaxNote';
import { focusField } from './moveOn';

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
}: Pick<DraftMarginProps, 'draft' | 'customer' | 'number' | 'setting'>): DraftChecks {
  const [checks, setChecks] = useState<DraftChecks>({ findings: [], holding: 0 });
  useEffect(() => {
    const timer = setTimeout(() => {
      setChecks(checkDraft(draft, number, customer, setting));
    }, CHECK_PAUSE);
    return () => clearTimeout(timer);
  }, [draft, number, customer, setting]);
  return checks;
}

/** Workings of the focused line, what the invoice will post, and what is missing. */
export function DraftMargin(props: DraftMarginProps) {
  const { store, draft, shown, customer, setting } = props;
  const router = useRouter();
  const { accounts, currency } = useOpenBook();
  const focus = useStore(store, (state) => state.focus);
  const checks = useChecks(props);

  const at = Math.max(
    0,
    draft.lines.findIndex((line) => line.id === focus?.lineId),
  );
  const line = draft.lines[at];
  const registration = registrationFor(setting, draft.registrationId);
  const classes = useMemo(() => knownClasses(setting.setup), [setting]);
  const steps = line === undefined ? [] : explainLine(shown.input, shown.figures, line.id, componentNames(shown.taxes));
  const tax = shown.taxes.find((t) => t.code === line?.taxCode);
  const trail = useMemo(
    () => (line === undefined ? [] : lineTrail(draft, line, customer, setting)),
    [draft, line, customer, setting],
  );

  const sides = useMemo(() => {
    const accountOf = new Map(draft.lines.map((l) => [l.id, l.account]));
    const content: PostedContent = {
      kind: 'invoice',
      number: '',
      buyer: { name: '' },
      taxes: shown.taxes,
      lines: shown.figures.lines.map((l) => ({ account: accountOf.get(l.id) ?? '' })),
      withholding: shown.withholding,
    };
    const accountOfTax = registration?.basis === 'on-payment' ? notYetDueAccountOf : outputAccountOf;
    const outputAccount = registration === undefined ? '' : accountOfTax(registration, accounts);
    return documentSides(content, shown.figures, accounts, { outputAccount, taxPeriodId: '' });
  }, [shown, draft.lines, accounts, registration]);

  const { taxPoint } = datesOf(draft);
  const placed = taxPoint === null || registration === undefined ? null : placeInPeriod(registration, taxPoint);

  const wayTo = ({ field }: Finding) => {
    if (field.startsWith('business.')) return () => router.push('/setup/business');
    if (field.startsWith('registration.')) return () => router.push('/setup/registrations');
    if (field === 'held') return () => store.change({ held: null });
    if (field.startsWith('customer.')) return () => router.push(`/setup/customers/${draft.customerId}`);
    if (field === 'totals') return null;
    return () => focusField(field === 'lines' ? 'lines[0].description' : field);
  };
  return (
    <Margin>
      <Note title={steps.length === 0 ? 'Workings' : `Workings — line ${at + 1}`}>
        {steps.length === 0 && (
          <p className="text-soft text-sm">Write a line with its price, and see here how its figures come about.</p>
        )}
        <Steps steps={steps} currency={currency} />
        {steps.length > 0 && tax !== undefined && line !== undefined && (
          <>
            {line.priceFrom !== '' && <p className="my-2 text-sm">Price: {line.priceFrom}.</p>}
            <Because tax={tax} byHand={line.taxByHand} trail={trail} />
            <ChoiceField
              label="Income account of this line"
              options={accounts.filter((a) => a.type === 'income').map((a) => [a.code, `${a.code} ${a.name}`] as const)}
              value={line.account}
              onChange={(event) => store.changeLine(line.id, { account: event.target.value })}
            />
          </>
        )}
        {line !== undefined && !isBlank(line) && (
          <>
            {tax === undefined && <TrailList trail={trail} />}
            <LineTaxNote store={store} line={line} classes={classes} shown={shown} />
          </>
        )}
      </Note>
      <EntriesNote sides={sides}>
        {registration?.basis === 'on-payment' && (
          <p className="mt-1 text-soft text-sm">Its tax falls due as it is paid.</p>
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
