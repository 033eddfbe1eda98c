import type { BankLine } from '@/core/bank/bankLine';
import { openOf } from '@/core/bank/bankLine';
import type { Suggestion } from '@/core/bank/suggest';
import type { Currency } from '@/core/kernel/currency';
import { Mark } from '@/ui/Mark';
import { Money } from '@/ui/Money';
import { Note } from '@/ui/Page';
import { TextButton } from '@/ui/TextButton';
import { useOpenBook } from '../shell/BookContext';
import { reasonWords, targetWords } from './matchWords';

interface SuggestionsNoteProps {
  readonly line: BankLine;
  readonly currency: Currency;
  /** Undefined while they are looked for. */
  readonly suggestions: readonly Suggestion[] | undefined;
  readonly days: number;
  readonly onAccept: (suggestion: Suggestion) => void;
  readonly onWiden: () => void;
}

/** The picked line in full, and what it may be, best first; a figure on the keyboard takes one. */
export function SuggestionsNote({ line, currency, suggestions, days, onAccept, onWiden }: SuggestionsNoteProps) {
  const { accounts } = useOpenBook();
  return (
    <>
      <Note title="Bank line">
        <p className="whitespace-pre-line break-words">{line.text || 'No text'}</p>
        {line.name !== '' && <p className="mt-1 text-soft">{line.name}</p>}
        {line.iban !== '' && <p className="break-words text-soft text-sm">{line.iban}</p>}
        {line.reference !== '' && <p className="break-words text-soft text-sm">Reference {line.reference}</p>}
        {line.matches.length > 0 && (
          <p className="mt-1">
            Still open: <Money amount={openOf(line)} currency={currency} withCode />
          </p>
        )}
      </Note>
      <Note title="Suggestions">
        {suggestions === undefined && <p className="text-soft">Looking…</p>}
        {suggestions?.length === 0 && (
          <p className="text-soft">Nothing fits. Choose an account, or record it and match it afterwards.</p>
        )}
        <ol>
          {suggestions?.map((suggestion, i) => (
            <li key={`${suggestion.target.kind} ${i}`} className="border-rule border-b py-1.5">
              <button
                type="button"
                className="block w-full cursor-pointer text-left hover:bg-paper"
                onClick={() => onAccept(suggestion)}
              >
                <span className="flex items-baseline gap-2">
                  <span className="text-soft tabular-nums">{i + 1}</span>
                  <span className="flex-1 font-semibold">{targetWords(suggestion.target, accounts)}</span>
                  <span className="text-soft text-sm tabular-nums">{suggestion.score}</span>
                </span>
                <span className="block pl-5 text-soft text-sm">
                  {suggestion.certain && (
                    <>
                      <Mark kind="good" /> certain ·{' '}
                    </>
                  )}
                  {suggestion.reasons.map((reason) => reasonWords(reason, currency)).join(' · ')}
                </span>
              </button>
            </li>
          ))}
        </ol>
        <TextButton className="mt-2 text-sm" onClick={onWiden}>
          Look further than {days} days
        </TextButton>
      </Note>
    </>
  );
}
