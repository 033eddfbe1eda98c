'use client';

import { useRouter } from 'next/navigation';
import { useCallback, useDeferredValue, useEffect, useMemo, useRef, useState } from 'react';
import { useStore } from 'zustand';
import type { CustomerRow } from '@/core/decisions/changes';
import { takeCustomer, takeItem } from '@/core/documents/determineLine';
import type { Draft } from '@/core/documents/draft';
import { preview } from '@/core/documents/preview';
import { nextNumber } from '@/core/documents/series';
import type { Setting } from '@/core/documents/setting';
import { isIsoDate } from '@/core/kernel/date';
import { determineCode } from '@/core/tax/determine';
import { deleteDraft } from '@/store/actions/drafts';
import { Button } from '@/ui/Button';
import { Dialog } from '@/ui/Dialog';
import { Mark } from '@/ui/Mark';
import { Sheet, SheetTitle } from '@/ui/Page';
import { CustomerForm } from '../../setup/CustomerForm';
import { ItemForm } from '../../setup/ItemForm';
import { useOpenBook } from '../../shell/BookContext';
import { act, bookDb, useBook } from '../../shell/book';
import { useKey } from '../../shell/useKey';
import { wordRefusals } from '../../shell/wording';
import { Totals } from '../Totals';
import { AskDialog } from './AskDialog';
import { DraftMargin } from './DraftMargin';
import { createDraftStore } from './draftStore';
import { HeaderFields } from './HeaderFields';
import { LinesTable } from './LinesTable';
import { focusField, moveOnEnter } from './moveOn';
import { useAutosave } from './useAutosave';
import { useIssuing } from './useIssuing';

type Making = { readonly what: 'customer' | 'item'; readonly name: string; readonly lineId: string } | null;

interface DraftEditorProps {
  readonly initial: Draft;
  /** Throws away what is on screen and reads the draft again. */
  readonly onLoadAgain: () => void;
}

