'use client';

import type { Currency } from '@/core/kernel/currency';
import type { Minor } from '@/core/kernel/money';
import { Money } from '@/ui/Money';
import { useOpenBook } from '../shell/BookContext';

interface OpenFigureProps {
  readonly id: string;
  readonly label: string;
  readonly amount: Minor;
  /** That of the book unless it is given. */
  readonly currency?: Currency;
  readonly opened: string;
  readonly onOpen: (id: string) => void;
}

/** A figure that opens what is behind it. */
export function OpenFigure({ id, label, amount, currency, opened, onOpen }: OpenFigureProps) {
  const { currency: home } = useOpenBook();
  return (
    <button
      type="button"
      aria-expanded={id === opened}
      aria-label={`${label}: open the documents`}
      onClick={() => onOpen(id === opened ? '' : id)}
      className="cursor-pointer underline decoration-rule underline-offset-4 hover:decoration-ink"
    >
      <Money amount={amount} currency={currency ?? home} />
    </button>
  );
}
