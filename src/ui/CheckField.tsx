import { type ComponentProps, useId } from 'react';

interface CheckFieldProps extends Omit<ComponentProps<'input'>, 'type' | 'className'> {
  readonly label: string;
  readonly hint?: string;
}

/** A box to tick, with its words beside it. */
export function CheckField({ label, hint, ...input }: CheckFieldProps) {
  const id = useId();
  return (
    <div className="flex items-baseline gap-2 py-1">
      <input type="checkbox" {...input} id={id} className="accent-rust" />
      <label htmlFor={id}>
        {label} {hint && <span className="text-soft text-sm">{hint}</span>}
      </label>
    </div>
  );
}
