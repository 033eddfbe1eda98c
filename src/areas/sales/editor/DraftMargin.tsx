'use client';

import { useRouter } from 'next/navigation';
import { useEffect, useMemo, useState } from 'react';
import { useStore } from 'zustand';
import type { Draft } from '@/core/documents/draft';
import type { Finding } from '@/core/documents/finding';
import { datesOf } from '@/core/documents/freeze';
import type { Preview } from '@/core/documents/preview';
import type { Setting } from '@/core/documents/setting';
import { documentSides, type PostedContent } from '@/core/ledger/posting';
import type { Customer } from '@/core/parties/customer';
import { placeInPeriod, spanName } from '@/core/periods/calendar';
import { determineCode } from '@/core/tax/determine';
import { explainLine } from '@/core/tax/workings';
import { ChoiceField } from '@/ui/Field';
import { Margin, Note } from '@/ui/Page';
import { useOpenBook } from '../../shell/BookContext';
import { useBook } from '../../shell/book';
import { EntriesNote } from '../../shell/EntriesNote';
import { Because, ChecksNote, Steps } from '../MarginNotes';
import { checkDraft, type DraftChecks } from './draftChecks';
import type { DraftStore } from './draftStore';
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
  const ids = [...new Set(draft.lines.map((line) => line.itemId).filter(Boolean))].join(' ');
  const items = useBook((db) => db.items.bulkGet(ids.split(' ')), [ids]);
  useEffect(() => {
    const timer = setTimeout(() => {
      const known = (items ?? []).filter((item) => item !== undefined);
      setChecks(checkDraft(draft, number, customer, known, setting));
    }, CHECK_PAUSE);
    return () => clearTimeout(timer);
  }, [draft, number, customer, setting, items]);
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
  const item = useBook(async (db) => (line?.itemId ? await db.items.get(line.itemId) : undefined), [line?.itemId]);
  const steps = line === undefined ? [] : explainLine(shown.input, shown.figures, line.id);
  const tax = shown.taxes.find((t) => t.code === line?.taxCode);

  const sides = useMemo(() => {
    const accountOf = new Map(draft.lines.map((l) => [l.id, l.account]));
    const content: PostedContent = {
      kind: 'invoice',
      number: '',
      buyer: { name: '' },
      taxes: shown.taxes,
      lines: shown.figures.lines.map((l) => ({ account: accountOf.get(l.id) ?? '' })),
    };
    return documentSides(content, shown.figures, accounts, '');
  }, [shown, draft.lines, accounts]);

  const { taxPoint } = datesOf(draft);
  const placed = taxPoint === null ? null : placeInPeriod(setting.registration, taxPoint);

  const wayTo = ({ field }: Finding) => {
    if (field.startsWith('business.')) return () => router.push('/setup/business');
    if (field.startsWith('registration.')) return () => router.push('/setup/registration');
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
            <Because
              tax={tax}
              byHand={line.taxByHand}
              trail={determineCode(setting.codes, customer, item?.taxClass ?? '').trail}
            />
            <ChoiceField
              label="Income account of this line"
              options={accounts.filter((a) => a.type === 'income').map((a) => [a.code, `${a.code} ${a.name}`] as const)}
              value={line.account}
              onChange={(event) => store.changeLine(line.id, { account: event.target.value })}
            />
          </>
        )}
      </Note>
      <EntriesNote sides={sides}>
        {placed !== null && (
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
