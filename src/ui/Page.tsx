'use client';

import { PanelLeftClose, PanelLeftOpen } from 'lucide-react';
import type { ReactNode } from 'react';
import { useFolds } from './folds';

/** The middle of the desk: a document or report as paper. */
export function Sheet({ children, label }: { readonly children: ReactNode; readonly label: string }) {
  return (
    <main aria-label={label} className="min-h-0 min-w-0 flex-1 overflow-auto px-4 pt-4 pb-6">
      <div className="mx-auto flex min-h-full max-w-[920px] flex-col border border-rule bg-sheet px-6 py-5">
        {children}
      </div>
    </main>
  );
}

const FOLD = 'cursor-pointer px-1 text-soft hover:text-ink';

interface FoldedProps {
  readonly name: string;
  readonly side: string;
  readonly onUnfold: () => void;
}

function Folded({ name, side, onUnfold }: FoldedProps) {
  return (
    <div className={`w-7 shrink-0 border-rule pt-4 print:hidden ${side}`}>
      <button
        type="button"
        aria-expanded={false}
        aria-label={`Unfold: ${name}`}
        title={`Unfold: ${name}`}
        onClick={onUnfold}
        className={FOLD}
      >
        <PanelLeftOpen
          size={16}
          strokeWidth={1.6}
          aria-hidden="true"
          className={side === 'border-l' ? 'rotate-180' : ''}
        />
      </button>
    </div>
  );
}

function FoldButton({
  name,
  onFold,
  turned = false,
}: {
  readonly name: string;
  readonly onFold: () => void;
  readonly turned?: boolean;
}) {
  return (
    <button
      type="button"
      aria-expanded
      aria-label={`Fold: ${name}`}
      title={`Fold: ${name}`}
      onClick={onFold}
      className={FOLD}
    >
      <PanelLeftClose size={16} strokeWidth={1.6} aria-hidden="true" className={turned ? 'rotate-180' : ''} />
    </button>
  );
}

/** The ruled column left of the sheet: what there is. Folds, and begins folded on a narrow screen. */
export function IndexColumn({ title, children }: { readonly title: string; readonly children: ReactNode }) {
  const { index, fold } = useFolds();
  if (index) return <Folded name={title} side="border-r" onUnfold={() => fold('index', false)} />;
  return (
    <nav aria-label={title} className="flex min-h-0 w-[236px] shrink-0 flex-col border-rule border-r">
      <div className="flex items-start justify-between pt-4 pr-2 pb-2 pl-3.5">
        <h2 className="font-semibold font-serif">{title}</h2>
        <FoldButton name={title} onFold={() => fold('index', true)} />
      </div>
      {children}
    </nav>
  );
}

/** The column right of the sheet, with the red double rule of a ledger's margin. Folds. */
export function Margin({ children }: { readonly children: ReactNode }) {
  const { margin, fold } = useFolds();
  if (margin) return <Folded name="Margin" side="border-l" onUnfold={() => fold('margin', false)} />;
  return (
    <aside
      aria-label="Margin"
      className="relative min-h-0 w-[292px] shrink-0 overflow-auto border-margin-rule border-l-[3px] border-double px-3.5 pt-4 pb-6 xl:w-[312px]"
    >
      <div className="absolute top-4 right-2">
        <FoldButton name="Margin" turned onFold={() => fold('margin', true)} />
      </div>
      {children}
    </aside>
  );
}

/** One note of the margin. */
export function Note({ title, children }: { readonly title: string; readonly children: ReactNode }) {
  return (
    <section aria-label={title} className="mb-5">
      <h2 className="mb-1.5 border-rule border-b pr-6 pb-1 font-semibold font-serif">{title}</h2>
      {children}
    </section>
  );
}

/** A row of the margin: words left, figure right. */
export function NoteRow({
  label,
  figure,
  strong = false,
}: {
  readonly label: ReactNode;
  readonly figure: ReactNode;
  readonly strong?: boolean;
}) {
  return (
    <div className={`flex justify-between gap-3 text-sm ${strong ? 'border-ink border-t' : ''}`}>
      <span>{label}</span>
      <span className="shrink-0 tabular-nums">{figure}</span>
    </div>
  );
}

/** Teaches with one sentence and one action. */
export function Empty({ children, action }: { readonly children: ReactNode; readonly action?: ReactNode }) {
  return (
    <div className="flex flex-col items-start gap-3 py-8 text-soft">
      <p>{children}</p>
      {action}
    </div>
  );
}

/** Title of a sheet with what stands at its right. */
export function SheetTitle({ children, aside }: { readonly children: ReactNode; readonly aside?: ReactNode }) {
  return (
    <header className="mb-4 flex items-start justify-between gap-4">
      <h1 className="font-serif text-2xl">{children}</h1>
      <div className="pt-1.5 text-right text-soft">{aside}</div>
    </header>
  );
}
