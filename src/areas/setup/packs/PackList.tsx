'use client';

import { useMemo, useState } from 'react';
import { toast } from 'sonner';
import { settled } from '@/core/decisions/setup/pack';
import { isoDate, writeDate } from '@/core/kernel/date';
import { PACK_TITLES, packOf } from '@/core/tax/packs';
import { type Keep, type Overlap, overlapsOf } from '@/core/tax/packs/overlap';
import { type PackPlan, planPack, planSize } from '@/core/tax/packs/plan';
import { plainName } from '@/core/tax/taxCode';
import { wordRefusals } from '@/core/wording/refusals';
import { addStarterPack } from '@/store/setup/actions/taxSetup';
import { placeIdsOf } from '@/store/setup/queries/places';
import { Button } from '@/ui/Button';
import { Mark } from '@/ui/Mark';
import { SheetTitle } from '@/ui/Page';
import { Ruled } from '@/ui/Ruled';
import { TextButton } from '@/ui/TextButton';
import { useOpenBook } from '../../shell/BookContext';
import { act, useBook } from '../../shell/book';
import { conditionWords, resultWords } from '../table/rowWords';

/** Starter packs: choose one, see what it adds, add it. */
export function PackList() {
  const { records } = useOpenBook();
  const [id, setId] = useState('');
  const [wrong, setWrong] = useState('');
  const placeIds = useBook(placeIdsOf);
  const pack = id === '' ? null : packOf(id);
  const [keep, setKeep] = useState<Keep | null>(null);
  const overlaps = useMemo(() => (pack === null ? [] : overlapsOf(pack, records)), [pack, records]);
  const plan = useMemo(() => {
    if (pack === null || placeIds === undefined) return null;
    const together = settled(pack, records, keep);
    return planPack(together.pack, together.records, placeIds);
  }, [pack, records, placeIds, keep]);
  const add = async () => {
    const result = await act(addStarterPack, { id, ...(keep !== null && { keep }) });
    setWrong(result.ok ? '' : wordRefusals(result.refusals));
    if (result.ok) toast(`${pack?.title} was added; check it before use`);
  };
  return (
    <>
      <SheetTitle aside="check before use">Starter packs</SheetTitle>
      <p className="mb-3 text-soft">
        A pack brings the jurisdictions, rates, codes, places and rows of one country as known on its date. Compare it
        with the law before you rely on it. What your book has already stays as it is.
      </p>
      <ul className="mb-5 columns-2 gap-x-8">
        {PACK_TITLES.map(({ id: packId, title, knownAt }) => (
          <li key={packId} className="break-inside-avoid border-rule border-b py-1">
            <TextButton
              aria-pressed={packId === id}
              className={`text-left ${packId === id ? 'font-semibold' : ''}`}
              onClick={() => {
                setId(packId);
                setKeep(null);
                setWrong('');
              }}
            >
              {title}
            </TextButton>{' '}
            <span className="text-soft text-sm">known on {writeDate(isoDate(knownAt))}</span>
          </li>
        ))}
      </ul>
      {pack !== null && plan !== null && (
        <section aria-label={`What ${pack.title} adds`}>
          <h2 className="mb-1 font-semibold font-serif">{pack.title}</h2>
          <p className="mb-2">
            <Mark kind="warning" /> Check before use: known on {writeDate(pack.knownAt)}, later changes are not in it.
          </p>
          {overlaps.length > 0 && <Overlaps overlaps={overlaps} keep={keep} onKeep={setKeep} />}
          <Preview plan={plan} />
          {wrong !== '' && (
            <p role="alert" className="my-2 text-brick">
              ▲ {wrong}
            </p>
          )}
          <p className="mt-3">
            {planSize(plan) === 0 ? (
              <span className="text-soft">Your book has all of it already.</span>
            ) : (
              <Button weight="main" disabled={overlaps.length > 0 && keep === null} onClick={() => void add()}>
                Add {planSize(plan)} records of {pack.title}
              </Button>
            )}
          </p>
        </section>
      )}
    </>
  );
}

interface OverlapsProps {
  readonly overlaps: readonly Overlap[];
  readonly keep: Keep | null;
  readonly onKeep: (keep: Keep) => void;
}

/** Taxes of the book that a pack would charge beside, and the choice which of them charges. */
function Overlaps({ overlaps, keep, onKeep }: OverlapsProps) {
  const names = (side: Keep) => [...new Set(overlaps.map((one) => one[side].name))].join(', ');
  const choices = [
    ['ours', `Keep ${names('ours')} of the book; the pack’s ${names('theirs')} stays out`],
    ['theirs', `Take ${names('theirs')} of the pack; ${names('ours')} of the book, its codes and rows are removed`],
  ] as const;
  return (
    <fieldset className="mb-3 border border-rule px-3 py-2">
      <legend className="px-1">
        <Mark kind="warning" /> Book and pack would both charge one supply
      </legend>
      {choices.map(([value, words]) => (
        <label key={value} className="block">
          <input type="radio" name="keep" checked={keep === value} onChange={() => onKeep(value)} /> {words}
        </label>
      ))}
    </fieldset>
  );
}

function Preview({ plan }: { readonly plan: PackPlan }) {
  const { records } = useOpenBook();
  const around = { ...records, jurisdictions: [...records.jurisdictions, ...plan.jurisdictions] };
  const codes = { codes: [...records.codes, ...plan.codes] };
  const short = [
    ['Jurisdictions', plan.jurisdictions.map((j) => j.name)],
    ['Tax codes', plan.codes.map((c) => `${c.id} ${plainName(c)}`)],
    ['Places', plan.places.map((p) => p.name)],
    ['Withholding', plan.withholdingTypes.map((w) => `${w.name} (${w.source})`)],
  ] as const;
  return (
    <>
      {short.map(([title, names]) =>
        names.length === 0 ? null : (
          <p key={title} className="mb-1">
            <span className="text-soft">{title}:</span> {names.join(', ')}
          </p>
        ),
      )}
      {plan.newRates.length > 0 && (
        <Ruled
          caption="Rates that it adds"
          className="mt-2"
          rows={plan.newRates}
          keyOf={({ tax, rate }) => `${tax.id}|${rate.taxClass}|${rate.from}`}
          columns={[
            { head: 'Tax', cell: ({ tax }) => `${tax.jurisdictionId} ${tax.name}` },
            { head: 'Class', cell: ({ rate }) => rate.taxClass || 'every class' },
            { head: 'From', cell: ({ rate }) => writeDate(rate.from) },
            { head: 'Rate', align: 'right', cell: ({ rate }) => `${rate.percent} %` },
            { head: 'Legal source', cell: ({ rate }) => rate.source },
          ]}
        />
      )}
      {plan.newRows.length > 0 && (
        <Ruled
          caption="Rows of the decision table that it adds"
          className="mt-3"
          rows={plan.newRows}
          keyOf={(row) => row.id}
          columns={[
            { head: 'Row', cell: (row) => row.name },
            { head: 'When', cell: (row) => conditionWords(row, around) },
            { head: 'Then', cell: (row) => resultWords(row, codes) },
          ]}
        />
      )}
      {plan.kept.length > 0 && <p className="mt-2 text-soft text-sm">Stays as you have it: {plan.kept.join(', ')}.</p>}
    </>
  );
}
