import type { BankLine } from '@/core/bank/bankLine';
import type { Currency } from '@/core/kernel/currency';
import { Button } from '@/ui/Button';
import Link from '@/ui/Link';
import { Money } from '@/ui/Money';
import { Note } from '@/ui/Page';
import { routes } from '../shell/routes';

interface MatchedNoteProps {
  readonly line: BankLine;
  readonly currency: Currency;
  readonly onUndo: (lineId: string) => Promise<void>;
}

/** What a line was matched with, and the way back. */
export function MatchedNote({ line, currency, onUndo }: MatchedNoteProps) {
  return (
    <Note title="Matched with">
      <ul>
        {line.matches.map(({ id, kind, number, entryId, amount }) => (
          <li key={id} className="flex items-baseline gap-2 border-rule border-b py-1">
            <Link
              href={kind === 'receipt' ? routes.receipt(id) : routes.entry(entryId)}
              className="flex-1 underline decoration-rule underline-offset-4"
            >
              {number}
            </Link>
            <Money amount={amount} currency={currency} />
          </li>
        ))}
      </ul>
      <p className="mt-2 text-soft text-sm">
        {line.matches.some(({ made }) => made)
          ? 'What was recorded from the line is reversed with it.'
          : 'What was recorded before stays as it is.'}
      </p>
      <Button className="mt-1" onClick={() => void onUndo(line.id)}>
        Undo the match
      </Button>
    </Note>
  );
}
