'use client';

import { useRouter } from 'next/navigation';
import { showNumber } from '@/core/kernel/show';
import { resolveTax } from '@/core/tax/resolve';
import { plainName } from '@/core/tax/taxCode';
import { prepareSetup } from '@/core/tax/taxSetup';
import { RecordLink, RecordList, RecordPage } from '../../shared/RecordList';
import { useOpenBook } from '../../shell/BookContext';
import { today } from '../../shell/book';
import { routes } from '../../shell/routes';
import { TaxCodeForm } from './TaxCodeForm';

/** Tax codes with what each comes to today. */
export function TaxCodeList() {
  const { codes, records } = useOpenBook();
  const setup = prepareSetup(records);
  return (
    <RecordList
      title="Tax codes"
      path={routes.section('tax-codes')}
      addLabel="New tax code"
      rows={codes}
      keyOf={(row) => row.id}
      empty="No tax codes yet: a starter pack brings those of a country."
      columns={[
        {
          head: 'Code',
          width: '100px',
          value: (row) => row.id,
          cell: (row) => <RecordLink path={routes.record('tax-codes', row.id)}>{row.id}</RecordLink>,
        },
        { head: 'Name', cell: plainName },
        { head: 'Category', width: '80px', cell: (row) => row.category },
        {
          head: 'Taxes',
          cell: (row) => row.components.map((c) => [c.taxId, c.taxClass].filter(Boolean).join(' ')).join(', '),
        },
        {
          head: 'Rate today',
          align: 'right',
          width: '110px',
          cell: (row) => {
            const tax = resolveTax(setup, row.id, today(), () => null, 'en');
            return 'problem' in tax ? 'none today' : `${showNumber(tax.percent)} %`;
          },
        },
      ]}
    />
  );
}

/** One tax code, or a new one. */
export function TaxCodePage({ id }: { readonly id: string }) {
  const router = useRouter();
  const code = useOpenBook().codes.find((c) => c.id === id) ?? null;
  return (
    <RecordPage id={id} record={code} what="tax code" nameOf={plainName}>
      {(known) => (
        <TaxCodeForm {...(known && { code: known })} onSaved={() => router.push(routes.section('tax-codes'))} />
      )}
    </RecordPage>
  );
}
