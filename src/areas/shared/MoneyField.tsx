'use client';

import type { ComponentProps } from 'react';
import type { Currency } from '@/core/kernel/currency';
import type { Minor } from '@/core/kernel/money';
import { showMoney } from '@/core/kernel/show';
import { TextField } from '@/ui/Field';

type MoneyFieldProps = Omit<ComponentProps<typeof TextField>, 'label'> & {
  readonly label: string;
  readonly currency: Currency;
  /** What an empty field stands for. */
  readonly whenEmpty?: Minor;
};

/** An amount of money, typed; its currency stands in the label. The form reads it by `typedMoney`. */
export function MoneyField({ label, currency, whenEmpty, ...field }: MoneyFieldProps) {
  return (
    <TextField
      {...field}
      label={`${label}, ${currency}`}
      inputMode="decimal"
      {...(whenEmpty !== undefined && { placeholder: showMoney(whenEmpty, currency) })}
    />
  );
}
