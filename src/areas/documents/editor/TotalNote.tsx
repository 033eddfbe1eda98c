'use client';

import type { Draft } from '@/core/documents/draft';
import type { Preview } from '@/core/documents/preview';
import { explainTotal, type TotalKey, type TotalNames } from '@/core/tax/explainTotal';
import { TextField } from '@/ui/Field';
import { Note } from '@/ui/Page';
import { Steps } from '../../shared/MarginNotes';
import { totalTitle } from '../totalNames';
import type { DraftStore } from './draftStore';

interface TotalNoteProps {
  readonly store: DraftStore;
  readonly draft: Draft;
  readonly shown: Preview;
  readonly total: TotalKey;
  readonly names: TotalNames;
}

/** Workings of a total; where it is a tax, it can be typed instead, with a reason. */
export function TotalNote({ store, draft, shown, total, names }: TotalNoteProps) {
  const currency = total === 'home' && shown.home !== undefined ? shown.home.currency : shown.currency;
  const group = total.startsWith('group:')
    ? shown.figures.groups.find((one) => one.tax === total.slice('group:'.length))
    : undefined;
  const families = [...new Set(group?.components.map((component) => component.family))];
  return (
    <Note title={`Workings — ${totalTitle(total, names)}`}>
      <Steps steps={explainTotal(shown.input, shown.figures, total, names)} currency={currency} />
      {group !== undefined &&
        families.map((family) => {
          const index = draft.overrides.findIndex((o) => o.tax === group.tax && o.family === family);
          const typed = draft.overrides[index];
          return (
            <div key={family} className="mt-2">
              <TextField
                label={families.length > 1 ? `Type the tax of ${names.component(family)}` : 'Type this tax instead'}
                data-field={`overrides[${index}].amount`}
                inputMode="decimal"
                placeholder="computed"
                value={typed?.amount ?? ''}
                onChange={(event) => store.override(group.tax, family, { amount: event.target.value })}
              />
              {typed !== undefined && (
                <TextField
                  label="Reason, saved with the document"
                  data-field={`overrides[${index}].reason`}
                  value={typed.reason}
                  error={typed.reason.trim() === '' ? 'Enter why this tax is typed.' : undefined}
                  onChange={(event) => store.override(group.tax, family, { reason: event.target.value })}
                />
              )}
            </div>
          );
        })}
    </Note>
  );
}
