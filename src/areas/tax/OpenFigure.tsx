'use client';

import type { Currency } from '@/core/kernel/currency';
import type { Minor } from '@/core/kernel/money';
import { Money } from '@/ui/Money';
import { TextButton } from '@/ui/TextButton';
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
    <TextButton
      aria-expanded={id === opened}
      aria-label={`${label}: open the documents`}
      onClick={() => onOpen(id === opened ? '' : id)}
    >
      <Money amount={amount} currency={currency ?? home} />
    </TextButton>
  );
}
