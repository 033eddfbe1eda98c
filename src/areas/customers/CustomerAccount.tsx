'use client';

import { useRouter } from 'next/navigation';
import { useState } from 'react';
import type { IssuedDocument } from '@/core/documents/issued';
import type { Currency } from '@/core/kernel/currency';
import { type IsoDate, writeDate, writeDay } from '@/core/kernel/date';
import { type Minor, NOTHING, negated } from '@/core/kernel/money';
import {
  AGE_LIMITS,
  accountMoves,
  agedOf,
  ageHeads,
  ageOf,
  EVENT_WORDS,
  type OpenItem,
  openItemsOn,
  statementOf,
} from '@/core/settlement/account';
import { isPostDated } from '@/core/settlement/receipt';
import { sumWithheld } from '@/core/settlement/withholding';
import { type CustomerAccount as Account, customerAccount } from '@/store/customers/queries/account';
import { Button } from '@/ui/Button';
import Link from '@/ui/Link';
import { Mark } from '@/ui/Mark';
import { type MenuEntry, SmallMenu } from '@/ui/Menu';
import { Money } from '@/ui/Money';
import { Empty, Margin, Note, NoteRow, Sheet, SheetTitle } from '@/ui/Page';
import { Ruled } from '@/ui/Ruled';
import { ListTable } from '../shared/ListTable';
import { AllocateDialog, type CreditLeft } from '../shared/settlement/AllocateDialog';
import { OnAccount } from '../shared/settlement/OnAccount';
import { RefundDialog } from '../shared/settlement/RefundDialog';
import { WriteOffDialog } from '../shared/settlement/WriteOffDialog';
import { useOpenBook } from '../shell/BookContext';
import { today, useBook } from '../shell/book';
import { routes } from '../shell/routes';
import { StatementDialog } from './StatementDialog';

const LINK = 'underline decoration-rule underline-offset-4';

const pathOf = ({ kind, id }: Pick<OpenItem, 'kind' | 'id'>): string =>
  kind === 'receipt' ? routes.receipt(id) : routes.document(id);

/** What is owed in a currency, by age. */
function Ages({
  items,
  currency,
  on,
}: {
  readonly items: readonly OpenItem[];
  readonly currency: Currency;
  readonly on: IsoDate;
}) {
  const { columns, held, balance } = agedOf(items, on);
  const heads = ['not yet due', ...ageHeads(AGE_LIMITS).map((head) => `${head} days`)];
  return (
    <Ruled
      caption={`Balance by age, ${currency}`}
      className="mb-4"
      rows={[currency]}
      keyOf={(row) => row}
      columns={[
        ...heads.map((head, i) => ({
          head,
          align: 'right' as const,
          cell: () => <Money amount={columns[i] ?? NOTHING} currency={currency} />,
        })),
        { head: 'on account', align: 'right', cell: () => <Money amount={held} currency={currency} /> },
        {
          head: 'balance',
          align: 'right',
          cell: () => <Money amount={balance} currency={currency} withCode className="font-semibold" />,
        },
      ]}
    />
  );
}

/** What can be done with an open item where it stands. */
type Doing =
  | { readonly what: 'write-off'; readonly document: IssuedDocument }
  | { readonly what: 'settle' | 'refund'; readonly credit: CreditLeft };

interface OpenItemsProps {
  readonly items: readonly OpenItem[];
  readonly documents: readonly IssuedDocument[];
  readonly on: IsoDate;
}

