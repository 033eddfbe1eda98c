'use client';

import { type Span, spanOf } from '@/core/returns/calendar';
import { useOpenBook } from './BookContext';
import { today } from './book';
import { usePicked } from './period';

/** The picked period of the open registration; the one of today when none was picked. */
export function usePeriodSpan(): Span {
  const { registration } = useOpenBook();
  const { start } = usePicked();
  return spanOf(registration.frequency, start ?? today());
}
