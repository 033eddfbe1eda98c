import type { ComponentProps } from 'react';

/** A button among words, as a link looks: for what opens, shows or adds something where it stands. */
export function TextButton({ className = '', type = 'button', ...rest }: ComponentProps<'button'>) {
  return (
    <button
      type={type}
      className={`cursor-pointer underline decoration-rule underline-offset-4 hover:decoration-ink ${className}`}
      {...rest}
    />
  );
}
