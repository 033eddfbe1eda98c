'use client';

import { useRouter } from 'next/navigation';
import { showNumber } from '@/core/kernel/show';
import { withholdingRateOn } from '@/core/tax/withholding';
import { RecordLink, RecordList, RecordPage } from '../../shared/RecordList';
import { useOpenBook } from '../../shell/BookContext';
import { today } from '../../shell/book';
import { routes } from '../../shell/routes';
import { WithholdingForm } from './WithholdingForm';

/** What customers keep back from what they pay. */
export function WithholdingList() {
  const { records } = useOpenBook();
  return (
    <RecordList
      title="Withholding"
      path={routes.section('withholding')}
      addLabel="New withholding type"
      rows={records.withholdingTypes}
      keyOf={(row) => row.id}
      empty="No withholding types yet: they say what customers withhold from payments."
      columns={[
        {
          head: 'Name',
          value: (row) => row.name,
          cell: (row) => <RecordLink path={routes.record('withholding', row.id)}>{row.name}</RecordLink>,
        },
        { head: 'Of', cell: (row) => row.base },
        { head: 'Withheld', cell: (row) => (row.when === 'on-issue' ? 'on issue' : 'on payment') },
        {
          head: 'Rate today',
          align: 'right',
          cell: (row) => {
            const rate = withholdingRateOn(row, today());
            return rate === null ? 'none yet' : `${showNumber(rate.percent)} %`;
          },
        },
        { head: 'Legal source', cell: (row) => row.source },
      ]}
    />
  );
}

/** One withholding type, or a new one. */
export function WithholdingPage({ id }: { readonly id: string }) {
  const router = useRouter();
  const type = useOpenBook().records.withholdingTypes.find((t) => t.id === id) ?? null;
  return (
    <RecordPage id={id} record={type} what="withholding type" nameOf={(t) => t.name}>
      {(known) => (
        <WithholdingForm {...(known && { type: known })} onSaved={() => router.push(routes.section('withholding'))} />
      )}
    </RecordPage>
  );
}
