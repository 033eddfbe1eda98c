'use client';

import { useSearchParams } from 'next/navigation';
import { type KeyboardEvent, useEffect, useState } from 'react';
import type { BankLine } from '@/core/bank/bankLine';
import { USUAL_WINDOW } from '@/core/bank/suggest';
import { writeDate } from '@/core/kernel/date';
import { bankStandings, matchedLines, openLines } from '@/store/bank/queries/lines';
import { recordOf } from '@/store/records';
import { Button } from '@/ui/Button';
import { Dialog } from '@/ui/Dialog';
import { ChoiceField } from '@/ui/Field';
import Link from '@/ui/Link';
import { Empty, Margin, Note, Sheet, SheetTitle } from '@/ui/Page';
import { Tabs } from '@/ui/Tabs';
import { useOpenBook } from '../shell/BookContext';
import { useBook } from '../shell/book';
import { routes } from '../shell/routes';
import { BookDialog } from './BookDialog';
import { CertainDialog } from './CertainDialog';
import { LineList } from './LineList';
import { MatchedNote } from './MatchedNote';
import { RulesNote } from './RulesNote';
import { StatementDialog } from './StatementDialog';
import { StatementList } from './StatementList';
import { SuggestionsNote } from './SuggestionsNote';
import { useMatching } from './useMatching';
import { useSuggestions } from './useSuggestions';

/** Lines that are shown, and looked at, together. */
const SHOWN = 200;

const TABS = [
  { tab: 'open', words: 'To match' },
  { tab: 'matched', words: 'Matched' },
  { tab: 'statements', words: 'Statements' },
] as const;

