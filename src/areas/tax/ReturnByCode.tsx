'use client';

import { decimal } from '@/core/kernel/decimal';
import { showNumber } from '@/core/kernel/show';
import { rowKey, type TaxBalance, type TaxReturn } from '@/core/returns/return';
import { Ruled } from '@/ui/Ruled';
import { ALL } from './Behind';
import { OpenFigure } from './OpenFigure';

interface ReturnByCodeProps {
  /** Of the period. */
  readonly name: string;
  readonly figures: TaxReturn;
  readonly opened: string;
  readonly onOpen: (id: string) => void;
}

/** The return by tax code and rate, each figure opening its documents. */
export function ReturnByCode({ name, figures, opened, onOpen }: ReturnByCodeProps) {
  const several = new Set(figures.rows.map((r) => r.jurisdictionId)).size > 1;
  return (
    <Ruled
      caption={`Return ${name} by tax code`}
      rows={figures.rows}
      keyOf={rowKey}
      columns={[
        {
          head: 'Tax code',
          cell: (r) => (
            <>
              {r.codeName} <span className="text-soft text-xs">{r.category}</span>
              {r.kind === 'exempt' && <span className="text-soft text-sm"> exempt</span>}
            </>
          ),
        },
        ...(several
          ? [{ head: 'Jurisdiction', width: '120px', cell: (r: TaxBalance) => r.jurisdictionName } as const]
          : []),
        { head: 'Rate', align: 'right', width: '64px', cell: (r) => `${showNumber(decimal(r.percent))} %` },
        {
          head: 'Entries',
          align: 'right',
          width: '72px',
          cell: (r) => (
            <>
              {r.lateEntries > 0 && <span className="text-soft text-sm">{r.lateEntries} late · </span>}
              {r.entries}
            </>
          ),
        },
        {
          head: 'Taxable amount',
          align: 'right',
          width: '104px',
          cell: (r) => (
            <OpenFigure
              id={rowKey(r)}
              label={`Taxable amount of ${r.codeName}`}
              amount={r.base}
              opened={opened}
              onOpen={onOpen}
            />
          ),
        },
        {
          head: 'Tax',
          align: 'right',
          width: '96px',
          cell: (r) => (
            <OpenFigure id={rowKey(r)} label={`Tax of ${r.codeName}`} amount={r.tax} opened={opened} onOpen={onOpen} />
          ),
        },
      ]}
      sums={[
        'Output tax',
        ...(several ? [''] : []),
        '',
        '',
        <OpenFigure
          key="base"
          id={ALL}
          label="Total taxable amount"
          amount={figures.base}
          opened={opened}
          onOpen={onOpen}
        />,
        <OpenFigure key="tax" id={ALL} label="Total tax" amount={figures.tax} opened={opened} onOpen={onOpen} />,
      ]}
    />
  );
}
