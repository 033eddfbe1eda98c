'use client';

import { type FieldValues, type Path, type UseFormReturn, useFieldArray } from 'react-hook-form';
import { Button } from '@/ui/Button';

export interface RowsColumn {
  /** Field of a row. */
  readonly field: string;
  readonly label: string;
  /** Width in the grid, such as `120px` or `1fr`. */
  readonly width: string;
  /** Values to choose from; typed freely when left out. */
  readonly options?: readonly (readonly [string, string])[];
  /** One thing to tick, or several of the options, whose values are a list. */
  readonly kind?: 'check' | 'checks';
}

interface RowsFieldProps<T extends FieldValues> {
  readonly form: UseFormReturn<T>;
  /** Path of the list in the record. */
  readonly name: string;
  /** What one row is, in singular: `rate`. */
  readonly what: string;
  readonly columns: readonly RowsColumn[];
  readonly blank: unknown;
  readonly errorAt: (path: string) => string | undefined;
  /** Rows have an order that means something and can be moved. */
  readonly ordered?: boolean;
}

const CELL = 'cell border-rule border-b bg-transparent';

/** A list inside a record, written as rows; each with what is wrong below. */
export function RowsField<T extends FieldValues>(props: RowsFieldProps<T>) {
  const { form, name, what, columns, blank, errorAt, ordered = false } = props;
  const { fields, append, remove, move } = useFieldArray({ control: form.control, name: name as never });
  const grid = { gridTemplateColumns: `${columns.map((c) => c.width).join(' ')} ${ordered ? '150px' : '80px'}` };
  const path = (i: number, field: string) => `${name}.${i}${field === '' ? '' : `.${field}`}` as Path<T>;
  const wrong = [
    ...fields.flatMap((_, i) =>
      [errorAt(`${name}[${i}]`), ...columns.map(({ field }) => errorAt(`${name}[${i}].${field}`))].flatMap((error) =>
        error === undefined ? [] : [`${what} ${i + 1}: ${error}`],
      ),
    ),
    ...(errorAt(name) === undefined ? [] : [errorAt(name) ?? '']),
  ].filter((error, at, all) => all.indexOf(error) === at);
  return (
    <div className="mb-3">
      {fields.length > 0 && (
        <div className="grid gap-x-2 text-soft text-sm" style={grid} aria-hidden>
          {columns.map((column) => (
            <span key={column.field} className="px-1.5">
              {column.label}
            </span>
          ))}
        </div>
      )}
      {fields.map((row, i) => (
        <div key={row.id}>
          <div className="grid items-center gap-x-2" style={grid}>
            {columns.map(({ field, label, options, kind }) => {
              const common = {
                'aria-label': `${label}, ${what} ${i + 1}`,
                'aria-invalid': errorAt(`${name}[${i}].${field}`) !== undefined,
                ...form.register(path(i, field)),
              };
              if (kind === 'check') return <input key={field} type="checkbox" {...common} className="accent-rust" />;
              if (kind === 'checks')
                return (
                  <span key={field} className="flex flex-wrap gap-x-2 text-sm">
                    {options?.map(([value, words]) => (
                      <label key={value} className="cursor-pointer whitespace-nowrap">
                        <input
                          type="checkbox"
                          value={value}
                          {...form.register(path(i, field))}
                          aria-label={`${label}, ${what} ${i + 1}: ${words}`}
                          className="accent-rust"
                        />{' '}
                        {words}
                      </label>
                    ))}
                  </span>
                );
              if (options === undefined) return <input key={field} autoComplete="off" {...common} className={CELL} />;
              return (
                <select key={field} {...common} className={`${CELL} cursor-pointer`}>
                  {options.map(([value, words]) => (
                    <option key={value} value={value}>
                      {words}
                    </option>
                  ))}
                </select>
              );
            })}
            <span className="flex">
              {ordered && (
                <>
                  <Button
                    weight="quiet"
                    disabled={i === 0}
                    aria-label={`Move ${what} ${i + 1} up`}
                    onClick={() => move(i, i - 1)}
                  >
                    ↑
                  </Button>
                  <Button
                    weight="quiet"
                    disabled={i === fields.length - 1}
                    aria-label={`Move ${what} ${i + 1} down`}
                    onClick={() => move(i, i + 1)}
                  >
                    ↓
                  </Button>
                </>
              )}
              <Button weight="quiet" aria-label={`Remove ${what} ${i + 1}`} onClick={() => remove(i)}>
                Remove
              </Button>
            </span>
          </div>
        </div>
      ))}
      {/* One line is always kept for it, so that an error never moves a button from under a click. */}
      <p className="min-h-[18px] truncate text-brick text-sm" role={wrong.length > 0 ? 'alert' : undefined}>
        {wrong.length > 0 && `▲ ${wrong[0]}${wrong.length > 1 ? ` (and ${wrong.length - 1} more)` : ''}`}
      </p>
      <Button weight="quiet" onClick={() => append(blank as never)}>
        Add {what}
      </Button>
    </div>
  );
}
