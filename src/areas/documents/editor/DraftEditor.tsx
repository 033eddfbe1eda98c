'use client';

import dynamic from 'next/dynamic';
import { useRouter } from 'next/navigation';
import { useCallback, useDeferredValue, useEffect, useMemo, useRef, useState } from 'react';
import { toast } from 'sonner';
import { useStore } from 'zustand';
import type { CustomerRow } from '@/core/book/rows';
import { numberOf } from '@/core/decisions/sales/issue';
import { takeCustomer, takeItem } from '@/core/documents/determineLine';
import { blankLine, type Draft, isBlank } from '@/core/documents/draft';
import { freezeDraft } from '@/core/documents/freeze';
import { type DraftKind, traitsOfDraft } from '@/core/documents/kinds';
import { lineVerdict } from '@/core/documents/lineTax';
import { preview } from '@/core/documents/preview';
import type { Setting } from '@/core/documents/setting';
import { type Keep, switchMode } from '@/core/documents/switchMode';
import type { Refusal } from '@/core/kernel/result';
import { showMoney } from '@/core/kernel/show';
import type { Customer } from '@/core/parties/customer';
import type { PriceMode } from '@/core/tax/calcTypes';
import { wordRefusals } from '@/core/wording/refusals';
import { loadSetting } from '@/store/load';
import { allOf, recordOf } from '@/store/records';
import { deleteDraft } from '@/store/sales/actions/drafts';
import { repeatDraft } from '@/store/sales/actions/recurring';
import { runOfDraft } from '@/store/sales/actions/runs';
import { findItems } from '@/store/sales/queries/documents';
import { Button } from '@/ui/Button';
import { Dialog } from '@/ui/Dialog';
import { useFolds } from '@/ui/folds';
import { Mark } from '@/ui/Mark';
import { Sheet, SheetTitle } from '@/ui/Page';
import { TextButton } from '@/ui/TextButton';
import { useOpenBook } from '../../shell/BookContext';
import { act, bookDb, useBook } from '../../shell/book';
import { KEY_MAP } from '../../shell/keyMap';
import { routes } from '../../shell/routes';
import { useKey } from '../../shell/useKey';
import { AdjustmentRows } from './AdjustmentRows';
import { Advances } from './Advances';
import { AskDialog } from './AskDialog';
import { BringBack } from './BringBack';
import { DraftMargin } from './DraftMargin';
import { DraftTotals } from './DraftTotals';
import { createDraftStore } from './draftStore';
import { HeaderFields } from './HeaderFields';
import { LinesTable } from './LinesTable';
import type { Making } from './MakingDialog';
import { MoreFields } from './MoreFields';
import { focusField, moveOnEnter } from './moveOn';
import { OriginLine } from './OriginLine';
import { SwitchModeDialog } from './SwitchModeDialog';
import { dropSideCopy } from './sideCopy';
import { useAutosave } from './useAutosave';
import { useBringBack } from './useBringBack';
import { useDecidedTaxes } from './useDecidedTaxes';
import { useIssuing } from './useIssuing';
import { useSetting } from './useSetting';
import { useTaxChoices } from './useTaxChoices';
import { ZeroRatedDialog } from './ZeroRatedDialog';

/** Loaded when they are asked for: most drafts are written without them. */
const PreviewColumn = dynamic(async () => (await import('./PreviewColumn')).PreviewColumn);
const DraftXmlColumn = dynamic(async () => (await import('./DraftXmlColumn')).DraftXmlColumn);
const MakingDialog = dynamic(async () => (await import('./MakingDialog')).MakingDialog);

/** Items that are looked at for a text that was left in a hurry. */
const MOST_HURRIED = 8;

/** Refusals of the browser rather than of the draft: another try may do. */
const UNWRITTEN: ReadonlySet<string> = new Set(['storage-full', 'storage-failed', 'newer-book', 'fault']);

const TITLES: Readonly<Record<DraftKind, string>> = { invoice: 'Invoice', quote: 'Quote', 'cash-sale': 'Cash sale' };

interface DraftEditorProps {
  readonly initial: Draft;
  /** The draft says more than what the book holds: it was typed just before a page closed. */
  readonly unkept: boolean;
  /** Throws away what is on screen and reads the draft again. */
  readonly onLoadAgain: () => void;
}

/** True for a draft that nobody would miss. */
const isUntouched = ({ customerId, lines }: Draft): boolean => customerId === '' && lines.every(isBlank);

