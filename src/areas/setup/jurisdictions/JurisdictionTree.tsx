'use client';

import { useRouter } from 'next/navigation';
import type { IsoDate } from '@/core/kernel/date';
import { showNumber } from '@/core/kernel/show';
import { rateOn, type Tax } from '@/core/tax/tax';
import { Button } from '@/ui/Button';
import Link from '@/ui/Link';
import { Empty, SheetTitle } from '@/ui/Page';
import { inTree } from '../../shared/choices';
import { ListTable } from '../../shared/ListTable';
import { useOpenBook } from '../../shell/BookContext';
import { today } from '../../shell/book';
import { routes } from '../../shell/routes';

/** Rates of a tax on a day in one line: `standard 23 %, reduced 13.5 %`. */
function ratesToday(tax: Tax, day: IsoDate): string {
  const classes = [...new Set(tax.rates.map((rate) => rate.taxClass))];
  const said = classes.flatMap((name) => {
    const rate = rateOn(tax, name, day);
    if (rate === null) return [];
    const figure = rate.percent === '' ? `${rate.perUnit} a unit` : `${showNumber(rate.percent)} %`;
    return [name === '' ? figure : `${name} ${figure}`];
  });
  return `${tax.name}: ${said.length === 0 ? 'no rate today' : said.join(', ')}`;
}

/** Every jurisdiction below the one it lies in, with its taxes and their rates today. */
export function JurisdictionTree() {
  const { records } = useOpenBook();
  const router = useRouter();
  const rows = inTree(records.jurisdictions);
  return (
    <>
      <SheetTitle
        aside={
          <Button weight="main" onClick={() => router.push(routes.record('jurisdictions', 'new'))}>
            New jurisdiction
          </Button>
        }
      >
        Jurisdictions and rates
      </SheetTitle>
      {rows.length === 0 && <Empty>No jurisdictions yet: a starter pack brings those of a country.</Empty>}
      {rows.length > 0 && (
        <ListTable
          ordered
          caption="Jurisdictions and rates"
          rows={rows}
          keyOf={({ jurisdiction }) => jurisdiction.id}
          columns={[
            {
              head: 'Jurisdiction',
              value: ({ jurisdiction: j }) => j.name,
              width: '38%',
              cell: ({ jurisdiction: j, depth }) => (
                <span style={{ paddingLeft: `${depth * 18}px` }}>
                  <Link
                    href={routes.record('jurisdictions', j.id)}
                    className="underline decoration-rule underline-offset-4"
                  >
                    {j.name}
                  </Link>{' '}
                  <span className="text-soft text-sm">{j.kind}</span>
                </span>
              ),
            },
            { head: 'Code', width: '90px', cell: ({ jurisdiction }) => jurisdiction.code },
            {
              head: 'Rates today',
              cell: ({ jurisdiction }) =>
                records.taxes
                  .filter((tax) => tax.jurisdictionId === jurisdiction.id)
                  .map((tax) => <div key={tax.id}>{ratesToday(tax, today())}</div>),
            },
          ]}
        />
      )}
    </>
  );
}