function OpenItems({ items, documents, on }: OpenItemsProps) {
  const router = useRouter();
  const [doing, setDoing] = useState<Doing | null>(null);
  const close = () => setDoing(null);
  const entriesOf = ({ id, number, customerId, currency, open }: OpenItem): readonly MenuEntry[] => {
    const document = documents.find((one) => one.id === id);
    if (open > 0n && document !== undefined)
      return [
        { words: 'Record a receipt', onSelect: () => router.push(routes.receiptFor(id)) },
        { words: 'Write off…', onSelect: () => setDoing({ what: 'write-off', document }) },
      ];
    const credit = { id, number, customerId, currency, left: negated(open) };
    return [
      { words: 'Allocate…', onSelect: () => setDoing({ what: 'settle', credit }) },
      { words: 'Refund…', onSelect: () => setDoing({ what: 'refund', credit }) },
    ];
  };
  return (
    <>
      <ListTable
        caption="Open items"
        rows={items}
        keyOf={({ id }) => id}
        columns={[
          {
            head: 'Number',
            value: ({ number }) => number,
            cell: (item) => (
              <Link href={pathOf(item)} className={LINK}>
                {item.number}
              </Link>
            ),
          },
          { head: 'Date', value: ({ date }) => date, cell: ({ date }) => writeDate(date) },
          {
            head: 'Due',
            value: ({ due }) => due,
            cell: ({ open, parts, due }) =>
              open < 0n ? (
                <span className="text-soft">on account</span>
              ) : (
                <span className={ageOf(due, on, AGE_LIMITS) > 0 ? 'text-brick' : ''}>
                  {parts.length > 1 ? parts.map((part) => writeDay(part.due)).join(', ') : writeDate(due)}
                  {ageOf(due, on, AGE_LIMITS) > 0 && ' ▲'}
                </span>
              ),
          },
          { head: 'Reference', cell: ({ reference }) => reference },
          {
            head: 'Amount',
            align: 'right',
            value: ({ amount }) => amount,
            cell: ({ amount, currency }) => <Money amount={amount} currency={currency} />,
          },
          {
            head: 'Open',
            align: 'right',
            value: ({ open }) => open,
            cell: ({ open, currency }) => <Money amount={open} currency={currency} />,
          },
          {
            head: 'Actions',
            align: 'right',
            cell: (item) => <SmallMenu label={`Do with ${item.number}`} entries={entriesOf(item)} />,
          },
        ]}
      />
      {doing?.what === 'write-off' && <WriteOffDialog document={doing.document} onClose={close} />}
      {doing?.what === 'settle' && <AllocateDialog credit={doing.credit} onClose={close} />}
      {doing?.what === 'refund' && <RefundDialog credit={doing.credit} onClose={close} />}
    </>
  );
}

function Moves({
  account,
  currency,
  until,
}: {
  readonly account: Account;
  readonly currency: Currency;
  readonly until: IsoDate;
}) {
  const { moves } = statementOf(accountMoves(account.rows, currency), '', until);
  const keyed = moves.map((move, i) => ({ ...move, key: `${i}-${move.number}-${move.event}` }));
  return (
    <ListTable
      caption={`Transactions, ${currency}`}
      ordered
      rows={keyed}
      keyOf={({ key }) => key}
      columns={[
        { head: 'Date', cell: ({ date }) => writeDate(date), value: ({ date }) => date },
        { head: 'Type', cell: ({ event }) => EVENT_WORDS[event] },
        {
          head: 'Number',
          value: ({ number }) => number,
          cell: ({ id, kind, number }) =>
            id === '' ? (
              number
            ) : (
              <Link href={kind === 'receipt' ? routes.receipt(id) : routes.document(id)} className={LINK}>
                {number}
              </Link>
            ),
        },
        { head: 'Reference', cell: ({ reference }) => reference },
        {
          head: 'Debit',
          align: 'right',
          value: ({ amount }) => (amount > 0n ? amount : NOTHING),
          cell: ({ amount }) => (amount > 0n ? <Money amount={amount} currency={currency} /> : ''),
        },
        {
          head: 'Credit',
          align: 'right',
          value: ({ amount }) => (amount < 0n ? negated(amount) : NOTHING),
          cell: ({ amount }) => (amount < 0n ? <Money amount={negated(amount)} currency={currency} /> : ''),
        },
        {
          head: 'Balance',
          align: 'right',
          value: ({ balance }) => balance,
          cell: ({ balance }) => <Money amount={balance} currency={currency} />,
        },
      ]}
    />
  );
}