/** Bank lines and what they are: one key accepts the first suggestion and goes on to the next line. */
export function BankScreen() {
  const wanted = useSearchParams().get('line') ?? '';
  const { currency: home } = useOpenBook();
  const standings = useBook(bankStandings);
  const [picked, setPicked] = useState('');
  const [showing, setShowing] = useState<'open' | 'matched' | 'statements'>('open');
  const [asking, setAsking] = useState<'statement' | 'certain' | 'book' | null>(null);
  const [at, setAt] = useState(0);
  const [days, setDays] = useState(USUAL_WINDOW.days);
  const { wrong, unusual, accept, undo, leaveUnusual } = useMatching();
  const named = useBook((db) => recordOf(db, 'bankLines', wanted), [wanted]);
  const standing = standings?.find(({ account }) => account.id === (picked || named?.bankAccountId)) ?? standings?.[0];
  const accountId = standing?.account.id ?? '';
  const open = useBook((db) => openLines(db, accountId, SHOWN), [accountId]);
  const done = useBook(
    async (db) => (showing === 'matched' ? await matchedLines(db, accountId, SHOWN) : []),
    [accountId, showing],
  );
  const suggestions = useSuggestions(open?.map(({ id }) => id) ?? [], days);
  const lines = (showing === 'open' ? open : showing === 'matched' ? done : []) ?? [];
  const chosen = lines[Math.min(at, lines.length - 1)];
  const currency = standing?.account.currency ?? home;

  // A link from an entry leads to its line.
  useEffect(() => {
    if (named === undefined || named === null) return;
    setPicked(named.bankAccountId);
    setShowing(named.isOpen === 1 ? 'open' : 'matched');
  }, [named]);
  const place = wanted === '' ? -1 : lines.findIndex(({ id }) => id === wanted);
  useEffect(() => {
    if (place >= 0) setAt(place);
  }, [place]);

  const take = (line: BankLine | undefined, n: number) => {
    const suggestion = line === undefined ? undefined : suggestions.of(line.id)?.[n];
    if (line !== undefined && suggestion !== undefined) void accept(line.id, suggestion.target);
  };
  const onKeyDown = (event: KeyboardEvent) => {
    const move = { ArrowDown: 1, ArrowUp: -1, PageDown: 10, PageUp: -10 }[event.key];
    if (move !== undefined) {
      event.preventDefault();
      setAt(Math.max(0, Math.min(lines.length - 1, Math.min(at, lines.length - 1) + move)));
    } else if (showing === 'open' && !event.altKey && !event.ctrlKey && !event.metaKey) {
      if (event.key === 'Enter') take(chosen, 0);
      else if (/^[1-8]$/.test(event.key)) take(chosen, Number(event.key) - 1);
      else if (event.key === 'b' && chosen !== undefined) setAsking('book');
      else return;
      event.preventDefault();
    }
  };
  const certain = (open ?? []).flatMap((line) => {
    const [first] = suggestions.of(line.id) ?? [];
    return first?.certain ? [{ line, suggestion: first }] : [];
  });

  if (standings !== undefined && standing === undefined)
    return (
      <Sheet label="Bank">
        <SheetTitle>Bank</SheetTitle>
        <Empty>
          No bank accounts yet: <Link href={routes.section('bank-accounts')}>add one in Setup</Link>, then import its
          statements here.
        </Empty>
      </Sheet>
    );
  return (
    <>
      <Sheet label="Bank">
        <SheetTitle
          aside={
            standing?.newest === undefined
              ? 'no statement imported yet'
              : `statements until ${writeDate(standing.newest.until)}`
          }
        >
          Bank
        </SheetTitle>
        <div className="mb-2 flex flex-wrap items-end gap-x-3">
          <ChoiceField
            label="Bank account"
            className="w-[196px]"
            options={(standings ?? []).map(({ account, open: count }) => [
              account.id,
              `${account.name}, ${account.currency}${count > 0 ? ` (${count} open)` : ''}`,
            ])}
            value={accountId}
            onChange={({ target: { value } }) => {
              setPicked(value);
              setAt(0);
            }}
          />
          <div className="flex gap-2.5 pb-[18px]">
            <Button weight={open?.length === 0 ? 'main' : 'plain'} onClick={() => setAsking('statement')}>
              Import a statement…
            </Button>
            {certain.length > 0 && (
              <Button onClick={() => setAsking('certain')}>Accept {certain.length} certain…</Button>
            )}
            <Link href={routes.reconcile(accountId)} className="self-center underline underline-offset-4">
              Reconcile
            </Link>
          </div>
        </div>
        <Tabs
          label="Lines"
          tabs={TABS}
          shown={showing}
          onPick={(one) => {
            setShowing(one);
            setAt(0);
          }}
        >
          <span role="status" className="text-soft">
            {suggestions.looking && showing === 'open' ? 'Looking for matches…' : suggestions.fault}
          </span>
        </Tabs>
        {wrong !== '' && (
          <p role="alert" className="mb-2 text-brick">
            ▲ {wrong}
          </p>
        )}
        {showing === 'statements' ? (
          <StatementList bankAccountId={accountId} currency={currency} />
        ) : lines.length === 0 ? (
          <Empty>
            {showing === 'matched'
              ? 'No line is matched yet.'
              : standing?.newest === undefined
                ? 'Import a statement: its lines then stand here with what they may be.'
                : 'Every line is matched.'}
          </Empty>
        ) : (
          <LineList
            lines={lines}
            at={Math.min(at, lines.length - 1)}
            currency={currency}
            suggestionsOf={showing === 'open' ? suggestions.of : () => []}
            onPick={setAt}
            onKeyDown={onKeyDown}
          />
        )}
      </Sheet>
      <Margin>
        {chosen !== undefined && showing === 'open' && (
          <>
            <SuggestionsNote
              line={chosen}
              currency={currency}
              suggestions={suggestions.of(chosen.id)}
              days={days}
              onAccept={({ target }) => void accept(chosen.id, target)}
              onWiden={() => setDays(days * 3)}
            />
            <Note title="Something else">
              <p className="flex flex-col items-start gap-1">
                <Button weight="quiet" onClick={() => setAsking('book')}>
                  Book to an account…
                </Button>
                {chosen.amount > 0n && (
                  <Link href={routes.newReceipt} className="px-1 underline underline-offset-4">
                    Record a receipt
                  </Link>
                )}
              </p>
            </Note>
          </>
        )}
        {chosen !== undefined && showing === 'matched' && (
          <MatchedNote line={chosen} currency={currency} onUndo={undo} />
        )}
        <RulesNote />
        <Note title="Keys">
          <p className="text-soft text-sm">
            ↑ ↓ go to a line, Enter accepts the first suggestion, 1 to 8 another, B books to an account, Ctrl+Z undoes
            the last match.
          </p>
        </Note>
      </Margin>
      {asking === 'statement' && standing !== undefined && (
        <StatementDialog standing={standing} onClose={() => setAsking(null)} />
      )}
      {asking === 'certain' && <CertainDialog certain={certain} currency={currency} onClose={() => setAsking(null)} />}
      {asking === 'book' && chosen !== undefined && (
        <BookDialog line={chosen} currency={currency} onClose={() => setAsking(null)} />
      )}
      <Dialog open={unusual !== null} onClose={leaveUnusual} title="Is this right?" description={unusual?.words ?? ''}>
        <div className="flex gap-2.5">
          <Button weight="main" onClick={() => unusual !== null && void accept(unusual.lineId, unusual.target, true)}>
            Accept anyway
          </Button>
          <Button onClick={leaveUnusual}>Not now</Button>
        </div>
      </Dialog>
    </>
  );
}
