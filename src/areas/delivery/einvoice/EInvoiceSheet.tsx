'use client';

import { createContext, type ReactNode, useContext, useState } from 'react';
import { CODES } from '@/core/einvoice/codes';
import { GROUPS, type GroupId, type TermId } from '@/core/einvoice/terms';
import { groupsIn, type ViewGroup, type ViewTerm, valueIn } from '@/core/einvoice/view';
import { SheetTitle } from '@/ui/Page';
import { TextButton } from '@/ui/TextButton';

interface Pointing {
  /** Line of the file that is pointed at. */
  readonly line: number;
  readonly onPoint: (line: number) => void;
}

const PointingContext = createContext<Pointing>({ line: 0, onPoint: () => undefined });

/** A value of the file, as it stands there; pointing at it shows its line. */
function Value({ term, children }: { readonly term: ViewTerm; readonly children?: ReactNode }) {
  const { line, onPoint } = useContext(PointingContext);
  const here = term.line !== 0 && term.line === line;
  return (
    <button
      type="button"
      title={`${term.name} (${term.id})`}
      aria-current={here}
      className={`cursor-pointer break-words text-left hover:underline ${here ? 'bg-rust/15 outline-1 outline-rust' : ''}`}
      onClick={() => onPoint(term.line)}
    >
      {children ?? term.value}
    </button>
  );
}

function Term({ group, id }: { readonly group: ViewGroup | undefined; readonly id: TermId }) {
  const term = group?.terms.find((one) => one.id === id);
  return term === undefined ? null : <Value term={term} />;
}

const TOTALS: readonly TermId[] = [
  'BT-106',
  'BT-107',
  'BT-108',
  'BT-109',
  'BT-110',
  'BT-111',
  'BT-112',
  'BT-113',
  'BT-114',
  'BT-115',
];
/** Terms that the sheet shows in places of their own, or that say something to programs alone. */
const PLACED: ReadonlySet<TermId> = new Set<TermId>(['BT-1', 'BT-3', 'BT-23', 'BT-24', ...TOTALS]);

interface PartyProps {
  readonly title: string;
  readonly party: ViewGroup | undefined;
  readonly name: TermId;
  readonly address: GroupId;
}

/** Name and address as on paper, then what else is said of a party, each in the words of the standard. */
function Party({ title, party, name, address }: PartyProps) {
  if (party === undefined) return null;
  const place = groupsIn(party, address)[0];
  return (
    <section aria-label={title} className="min-w-0">
      <h2 className="text-soft text-sm">{title}</h2>
      <div className="font-semibold">
        <Term group={party} id={name} />
      </div>
      <p>
        {(place?.terms ?? []).map((term, i) => (
          <span key={`${term.id} ${term.value}`}>
            {i > 0 && ', '}
            <Value term={term} />
          </span>
        ))}
      </p>
      {party.terms
        .filter(({ id }) => id !== name)
        .map((term) => (
          <div key={`${term.id} ${term.value}`} className="text-sm">
            <span className="text-soft">{term.name.replace(`${title} `, '')}</span> <Value term={term} />
          </div>
        ))}
    </section>
  );
}

const FIRST_LINES = 100;

function Lines({ invoice }: { readonly invoice: ViewGroup }) {
  const [most, setMost] = useState(FIRST_LINES);
  const lines = groupsIn(invoice, 'BG-25');
  const heads = ['Item', 'Quantity', 'Price', 'Tax', 'Net'];
  return (
    <table className="mt-5 w-full">
      <caption className="sr-only">Lines of the e-invoice</caption>
      <thead>
        <tr className="border-ink border-b text-soft text-sm">
          {heads.map((head) => (
            <th
              key={head}
              scope="col"
              className={`pb-1 font-normal ${head === 'Item' || head === 'Tax' ? 'pl-2 text-left' : 'text-right'}`}
            >
              {head}
            </th>
          ))}
        </tr>
      </thead>
      <tbody>
        {lines.slice(0, most).map((line, i) => (
          <tr key={i} className="border-rule border-b align-top tabular-nums">
            <td className="max-w-[280px] py-1 pl-2">
              <Term group={line} id="BT-153" />
              <div className="text-soft text-sm">
                <Term group={line} id="BT-154" />
              </div>
            </td>
            <td className="py-1 text-right">
              <Term group={line} id="BT-129" /> <Term group={line} id="BT-130" />
            </td>
            <td className="py-1 text-right">
              <Term group={line} id="BT-146" />
            </td>
            <td className="py-1 pl-2">
              <Term group={line} id="BT-151" /> <Term group={line} id="BT-152" />
              {valueIn(line, 'BT-152') !== '' && ' %'}
            </td>
            <td className="py-1 text-right">
              <Term group={line} id="BT-131" />
            </td>
          </tr>
        ))}
      </tbody>
      {lines.length > most && (
        <tfoot>
          <tr>
            <td colSpan={heads.length} className="pt-1">
              <TextButton onClick={() => setMost(most * 10)}>More of the {lines.length} lines</TextButton>
            </td>
          </tr>
        </tfoot>
      )}
    </table>
  );
}

