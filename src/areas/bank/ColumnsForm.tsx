import { areEnough, type Rows, readCsvStatement } from '@/core/bank/csv';
import type { Currency } from '@/core/kernel/currency';
import { writeDate } from '@/core/kernel/date';
import type { ColumnRole, StatementColumns } from '@/core/parties/statementColumns';
import { wordRefusal } from '@/core/wording/refusals';
import { ChoiceField } from '@/ui/Field';
import { Money } from '@/ui/Money';
import { Ruled } from '@/ui/Ruled';

const ROLE_WORDS: Readonly<Record<ColumnRole, string>> = {
  '': 'not needed',
  date: 'date',
  amount: 'amount',
  in: 'money in',
  out: 'money out',
  text: 'text',
  name: 'name',
  iban: 'account of the other party',
  reference: 'reference',
  'bank-reference': 'reference of the bank',
  balance: 'balance',
};

/** Lines that are shown of what the columns give. */
const SHOWN = 5;

interface ColumnsFormProps {
  readonly rows: Rows;
  readonly columns: StatementColumns;
  readonly currency: Currency;
  readonly onChange: (columns: StatementColumns) => void;
}

/** Says what the columns of a bank's CSV file hold, and shows at once what comes of it. */
export function ColumnsForm({ rows, columns, currency, onChange }: ColumnsFormProps) {
  const first = rows[columns.skip] ?? [];
  const read = readCsvStatement(rows, columns, currency);
  const lines = read.ok ? read.value.lines : [];
  return (
    <fieldset className="mb-3">
      <legend className="font-semibold font-serif">Columns of the file</legend>
      <p className="mb-2 text-soft text-sm">Remembered for the next file of this account.</p>
      <table className="w-full border-rule border-b">
        <thead>
          <tr className="text-left text-soft text-sm">
            <th className="font-normal">Column</th>
            <th className="font-normal">First line</th>
            <th className="font-normal">Holds</th>
          </tr>
        </thead>
        <tbody>
          {columns.roles.map((role, i) => {
            const head = columns.heads[i] || `Column ${i + 1}`;
            return (
              <tr key={`${head}-${i}`} className="border-rule border-t">
                <td className="max-w-[200px] truncate pr-3">{head}</td>
                <td className="max-w-[240px] truncate pr-3 text-soft">{first[i]}</td>
                <td>
                  <select
                    aria-label={`What ${head} holds`}
                    className="cell"
                    value={role}
                    onChange={({ target: { value } }) =>
                      onChange({
                        ...columns,
                        roles: columns.roles.map((one, at) => (at === i ? (value as ColumnRole) : one)),
                      })
                    }
                  >
                    {Object.entries(ROLE_WORDS).map(([value, words]) => (
                      <option key={value} value={value}>
                        {words}
                      </option>
                    ))}
                  </select>
                </td>
              </tr>
            );
          })}
        </tbody>
      </table>
      <div className="mt-2 grid grid-cols-4 gap-x-4">
        <ChoiceField
          label="Dates"
          options={[
            ['dmy', 'day, month, year'],
            ['mdy', 'month, day, year'],
            ['ymd', 'year, month, day'],
          ]}
          value={columns.dates}
          onChange={({ target: { value } }) => onChange({ ...columns, dates: value as StatementColumns['dates'] })}
        />
        <ChoiceField
          label="Decimal separator"
          options={[
            ['.', 'point'],
            [',', 'comma'],
          ]}
          value={columns.decimal}
          onChange={({ target: { value } }) => onChange({ ...columns, decimal: value as StatementColumns['decimal'] })}
        />
        <ChoiceField
          label="Money in"
          options={[
            ['no', 'above zero'],
            ['yes', 'below zero'],
          ]}
          value={columns.reversed ? 'yes' : 'no'}
          onChange={({ target: { value } }) => onChange({ ...columns, reversed: value === 'yes' })}
        />
        <ChoiceField
          label="Header rows"
          options={Array.from({ length: Math.min(rows.length, 31) }, (_, i) => [String(i), String(i)] as const)}
          value={String(columns.skip)}
          onChange={({ target: { value } }) => onChange({ ...columns, skip: Number(value) })}
        />
      </div>
      {!areEnough(columns) || !read.ok ? (
        <p role="alert" className="text-brick">
          ▲ {read.ok ? '' : read.refusals.map((one) => `${one.path} ${wordRefusal(one)}`.trim()).join(' ')}
        </p>
      ) : (
        <Ruled
          caption="Preview"
          rows={lines.slice(0, SHOWN)}
          keyOf={(line) => `${line.date}-${lines.indexOf(line)}`}
          columns={[
            { head: 'Date', width: '110px', cell: ({ date }) => writeDate(date) },
            { head: 'Text', cell: ({ name, text }) => [name, text.split('\n')[0]].filter(Boolean).join(' · ') },
            {
              head: 'Amount',
              align: 'right',
              width: '120px',
              cell: ({ amount }) => <Money amount={amount} currency={currency} />,
            },
          ]}
        />
      )}
    </fieldset>
  );
}
