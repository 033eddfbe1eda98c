'use client';

import type { ApexOptions } from 'apexcharts';
import dynamic from 'next/dynamic';
import { useMemo } from 'react';
import { useTheme } from './Theme';

const Apex = dynamic(() => import('react-apexcharts'), { ssr: false, loading: () => null });

/** One bar: where it begins and ends, for drawing, and what it says, exactly. */
export interface ChartBar {
  readonly from: number;
  readonly to: number;
  readonly words: string;
}

export interface ChartSeries {
  readonly name: string;
  /** One for each name below. */
  readonly bars: readonly ChartBar[];
}

interface ChartProps {
  /** What it shows, for those who can't see it; the same figures stand in a table beside. */
  readonly label: string;
  readonly names: readonly string[];
  readonly series: readonly ChartSeries[];
}

const HEIGHT = 260;
const LONGEST_NAME = 18;

/** Figures of the book in ink and paper: bars that say their exact amount when they are pointed at. */
export function Chart({ label, names, series }: ChartProps) {
  const theme = useTheme();
  const options = useMemo((): ApexOptions => {
    const token = (name: string) => getComputedStyle(document.documentElement).getPropertyValue(`--${name}`).trim();
    const words = (seriesIndex: number, at: number) => series[seriesIndex]?.bars[at]?.words ?? '';
    // What is read from the page is that of its theme.
    void theme;
    return {
      chart: {
        type: 'rangeBar',
        animations: { enabled: false },
        toolbar: { show: false },
        zoom: { enabled: false },
        fontFamily: 'inherit',
        foreColor: token('soft'),
      },
      colors: [token('rust'), token('slate'), token('moss'), token('ochre')],
      plotOptions: { bar: { horizontal: false, columnWidth: '55%' } },
      states: { hover: { filter: { type: 'none' } }, active: { filter: { type: 'none' } } },
      dataLabels: { enabled: false },
      legend: { show: series.length > 1, position: 'top', horizontalAlign: 'left' },
      grid: { borderColor: token('rule'), strokeDashArray: 0 },
      xaxis: {
        categories: [...names],
        axisBorder: { color: token('ink') },
        axisTicks: { show: false },
        labels: {
          trim: true,
          hideOverlappingLabels: false,
          formatter: (name) => (name.length > LONGEST_NAME ? `${name.slice(0, LONGEST_NAME)}…` : name),
        },
      },
      yaxis: { labels: { formatter: (value) => Math.round(value).toLocaleString('en') } },
      tooltip: {
        custom: ({ seriesIndex, dataPointIndex }: { seriesIndex: number; dataPointIndex: number }) => {
          const box = document.createElement('div');
          box.textContent = `${names[dataPointIndex] ?? ''}, ${series[seriesIndex]?.name ?? ''}: ${words(seriesIndex, dataPointIndex)}`;
          // The library takes markup; what it is given holds none of its own.
          return `<div style="padding:4px 8px">${box.innerHTML}</div>`;
        },
      },
    };
  }, [names, series, theme]);
  const drawn = useMemo(
    () =>
      series.map(({ name, bars }) => ({
        name,
        data: bars.map(({ from, to }, i) => ({ x: names[i] ?? '', y: [Math.min(from, to), Math.max(from, to)] })),
      })),
    [names, series],
  );
  return (
    <div role="img" aria-label={label} className="mt-4">
      <div aria-hidden="true">
        <Apex type="rangeBar" height={HEIGHT} options={options} series={drawn as ApexOptions['series']} />
      </div>
    </div>
  );
}
