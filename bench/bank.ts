import { bankYear } from 'tests/bankYear';
import { MatchIndex } from '@/core/bank/matchIndex';
import { suggest } from '@/core/bank/suggest';

/** Lines that are looked at in each year, and times that they are. */
const LINES = 400;
const RUNS = 5;

/** Microseconds for each line of a year, least of several runs. */
function perLine(documents: number): number {
  const year = bankYear(documents, LINES);
  const index = new MatchIndex(year.material);
  let least = Number.POSITIVE_INFINITY;
  for (let run = 0; run < RUNS; run++) {
    const began = performance.now();
    for (const { line } of year.lines) suggest(line, index);
    least = Math.min(least, performance.now() - began);
  }
  return (1000 * least) / LINES;
}

/** (j) What a bank line may be among many open invoices, against few. */
export function matchingAgainstFew(): void {
  perLine(1000);
  const [few, many] = [perLine(1000), perLine(20_000)];
  console.log(
    `(j) a bank line among 20,000 invoices: ${many.toFixed(0)} µs; among 1,000 ${few.toFixed(0)} µs; ratio ${(many / few).toFixed(2)}`,
  );
}
