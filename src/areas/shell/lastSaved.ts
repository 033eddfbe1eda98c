import { dayOf, daysBetween, type IsoDate } from '@/core/kernel/date';
import { keepText, keptText } from '@/ui/kept';

const KEY = 'able-last-saved';

/** When the book was last saved to a file by this browser, and how many events its audit trail had then. */
export interface LastSaved {
  readonly at: string;
  readonly events: number;
}

/** Days and changes after which saving is recalled. */
const MOST_DAYS = 7;
const MOST_CHANGES = 50;

export function lastSaved(): LastSaved | null {
  try {
    const kept = JSON.parse(keptText(KEY) ?? 'null') as Partial<LastSaved> | null;
    const whole = typeof kept?.at === 'string' && !Number.isNaN(Date.parse(kept.at)) && typeof kept.events === 'number';
    return whole ? (kept as LastSaved) : null;
  } catch {
    return null;
  }
}

export function noteSaved(saved: LastSaved): void {
  keepText(KEY, JSON.stringify(saved));
}

/** What a reminder to save says; empty while none is due. */
export function saveReminder(saved: LastSaved | null, events: number, today: IsoDate): string {
  const changes = Math.max(0, events - (saved?.events ?? 0));
  if (changes === 0) return '';
  const days = saved === null ? null : daysBetween(dayOf(saved.at), today);
  if (days === null) return changes >= MOST_CHANGES ? 'It was never saved to a file.' : '';
  const plural = changes === 1 ? 'change' : 'changes';
  return days > MOST_DAYS || changes >= MOST_CHANGES
    ? `Last saved ${days === 0 ? 'today' : `${days} ${days === 1 ? 'day' : 'days'} ago`}, ${changes} ${plural} since.`
    : '';
}
