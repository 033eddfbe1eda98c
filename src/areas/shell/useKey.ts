'use client';

import { useEffect, useRef } from 'react';
import { isKey, type KeyName } from './keyMap';

/**
 * Runs `then` when a key of the app is pressed anywhere on the screen, and nothing nearer has answered to it.
 * @param when it is ours; else the browser does with it what it does.
 */
export function useKey(name: KeyName, then: (event: KeyboardEvent) => void, when: () => boolean = () => true): void {
  const latest = useRef({ then, when });
  useEffect(() => {
    latest.current = { then, when };
  });
  useEffect(() => {
    const onKey = (event: KeyboardEvent) => {
      if (event.defaultPrevented || !isKey(event, name) || !latest.current.when()) return;
      event.preventDefault();
      latest.current.then(event);
    };
    addEventListener('keydown', onKey);
    return () => removeEventListener('keydown', onKey);
  }, [name]);
}
