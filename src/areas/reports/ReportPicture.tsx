'use client';

import { useMemo } from 'react';
import type { Currency } from '@/core/kernel/currency';
import { type Minor, NOTHING, writeMoney } from '@/core/kernel/money';
import { showMoney } from '@/core/kernel/show';
import { type ReportChart, stepSpans } from '@/core/reports/report';
import { Chart, type ChartSeries } from '@/ui/Chart';

/** The chart of a report: lengths are drawn, amounts are said to the cent. */
export function ReportPicture({ chart, currency }: { readonly chart: ReportChart; readonly currency: Currency }) {
  const { kind, caption, names, series } = chart;
  const drawn = useMemo((): readonly ChartSeries[] => {
    const length = (amount: Minor) => Number(writeMoney(amount, currency));
    return series.map(({ name, amounts }) => {
      const spans = kind === 'steps' ? stepSpans(amounts) : amounts.map((amount) => [NOTHING, amount] as const);
      return {
        name,
        bars: spans.map(([from, to], i) => ({
          from: length(from),
          to: length(to),
          words: `${showMoney(amounts[i] ?? NOTHING, currency)} ${currency}`,
        })),
      };
    });
  }, [kind, series, currency]);
  return <Chart label={`${caption}; the figures stand in the table below`} names={names} series={drawn} />;
}