/** Every other group, in the words of the standard. */
function Rest({ groups }: { readonly groups: readonly ViewGroup[] }) {
  return groups.map((group, i) => (
    <section key={i} aria-label={GROUPS[group.id] ?? group.id} className="mt-3 border-rule border-l pl-3">
      <h3 className="text-soft text-sm">{GROUPS[group.id] ?? group.id}</h3>
      <dl className="grid grid-cols-[220px_1fr] gap-x-3">
        {group.terms.map((term) => (
          <div key={`${term.id} ${term.line} ${term.value}`} className="contents">
            <dt className="text-soft text-sm">{term.name}</dt>
            <dd className="min-w-0 tabular-nums">
              <Value term={term}>{term.value.length > 200 ? `${term.value.slice(0, 200)}…` : term.value}</Value>
            </dd>
          </div>
        ))}
      </dl>
      <Rest groups={group.groups} />
    </section>
  ));
}

const SHOWN_GROUPS: readonly GroupId[] = ['BG-4', 'BG-7', 'BG-25'];

interface EInvoiceSheetProps extends Pointing {
  readonly invoice: ViewGroup;
  readonly aside: ReactNode;
}

/** An e-invoice as a document, every value as it stands in the file. */
export function EInvoiceSheet({ invoice, line, onPoint, aside }: EInvoiceSheetProps) {
  const currency = valueIn(invoice, 'BT-5');
  const facts = invoice.terms.filter(({ id }) => !PLACED.has(id));
  const title = CODES.creditNoteTypes.has(valueIn(invoice, 'BT-3')) ? 'Credit note' : 'Invoice';
  return (
    <PointingContext value={{ line, onPoint }}>
      <SheetTitle aside={aside}>
        {title} <Term group={invoice} id="BT-1" />
      </SheetTitle>
      <div className="grid grid-cols-2 gap-6">
        <Party title="Seller" party={groupsIn(invoice, 'BG-4')[0]} name="BT-27" address="BG-5" />
        <Party title="Buyer" party={groupsIn(invoice, 'BG-7')[0]} name="BT-44" address="BG-8" />
      </div>
      <dl className="mt-4 grid grid-cols-3 gap-x-4 gap-y-2">
        {facts.map((term) => (
          <div key={`${term.id} ${term.value}`} className="min-w-0">
            <dt className="text-soft text-sm">{term.name}</dt>
            <dd>
              <Value term={term} />
            </dd>
          </div>
        ))}
      </dl>
      <Lines invoice={invoice} />
      <dl className="mt-4 ml-auto w-[330px] tabular-nums">
        {TOTALS.map((id) => {
          const term = invoice.terms.find((one) => one.id === id);
          if (term === undefined) return null;
          const strong = id === 'BT-112' || id === 'BT-115';
          return (
            <div
              key={id}
              className={`flex justify-between gap-3 py-0.5 ${strong ? 'border-ink border-t font-semibold' : ''}`}
            >
              <dt>{term.name}</dt>
              <dd className="whitespace-nowrap">
                <Value term={term} /> {id === 'BT-111' ? valueIn(invoice, 'BT-6') : currency}
              </dd>
            </div>
          );
        })}
      </dl>
      <details className="mt-4">
        <summary className="cursor-pointer text-soft">Other content</summary>
        <Rest groups={invoice.groups.filter(({ id }) => !SHOWN_GROUPS.includes(id))} />
      </details>
    </PointingContext>
  );
}
