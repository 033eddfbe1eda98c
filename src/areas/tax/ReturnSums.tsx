import { byJurisdiction, codesWithoutBox, type TaxReturn, wholeUnits } from '@/core/returns/return';
import type { Registration } from '@/core/tax/registration';
import Link from '@/ui/Link';
import { Mark } from '@/ui/Mark';
import { Money } from '@/ui/Money';
import { Ruled } from '@/ui/Ruled';
import { useOpenBook } from '../shell/BookContext';
import { routes } from '../shell/routes';
import { boxId } from './Behind';

interface ReturnSumsProps {
  readonly figures: TaxReturn;
  readonly registration: Registration;
  /** Figure that is opened, and how to open another. */
  readonly opened: string;
  readonly onOpen: (id: string) => void;
}

/** What each jurisdiction is owed, the boxes of the form, and the tax in the currency of the return. */
export function ReturnSums({ figures, registration, opened, onOpen }: ReturnSumsProps) {
  const { currency } = useOpenBook();
  const { filingCurrency, rounding } = registration;
  const foreign = filingCurrency !== currency;
  const territories = byJurisdiction(figures.rows);
  const exempt = figures.rows.some((row) => row.kind === 'exempt');
  const unboxed = codesWithoutBox(figures);
  const stated = rounding.wholeUnits ? wholeUnits(figures.filingTax, filingCurrency) : figures.filingTax;
  if (figures.rows.length === 0) return null;
  return (
    <>
      {(territories.length > 1 || foreign || exempt) && (
        <section className="mt-6">
          <h2 className="mb-1 font-semibold font-serif">By jurisdiction</h2>
          <Ruled
            caption="Return by jurisdiction"
            rows={territories}
            keyOf={(row) => row.jurisdictionId}
            columns={[
              { head: 'Jurisdiction', cell: (row) => row.jurisdictionName },
              {
                head: 'Taxable',
                align: 'right',
                width: '100px',
                cell: (row) => <Money amount={row.base} currency={currency} />,
              },
              {
                head: 'Exempt',
                align: 'right',
                width: '100px',
                cell: (row) => <Money amount={row.exempt} currency={currency} />,
              },
              {
                head: `Tax, ${currency}`,
                align: 'right',
                width: '100px',
                cell: (row) => <Money amount={row.tax} currency={currency} />,
              },
              ...(foreign
                ? [
                    {
                      head: `Tax, ${filingCurrency}`,
                      align: 'right',
                      width: '100px',
                      cell: (row: (typeof territories)[number]) => (
                        <Money amount={row.filingTax} currency={filingCurrency} />
                      ),
                    } as const,
                  ]
                : []),
            ]}
          />
        </section>
      )}
      {figures.boxes.length > 0 && (
        <section className="mt-6">
          <h2 className="mb-1 font-semibold font-serif">Boxes of the form, {filingCurrency}</h2>
          <dl className="flex flex-wrap gap-x-8">
            {figures.boxes.map(({ box, amount }) => (
              <div key={box} className="flex gap-2">
                <dt className="text-soft">{box}</dt>
                <dd>
                  <button
                    type="button"
                    aria-expanded={opened === boxId(box)}
                    aria-label={`Box ${box}: open the documents`}
                    onClick={() => onOpen(opened === boxId(box) ? '' : boxId(box))}
                    className="cursor-pointer underline decoration-rule underline-offset-4 hover:decoration-ink"
                  >
                    <Money
                      amount={rounding.wholeUnits ? wholeUnits(amount, filingCurrency) : amount}
                      currency={filingCurrency}
                    />
                  </button>
                </dd>
              </div>
            ))}
          </dl>
        </section>
      )}
      {unboxed.length > 0 && (
        <p className="mt-2">
          <Mark kind="warning" /> {unboxed.join(', ')} {unboxed.length === 1 ? 'goes' : 'go'} into no box of the form.{' '}
          <Link href={routes.section('tax-codes')} className="underline underline-offset-4">
            Give the boxes in Setup
          </Link>
        </p>
      )}
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
