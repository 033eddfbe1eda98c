'use client';

import { useState } from 'react';
import type { CustomerRow, ItemRow } from '@/core/book/rows';
import { isIsoDate } from '@/core/kernel/date';
import { showNumber } from '@/core/kernel/show';
import { reliefOf } from '@/core/parties/certificate';
import { numberStateFor } from '@/core/parties/customer';
import { readTypedDate } from '@/core/parties/terms';
import { determine, explainDecision, type Supply } from '@/core/tax/determine';
import type { Whereabouts } from '@/core/tax/place';
import { resolveTax } from '@/core/tax/resolve';
import { loadSetup } from '@/store/load';
import { findCustomers, findItems } from '@/store/sales/queries/documents';
import { certificatesOf } from '@/store/setup/queries/customers';
import { ChoiceField, TextField } from '@/ui/Field';
import { FindBox } from '@/ui/FindBox';
import { Mark } from '@/ui/Mark';
import { Note } from '@/ui/Page';
import { COUNTRY_CHOICES } from '../../shared/choices';
import { DateField } from '../../shared/DateField';
import { TrailList } from '../../shared/MarginNotes';
import { useOpenBook } from '../../shell/BookContext';
import { today, useBook } from '../../shell/book';
import { useFinder } from '../../shell/useFinder';

interface PickProps<Row> {
  readonly label: string;
  readonly finder: Parameters<typeof useFinder<Row>>[0];
  readonly picked: Row | null;
  readonly nameOf: (row: Row) => string;
  readonly idOf: (row: Row) => string;
  readonly onPick: (row: Row) => void;
}

function Pick<Row>({ label, finder, picked, nameOf, idOf, onPick }: PickProps<Row>) {
  const [typed, setTyped] = useState<string | null>(null);
  const { rows, pending } = useFinder(finder, typed ?? '');
  return (
    <div className="mb-2 border-rule border-b">
      <span className="block text-soft text-sm">{label}</span>
      <FindBox
        label={label}
        pending={pending}
        className="cell -mx-1.5"
        value={typed ?? (picked === null ? '' : nameOf(picked))}
        options={rows.map((row) => ({ id: idOf(row), label: nameOf(row), detail: '' }))}
        onType={setTyped}
        onLeave={() => setTyped(null)}
        onPick={({ id }) => {
          const row = rows.find((r) => idOf(r) === id);
          setTyped(null);
          if (row !== undefined) onPick(row);
        }}
      />
    </div>
  );
}

/** What would happen for this customer, item and day: the verdict and every condition behind it. */
export function Tester() {
  const { business } = useOpenBook();
  const [customer, setCustomer] = useState<CustomerRow | null>(null);
  const [item, setItem] = useState<ItemRow | null>(null);
  const [day, setDay] = useState<string>(today());
  const [from, setFrom] = useState(business.address.country);
  const [to, setTo] = useState<Whereabouts | null>(null);
  const shipTo = to ?? customer?.address ?? null;
  const setup = useBook((db) => loadSetup(db, shipTo), [], [shipTo]);
  const certificates = useBook((db) => certificatesOf(db, customer?.id ?? ''), [customer?.id]);
  const read = isIsoDate(day) ? day : readTypedDate(day, today(), today());
  const supply: Supply | null =
    customer === null || shipTo === null || read === null
      ? null
      : {
          supply: item?.supply ?? 'goods',
          taxClass: item?.taxClass ?? 'standard',
          customer: customer.kind,
          number: numberStateFor(customer, shipTo.country),
          shipFrom:
            from === business.address.country
              ? business.address
              : { country: from, region: '', postalCode: '', city: '' },
          shipTo,
          day: read,
        };
  const where = (part: keyof Whereabouts) => (event: { target: { value: string } }) =>
    setTo({ country: '', region: '', postalCode: '', city: '', ...shipTo, [part]: event.target.value });
  return (
    <Note title="Tester">
      <Pick
        label="Customer"
        finder={findCustomers}
        picked={customer}
        nameOf={(row) => row.name}
        idOf={(row) => row.id}
        onPick={(row) => {
          setCustomer(row);
          setTo(null);
        }}
      />
      <Pick
        label="Item, or a standard one"
        finder={findItems}
        picked={item}
        nameOf={(row) => row.name}
        idOf={(row) => row.id}
        onPick={setItem}
      />
      <div className="grid grid-cols-2 gap-x-3">
        <DateField label="Tax point" value={day} onChange={(event) => setDay(event.target.value)} />
        <ChoiceField
          label="Sent from"
          options={COUNTRY_CHOICES}
          value={from}
          onChange={(event) => setFrom(event.target.value)}
        />
        <ChoiceField
          label="Sent to"
          options={COUNTRY_CHOICES}
          value={shipTo?.country ?? ''}
          onChange={where('country')}
        />
        <TextField label="Region" value={shipTo?.region ?? ''} onChange={where('region')} />
        <TextField label="Postal code" value={shipTo?.postalCode ?? ''} onChange={where('postalCode')} />
        <TextField label="Town" value={shipTo?.city ?? ''} onChange={where('city')} />
      </div>
      <div aria-live="polite">
        {supply === null && <p className="text-soft text-sm">Choose a customer to see what the table says.</p>}
        {supply !== null && setup !== undefined && (
          <Verdict
            setup={setup}
            supply={supply}
            relief={reliefOf(customer, certificates ?? [], supply.day)}
            own={customer?.taxCode ?? ''}
          />
        )}
      </div>
    </Note>
  );
}

interface VerdictProps {
  readonly setup: Parameters<typeof determine>[0];
  readonly supply: Supply;
  readonly relief: ReturnType<typeof reliefOf>;
  /** The customer's own code, which goes before the table. */
  readonly own: string;
}

function Verdict({ setup, supply, relief, own }: VerdictProps) {
  const verdict = determine(setup, supply);
  const tax = verdict.key === '' ? null : resolveTax(setup, verdict.key, supply.day, relief, 'en');
  const registration = setup.registrations.find((r) => r.id === verdict.registrationId);
  return (
    <>
      <p className="my-2">
        <Mark kind={verdict.problem === '' ? 'good' : 'warning'} /> {verdict.problem !== '' && verdict.problem}
        {tax !== null && 'problem' in tax && tax.problem}
        {tax !== null && !('problem' in tax) && (
          <strong className="font-semibold">
            {tax.name}
            {tax.components.length > 1 &&
              `: ${tax.components.map((c) => showNumber(c.percent || ('0' as never))).join(' + ')} %`}
          </strong>
        )}
        {registration !== undefined && verdict.problem === '' && `, reported under ${registration.name}`}
      </p>
      {tax !== null && !('problem' in tax) && tax.legend !== '' && <p className="my-1 text-sm">{tax.legend}</p>}
      {own !== '' && (
        <p className="my-1 text-sm">
          This customer has the default tax code {own} on everything, before the table is asked.
        </p>
      )}
      <div className="text-sm">
        <TrailList trail={explainDecision(setup, supply)} />
      </div>
    </>
  );
}
