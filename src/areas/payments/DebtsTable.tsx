'use client';

import type { KeyboardEvent } from 'react';
import type { Currency } from '@/core/kernel/currency';
import { type IsoDate, writeDate, writeDay } from '@/core/kernel/date';
import { minor, NOTHING, total } from '@/core/kernel/money';
import { showMoney } from '@/core/kernel/show';
import { discountOffer } from '@/core/settlement/discount';
import { expectedOnPayment } from '@/core/settlement/expected';
import type { Debt } from '@/core/settlement/proposal';
import { Money } from '@/ui/Money';
import { Ruled, type RuledColumn } from '@/ui/Ruled';
import { EMPTY_ROW, restOf, type TypedRow } from './typedReceipt';

interface DebtsTableProps {
  readonly debts: readonly Debt[];
  readonly rows: Readonly<Record<string, TypedRow>>;
  readonly currency: Currency;
  readonly customerId: string;
  readonly today: IsoDate;
  /** What is wrong at a cell of a document: `money`, `discount`, `withheld`. */
  readonly errorAt: (documentId: string, cell: string) => string | undefined;
  readonly onType: (debt: Debt, cell: 'money' | 'discount' | 'difference', text: string) => void;
  readonly onWithheld: (debt: Debt, typeId: string, text: string) => void;
  readonly onTick: (debt: Debt, ticked: boolean) => void;
}

/** Withholding types of which a document expects something, or of which something is typed. */
function typesOf(debts: readonly Debt[]): readonly { readonly id: string; readonly name: string }[] {
  const types = debts.flatMap(({ document }) => expectedOnPayment(document).map(({ type }) => type));
  return [...new Map(types.map(({ id, name }) => [id, { id, name }])).values()];
}

function moveOn(event: KeyboardEvent<HTMLInputElement>): void {
  if (event.key !== 'Enter' || event.ctrlKey) return;
  event.preventDefault();
  const cells = [...document.querySelectorAll<HTMLInputElement>('[data-amount]')];
  const next = cells[cells.indexOf(event.currentTarget) + 1];
  next?.select();
  (next ?? document.querySelector<HTMLElement>('[data-record]'))?.focus();
}

interface CellProps {
  readonly label: string;
  readonly value: string;
  readonly error: string | undefined;
  readonly hint?: string;
  readonly placeholder?: string;
  readonly isMoney?: boolean;
  readonly onType: (text: string) => void;
}

function Cell({ label, value, error, hint, placeholder, isMoney = false, onType }: CellProps) {
  return (
    <>
      <input
        {...(isMoney && { 'data-amount': true })}
        aria-label={label}
        aria-invalid={error !== undefined}
        className="cell -my-1 block border-soft border-b bg-paper/40 text-right tabular-nums"
        inputMode="decimal"
        placeholder={placeholder}
        value={value}
        onChange={(event) => onType(event.target.value)}
        onKeyDown={moveOn}
      />
      {error !== undefined && <span className="block pt-1 text-brick text-sm">▲ {error}</span>}
      {error === undefined && hint && <span className="block pt-1 text-soft text-sm">{hint}</span>}
    </>
  );
}

