'use client';

import { useLayoutEffect, useSyncExternalStore } from 'react';
import { Toaster } from 'sonner';
import { keepText, keptText } from './kept';

export type ThemeChoice = 'paper' | 'night' | 'system';

const KEY = 'able-ledger-theme';

/** The chosen theme; `system` until one was chosen. */
export function themeChoice(): ThemeChoice {
  const kept = keptText(KEY);
  return kept === 'paper' || kept === 'night' ? kept : 'system';
}

function apply(choice: ThemeChoice): void {
  const night = choice === 'night' || (choice === 'system' && matchMedia('(prefers-color-scheme: dark)').matches);
  document.documentElement.dataset.theme = night ? 'night' : 'paper';
}

export function chooseTheme(choice: ThemeChoice): void {
  keepText(KEY, choice);
  apply(choice);
}

/** Told when the theme of the page changes. */
function onTheme(changed: () => void): () => void {
  const observer = new MutationObserver(changed);
  observer.observe(document.documentElement, { attributeFilter: ['data-theme'] });
  return () => observer.disconnect();
}

/** The theme that the page is in, for what reads its colours. */
export function useTheme(): string {
  return useSyncExternalStore(
    onTheme,
    () => document.documentElement.dataset.theme ?? '',
    () => '',
  );
}

/** Applies the theme before the first paint, and holds the place of short messages. */
export function Theme() {
  useLayoutEffect(() => {
    apply(themeChoice());
  }, []);
  return (
    <Toaster
      position="bottom-right"
      toastOptions={{
        style: {
          background: 'var(--sheet)',
          color: 'var(--ink)',
          border: '1px solid var(--rule)',
          borderRadius: 3,
          fontFamily: 'var(--font-sans)',
        },
      }}
    />
  );
}
