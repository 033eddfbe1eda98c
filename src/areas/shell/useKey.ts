'use client';

import { useEffect, useRef } from 'react';
import { isKey, type KeyName } from './keyMap';

/** Runs `then` when a key of the app is pressed anywhere on the screen, and nothing nearer has answered to it. */
export function useKey(name: KeyName, then: (event: KeyboardEvent) => void): void {
  const latest = useRef(then);
  useEffect(() => {
    latest.current = then;
  });
  useEffect(() => {
    const onKey = (event: KeyboardEvent) => {
      if (event.defaultPrevented || !isKey(event, name)) return;
      event.preventDefault();
      latest.current(event);
    };
    addEventListener('keydown', onKey);
    return () => removeEventListener('keydown', onKey);
  }, [name]);
}
