'use client';

import { useState } from 'react';
import { toast } from 'sonner';
import type { BankLine } from '@/core/bank/bankLine';
import type { Suggestion } from '@/core/bank/suggest';
import type { Currency } from '@/core/kernel/currency';
import { writeDate } from '@/core/kernel/date';
import { wordRefusals } from '@/core/wording/refusals';
import { acceptMatch } from '@/store/bank/actions/matching';
import { Button } from '@/ui/Button';
import { Dialog } from '@/ui/Dialog';
import { Money } from '@/ui/Money';
import { Progress } from '@/ui/Progress';
import { Ruled } from '@/ui/Ruled';
import { useRun } from '../shared/useRun';
import { useOpenBook } from '../shell/BookContext';
import { act } from '../shell/book';
import { targetWords } from './matchWords';

export interface CertainLine {
  readonly line: BankLine;
  readonly suggestion: Suggestion;
}

interface CertainDialogProps {
  readonly certain: readonly CertainLine[];
  readonly currency: Currency;
  readonly onClose: () => void;
}

/** All lines whose match is certain, looked through before they are accepted together. */
export function CertainDialog({ certain, currency, onClose }: CertainDialogProps) {
  const { accounts } = useOpenBook();
  const [left, setLeft] = useState<ReadonlySet<string>>(new Set());
  const run = useRun();
  const taken = certain.filter(({ line }) => !left.has(line.id));
  const acceptAll = () =>
    run.start(
      async ({ signal, tell }) => {
        let done = 0;
        for (const { line, suggestion } of taken) {
          if (signal.aborted) break;
          const result = await act(acceptMatch, { lineId: line.id, target: suggestion.target });
          if (!result.ok) return `${writeDate(line.date)}: ${wordRefusals(result.refusals)} ${done} were accepted.`;
          tell({ done: ++done, of: taken.length });
        }
        toast(`${done} lines are matched`);
        onClose();
        return '';
      },
      (fault) => fault?.message ?? 'Stopped.',
    );
  return (
    <Dialog
      open
      wide
      onClose={onClose}
      title="Accept all that are certain"
      description="Each names what it pays, its sum fits, and nothing else comes near. Untick what should wait."
    >
      <Ruled
        caption="Certain matches"
        rows={certain}
        keyOf={({ line }) => line.id}
        columns={[
          {
            head: '',
            width: '32px',
            cell: ({ line }) => (
              <input
                type="checkbox"
                aria-label={`Accept ${writeDate(line.date)} ${line.text.split('\n')[0]}`}
                checked={!left.has(line.id)}
                onChange={({ target: { checked } }) =>
                  setLeft(new Set(checked ? [...left].filter((id) => id !== line.id) : [...left, line.id]))
                }
              />
            ),
          },
          { head: 'Date', width: '104px', cell: ({ line }) => writeDate(line.date) },
          { head: 'Text', cell: ({ line }) => line.text.split('\n')[0] || line.name },
          { head: 'Becomes', width: '190px', cell: ({ suggestion }) => targetWords(suggestion.target, accounts) },
          {
            head: 'Amount',
            align: 'right',
            width: '110px',
            cell: ({ line }) => <Money amount={line.amount} currency={currency} />,
          },
        ]}
      />
      <p role="status" className="min-h-6 text-soft">
        {run.said}
      </p>
      <div className="mt-2 flex items-center gap-2.5">
        {run.doing === null ? (
          <Button weight="main" disabled={taken.length === 0} onClick={() => void acceptAll()}>
            Accept {taken.length}
          </Button>
        ) : (
          <>
            <div className="w-[220px]">
              <Progress label="Accepted so far" {...run.doing} />
            </div>
            <Button onClick={run.stop}>Stop</Button>
          </>
        )}
        <Button onClick={onClose}>Not now</Button>
      </div>
    </Dialog>
  );
}
