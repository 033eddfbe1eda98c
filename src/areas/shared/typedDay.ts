import { readTypedDate } from '@/core/parties/terms';
import { today } from '../shell/book';

/** A typed day as an ISO date; what is no day stays as it was typed, for the action to refuse at its field. */
export function typedDay(text: string): string {
  return readTypedDate(text, today(), today()) ?? text;
}
