'use client';

import { useState } from 'react';
import { daysBetween, type IsoDate, writeDate } from '@/core/kernel/date';
import { grouped } from '@/core/kernel/grouped';
import { type Minor, minor, NOTHING, total } from '@/core/kernel/money';
import { sumWithheld, type Withheld } from '@/core/settlement/withholding';
import {
  CERTIFICATE_DUE,
  type Expected,
  expectedWithholding,
  withholdingView,
} from '@/store/payments/queries/withholding';
import { Button } from '@/ui/Button';
import { ChoiceField } from '@/ui/Field';
import Link from '@/ui/Link';
import { Money } from '@/ui/Money';
import { Empty, Margin, Note, NoteRow, Sheet, SheetTitle } from '@/ui/Page';
import { ListTable } from '../shared/ListTable';
import { useOpenBook } from '../shell/BookContext';
import { today, useBook } from '../shell/book';
import { routes } from '../shell/routes';
import { CertificateDialog } from './CertificateDialog';
import { ClaimDialog } from './ClaimDialog';
import { LetterDialog } from './LetterDialog';
import { WithdrawDialog } from './WithdrawDialog';

const LINK = 'underline decoration-rule underline-offset-4';

/** What a customer kept back of a type in a year. */
interface Row {
  readonly key: string;
  readonly customerId: string;
  readonly customerName: string;
  readonly typeId: string;
  readonly typeName: string;
  readonly year: string;
  readonly rows: readonly Withheld[];
  readonly withheld: Minor;
  readonly certified: Minor;
  readonly claimed: Minor;
  /** Needed and not there, by age in days of the oldest. */
  readonly missing: Minor;
  readonly oldest: number;
}

const lacks = (one: Withheld): Minor =>
  one.needsCertificate && one.voidOn === '' ? minor(one.home - one.certified) : NOTHING;

function rowsOf(withheld: readonly Withheld[], on: IsoDate): readonly Row[] {
  const standing = withheld.filter(({ voidOn }) => voidOn === '');
  const keyOf = ({ customerId, typeId, date }: Withheld) => `${customerId}|${typeId}|${date.slice(0, 4)}`;
  return [...grouped(standing, keyOf)].map(([key, rows]): Row => {
    const [first] = rows as [Withheld, ...Withheld[]];
    const open = rows.filter((one) => lacks(one) > NOTHING);
    return {
      key,
      customerId: first.customerId,
      customerName: first.customerName,
      typeId: first.typeId,
      typeName: first.typeName,
      year: first.date.slice(0, 4),
      rows,
      ...sumWithheld(rows),
      missing: total(rows.map(lacks)),
      oldest: Math.max(0, ...open.map(({ date }) => daysBetween(date, on))),
    };
  });
}

function Behind({ row, onClose }: { readonly row: Row; readonly onClose: () => void }) {
  const { currency: home } = useOpenBook();
  return (
    <Note title={`${row.typeName}, ${row.customerName}, ${row.year}`}>
      {row.rows.map((one) => (
        <NoteRow
          key={one.id}
          label={
            <Link
              href={one.receiptId === '' ? routes.document(one.documentId) : routes.receipt(one.receiptId)}
              className={LINK}
            >
              {one.receiptNumber || one.documentNumber}, {writeDate(one.date)}
            </Link>
          }
          figure={<Money amount={one.home} currency={home} />}
        />
      ))}
      <Button weight="quiet" onClick={onClose}>
        Close
      </Button>
    </Note>
  );
}

function Expectations({
  expected,
  names,
}: {
  readonly expected: readonly Expected[];
  readonly names: ReadonlyMap<string, string>;
}) {
  const sums = [...grouped(expected, ({ typeId, currency }) => `${typeId}|${currency}`)];
  if (sums.length === 0) return null;
  return (
    <Note title="Still expected">
      {sums.map(([key, rows]) => {
        const [first] = rows as [Expected, ...Expected[]];
        return (
          <NoteRow
            key={key}
            label={`${names.get(first.typeId) ?? first.typeId}, of what is open`}
            figure={<Money amount={total(rows.map(({ amount }) => amount))} currency={first.currency} withCode />}
          />
        );
      })}
    </Note>
  );
}

