'use client';

import { writeDate } from '@/core/kernel/date';
import { decimal } from '@/core/kernel/decimal';
import { total, writeMoney } from '@/core/kernel/money';
import { showNumber } from '@/core/kernel/show';
import { type ReturnForm, rowsInto } from '@/core/returns/form';
import { rowKey, type TaxBalance } from '@/core/returns/return';
import type { TaxEntry } from '@/core/returns/taxEntry';
import { firstBehind } from '@/store/tax/queries/periods';
import { Button } from '@/ui/Button';
import Link from '@/ui/Link';
import { Money } from '@/ui/Money';
import { ListTable } from '../shared/ListTable';
import { useMore } from '../shared/useMore';
import { useOpenBook } from '../shell/BookContext';
import { useBook } from '../shell/book';
import { routes } from '../shell/routes';

/** What opens everything behind a return. */
export const ALL = 'all';

/** What opens the entries of a box. */
export const boxId = (box: string): string => `box ${box}`;

/** The rows behind an opened figure, and what they are called; null while none is opened. */
export function behindOf(
  form: ReturnForm | null,
  rows: readonly TaxBalance[],
  opened: string,
): { readonly rows: readonly TaxBalance[]; readonly title: string } | null {
  if (opened === '') return null;
  if (opened === ALL) return { rows, title: 'All of the return' };
  const box = form?.boxes.find(({ id }) => opened === boxId(id));
  if (box !== undefined) return { rows: rowsInto(box, rows), title: `Box ${box.id}` };
  const boxed = rows.filter((row) => opened === boxId(row.boxBase) || opened === boxId(row.boxTax));
  if (boxed.length > 0) return { rows: boxed, title: `Box ${opened.slice(boxId('').length)}` };
  const row = rows.find((one) => rowKey(one) === opened);
  return row === undefined ? null : { rows: [row], title: `${row.codeName}, ${showNumber(decimal(row.percent))} %` };
}

interface BehindProps {
  readonly rows: readonly TaxBalance[];
  readonly title: string;
  /** Folds it; missing where nothing else is shown. */
  readonly onClose?: () => void;
}

/** The documents behind rows of the return. */
export function Behind({ rows, title, onClose }: BehindProps) {
  const { currency } = useOpenBook();
  const key = rows.map((row) => `${row.periodId}|${rowKey(row)}`).join();
  const more = useMore();
  const { rows: entries = [], onMore } = more.of(useBook((db) => firstBehind(db, rows, more.ask), [key], [more.ask]));
  const several = new Set(rows.map(({ jurisdictionId }) => jurisdictionId)).size > 1;
  return (
    <section aria-label={`Documents behind ${title}`} className="mt-6">
      <div className="mb-2 flex items-baseline justify-between">
        <h2 className="font-semibold font-serif">{title}: documents</h2>
        {onClose !== undefined && (
          <Button weight="quiet" onClick={onClose}>
            Fold
          </Button>
        )}
      </div>
      <ListTable
        caption={`Documents behind ${title}`}
        rows={entries}
        keyOf={(entry) => entry.id}
        onMore={onMore}
        columns={[
          {
            head: 'Document',
            value: (e) => e.documentNumber,
            cell: (e) => (
              <Link href={routes.document(e.documentId)} className="underline decoration-rule underline-offset-4">
                {e.documentNumber}
              </Link>
            ),
          },
          { head: 'Customer', cell: (e) => e.customerName },
          ...(several ? [{ head: 'Jurisdiction', cell: (e: TaxEntry) => e.jurisdictionName }] : []),
          {
            head: 'Tax point',
            value: (e) => e.taxPoint,
            cell: (e) => (
              <>
                {writeDate(e.taxPoint)} {e.late && <span className="text-ochre text-sm">△ late</span>}
              </>
            ),
          },
          {
            head: 'Taxable amount',
            align: 'right',
            value: (e) => e.base,
            text: (e) => writeMoney(e.base, currency),
            cell: (e) => <Money amount={e.base} currency={currency} />,
          },
          {
            head: 'Tax',
            align: 'right',
            value: (e) => e.tax,
            text: (e) => writeMoney(e.tax, currency),
            cell: (e) => <Money amount={e.tax} currency={currency} />,
          },
        ]}
        sums={[
          '',
          '',
          '',
          ...(several ? [''] : []),
          <Money key="b" amount={total(rows.map((row) => row.baseOnce))} currency={currency} />,
          <Money key="t" amount={total(rows.map((row) => row.tax))} currency={currency} />,
        ]}
      />
    </section>
  );
}
