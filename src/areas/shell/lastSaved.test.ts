import { isoDate } from '@/core/kernel/date';
import { saveReminder } from './lastSaved';

const TODAY = isoDate('2026-03-20');
const saved = (day: string, events: number) => ({ at: `${day}T09:00:00.000Z`, events });

describe('a reminder to save', () => {
  test.each([
    ['a new book with little in it', null, 12, ''],
    ['a book never saved', null, 50, 'It was never saved to a file.'],
    ['nothing changed since', saved('2026-01-01', 80), 80, ''],
    ['saved this week', saved('2026-03-13', 80), 90, ''],
    ['saved before that', saved('2026-03-12', 80), 81, 'Last saved 8 days ago, 1 change since.'],
    ['much changed in a day', saved('2026-03-20', 80), 130, 'Last saved today, 50 changes since.'],
    // Another book, with a shorter trail, was opened since: its changes are not known.
    ['another book', saved('2026-01-01', 400), 20, ''],
  ])('%s', (_, last, events, words) => expect(saveReminder(last, events, TODAY)).toBe(words));
});
