export type MarkKind =
  | 'draft'
  | 'issued'
  | 'quarter'
  | 'half'
  | 'most'
  | 'paid'
  | 'overdue'
  | 'cancelled'
  | 'open'
  | 'closing'
  | 'filed'
  | 'differing'
  | 'wrong'
  | 'warning'
  | 'good'
  | 'note';

/** Shape and colour of each state; the word beside it (or its label) says the same. */
const MARKS: Readonly<Record<MarkKind, readonly [string, string]>> = {
  draft: ['○', 'text-ink'],
  issued: ['◆', 'text-ink'],
  quarter: ['◔', 'text-ink'],
  half: ['◑', 'text-ink'],
  most: ['◕', 'text-ink'],
  paid: ['●', 'text-ink'],
  overdue: ['▲', 'text-brick'],
  cancelled: ['⊘', 'text-soft'],
  open: ['○', 'text-soft'],
  closing: ['◐', 'text-ochre'],
  filed: ['●', 'text-soft'],
  differing: ['▲', 'text-brick'],
  wrong: ['▲', 'text-brick'],
  warning: ['△', 'text-ochre'],
  good: ['●', 'text-moss'],
  note: ['◇', 'text-slate'],
};

interface MarkProps {
  readonly kind: MarkKind;
  /** Words for the state; left out where they stand beside it anyway. */
  readonly label?: string;
}

export function Mark({ kind, label }: MarkProps) {
  const [shape, colour] = MARKS[kind];
  return (
    <span
      className={`inline-block w-4 text-center ${colour}`}
      {...(label ? { role: 'img', 'aria-label': label, title: label } : { 'aria-hidden': true })}
    >
      {shape}
    </span>
  );
}
