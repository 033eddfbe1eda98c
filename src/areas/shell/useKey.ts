'use client';

import { useEffect, useRef } from 'react';

/** Runs `then` when the keys are pressed anywhere on the screen: `alt+n`, `ctrl+enter`. */
export function useKey(keys: string, then: () => void): void {
  const latest = useRef(then);
  useEffect(() => {
    latest.current = then;
  });
  useEffect(() => {
    const onKey = (event: KeyboardEvent) => {
      const pressed = [event.ctrlKey && 'ctrl', event.altKey && 'alt', event.key.toLowerCase()]
        .filter(Boolean)
        .join('+');
      if (pressed !== keys || event.defaultPrevented) return;
      event.preventDefault();
      latest.current();
    };
    addEventListener('keydown', onKey);
    return () => removeEventListener('keydown', onKey);
  }, [keys]);
}
