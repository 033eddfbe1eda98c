'use client';

interface PhaseTabsProps<Phase extends string> {
  readonly phases: readonly { readonly phase: Phase; readonly words: string }[];
  /** How many stand in each, in their order; none while they are counted. */
  readonly counts: readonly number[];
  readonly phase: Phase;
  readonly onPick: (phase: Phase) => void;
}

/** Where things stand, with how many stand there; one is shown. */
export function PhaseTabs<Phase extends string>({ phases, counts, phase, onPick }: PhaseTabsProps<Phase>) {
  return (
    <nav aria-label="Status" className="mb-3 flex flex-wrap gap-x-4 gap-y-1">
      {phases.map((one, i) => (
        <button
          key={one.phase}
          type="button"
          aria-pressed={one.phase === phase}
          className={`cursor-pointer underline-offset-4 ${one.phase === phase ? 'font-semibold underline decoration-rust decoration-2' : 'underline decoration-rule'}`}
          onClick={() => onPick(one.phase)}
        >
          {one.words} <span className="text-soft tabular-nums">{counts[i] ?? ''}</span>
        </button>
      ))}
    </nav>
  );
}
