import type { ComponentProps } from 'react';

type Weight = 'main' | 'plain' | 'quiet' | 'grave';

const LOOK: Readonly<Record<Weight, string>> = {
  main: 'bg-rust text-on-rust border-rust font-semibold hover:brightness-110 px-3.5',
  plain: 'bg-sheet text-ink border-rule hover:border-soft px-3.5',
  quiet: 'border-transparent text-ink underline decoration-rule underline-offset-4 hover:decoration-ink px-1',
  grave: 'bg-sheet text-brick border-brick hover:bg-paper px-3.5',
};

interface ButtonProps extends ComponentProps<'button'> {
  /** `main` for the one thing this screen is for, `grave` for what can't be undone. */
  readonly weight?: Weight;
}

export function Button({ weight = 'plain', className = '', type = 'button', ...rest }: ButtonProps) {
  return (
    <button
      type={type}
      className={`inline-flex h-8 cursor-pointer items-center gap-2 whitespace-nowrap rounded border ${LOOK[weight]} disabled:cursor-default disabled:opacity-60 ${className}`}
      {...rest}
    />
  );
}
