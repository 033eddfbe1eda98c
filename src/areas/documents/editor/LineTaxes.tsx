'use client';

import type { DraftLine } from '@/core/documents/draft';
import type { Preview } from '@/core/documents/preview';
import type { Setting } from '@/core/documents/setting';
import { territoryOf } from '@/core/tax/jurisdiction';
import { readTaxKey, type TaxKey, taxKeyOf } from '@/core/tax/taxKey';
import { ChoiceField } from '@/ui/Field';
import type { DraftStore } from './draftStore';

interface LineTaxesProps {
  readonly store: DraftStore;
  readonly line: DraftLine;
  readonly shown: Preview;
  readonly setting: Setting;
}

/** The taxes of one line: each can be left out here, and another of the same country added, whatever the code says. */
export function LineTaxes({ store, line, shown, setting }: LineTaxesProps) {
  const key = readTaxKey(line.taxCode);
  const charged = shown.taxes.find(({ code }) => code === line.taxCode)?.components ?? [];
  const { setup } = setting;
  const countries = setup.registrations.map(({ country }) => country);
  const ids = new Set(charged.map(({ taxId }) => taxId));
  const others = setup.taxes.filter(
    ({ id, jurisdictionId }) =>
      !ids.has(id) &&
      !key.without.includes(id) &&
      countries.includes(territoryOf(setup.jurisdiction, jurisdictionId).country),
  );
  const nameOf = (id: string) => setup.tax.get(id)?.name ?? id;
  const take = (changed: Partial<TaxKey>) =>
    store.changeLine(line.id, { taxCode: taxKeyOf({ ...key, ...changed }), taxByHand: true });
  const leaveOut = (id: string) =>
    key.added.some(({ taxId }) => taxId === id)
      ? take({ added: key.added.filter(({ taxId }) => taxId !== id) })
      : take({ without: [...key.without, id] });
  const add = (id: string) => {
    const rates = setup.tax.get(id)?.rates ?? [];
    const own = rates.find(({ taxClass }) => taxClass === line.taxClass) ?? rates[0];
    take({ added: [...key.added, { taxId: id, taxClass: own?.taxClass ?? line.taxClass }] });
  };
  const isChanged = key.without.length > 0 || key.added.length > 0;
  if (charged.length < 2 && others.length === 0 && !isChanged) return null;
  const action = 'cursor-pointer underline decoration-rule underline-offset-2';
  return (
    <fieldset className="mb-2">
      <legend className="text-soft text-sm">Taxes of this line</legend>
      <ul className="text-sm">
        {charged.map(({ taxId, taxName, percent, jurisdictionName }) => (
          <li key={taxId} className="flex gap-2">
            <span className="flex-1">
              {taxName} {percent === '' ? '' : `${percent} %`} · {jurisdictionName}
            </span>
            {/* The last one goes by another code, which says why nothing is charged. */}
            {charged.length > 1 && (
              <button type="button" className={action} onClick={() => leaveOut(taxId)}>
                remove<span className="sr-only"> {taxName} from this line</span>
              </button>
            )}
          </li>
        ))}
        {key.without.map((id) => (
          <li key={id} className="flex gap-2 text-soft">
            <span className="flex-1 line-through">{nameOf(id)}</span>
            <button
              type="button"
              className={action}
              onClick={() => take({ without: key.without.filter((one) => one !== id) })}
            >
              charge it<span className="sr-only"> again: {nameOf(id)}</span>
            </button>
          </li>
        ))}
      </ul>
      {others.length > 0 && (
        <ChoiceField
          label="Add a tax to this line"
          options={[
            ['', 'choose…'] as const,
            ...others.map((tax) => {
              const where = setup.jurisdiction.get(tax.jurisdictionId)?.name ?? tax.jurisdictionId;
              return [tax.id, `${tax.name} · ${where}`] as const;
            }),
          ]}
          value=""
          onChange={(event) => event.target.value !== '' && add(event.target.value)}
        />
      )}
    </fieldset>
  );
}