/** Tax that customers kept back: by customer, type and year, what is certified, missing and claimed. */
export function WithholdingScreen() {
  const { currency: home, records } = useOpenBook();
  const view = useBook((db) => withholdingView(db), []);
  const expected = useBook((db) => expectedWithholding(db), []) ?? [];
  const [year, setYear] = useState('');
  const [typeId, setTypeId] = useState('');
  const [asking, setAsking] = useState<'certificate' | 'claim' | 'letter' | null>(null);
  const [behind, setBehind] = useState('');
  const [withdrawing, setWithdrawing] = useState<{ readonly id: string; readonly number: string } | null>(null);
  if (view === undefined) return <Sheet label="Withholding">{null}</Sheet>;
  const all = rowsOf(view.withheld, today());
  const rows = all.filter((row) => (year === '' || row.year === year) && (typeId === '' || row.typeId === typeId));
  const years = [...new Set(all.map((row) => row.year))].sort().reverse();
  const types = new Map(all.map((row) => [row.typeId, row.typeName]));
  const names = new Map([...records.withholdingTypes.map(({ id, name }) => [id, name] as const), ...types]);
  const money = (head: string, of: (row: Row) => Minor) => ({
    head,
    align: 'right' as const,
    value: of,
    cell: (row: Row) =>
      of(row) === NOTHING ? (
        ''
      ) : (
        <button type="button" className="cursor-pointer hover:underline" onClick={() => setBehind(row.key)}>
          <Money amount={of(row)} currency={home} />
        </button>
      ),
  });
  const sum = (of: (row: Row) => Minor) => <Money amount={total(rows.map(of))} currency={home} />;
  const open = rows.find(({ key }) => key === behind);
  const close = () => setAsking(null);
  return (
    <>
      <Sheet label="Withholding">
        <SheetTitle aside={home}>Tax withheld by customers</SheetTitle>
        {all.length === 0 ? (
          <Empty>
            No customer has withheld tax yet. Withholding types are in Setup; what was withheld is entered on a receipt.
          </Empty>
        ) : (
          <>
            <div className="flex items-start gap-x-4">
              <ChoiceField
                label="Year"
                className="w-[110px]"
                options={[['', 'all'], ...years.map((one) => [one, one] as const)]}
                value={year}
                onChange={(event) => setYear(event.target.value)}
              />
              <ChoiceField
                label="Type"
                className="w-[220px]"
                options={[['', 'all'], ...types]}
                value={typeId}
                onChange={(event) => setTypeId(event.target.value)}
              />
            </div>
            <ListTable
              caption="Withheld by customer"
              rows={rows}
              keyOf={({ key }) => key}
              columns={[
                {
                  head: 'Customer',
                  value: ({ customerName }) => customerName,
                  cell: ({ customerId, customerName }) => (
                    <Link href={routes.customer(customerId)} className={LINK}>
                      {customerName}
                    </Link>
                  ),
                },
                { head: 'Type', cell: (row) => row.typeName },
                { head: 'Year', cell: (row) => row.year },
                money('Withheld', (row) => row.withheld),
                money('Certified', (row) => row.certified),
                money('Missing', (row) => row.missing),
                {
                  head: 'Oldest missing',
                  align: 'right',
                  value: ({ oldest }) => oldest,
                  cell: ({ oldest }) =>
                    oldest === 0 ? (
                      ''
                    ) : (
                      <span className={oldest > CERTIFICATE_DUE ? 'text-brick' : ''}>
                        {oldest} {oldest === 1 ? 'day' : 'days'}
                        {oldest > CERTIFICATE_DUE && ' ▲'}
                      </span>
                    ),
                },
                money('Claimed', (row) => row.claimed),
              ]}
              sums={[
                'Total',
                '',
                '',
                sum((row) => row.withheld),
                sum((row) => row.certified),
                sum((row) => row.missing),
                '',
                sum((row) => row.claimed),
              ]}
            />
          </>
        )}
        {all.length > 0 && (
          <div className="mt-auto flex flex-wrap gap-2.5 pt-6">
            <Button weight="main" onClick={() => setAsking('certificate')}>
              Enter a certificate
            </Button>
            <Button onClick={() => setAsking('claim')}>Claim</Button>
            <Button onClick={() => setAsking('letter')}>Request missing certificates</Button>
          </div>
        )}
        {asking === 'certificate' && <CertificateDialog withheld={view.withheld} onClose={close} />}
        {asking === 'claim' && <ClaimDialog withheld={view.withheld} onClose={close} />}
        {withdrawing !== null && <WithdrawDialog {...withdrawing} onClose={() => setWithdrawing(null)} />}
        {asking === 'letter' && (
          <LetterDialog missing={view.withheld.filter((one) => lacks(one) > NOTHING)} onClose={close} />
        )}
      </Sheet>
      <Margin>
        {open !== undefined && <Behind row={open} onClose={() => setBehind('')} />}
        <Expectations expected={expected} names={names} />
        {view.certificates.length > 0 && (
          <Note title="Certificates">
            {view.certificates.map(({ id, number, date, amount, customerId }) => (
              <NoteRow
                key={id}
                label={
                  <span className="inline-flex flex-wrap items-baseline gap-x-1.5">
                    <Link href={routes.customer(customerId)} className={LINK}>
                      {number}, {writeDate(date)}
                    </Link>
                    <Button
                      weight="quiet"
                      className="-my-1"
                      aria-label={`Withdraw ${number}`}
                      onClick={() => setWithdrawing({ id, number })}
                    >
                      Withdraw…
                    </Button>
                  </span>
                }
                figure={<Money amount={amount} currency={home} />}
              />
            ))}
          </Note>
        )}
        {view.claims.length > 0 && (
          <Note title="Claims">
            {view.claims.map(({ id, date, amount, by, entryId }) => (
              <NoteRow
                key={id}
                label={
                  <Link href={routes.entry(entryId)} className={LINK}>
                    {by === 'set-off' ? 'set against a return' : 'asked back'}, {writeDate(date)}
                  </Link>
                }
                figure={<Money amount={amount} currency={home} />}
              />
            ))}
          </Note>
        )}
      </Margin>
    </>
  );
}
