'use client';

import type { ReactNode } from 'react';

interface TabsProps<Tab extends string> {
  /** What they choose from: `Status`. */
  readonly label: string;
  /** `count` is told beside the words, where there is one. */
  readonly tabs: readonly { readonly tab: Tab; readonly words: string; readonly count?: number | undefined }[];
  readonly shown: Tab;
  readonly onPick: (tab: Tab) => void;
  /** Stands behind the last of them. */
  readonly children?: ReactNode;
}

/** Ways to look at the same things; one is shown. */
export function Tabs<Tab extends string>({ label, tabs, shown, onPick, children }: TabsProps<Tab>) {
  return (
    <nav aria-label={label} className="mb-3 flex flex-wrap gap-x-4 gap-y-1">
      {tabs.map(({ tab, words, count }) => (
        <button
          key={tab}
          type="button"
          aria-pressed={tab === shown}
          className={`cursor-pointer underline underline-offset-4 ${tab === shown ? 'font-semibold decoration-2 decoration-rust' : 'decoration-rule'}`}
          onClick={() => onPick(tab)}
        >
          {words}
          {count !== undefined && <span className="text-soft tabular-nums"> {count}</span>}
        </button>
      ))}
      {children}
    </nav>
  );
}
