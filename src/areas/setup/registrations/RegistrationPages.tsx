'use client';

import { useRouter } from 'next/navigation';
import { isIsoDate, writeDate } from '@/core/kernel/date';
import { isActive, type Registration } from '@/core/tax/registration';
import { RecordLink, RecordList, RecordPage } from '../../shared/RecordList';
import { useOpenBook } from '../../shell/BookContext';
import { today } from '../../shell/book';
import { routes } from '../../shell/routes';
import { RegistrationForm } from './RegistrationForm';

function inForce(registration: Registration): string {
  if (isActive(registration, today())) return 'in force';
  return isIsoDate(registration.from) && registration.from > today() ? `from ${writeDate(registration.from)}` : 'ended';
}

/** Where the business is registered, and whether each is in force. */
export function RegistrationList() {
  const { registrations, records } = useOpenBook();
  return (
    <RecordList
      title="Registrations"
      path={routes.section('registrations')}
      addLabel="New registration"
      rows={registrations}
      keyOf={(row) => row.id}
      empty="No registrations yet."
      columns={[
        {
          head: 'Name',
          value: (row) => row.name,
          cell: (row) => <RecordLink path={routes.record('registrations', row.id)}>{row.name}</RecordLink>,
        },
        { head: 'Number', cell: (row) => row.number },
        {
          head: 'Jurisdiction',
          cell: (row) => records.jurisdictions.find((j) => j.id === row.jurisdictionId)?.name ?? row.jurisdictionId,
        },
        { head: 'Return', cell: (row) => `${row.frequency}, ${row.filingCurrency}` },
        { head: 'State', cell: inForce },
      ]}
    />
  );
}

/** One registration, or a new one. */
export function RegistrationPage({ id }: { readonly id: string }) {
  const router = useRouter();
  const registration = useOpenBook().registrations.find((r) => r.id === id) ?? null;
  return (
    <RecordPage id={id} record={registration} what="registration" nameOf={(r) => r.name}>
      {(known) => (
        <RegistrationForm
          {...(known && { registration: known })}
          onSaved={() => router.push(routes.section('registrations'))}
        />
      )}
    </RecordPage>
  );
}
