interface ProgressProps {
  readonly label: string;
  readonly done: number;
  /** 0 while it is not known how much there is to do. */
  readonly of: number;
}

/** How far long work is. */
export function Progress({ label, done, of }: ProgressProps) {
  return (
    <progress
      aria-label={label}
      className="h-2 w-full appearance-none bg-rule [&::-webkit-progress-bar]:bg-rule [&::-webkit-progress-value]:bg-rust"
      {...(of > 0 && { value: done, max: of })}
    />
  );
}
