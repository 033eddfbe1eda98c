'use client';

import { createContext, useContext, useEffect } from 'react';

type Unsaved = Set<symbol>;

/** Forms of the page that hold something typed that is not saved. */
const onPage: Unsaved = new Set();

/** The forms on a slip; those that lie on none belong to the page. */
export const SlipForms = createContext<Unsaved>(onPage);

/** True while something is typed that is lost by going to another page. */
export function hasUnsaved(): boolean {
  return onPage.size > 0;
}

/** Tells whoever closes the slip or leaves the page that something is typed, and the browser too. */
export function useUnsaved(isDirty: boolean): void {
  const forms = useContext(SlipForms);
  useEffect(() => {
    if (!isDirty) return;
    const own = Symbol('form');
    const ask = (event: BeforeUnloadEvent) => event.preventDefault();
    forms.add(own);
    addEventListener('beforeunload', ask);
    return () => {
      forms.delete(own);
      removeEventListener('beforeunload', ask);
    };
  }, [isDirty, forms]);
}
