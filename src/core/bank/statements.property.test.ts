import fc from 'fast-check';
import { CSV_COLUMNS, statementLine, statementOf, writeCamt, writeCsvStatement, writeOfx } from 'tests/statements';
import { isoDate } from '@/core/kernel/date';
import { minor } from '@/core/kernel/money';
import type { StatementColumns } from '@/core/parties/statementColumns';
import { guessColumns } from './csv';
import { readStatementFile, statementsOf } from './readStatements';
import { bankText, type Statement, unexplainedBy } from './statement';

const word = fc
  .string({ unit: fc.constantFrom(...'ABCdef 123-/&<>é'), minLength: 0, maxLength: 20 })
  .map((text) => bankText(text));
const line = fc
  .record({
    day: fc.integer({ min: 1, max: 28 }),
    amount: fc.bigInt({ min: -(10n ** 9n), max: 10n ** 9n }).filter((amount) => amount !== 0n),
    text: word,
    name: word,
    reference: word,
    bankReference: word,
  })
  .map(({ day, amount, ...words }) =>
    statementLine({ ...words, amount: minor(amount), date: isoDate(`2026-01-${String(day).padStart(2, '0')}`) }),
  );
const statement = fc
  .record({
    lines: fc.array(line, { minLength: 1, maxLength: 12 }),
    opening: fc.bigInt({ min: -(10n ** 8n), max: 10n ** 8n }),
  })
  .map(({ lines, opening }) =>
    statementOf(
      [...lines].sort((a, b) => (a.date < b.date ? -1 : a.date > b.date ? 1 : 0)),
      { opening: minor(opening) },
    ),
  );

const ACCOUNT = {
  currency: statementOf([]).currency,
  iban: 'IE31 CPTB 9900 0012 3456 78',
  local: { code: '', number: '' },
};

function read(text: string, columns?: StatementColumns): Statement {
  const file = readStatementFile(new TextEncoder().encode(text));
  if (!file.ok) throw new Error(JSON.stringify(file.refusals));
  const known = file.value.format === 'CSV' ? (columns ?? guessColumns(file.value.rows)) : undefined;
  const found = statementsOf(file.value, ACCOUNT, known);
  if (!found.ok || found.value[0] === undefined) throw new Error(JSON.stringify(found));
  return found.value[0];
}

/** What of a statement every form can say. */
const said = ({ lines, closing }: Statement) => ({ lines, closing });

describe('any statement reads back the same', () => {
  test('from camt.053', () => {
    fc.assert(
      fc.property(statement, (one) => {
        // Banks write these where there is no reference.
        const back = read(writeCamt(one));
        expect(back).toEqual(one);
        expect(unexplainedBy(back)).toBe(0n);
      }),
    );
  });
  test('from OFX of either version', () => {
    fc.assert(
      fc.property(statement, fc.boolean(), (one, end) => {
        expect(said(read(writeOfx(one, end)))).toEqual(said(one));
      }),
    );
  });
  test('from CSV, by told columns as by those that are guessed', () => {
    fc.assert(
      fc.property(statement, (one) => {
        const text = writeCsvStatement(one);
        expect(read(text, CSV_COLUMNS)).toEqual({ ...one, number: '', account: '' });
        expect(read(text).lines).toEqual(one.lines);
      }),
    );
  });
});