/** What the customer owes, with cells for what of it is settled now. */
export function DebtsTable(props: DebtsTableProps) {
  const { debts, rows, currency, customerId, today, errorAt, onType, onWithheld, onTick } = props;
  const types = typesOf(debts);
  const offers = debts.some(({ document }) => discountOffer(document) !== null);
  const rowFor = ({ document }: Debt) => rows[document.id] ?? EMPTY_ROW;
  const columns: RuledColumn<Debt>[] = [
    {
      head: 'Invoice',
      cell: (debt) => {
        const { id, number, customerName, customerId: own } = debt.document;
        return (
          <label className="flex cursor-pointer gap-1.5">
            <input
              type="checkbox"
              aria-label={`Allocate to ${number}`}
              className="mt-[3px] accent-rust"
              checked={(rows[id]?.money ?? '') !== ''}
              onChange={(event) => onTick(debt, event.target.checked)}
            />
            <span className="whitespace-nowrap" title={number}>
              {number.replace(/-\d{4}-/, '-')}
              {own !== customerId && <span className="block text-soft text-sm">{customerName}</span>}
            </span>
          </label>
        );
      },
    },
    {
      head: 'Due',
      cell: ({ document: { dueDate } }) => (
        <span title={writeDate(dueDate)} className={`whitespace-nowrap ${dueDate < today ? 'text-brick' : ''}`}>
          {writeDay(dueDate)}
          {dueDate < today && ' ▲'}
        </span>
      ),
    },
    {
      head: 'Open',
      align: 'right',
      cell: ({ document }) =>
        document.open === NOTHING ? (
          <span className="text-soft">written off</span>
        ) : (
          <>
            <Money amount={document.open} currency={currency} />
            {document.open !== document.figures.totals.payable && (
              <span className="block text-soft text-sm">
                of <Money amount={document.figures.totals.payable} currency={currency} />
              </span>
            )}
          </>
        ),
    },
    {
      head: 'Paid',
      align: 'right',
      width: '104px',
      cell: (debt) => (
        <Cell
          isMoney
          label={`Paid on ${debt.document.number}`}
          value={rowFor(debt).money}
          error={errorAt(debt.document.id, 'money')}
          onType={(text) => onType(debt, 'money', text)}
        />
      ),
    },
    ...types.map(
      ({ id, name }): RuledColumn<Debt> => ({
        head: name,
        align: 'right',
        width: '92px',
        cell: (debt) => {
          const expected = expectedOnPayment(debt.document).find(({ type }) => type.id === id)?.amount;
          return (
            <Cell
              label={`${name} withheld from ${debt.document.number}`}
              value={rowFor(debt).withheld[id] ?? ''}
              error={errorAt(debt.document.id, 'withheld')}
              {...(expected !== undefined && { placeholder: showMoney(expected, currency) })}
              onType={(text) => onWithheld(debt, id, text)}
            />
          );
        },
      }),
    ),
    ...(offers
      ? [
          {
            head: 'Discount',
            align: 'right',
            width: '96px',
            cell: (debt) => {
              const offer = discountOffer(debt.document);
              return (
                <Cell
                  label={`Discount on ${debt.document.number}`}
                  value={rowFor(debt).discount}
                  error={errorAt(debt.document.id, 'discount')}
                  {...(offer !== null && {
                    hint: offer.until < today ? `until ${writeDay(offer.until)} ▲` : `until ${writeDay(offer.until)}`,
                    placeholder: showMoney(offer.most, currency),
                  })}
                  onType={(text) => onType(debt, 'discount', text)}
                />
              );
            },
          } satisfies RuledColumn<Debt>,
        ]
      : []),
    {
      head: 'Difference',
      align: 'right',
      width: '86px',
      cell: (debt) => (
        <Cell
          label={`Small difference on ${debt.document.number}`}
          value={rowFor(debt).difference}
          error={errorAt(debt.document.id, 'difference')}
          onType={(text) => onType(debt, 'difference', text)}
        />
      ),
    },
    {
      head: 'Remaining',
      align: 'right',
      cell: (debt) => {
        const rest = restOf(debt, rowFor(debt), currency);
        return rest === null || rest === debt.document.open ? null : (
          <span className={rest < 0n ? 'text-brick' : ''}>
            {showMoney(rest, currency)}
            {rest < 0n && ' ▲'}
          </span>
        );
      },
    },
  ];
  const open = total(debts.map(({ document }) => document.open));
  return (
    <Ruled
      caption="Open invoices"
      rows={debts}
      keyOf={({ document }) => document.id}
      columns={columns}
      sums={['Total', '', <Money key="open" amount={minor(open)} currency={currency} />]}
    />
  );
}