/** The sheet of a draft: written in place, computed as it is written, issued from here. */
export function DraftEditor({ initial, onLoadAgain }: DraftEditorProps) {
  const router = useRouter();
  const { business, registration, codes, accounts, currency } = useOpenBook();
  const setting: Setting = useMemo(() => ({ business, registration, codes }), [business, registration, codes]);
  const firstIncome = accounts.find((account) => account.type === 'income')?.code ?? '';
  const customerRef = useRef<CustomerRow | null>(null);
  const [store] = useState(() =>
    createDraftStore(initial, {
      account: firstIncome,
      taxCodeOf: () => determineCode(codes, customerRef.current, '').code?.id ?? '',
    }),
  );
  const save = useAutosave(store);
  const { draft, dirty, problems } = useStore(store);
  const [making, setMaking] = useState<Making>(null);

  const customer =
    useBook(async (db) => (await db.customers.get(draft.customerId)) ?? null, [draft.customerId]) ?? null;
  useEffect(() => {
    customerRef.current = customer;
  }, [customer]);
  const series = useBook((db) => db.series.get('invoice'));
  const number = series !== undefined && isIsoDate(draft.issueDate) ? nextNumber(series, draft.issueDate) : '';

  const settled = useDeferredValue(draft);
  const shown = useMemo(() => preview(settled, setting), [settled, setting]);

  const wrong = useMemo(() => new Set(problems.map((problem) => problem.path)), [problems]);
  const pickItem = useCallback(
    async (lineId: string, itemId: string) => {
      const item = await bookDb().items.get(itemId);
      const now = store.getState().draft;
      const line = now.lines.find((l) => l.id === lineId);
      if (item === undefined || line === undefined) return;
      store.changeLine(lineId, takeItem(line, item, now, customerRef.current, codes, currency));
      focusField(`lines[${now.lines.indexOf(line)}].quantity`);
    },
    [store, codes, currency],
  );
  const pickCustomer = async (id: string) => {
    const db = bookDb();
    const [picked, used] = await Promise.all([
      db.customers.get(id),
      db.items.bulkGet(store.getState().draft.lines.map((line) => line.itemId)),
    ]);
    if (picked === undefined) return;
    customerRef.current = picked;
    store.replace(
      takeCustomer(
        store.getState().draft,
        picked,
        used.filter((item) => item !== undefined),
        codes,
      ),
    );
    focusField('issueDate');
  };
  const newItem = useCallback((lineId: string, name: string) => setMaking({ what: 'item', name, lineId }), []);

  const issuing = useIssuing(store, save, number, customer, setting);
  useKey('ctrl+enter', () => void issuing.issue());

  const drop = async () => {
    if (draft.revision > 0) {
      const result = await act(deleteDraft, { draftId: draft.id });
      if (!result.ok) return store.setProblems(result.refusals);
    }
    router.push('/sales');
  };

  const stale = problems.some(
    (problem) => problem.code === 'stale' || problem.code === 'not-found' || problem.code === 'already-issued',
  );
  const general = problems.filter((problem) => problem.path === '' || problem.path === 'lines');
  return (
    <>
      <Sheet label="Draft invoice">
        <form
          className="flex flex-1 flex-col"
          onSubmit={(event) => event.preventDefault()}
          onKeyDown={moveOnEnter}
          aria-label="Invoice"
        >
          <SheetTitle
            aside={
              <>
                <Mark kind="draft" /> draft ·{' '}
                <select
                  aria-label="Price mode"
                  className="cursor-pointer bg-transparent"
                  value={draft.priceMode}
                  onChange={(event) => store.change({ priceMode: event.target.value as Draft['priceMode'] })}
                >
                  <option value="net">prices hold no tax</option>
                  <option value="gross">prices hold the tax</option>
                </select>
              </>
            }
          >
            Invoice
          </SheetTitle>
          <HeaderFields
            store={store}
            draft={draft}
            customer={customer}
            wrong={wrong}
            onPickCustomer={pickCustomer}
            onNewCustomer={(name) => setMaking({ what: 'customer', name, lineId: '' })}
          />
          <LinesTable
            store={store}
            draft={draft}
            problems={problems}
            shown={shown}
            onPickItem={pickItem}
            onNewItem={newItem}
          />
          <Totals
            figures={shown.figures}
            currency={currency}
            nameOf={(code) => codes.find((c) => c.id === code)?.name ?? code}
          />
          <label className="mt-4 block text-soft text-sm">
            Note to the customer
            <textarea
              data-field="note"
              rows={1}
              className="cell block resize-none border-rule border-b text-base text-ink"
              value={draft.note}
              onChange={(event) => store.change({ note: event.target.value })}
            />
          </label>
          <div className="mt-auto pt-6">
            {general.length > 0 && (
              <p role="alert" className="mb-3 text-brick">
                ▲ {wordRefusals(general)}{' '}
                {stale && (
                  <button type="button" className="cursor-pointer underline" onClick={onLoadAgain}>
                    Load it again
                  </button>
                )}
              </p>
            )}
            <div className="flex flex-wrap items-center gap-2.5">
              <Button
                weight="main"
                data-field="issue"
                disabled={issuing.busy}
                onClick={issuing.issue}
                title="Ctrl+Enter"
              >
                Issue {number}
              </Button>
              <Button onClick={() => void save().then((ok) => ok && router.push('/sales'))}>Keep as draft</Button>
              <Button weight="quiet" onClick={drop}>
                Delete this draft
              </Button>
              <span role="status" className="ml-auto text-soft">
                {dirty
                  ? 'writing…'
                  : draft.savedAt === ''
                    ? 'not kept yet'
                    : `kept ${new Date(draft.savedAt).toTimeString().slice(0, 5)}`}
              </span>
            </div>
          </div>
        </form>
      </Sheet>
      <DraftMargin store={store} draft={settled} shown={shown} customer={customer} number={number} setting={setting} />
      <AskDialog number={number} issuing={issuing} />
      <Dialog
        open={making !== null}
        onClose={() => setMaking(null)}
        title={making?.what === 'item' ? 'New item' : 'New customer'}
        description="It is kept in Setup and taken into this invoice."
        wide
      >
        {making?.what === 'customer' && (
          <CustomerForm
            name={making.name}
            onSaved={(id) => {
              setMaking(null);
              void pickCustomer(id);
            }}
          />
        )}
        {making?.what === 'item' && (
          <ItemForm
            name={making.name}
            onSaved={(id) => {
              setMaking(null);
              void pickItem(making.lineId, id);
            }}
          />
        )}
      </Dialog>
    </>
  );
}
