'use client';

import { type KeyboardEvent, useEffect, useRef } from 'react';
import type { BankLine } from '@/core/bank/bankLine';
import { openOf } from '@/core/bank/bankLine';
import type { Suggestion } from '@/core/bank/suggest';
import type { Currency } from '@/core/kernel/currency';
import { writeDate } from '@/core/kernel/date';
import { Mark } from '@/ui/Mark';
import { Money } from '@/ui/Money';
import { useOpenBook } from '../shell/BookContext';
import { reasonWords, targetWords } from './matchWords';

interface LineListProps {
  readonly lines: readonly BankLine[];
  readonly at: number;
  readonly currency: Currency;
  readonly suggestionsOf: (lineId: string) => readonly Suggestion[] | undefined;
  readonly onPick: (at: number) => void;
  readonly onKeyDown: (event: KeyboardEvent) => void;
}

/** Lines as a list that the arrows go through; the focus stays on it while lines are accepted. */
export function LineList({ lines, at, currency, suggestionsOf, onPick, onKeyDown }: LineListProps) {
  const { accounts } = useOpenBook();
  const list = useRef<HTMLDivElement>(null);
  // Lines are gone through by keys alone: the list has the focus from the start.
  useEffect(() => list.current?.focus(), []);
  useEffect(() => {
    list.current?.querySelector(`[data-at="${at}"]`)?.scrollIntoView({ block: 'nearest' });
  }, [at]);
  return (
    <div
      ref={list}
      role="listbox"
      aria-label="Bank lines"
      aria-activedescendant={`bank-line-${at}`}
      tabIndex={0}
      onKeyDown={onKeyDown}
    >
      {lines.map((line, i) => {
        const [first] = suggestionsOf(line.id) ?? [];
        return (
          <div
            key={line.id}
            id={`bank-line-${i}`}
            data-at={i}
            role="option"
            aria-selected={i === at}
            className={`grid cursor-pointer grid-cols-[92px_minmax(0,1fr)_minmax(0,1.1fr)_110px] gap-x-3 border-rule border-b px-1 py-1 ${i === at ? 'bg-paper' : ''}`}
            onClick={() => {
              onPick(i);
              list.current?.focus();
            }}
            onKeyDown={() => undefined}
            tabIndex={-1}
          >
            <span className="text-soft tabular-nums">{writeDate(line.date)}</span>
            <span className="min-w-0">
              <span className="block truncate">{line.name || line.text.split('\n')[0] || 'No text'}</span>
              {line.name !== '' && line.text !== '' && (
                <span className="block truncate text-soft text-sm">{line.text.split('\n')[0]}</span>
              )}
            </span>
            <span className="min-w-0 text-sm">
              {first !== undefined && (
                <>
                  <span className="block truncate">
                    <Mark kind={first.certain ? 'good' : 'open'} /> {targetWords(first.target, accounts)}
                  </span>
                  <span className="block truncate text-soft">
                    {first.reasons
                      .slice(0, 2)
                      .map((reason) => reasonWords(reason, currency))
                      .join(' · ')}
                  </span>
                </>
              )}
              {line.matches.map(({ id, number }) => (
                <span key={id} className="block truncate">
                  <Mark kind="good" /> {number}
                </span>
              ))}
            </span>
            <span className="text-right">
              <Money amount={line.isOpen === 1 ? openOf(line) : line.amount} currency={currency} />
            </span>
          </div>
        );
      })}
    </div>
  );
}