function Beside({ account }: { readonly account: Account }) {
  const { currency: home } = useOpenBook();
  const { customer, parent, children, withheld, certificates, exemptions } = account;
  const { withheld: kept, certified, claimed } = sumWithheld(withheld);
  const show = (amount: Minor) => <Money amount={amount} currency={home} />;
  return (
    <Margin>
      <Note title="Customer">
        <p>
          <Link href={routes.record('customers', customer.id)} className={LINK}>
            Record of {customer.name}
          </Link>
        </p>
        {customer.email !== '' && <p className="mt-1 text-sm">{customer.email}</p>}
        {customer.contacts.map(({ name, email, phone }) => (
          <p key={`${name} ${email}`} className="mt-1 text-sm">
            {[name, email, phone].filter(Boolean).join(' · ')}
          </p>
        ))}
        {parent !== null && (
          <p className="mt-1 text-sm">
            Parent customer{' '}
            <Link href={routes.customer(parent.id)} className={LINK}>
              {parent.name}
            </Link>
          </p>
        )}
        {children.map(({ id, name }) => (
          <p key={id} className="mt-1 text-sm">
            Child customers{' '}
            <Link href={routes.customer(id)} className={LINK}>
              {name}
            </Link>
          </p>
        ))}
      </Note>
      {exemptions.length > 0 && (
        <Note title="Exemption certificates">
          {exemptions.map(({ id, number, until }) => (
            <NoteRow key={id} label={number} figure={until === '' ? '' : `until ${writeDate(until)}`} />
          ))}
        </Note>
      )}
      {withheld.length > 0 && (
        <Note title="Withholding">
          <NoteRow label="withheld" figure={show(kept)} />
          <NoteRow label="certified" figure={show(certified)} />
          <NoteRow label="claimed" figure={show(claimed)} />
          {certificates.map(({ id, number, date, amount }) => (
            <NoteRow key={id} label={`certificate ${number}, ${writeDay(date)}`} figure={show(amount)} />
          ))}
          <Link href={routes.withholding} className="text-sm underline underline-offset-2">
            Withholding
          </Link>
        </Note>
      )}
    </Margin>
  );
}

/** The account of a customer: what is owed by age, what is open, what is held, and everything that happened, by day. */
export function CustomerAccount({ id }: { readonly id: string }) {
  const account = useBook((db) => customerAccount(db, id, true), [id]);
  const [printing, setPrinting] = useState(false);
  const on = today();
  if (!account)
    return <Sheet label="Customer’s account">{account === null && <Empty>There is no such customer.</Empty>}</Sheet>;
  const { customer, rows } = account;
  const items = openItemsOn(rows, on);
  const used = [
    ...new Set([
      ...items.map(({ currency }) => currency),
      ...rows.documents.map(({ content }) => content.currency),
      ...rows.receipts.map(({ currency }) => currency),
    ]),
  ];
  const cheques = rows.receipts.filter((receipt) => receipt.dishonoured === null && isPostDated(receipt, on));
  return (
    <>
      <Sheet label={`Account of ${customer.name}`}>
        <SheetTitle aside={`as of ${writeDate(on)}`}>{customer.name}</SheetTitle>
        {used.length === 0 && <Empty>Nothing has happened on this account yet.</Empty>}
        {used.map((currency) => (
          <Ages key={currency} items={items.filter((item) => item.currency === currency)} currency={currency} on={on} />
        ))}
        <OnAccount customerId={customer.id} />
        {cheques.map(({ id: receiptId, number, valueDate, amount, currency }) => (
          <p key={receiptId} className="mb-2">
            <Mark kind="note" /> Post-dated cheque of {writeDate(valueDate)},{' '}
            <Link href={routes.receipt(receiptId)} className={LINK}>
              {number}
            </Link>
            : <Money amount={amount} currency={currency} withCode />
          </p>
        ))}
        {items.length > 0 && <OpenItems items={items} documents={rows.documents} on={on} />}
        {used.map((currency) => (
          <section key={currency} aria-label={`Transactions, ${currency}`} className="mt-6">
            <h2 className="mb-1 font-semibold font-serif">Transactions{used.length > 1 ? `, ${currency}` : ''}</h2>
            <Moves account={account} currency={currency} until={on} />
          </section>
        ))}
        <div className="mt-auto flex flex-wrap gap-2.5 pt-6">
          <Link
            href={routes.receiptFrom(customer.id)}
            className="rounded-sm border border-rule bg-sheet px-3.5 py-1 hover:border-soft"
          >
            Record a receipt
          </Link>
          <Button onClick={() => setPrinting(true)}>Statement of account</Button>
        </div>
        {printing && <StatementDialog customers={[customer]} onClose={() => setPrinting(false)} />}
      </Sheet>
      <Beside account={account} />
    </>
  );
}
