import type { IsoDate } from '@/core/kernel/date';

/* Made-up rates: units for one euro on the first of 2026, and by how much they may swing, in ten-thousandths. */
const LEVELS: Readonly<Record<string, readonly [number, number]>> = {
  USD: [10_850, 260],
  GBP: [8_560, 120],
  NOK: [116_400, 2_400],
  SEK: [111_800, 2_100],
  DKK: [74_600, 20],
  CHF: [9_420, 110],
  CAD: [15_130, 300],
  JPY: [1_628_000, 41_000],
  KES: [1_401_000, 36_000],
};

/** Days since a fixed one, which is all that moves the rates. */
function dayNumber(day: IsoDate): number {
  const [y = 0, m = 1, d = 1] = day.split('-').map(Number);
  return y * 372 + m * 31 + d;
}

/** The rates of a day in the daily XML form. The same day always gives the same rates. */
export function rateFeed(day: IsoDate): string {
  const n = dayNumber(day);
  const cubes = Object.entries(LEVELS).map(([code, [level, swing]], i) => {
    const phase = (n * (7 + i)) % 41;
    const value = level + Math.round((swing * (phase - 20)) / 20);
    return `      <Cube currency="${code}" rate="${Math.floor(value / 10_000)}.${String(value % 10_000).padStart(4, '0')}"/>`;
  });
  return [
    '<?xml version="1.0" encoding="UTF-8"?>',
    '<Envelope>',
    '  <subject>Reference rates (sample)</subject>',
    '  <Cube>',
    `    <Cube time="${day}">`,
    ...cubes,
    '    </Cube>',
    '  </Cube>',
    '</Envelope>',
    '',
  ].join('\n');
}
