'use client';

import { useState } from 'react';
import { toast } from 'sonner';
import { isIsoDate, writeDate } from '@/core/kernel/date';
import { isDecimal } from '@/core/kernel/decimal';
import { minus } from '@/core/kernel/money';
import type { TaxRate } from '@/core/tax/tax';
import { knownClasses } from '@/core/tax/taxSetup';
import { wordRefusals } from '@/core/wording/refusals';
import { changeTaxRate } from '@/store/tax/actions/changeRate';
import { effectsOf, type LaterEffect, laterEffectsOf } from '@/store/tax/queries/rateChange';
import { Button } from '@/ui/Button';
import { ChoiceField, TextField } from '@/ui/Field';
import Link from '@/ui/Link';
import { Money } from '@/ui/Money';
import { Empty, SheetTitle } from '@/ui/Page';
import { Ruled } from '@/ui/Ruled';
import { DateField } from '../../shared/DateField';
import { useOpenBook } from '../../shell/BookContext';
import { act, today, useBook } from '../../shell/book';
import { routes } from '../../shell/routes';

/** What a rate from a day on would do to open drafts; taken for those that are chosen. */
export function RateChange() {
  const { records, currency } = useOpenBook();
  const [taxId, setTaxId] = useState('');
  const [taxClass, setTaxClass] = useState('standard');
  const [from, setFrom] = useState<string>(today());
  const [percent, setPercent] = useState('');
  const [source, setSource] = useState('');
  const [left, setLeft] = useState<ReadonlySet<string>>(new Set());
  const [wrong, setWrong] = useState('');
  const tax = records.taxes.find((t) => t.id === taxId);
  const rate: TaxRate | null =
    isIsoDate(from) && isDecimal(percent) ? { taxClass, from, until: '', percent, perUnit: '', source } : null;
  const effects = useBook(
    async (db) => (tax === undefined || rate === null ? null : effectsOf(db, tax, rate)),
    [tax?.id, taxClass, from, percent],
    [tax],
  );
  const later =
    useBook(
      async (db) => (tax === undefined || rate === null ? [] : await laterEffectsOf(db, tax, rate)),
      [tax?.id, taxClass, from, percent],
      [tax],
    ) ?? [];
  const chosen = (effects ?? []).filter((effect) => !left.has(effect.draftId));
  const nameOf = (id: string) => records.jurisdictions.find((j) => j.id === id)?.name ?? id;
  const toggle = (id: string) => {
    const next = new Set(left);
    if (!next.delete(id)) next.add(id);
    setLeft(next);
  };
  const apply = async () => {
    if (rate === null) return;
    const result = await act(changeTaxRate, { taxId, rate, draftIds: chosen.map((effect) => effect.draftId) });
    if (!result.ok) return setWrong(wordRefusals(result.refusals));
    setWrong('');
    setPercent('');
    toast(`The rate is saved; ${result.value.taken} drafts take it, ${result.value.kept} keep theirs`);
  };
  return (
    <>
      <SheetTitle>What if a rate changes</SheetTitle>
      <div className="grid grid-cols-2 gap-x-4">
        <ChoiceField
          label="Tax"
          options={[
            ['', 'choose…'],
            ...records.taxes.map((t) => [t.id, `${nameOf(t.jurisdictionId)}, ${t.name}`] as const),
          ]}
          value={taxId}
          onChange={(event) => setTaxId(event.target.value)}
        />
        <ChoiceField
          label="Class"
          options={[['', 'every class without its own'], ...knownClasses(records).map((c) => [c, c] as const)]}
          value={taxClass}
          onChange={(event) => setTaxClass(event.target.value)}
        />
      </div>
      <div className="grid grid-cols-[1fr_1fr_2fr] gap-x-4">
        <DateField label="From the tax point" value={from} onChange={(event) => setFrom(event.target.value)} />
        <TextField
          label="New rate, percent"
          inputMode="decimal"
          value={percent}
          onChange={(event) => setPercent(event.target.value)}
        />
        <TextField label="Legal source" value={source} onChange={(event) => setSource(event.target.value)} />
      </div>
      {effects === null && <Empty>Choose a tax, a date and a rate to see which drafts it changes.</Empty>}
      {effects?.length === 0 && <Empty>No draft carries this tax on or after that date.</Empty>}
      {effects !== null && effects !== undefined && effects.length > 0 && (
        <Ruled
          caption="Drafts that the change touches"
          rows={effects}
          keyOf={(effect) => effect.draftId}
          columns={[
            {
              head: 'Update',
              width: '80px',
              cell: (effect) => (
                <input
                  type="checkbox"
                  className="accent-rust"
                  aria-label={`Draft for ${effect.customerName} takes it`}
                  checked={!left.has(effect.draftId)}
                  onChange={() => toggle(effect.draftId)}
                />
              ),
            },
            { head: 'Draft for', cell: (effect) => effect.customerName },
            { head: 'Tax point', cell: (effect) => writeDate(effect.taxPoint) },
            { head: 'Now', align: 'right', cell: (e) => <Money amount={e.before} currency={currency} /> },
            { head: 'New total', align: 'right', cell: (e) => <Money amount={e.after} currency={currency} /> },
            {
              head: 'Difference',
              align: 'right',
              cell: (e) => <Money amount={minus(e.after, e.before)} currency={currency} />,
            },
          ]}
        />
      )}
      {later.length > 0 && (
        <section className="mt-6">
          <h2 className="mb-1 font-semibold font-serif">Quotes and recurring documents, which take it by themselves</h2>
          <Ruled
            caption="Quotes and recurring documents that the change touches"
            rows={later}
            keyOf={(effect: LaterEffect) => effect.draftId}
            columns={[
              {
                head: 'Document',
                cell: (effect) => (
                  <Link
                    href={effect.of === 'quote' ? routes.document(effect.draftId) : routes.recurring(effect.draftId)}
                    className="underline decoration-rule underline-offset-4"
                  >
                    {effect.name}
                  </Link>
                ),
              },
              { head: 'Customer', cell: (effect) => effect.customerName },
              { head: 'From', cell: (effect) => writeDate(effect.taxPoint) },
              { head: 'Now', align: 'right', cell: (e) => <Money amount={e.before} currency={currency} /> },
              { head: 'New total', align: 'right', cell: (e) => <Money amount={e.after} currency={currency} /> },
              {
                head: 'Difference',
                align: 'right',
                cell: (e) => <Money amount={minus(e.after, e.before)} currency={currency} />,
              },
            ]}
          />
        </section>
      )}
      {wrong !== '' && (
        <p role="alert" className="mt-3 text-brick">
          ▲ {wrong}
        </p>
      )}
      {effects !== null && effects !== undefined && (
        <p className="mt-4 flex items-center gap-3">
          <Button weight="main" onClick={() => void apply()}>
            Save the rate; {chosen.length} {chosen.length === 1 ? 'draft takes' : 'drafts take'} it
          </Button>
          <span className="text-soft">Other drafts keep their rates and point it out when they are opened.</span>
        </p>
      )}
    </>
  );
}
