'use client';

import { useMemo, useState } from 'react';
import { type Draft, type DraftLine, isBlank } from '@/core/documents/draft';
import { lineTrail } from '@/core/documents/lineTax';
import type { Preview } from '@/core/documents/preview';
import type { Setting } from '@/core/documents/setting';
import { isIsoDate, writeDate } from '@/core/kernel/date';
import { isOffered } from '@/core/ledger/account';
import type { Customer } from '@/core/parties/customer';
import { readTypedDate } from '@/core/parties/terms';
import { knownClasses } from '@/core/tax/taxSetup';
import { explainLine } from '@/core/tax/workings';
import { ChoiceField, TextField } from '@/ui/Field';
import { Note } from '@/ui/Page';
import { TextButton } from '@/ui/TextButton';
import { Because, componentNames, Steps, TrailList } from '../../shared/MarginNotes';
import { useOpenBook } from '../../shell/BookContext';
import { today } from '../../shell/book';
import type { DraftStore } from './draftStore';
import { LineTaxNote } from './LineTaxNote';

interface LineNoteProps {
  readonly store: DraftStore;
  readonly draft: Draft;
  /** Place of the line that is written in. */
  readonly at: number;
  readonly shown: Preview;
  readonly customer: Customer | null;
  readonly setting: Setting;
}

/** Workings of the line that is written in, and what of it has no column on the sheet. */
export function LineNote({ store, draft, at, shown, customer, setting }: LineNoteProps) {
  const { accounts } = useOpenBook();
  const line = draft.lines[at];
  const classes = useMemo(() => knownClasses(setting.setup), [setting]);
  const steps = line === undefined ? [] : explainLine(shown.input, shown.figures, line.id, componentNames(shown.taxes));
  const tax = shown.taxes.find((t) => t.code === line?.taxCode);
  const trail = useMemo(
    () => (line === undefined ? [] : lineTrail(draft, line, customer, setting)),
    [draft, line, customer, setting],
  );
  return (
    <Note title={steps.length === 0 ? 'Workings' : `Workings — line ${at + 1}`}>
      {steps.length === 0 && (
        <p className="text-soft text-sm">Enter a line with its price to see how its figures are computed.</p>
      )}
      <Steps steps={steps} currency={shown.currency} />
      {steps.length > 0 && tax !== undefined && line !== undefined && (
        <>
          {line.priceFrom !== '' && <p className="my-2 text-sm">Price: {line.priceFrom}.</p>}
          <Because tax={tax} byHand={line.taxByHand} trail={trail} />
          <div className="grid grid-cols-[3fr_2fr] gap-x-3">
            <ChoiceField
              label="Income account of this line"
              options={accounts
                .filter((a) => a.type === 'income' && (isOffered(a) || a.code === line.account))
                .map((a) => [a.code, `${a.code} ${a.name}`] as const)}
              value={line.account}
              onChange={(event) => store.changeLine(line.id, { account: event.target.value })}
            />
            <SuppliedField key={line.id} store={store} line={line} index={at} draft={draft} />
          </div>
        </>
      )}
      {line !== undefined && !isBlank(line) && (
        <>
          {tax === undefined && <TrailList trail={trail} />}
          <LineTaxNote
            store={store}
            line={line}
            index={at}
            posts={draft.kind !== 'cash-sale'}
            classes={classes}
            shown={shown}
            setting={setting}
          />
          <LineMoves store={store} line={line} />
        </>
      )}
    </Note>
  );
}

/** Day of one line's supply; read when the field is left. */
function SuppliedField({
  store,
  line,
  index,
  draft,
}: {
  readonly store: DraftStore;
  readonly line: DraftLine;
  readonly index: number;
  readonly draft: Draft;
}) {
  const [typed, setTyped] = useState<string | null>(null);
  const leave = () => {
    if (typed === null) return;
    setTyped(null);
    const issue = isIsoDate(draft.issueDate) ? draft.issueDate : today();
    store.changeLine(line.id, { supplied: readTypedDate(typed, today(), issue) ?? typed.trim() });
  };
  const shown = isIsoDate(line.supplied) ? writeDate(line.supplied) : line.supplied;
  return (
    <TextField
      label="Date of supply"
      data-field={`lines[${index}].supplied`}
      placeholder="tax point"
      value={typed ?? shown}
      onChange={(event) => setTyped(event.target.value)}
      onBlur={leave}
    />
  );
}

/** What the keys Alt+↑, Alt+↓, Alt+Insert and Alt+Delete do, for the mouse. */
function LineMoves({ store, line }: { readonly store: DraftStore; readonly line: DraftLine }) {
  const moves: readonly (readonly [string, string, () => void])[] = [
    ['up', 'Alt+↑', () => store.moveLine(line.id, -1)],
    ['down', 'Alt+↓', () => store.moveLine(line.id, 1)],
    ['copy', 'Alt+Insert', () => store.copyLine(line.id)],
    ['remove', 'Alt+Delete', () => store.removeLine(line.id)],
  ];
  return (
    <p className="flex gap-3 text-sm">
      <span className="text-soft">This line:</span>
      {moves.map(([words, keys, onDo]) => (
        <TextButton key={words} title={keys} onClick={onDo}>
          {words}
        </TextButton>
      ))}
    </p>
  );
}
