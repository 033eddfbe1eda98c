'use client';

import { useState } from 'react';
import type { DraftLine } from '@/core/documents/draft';
import type { Preview } from '@/core/documents/preview';
import { typeFigure } from '@/core/documents/switchMode';
import { readTypedMoney } from '@/core/kernel/typedMoney';
import type { WantedFigure } from '@/core/tax/convertPrice';
import { SUPPLY_KINDS, type SupplyKind } from '@/core/tax/decisionTable';
import { ChoiceField, TextField } from '@/ui/Field';
import type { DraftStore } from './draftStore';

interface LineTaxNoteProps {
  readonly store: DraftStore;
  readonly line: DraftLine;
  readonly classes: readonly string[];
  readonly shown: Preview;
}

const FIGURES: readonly (readonly [WantedFigure, string])[] = [
  ['net', 'Net'],
  ['tax', 'Tax'],
  ['gross', 'With tax'],
];

/** What the decision table asks of a line, and its figures to be typed so that the price follows. */
export function LineTaxNote({ store, line, classes, shown }: LineTaxNoteProps) {
  return (
    <>
      <div className="grid grid-cols-2 gap-x-3">
        <ChoiceField
          label="Supplied"
          options={SUPPLY_KINDS.map((kind) => [kind, kind] as const)}
          value={line.supply}
          onChange={(event) => store.changeLine(line.id, { supply: event.target.value as SupplyKind })}
        />
        <ChoiceField
          label="Tax class"
          options={[...new Set([line.taxClass, ...classes])].map((name) => [name, name] as const)}
          value={line.taxClass}
          onChange={(event) => store.changeLine(line.id, { taxClass: event.target.value })}
        />
      </div>
      {shown.byLine.has(line.id) && (
        <div className="grid grid-cols-3 gap-x-3">
          {FIGURES.map(([figure, label]) => (
            <TypedFigure key={`${line.id}-${figure}`} {...{ store, line, shown, figure, label }} />
          ))}
        </div>
      )}
    </>
  );
}

interface TypedFigureProps extends Omit<LineTaxNoteProps, 'classes'> {
  readonly figure: WantedFigure;
  readonly label: string;
}

/** Types one figure of the line; taken when the field is left or Enter is pressed. */
function TypedFigure({ store, line, shown, figure, label }: TypedFigureProps) {
  const [typed, setTyped] = useState('');
  const [wrong, setWrong] = useState<string | undefined>();
  const take = () => {
    if (typed.trim() === '') return setWrong(undefined);
    const { currency } = shown.input;
    const amount = readTypedMoney(typed, currency);
    const priced = amount === null ? null : typeFigure(line, figure, amount, shown);
    if (priced === null) return setWrong(amount === null ? 'not an amount' : 'no price leads there');
    setWrong(undefined);
    setTyped('');
    store.changeLine(line.id, { price: priced.price, priceFrom: priced.priceFrom });
  };
  return (
    <TextField
      label={label}
      placeholder="type…"
      title="The unit price follows exactly"
      inputMode="decimal"
      value={typed}
      error={wrong}
      onChange={(event) => setTyped(event.target.value)}
      onBlur={take}
      onKeyDown={(event) => {
        if (event.key !== 'Enter') return;
        event.preventDefault();
        take();
      }}
    />
  );
}