/** Refusals that the margin's checks do not say already: those of the whole draft, and what only issuing finds. */
function untold(problems: readonly Refusal[], draft: Draft, customer: Customer | null, setting: Setting) {
  const frozen = freezeDraft(draft, '', customer, setting);
  const told = new Set(frozen.ok ? [] : frozen.refusals.map(({ code, path }) => `${code} ${path}`));
  return problems.filter(
    ({ code, path }) => path === '' || path === 'lines' || (code !== 'check-failed' && !told.has(`${code} ${path}`)),
  );
}

/** The sheet of a draft: written in place, computed as it is written, issued from here. */
export function DraftEditor({ initial, unkept, onLoadAgain }: DraftEditorProps) {
  const router = useRouter();
  const { accounts, registrations } = useOpenBook();
  const firstIncome = accounts.find((account) => account.type === 'income')?.code ?? '';
  const customerRef = useRef<CustomerRow | null>(null);
  const settingRef = useRef<Setting | null>(null);
  const [store] = useState(() =>
    createDraftStore(
      initial,
      {
        account: firstIncome,
        taxCodeOf: (now) =>
          settingRef.current === null
            ? ''
            : lineVerdict(now, blankLine('', ''), customerRef.current, settingRef.current).key,
      },
      unkept,
    ),
  );
  const save = useAutosave(store);
  const { draft, dirty, problems } = useStore(store);
  const [making, setMaking] = useState<Making>(null);
  // Loaded with its first use, and there from then on, so that it gives the focus back where it came from.
  const [made, setMade] = useState(false);
  if (making !== null && !made) setMade(true);
  const { fold } = useFolds();
  const [beside, setBeside] = useState<'margin' | 'print' | 'xml'>('margin');
  const [dropping, setDropping] = useState(false);
  const [switching, setSwitching] = useState<PriceMode | null>(null);

  const customer = useBook((db) => recordOf(db, 'customers', draft.customerId), [], [draft.customerId]) ?? null;
  const read = useSetting(draft, customer);
  const setting = read?.setting ?? null;
  useEffect(() => {
    customerRef.current = customer;
    settingRef.current = setting;
  }, [customer, setting]);
  useDecidedTaxes(store, draft, customer, read);
  const series = useBook((db) => allOf(db, 'series'));
  const version = draft.origin?.how === 'version' ? draft.origin.number : '';
  const number = version !== '' ? `${version}, next version` : series === undefined ? '' : numberOf(draft, series);

  const settled = useDeferredValue(draft);
  const shown = useMemo(
    () => (setting === null ? null : preview(settled, customer, setting)),
    [settled, customer, setting],
  );
  const taxes = useTaxChoices(draft, setting);

  const wrong = useMemo(() => new Set(problems.map((problem) => problem.path)), [problems]);
  const general = useMemo(
    () => (problems.length === 0 || setting === null ? [] : untold(problems, settled, customer, setting)),
    [problems, settled, customer, setting],
  );
  const pickItem = useCallback(
    async (lineId: string, itemId: string) => {
      const item = await recordOf(bookDb(), 'items', itemId);
      const now = store.getState().draft;
      const line = now.lines.find((l) => l.id === lineId);
      if (item === null || line === undefined) return;
      const { current } = settingRef;
      if (current === null) return;
      const listId = customerRef.current?.priceListId ?? '';
      const list = listId === '' ? null : await recordOf(bookDb(), 'priceLists', listId);
      store.changeLine(lineId, takeItem(line, item, list, now, customerRef.current, current));
      // Whoever has gone on already is not called back.
      const at = `lines[${now.lines.indexOf(line)}]`;
      const focused = document.activeElement instanceof HTMLElement ? document.activeElement.dataset.field : undefined;
      if (focused === undefined || focused === `${at}.description`) focusField(`${at}.quantity`);
    },
    [store],
  );
  const hurry = useCallback(
    async (lineId: string, title: string) => {
      const text = title.trim().toLowerCase();
      const item = (await findItems(bookDb(), text, MOST_HURRIED)).find((one) =>
        one.name.toLowerCase().startsWith(text),
      );
      const line = store.getState().draft.lines.find((l) => l.id === lineId);
      const untouched = line?.itemId === '' && line.price === '' && line.description === title;
      if (item !== undefined && untouched) await pickItem(lineId, item.id);
    },
    [store, pickItem],
  );
  const onPickItem = useCallback(
    (lineId: string, id: string) => void store.during(pickItem(lineId, id)),
    [store, pickItem],
  );
  const onHurry = useCallback(
    (lineId: string, title: string) => void store.during(hurry(lineId, title)),
    [store, hurry],
  );
  const pickCustomer = async (id: string) => {
    const db = bookDb();
    const from = document.activeElement;
    const picked = await recordOf(db, 'customers', id);
    if (picked === null) return;
    const theirs = await loadSetting(db, { ...store.getState().draft, delivery: null }, picked);
    customerRef.current = picked;
    settingRef.current = theirs;
    store.rework((now) => takeCustomer({ ...now, delivery: null }, picked, theirs));
    // Whoever has gone on meanwhile is not called back.
    const { activeElement } = document;
    if (activeElement === from || activeElement === document.body) focusField('issueDate');
  };
  const newItem = useCallback((lineId: string, name: string) => setMaking({ what: 'item', name, lineId }), []);

  const issuing = useIssuing(store, save, number, () => ({
    customer: customerRef.current,
    setting: settingRef.current,
  }));
  const switchTo = (keep: Keep) => {
    if (switching === null || shown === null) return;
    const { draft: switched, moved } = switchMode(store.getState().draft, shown, switching, keep);
    store.rework(() => switched);
    setSwitching(null);
    if (moved !== 0n) toast(`No price leads to the same total: it moves by ${showMoney(moved, shown.currency)}.`);
  };
  const askMode = (to: PriceMode) => {
    if (draft.lines.every((line) => line.price === '')) store.change({ priceMode: to });
    else setSwitching(to);
  };
  const isPattern = draft.recurringId !== undefined || draft.runId !== undefined;
  useKey('main', () => void (isPattern ? save() : issuing.issue()));
  useKey('send', () => void (isPattern || issuing.issueAndSend()));
  const bringBack = useBringBack(store);

  const drop = async () => {
    if (draft.revision > 0) {
      const result = await act(deleteDraft, { draftId: draft.id });
      if (!result.ok) return store.setProblems(result.refusals);
    }
    dropSideCopy(draft.id);
    router.push(routes.sales);
  };

  const become = async (what: 'recurring' | 'run') => {
    if (!(await save({ even: 'unchanged' }))) return;
    const words = draft.subject || draft.lines[0]?.description.split('\n')[0];
    const name = (what === 'run' ? words : [customer?.name, words].filter(Boolean).join(', ')) || title;
    const result =
      what === 'run'
        ? await act(runOfDraft, { draftId: draft.id, name })
        : await act(repeatDraft, { draftId: draft.id, name });
    if (!result.ok) return store.setProblems(result.refusals);
    router.push(what === 'run' ? routes.run(draft.id) : routes.recurring(draft.id));
  };
  const stale = problems.some(
    (problem) => problem.code === 'stale' || problem.code === 'not-found' || problem.code === 'already-issued',
  );
  const unwritten = problems.some(({ code }) => UNWRITTEN.has(code));
  const title = TITLES[draft.kind];
  const label = `Draft ${title.toLowerCase()}`;
  const toMargin = () => setBeside('margin');
  const show = (what: 'print' | 'xml') => {
    // The page needs the room that the index takes.
    if (beside === 'margin') fold('index', true);
    setBeside(beside === what ? 'margin' : what);
  };

  if (shown === null || setting === null) return <Sheet label={label}>{null}</Sheet>;
  return (
    <>
      <Sheet label={label}>
        <form
          className="flex flex-1 flex-col"
          onSubmit={(event) => event.preventDefault()}
          onKeyDown={moveOnEnter}
          aria-label={title}
        >
          <SheetTitle
            aside={
              <>
                <Mark kind="draft" /> draft ·{' '}
                <select
                  aria-label="Price mode"
                  className="cursor-pointer bg-transparent"
                  value={draft.priceMode}
                  onChange={(event) => askMode(event.target.value as PriceMode)}
                >
                  <option value="net">prices exclude tax</option>
                  <option value="gross">prices include tax</option>
                </select>
              </>
            }
          >
            {title}
          </SheetTitle>
          <OriginLine draft={draft} />
          <HeaderFields
            store={store}
            draft={draft}
            customer={customer}
            wrong={wrong}
            registrations={registrations}
            onPickCustomer={(id) => void store.during(pickCustomer(id))}
            onNewCustomer={(name) => setMaking({ what: 'customer', name, lineId: '' })}
            onEditCustomer={() => setMaking({ what: 'edit', name: '', lineId: '' })}
          />
          <MoreFields store={store} draft={draft} customer={customer} setting={setting} wrong={wrong} save={save} />
          <LinesTable
            store={store}
            draft={draft}
            problems={problems}
            shown={shown}
            taxes={taxes}
            onPickItem={onPickItem}
            onNewItem={newItem}
            onHurry={onHurry}
          />
          <AdjustmentRows store={store} draft={draft} shown={shown} problems={problems} taxes={taxes}>
            <Advances store={store} draft={draft} />
            <BringBack store={store} onBringBack={bringBack} />
          </AdjustmentRows>
          <DraftTotals store={store} draft={draft} shown={shown} />
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
                {stale ? (
                  <TextButton onClick={onLoadAgain}>Reload it</TextButton>
                ) : (
                  unwritten && <TextButton onClick={() => void save()}>Try again</TextButton>
                )}
              </p>
            )}
            <div className="flex flex-wrap items-center gap-2.5">
              {!isPattern ? (
                <>
                  <Button
                    weight="main"
                    data-field="issue"
                    disabled={issuing.busy}
                    onClick={issuing.issue}
                    title={KEY_MAP.main.shown}
                  >
                    {traitsOfDraft(draft.kind).posts ? 'Issue' : 'Send'} {number}
                  </Button>
                  {draft.kind !== 'cash-sale' && (
                    <Button disabled={issuing.busy} onClick={issuing.issueAndSend} title={KEY_MAP.send.shown}>
                      {traitsOfDraft(draft.kind).posts ? 'Issue and send' : 'Send by mail'}
                    </Button>
                  )}
                </>
              ) : (
                <Button
                  weight="main"
                  onClick={() =>
                    void save().then(
                      (ok) =>
                        ok &&
                        router.push(draft.runId === undefined ? routes.recurring(draft.id) : routes.run(draft.id)),
                    )
                  }
                >
                  Save what it says
                </Button>
              )}
              {!isPattern && (
                <Button onClick={() => void save().then((ok) => ok && router.push(routes.sales))}>Save as draft</Button>
              )}
              <Button aria-pressed={beside === 'print'} onClick={() => show('print')}>
                Print preview
              </Button>
              {traitsOfDraft(draft.kind).eInvoice && (
                <Button aria-pressed={beside === 'xml'} onClick={() => show('xml')}>
                  Show XML
                </Button>
              )}
              {!isPattern && (
                <>
                  {draft.kind === 'invoice' && draft.origin?.how !== 'stage' && (
                    <>
                      <Button weight="quiet" onClick={() => void become('recurring')}>
                        Make it recurring
                      </Button>
                      <Button weight="quiet" onClick={() => void become('run')}>
                        Make it a run
                      </Button>
                    </>
                  )}
                  <Button weight="quiet" onClick={() => (isUntouched(draft) ? void drop() : setDropping(true))}>
                    Delete this draft
                  </Button>
                </>
              )}
              <span role="status" className="ml-auto text-soft">
                {dirty
                  ? unwritten
                    ? 'not saved'
                    : 'writing…'
                  : draft.savedAt === ''
                    ? 'not saved yet'
                    : `saved ${new Date(draft.savedAt).toTimeString().slice(0, 5)}`}
              </span>
            </div>
          </div>
        </form>
      </Sheet>
      {beside === 'print' && (
        <PreviewColumn draft={draft} customer={customer} number={number} setting={setting} onClose={toMargin} />
      )}
      {beside === 'xml' && (
        <DraftXmlColumn draft={settled} customer={customer} number={number} setting={setting} onClose={toMargin} />
      )}
      {beside === 'margin' && (
        <DraftMargin
          store={store}
          draft={settled}
          shown={shown}
          customer={customer}
          number={number}
          setting={setting}
        />
      )}
      <SwitchModeDialog to={switching} onKeep={switchTo} onClose={() => setSwitching(null)} />
      <Dialog
        open={dropping}
        onClose={() => setDropping(false)}
        title="Delete this draft?"
        description="Its lines and files are deleted with it. It can't be brought back."
      >
        <div className="flex gap-2.5">
          <Button weight="grave" onClick={() => void drop()}>
            Delete the draft
          </Button>
          <Button onClick={() => setDropping(false)}>Keep it</Button>
        </div>
      </Dialog>
      <ZeroRatedDialog store={store} shown={shown} />
      <AskDialog number={number} issuing={issuing} />
      {made && (
        <MakingDialog
          making={making}
          customer={customer}
          title={title}
          onClose={() => setMaking(null)}
          onCustomer={(id) => void store.during(pickCustomer(id))}
          onItem={onPickItem}
        />
      )}
    </>
  );
}
