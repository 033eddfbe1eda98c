import type { Gap } from '@/core/tax/tableFaults';
import { Mark } from '@/ui/Mark';

const MOST_SHOWN = 12;

function gapWords(gap: Gap): string {
  return [
    gap.supply || 'any supply',
    gap.taxClass && `class ${gap.taxClass}`,
    gap.customer && `to a ${gap.customer}`,
    gap.number && `number ${gap.number}`,
    gap.shipTo && `going to ${gap.shipTo}`,
    gap.days && `in the time from ${gap.days}`,
  ]
    .filter(Boolean)
    .join(', ');
}

/** Taxes that would both charge one supply. */
export function TogetherList({ pairs }: { readonly pairs: readonly string[] }) {
  if (pairs.length === 0) return null;
  return (
    <section aria-label="Taxes charged twice" className="mt-5">
      <h2 className="mb-1 font-semibold font-serif">Taxes charged twice</h2>
      <ul>
        {pairs.map((pair) => (
          <li key={pair} className="flex gap-1.5 text-sm">
            <Mark kind="wrong" />
            <span>
              {pair} charge one class at one time: rows that charge all taxes of a place charge both. End the rates of
              one of them, or put it into another territory.
            </span>
          </li>
        ))}
      </ul>
    </section>
  );
}

/** What goes out from our own address and no row catches. */
export function GapList({ gaps }: { readonly gaps: readonly Gap[] }) {
  return (
    <section aria-label="Cases no row catches" className="mt-5">
      <h2 className="mb-1 font-semibold font-serif">Cases no row catches</h2>
      {gaps.length === 0 && (
        <p>
          <Mark kind="good" /> Every supply from our own address is caught by a row.
        </p>
      )}
      <ul>
        {gaps.slice(0, MOST_SHOWN).map((gap) => (
          <li key={gapWords(gap)} className="flex gap-1.5 text-sm">
            <Mark kind="warning" />
            <span>{gapWords(gap)}</span>
          </li>
        ))}
      </ul>
      {gaps.length > MOST_SHOWN && <p className="text-soft text-sm">and {gaps.length - MOST_SHOWN} more.</p>}
      {gaps.length > 0 && (
        <p className="mt-1 text-soft text-sm">Lines like these ask for their tax to be chosen manually.</p>
      )}
    </section>
  );
}
