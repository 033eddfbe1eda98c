'use client';

import { useRouter } from 'next/navigation';
import { toast } from 'sonner';
import { minor, NOTHING } from '@/core/kernel/money';
import type { Refusal } from '@/core/kernel/result';
import { showMoney } from '@/core/kernel/show';
import { wordRefusals } from '@/core/wording/refusals';
import { recordReceipt } from '@/store/payments/actions/recordReceipt';
import { Button } from '@/ui/Button';
import { ChoiceField } from '@/ui/Field';
import { Money } from '@/ui/Money';
import { Sheet, SheetTitle } from '@/ui/Page';
import { OnAccount } from '../shared/settlement/OnAccount';
import { useOpenBook } from '../shell/BookContext';
import { KEY_MAP } from '../shell/keyMap';
import { routes } from '../shell/routes';
import { useKey } from '../shell/useKey';
import { usePreview } from '../shell/usePreview';
import { DebtsTable } from './DebtsTable';
import { PartsGrid } from './PartsGrid';
import { ReceiptHead } from './ReceiptHead';
import { ReceiptMargin } from './ReceiptMargin';
import { type BegunWith, type TypedReceipt, useTypedReceipt } from './useTypedReceipt';

/** Paths whose refusals stand at a field or a cell; all else stands below. */
const AT_A_FIELD =
  /^(customerId|date|number|reference|perHome|parts\[\d+\]\.(amount|charge|home|account|chequeDate)|to\[\d+\]\.(money|discount|difference|withheld\[\d+\]\.amount))$/;

const belongsBelow = ({ path }: Refusal): boolean => !AT_A_FIELD.test(path);

/** What the customer owes, with the ways to fill it; or that it owes nothing. */
function Owed({ receipt }: { readonly receipt: TypedReceipt }) {
  const { accounts } = useOpenBook();
  const { customer, debts, owed, currency, currencies, input, read, errorAt, head } = receipt;
  const { left } = read;
  if (customer === null || owed === undefined) return null;
  if (debts.length === 0)
    return (
      <>
        <p className="py-6 text-soft">
          {customer.name} owes nothing{currencies.length > 1 ? ` in ${currency}` : ''}: what is received stays on
          account.
        </p>
        {left > 0n && (
          <p className="flex justify-between px-1.5 py-1">
            <span>Unallocated, on account</span>
            <Money amount={left} currency={currency} withCode />
          </p>
        )}
      </>
    );
  const errorOf = (id: string, cell: string) => {
    const at = input.to.findIndex((one) => one.documentId === id);
    if (at < 0) return undefined;
    if (cell !== 'withheld') return errorAt(`to[${at}].${cell}`);
    return input.to[at]?.withheld?.map((_, i) => errorAt(`to[${at}].withheld[${i}].amount`)).find(Boolean);
  };
  return (
    <>
      <div className="mb-2 flex items-center gap-2.5">
        <Button onClick={() => receipt.fillAll('oldest')}>Oldest first</Button>
        <Button onClick={() => receipt.fillAll('newest')}>Newest first</Button>
        <Button onClick={receipt.tickAll}>All</Button>
        <Button onClick={receipt.tickNone}>None</Button>
        <span className="ml-auto text-soft" aria-live="polite">
          {left === NOTHING ? 'Unallocated' : left < 0n ? 'Allocated more than received' : 'Unallocated, on account'}
          <Money
            amount={left < 0n ? minor(-left) : left}
            currency={currency}
            withCode
            className={`ml-2 ${left < 0n ? 'text-brick' : 'text-ink'}`}
          />
        </span>
      </div>
      <DebtsTable
        debts={debts}
        rows={receipt.rows}
        currency={currency}
        customerId={customer.id}
        today={receipt.on}
        errorAt={errorOf}
        onType={receipt.typeCell}
        onWithheld={receipt.typeWithheld}
        onTick={receipt.tick}
      />
      {input.to.some(({ difference }) => difference !== undefined) && (
        <ChoiceField
          label="Differences go to"
          className="mt-2 w-[260px] self-end"
          options={accounts
            .filter(({ type }) => type === 'expense' || type === 'income')
            .map(({ code, name }) => [code, `${code} ${name}`] as const)}
          value={head.differenceTo}
          onChange={(event) => receipt.typeHead('differenceTo', event.target.value)}
        />
      )}
    </>
  );
}

/** Records money from a customer against what it owes. Starts from one document or customer where it is named. */
export function NewReceipt(begun: BegunWith) {
  const router = useRouter();
  const { currency: home, accounts } = useOpenBook();
  const receipt = useTypedReceipt(begun, (id, number) => {
    toast(`${number} is recorded`);
    router.push(routes.receipt(id));
  });
  const { customer, currency, read, input, refusals, recording, record } = receipt;
  const { money } = read;
  // What is unusual is asked about when it is recorded.
  const planned = usePreview(recordReceipt, input.to.length === 0 && money <= 0n ? null : { ...input, agreed: true });
  useKey('main', () => void record());
  const below = refusals.filter(belongsBelow);
  return (
    <>
      <Sheet label="New receipt">
        <SheetTitle aside={currency === home ? '' : `in ${currency}`}>Receipt</SheetTitle>
        <ReceiptHead receipt={receipt} />
        {customer === null ? (
          <p className="py-6 text-soft">Choose the customer to see its open documents.</p>
        ) : (
          <>
            <OnAccount customerId={customer.id} />
            <PartsGrid
              parts={receipt.parts}
              currency={currency}
              home={home}
              accounts={accounts}
              errorAt={receipt.errorAt}
              onChange={receipt.changeParts}
              onAdd={receipt.addPart}
              onEnter={() => receipt.fillAll('oldest')}
            />
            <Owed receipt={receipt} />
          </>
        )}
        <div className="mt-auto pt-6">
          {below.length > 0 && (
            <p role="alert" className="mb-3 text-brick">
              ▲ {wordRefusals(below)}
            </p>
          )}
          {refusals.some(({ code }) => code === 'unusual') && (
            <Button className="mr-2.5" disabled={recording} onClick={() => void record(true)}>
              Record anyway
            </Button>
          )}
          <Button
            weight="main"
            data-record
            disabled={recording}
            onClick={() => void record()}
            title={KEY_MAP.main.shown}
          >
            Record {money > NOTHING ? `${showMoney(money, currency)} ${currency}` : 'the receipt'}
          </Button>
        </div>
      </Sheet>
      <ReceiptMargin
        read={read}
        debts={receipt.debts}
        rows={receipt.rows}
        currency={currency}
        valueDate={receipt.valueDate}
        planned={planned}
      />
    </>
  );
}
