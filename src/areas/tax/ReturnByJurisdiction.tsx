'use client';

import { byJurisdiction, type TaxReturn, wholeUnits } from '@/core/returns/return';
import type { Registration } from '@/core/tax/registration';
import { Money } from '@/ui/Money';
import { inTree } from '../shared/choices';
import { ListTable } from '../shared/ListTable';
import { useOpenBook } from '../shell/BookContext';

interface ReturnByJurisdictionProps {
  readonly figures: TaxReturn;
  readonly registration: Registration;
}

/** What each jurisdiction is told, those that lie in another below it. */
export function ReturnByJurisdiction({ figures, registration }: ReturnByJurisdictionProps) {
  const { currency, records } = useOpenBook();
  const { filingCurrency, rounding } = registration;
  const foreign = filingCurrency !== currency;
  const places = new Map(
    inTree(records.jurisdictions).map(({ jurisdiction, depth }, at) => [jurisdiction.id, { at, depth }]),
  );
  const placeOf = (id: string) => places.get(id) ?? { at: places.size, depth: 0 };
  const rows = byJurisdiction(figures.rows).toSorted(
    (a, b) => placeOf(a.jurisdictionId).at - placeOf(b.jurisdictionId).at,
  );
  type Row = (typeof rows)[number];
  const stated = rounding.wholeUnits ? wholeUnits(figures.filingTax, filingCurrency) : figures.filingTax;
  const money = (head: string, of: (row: Row) => Row['tax'], code = currency) => ({
    head,
    align: 'right' as const,
    value: of,
    cell: (row: Row) => <Money amount={of(row)} currency={code} />,
  });
  return (
    <>
      <ListTable
        caption="Return by jurisdiction"
        rows={rows}
        keyOf={(row) => row.jurisdictionId}
        columns={[
          {
            head: 'Jurisdiction',
            cell: (row) => (
              <span style={{ paddingLeft: `${placeOf(row.jurisdictionId).depth * 16}px` }}>{row.jurisdictionName}</span>
            ),
          },
          money('Taxable', ({ base, notLiable }) => (base - notLiable) as Row['tax']),
          money('Exempt with certificate', ({ exempt }) => exempt),
          money('Not liable', ({ notLiable }) => notLiable),
          money(foreign ? `Tax, ${currency}` : 'Tax', ({ tax }) => tax),
          ...(foreign ? [money(`Tax, ${filingCurrency}`, ({ filingTax }) => filingTax, filingCurrency)] : []),
        ]}
      />
      {(foreign || rounding.wholeUnits) && (
        <p className="mt-4">
          The return states <Money amount={stated} currency={filingCurrency} withCode />
          {rounding.wholeUnits && ' in whole units'}
          {foreign && ', at the exchange rate of each tax point'}.
        </p>
      )}
    </>
  );
}
