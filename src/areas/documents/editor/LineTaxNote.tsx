'use client';

import { useState } from 'react';
import type { DraftLine } from '@/core/documents/draft';
import type { Preview } from '@/core/documents/preview';
import type { Setting } from '@/core/documents/setting';
import { typeFigure, typeOtherPrice } from '@/core/documents/switchMode';
import { readTypedDecimal } from '@/core/kernel/decimal';
import { readTypedMoney } from '@/core/kernel/typedMoney';
import type { WantedFigure } from '@/core/tax/convertPrice';
import { SUPPLY_KINDS, type SupplyKind } from '@/core/tax/decisionTable';
import { isPrice } from '@/core/tax/price';
import { isChangedKey } from '@/core/tax/taxKey';
import { ChoiceField, TextField } from '@/ui/Field';
import { Fold } from '@/ui/Fold';
import type { DraftStore } from './draftStore';
import { LineDeferral } from './LineDeferral';
import { LineTaxes } from './LineTaxes';

interface LineTaxNoteProps {
  readonly store: DraftStore;
  readonly line: DraftLine;
  readonly index: number;
  /** It will be an invoice on account, so that its revenue may be deferred. */
  readonly posts: boolean;
  readonly classes: readonly string[];
  readonly shown: Preview;
  readonly setting: Setting;
}

const FIGURES: readonly (readonly [WantedFigure, string])[] = [
  ['net', 'Net'],
  ['tax', 'Tax'],
  ['gross', 'With tax'],
];

/** What the decision table asks of a line, and its figures to be typed so that the price follows. */
export function LineTaxNote({ store, line, index, posts, classes, shown, setting }: LineTaxNoteProps) {
  const take = (figure: WantedFigure) => (typed: string) => {
    const amount = readTypedMoney(typed, shown.input.currency);
    if (amount === null) return 'not an amount';
    return typeFigure(line, figure, amount, shown) ?? 'no price leads there';
  };
  const takePrice = (typed: string) => {
    const price = readTypedDecimal(typed);
    if (price === null || !isPrice(price)) return 'not a price';
    return typeOtherPrice(line, price, shown) ?? 'choose its tax first';
  };
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
        <>
          <div className="grid grid-cols-3 gap-x-3">
            {FIGURES.map(([figure, label]) => (
              <TypedFigure key={`${line.id}-${figure}`} {...{ store, line, label }} take={take(figure)} />
            ))}
          </div>
          <Fold
            words="More: price, taxes, deferred revenue"
            open={isChangedKey(line.taxCode) || line.deferral !== undefined}
          >
            <TypedFigure
              key={`${line.id}-price`}
              {...{ store, line }}
              label={shown.input.priceMode === 'net' ? 'Unit price with tax' : 'Unit price without tax'}
              take={takePrice}
            />
            <LineTaxes store={store} line={line} shown={shown} setting={setting} />
            {posts && <LineDeferral store={store} line={line} index={index} />}
          </Fold>
        </>
      )}
    </>
  );
}

interface TypedFigureProps {
  readonly store: DraftStore;
  readonly line: DraftLine;
  readonly label: string;
  /** The line with what was typed, or what is wrong with it. */
  readonly take: (typed: string) => DraftLine | string;
}

/** Types one figure of the line; taken when the field is left or Enter is pressed. */
function TypedFigure({ store, line, label, take }: TypedFigureProps) {
  const [typed, setTyped] = useState('');
  const [wrong, setWrong] = useState<string | undefined>();
  const settle = () => {
    if (typed.trim() === '') return setWrong(undefined);
    const priced = take(typed);
    if (typeof priced === 'string') return setWrong(priced);
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
      onBlur={settle}
      onKeyDown={(event) => {
        if (event.key !== 'Enter') return;
        event.preventDefault();
        settle();
      }}
    />
  );
}
