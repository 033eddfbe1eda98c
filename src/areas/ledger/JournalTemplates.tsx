'use client';

import { toast } from 'sonner';
import { writeDate } from '@/core/kernel/date';
import type { JournalTemplate } from '@/core/ledger/journalTemplate';
import { wordRefusals } from '@/core/wording/refusals';
import { endJournalRepeat, removeJournalTemplate } from '@/store/ledger/actions/writeJournal';
import { journalTemplates } from '@/store/ledger/queries/journalTemplates';
import { Button } from '@/ui/Button';
import { Margin, Note } from '@/ui/Page';
import { act, useBook } from '../shell/book';

/** How a template repeats, in words. */
function repeatWords({ repeat, nextDue }: JournalTemplate): string {
  if (repeat === null) return '';
  const { every } = repeat.rhythm;
  const often = every === 1 ? 'each month' : every === 12 ? 'each year' : `every ${every} months`;
  return nextDue === '' ? `${often}, ended` : `${often}, next ${writeDate(nextDue)}`;
}

interface JournalTemplatesProps {
  /** Fills the form with what a template says. */
  readonly onUse: (template: JournalTemplate) => void;
}

/** Journals that are kept to be written again; those that repeat post themselves. */
export function JournalTemplates({ onUse }: JournalTemplatesProps) {
  const templates = useBook(journalTemplates) ?? [];
  const ask = async (answer: ReturnType<typeof act>, done: string) => {
    const result = await answer;
    toast(result.ok ? done : wordRefusals(result.refusals));
  };
  if (templates.length === 0) return null;
  return (
    <Margin>
      <Note title="Templates">
        <ul>
          {templates.map((template) => {
            const { id, name, nextDue } = template;
            const of = <span className="sr-only"> {name}</span>;
            return (
              <li key={id} className="mb-2 border-rule border-b pb-1">
                <div>{name}</div>
                <div className="text-soft text-sm">{repeatWords(template)}</div>
                <div className="flex gap-3">
                  <Button weight="quiet" onClick={() => onUse(template)}>
                    Use{of}
                  </Button>
                  {nextDue !== '' && (
                    <Button
                      weight="quiet"
                      onClick={() => void ask(act(endJournalRepeat, { templateId: id }), `${name} repeats no more`)}
                    >
                      End repeating{of}
                    </Button>
                  )}
                  <Button
                    weight="quiet"
                    onClick={() => void ask(act(removeJournalTemplate, { templateId: id }), `${name} is removed`)}
                  >
                    Remove{of}
                  </Button>
                </div>
              </li>
            );
          })}
        </ul>
      </Note>
    </Margin>
  );
}
