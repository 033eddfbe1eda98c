import { codesWithoutBox, type TaxReturn, wholeUnits } from '@/core/returns/return';
import type { Registration } from '@/core/tax/registration';
import Link from '@/ui/Link';
import { Mark } from '@/ui/Mark';
import { Money } from '@/ui/Money';
import { TextButton } from '@/ui/TextButton';
import { routes } from '../shell/routes';
import { boxId } from './Behind';

interface ReturnBoxesProps {
  readonly figures: TaxReturn;
  readonly registration: Registration;
  /** Figure that is opened, and how to open another. */
  readonly opened: string;
  readonly onOpen: (id: string) => void;
}

/** The boxes that codes name, where no form comes with the program. */
export function ReturnBoxes({ figures, registration, opened, onOpen }: ReturnBoxesProps) {
  const { filingCurrency, rounding } = registration;
  const unboxed = codesWithoutBox(figures);
  if (figures.rows.length === 0) return null;
  return (
    <>
      {figures.boxes.length > 0 && (
        <section className="mt-6">
          <h2 className="mb-1 font-semibold font-serif">Boxes of the form, {filingCurrency}</h2>
          <dl className="flex flex-wrap gap-x-8">
            {figures.boxes.map(({ box, amount }) => (
              <div key={box} className="flex gap-2">
                <dt className="text-soft">{box}</dt>
                <dd>
                  <TextButton
                    aria-expanded={opened === boxId(box)}
                    aria-label={`Box ${box}: open the documents`}
                    onClick={() => onOpen(opened === boxId(box) ? '' : boxId(box))}
                  >
                    <Money
                      amount={rounding.wholeUnits ? wholeUnits(amount, filingCurrency) : amount}
                      currency={filingCurrency}
                    />
                  </TextButton>
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
    </>
  );
}
