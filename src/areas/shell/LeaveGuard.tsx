'use client';

import { useRouter } from 'next/navigation';
import { useEffect, useRef, useState } from 'react';
import { Button } from '@/ui/Button';
import { Dialog } from '@/ui/Dialog';
import { hasUnsaved } from '@/ui/unsaved';

const LEAVE = 'able-ledger:leave';

/** Goes to another page, or asks first where something typed would be lost. @param go goes there. */
export function leave(go: () => void): void {
  if (hasUnsaved()) dispatchEvent(new CustomEvent(LEAVE, { detail: go }));
  else go();
}

/** The address of a link that is followed in this window by a plain click; null for all else. */
function followed(event: MouseEvent): string | null {
  if (event.defaultPrevented || event.button !== 0 || event.metaKey || event.ctrlKey || event.shiftKey) return null;
  const link = event.target instanceof Element ? event.target.closest('a[href]') : null;
  if (!(link instanceof HTMLAnchorElement) || link.target !== '' || link.hasAttribute('download')) return null;
  const { origin, pathname, search } = new URL(link.href);
  return origin === location.origin && pathname !== location.pathname ? pathname + search : null;
}

/** Asks before a page is left on which something is typed and not saved. */
export function LeaveGuard() {
  const router = useRouter();
  const [going, setGoing] = useState<(() => void) | null>(null);
  /** Leaving was agreed to, and is under way. */
  const agreed = useRef(false);
  useEffect(() => {
    const onLeave = (event: Event) => setGoing(() => (event as CustomEvent<() => void>).detail);
    const onClick = (event: MouseEvent) => {
      const path = hasUnsaved() ? followed(event) : null;
      if (path === null) return;
      event.preventDefault();
      event.stopPropagation();
      setGoing(() => () => router.push(path));
    };
    /** Back and Forward are told of before they happen, and may be held once the page was used. */
    const onTraverse = (event: NavigateEvent) => {
      const { navigationType, cancelable, destination } = event;
      if (navigationType !== 'traverse' || !cancelable || !hasUnsaved() || agreed.current) return;
      event.preventDefault();
      setGoing(() => () => {
        agreed.current = true;
        const { finished } = navigation.traverseTo(destination.key);
        void finished?.finally(() => {
          agreed.current = false;
        });
      });
    };
    const back = 'navigation' in window ? navigation : null;
    back?.addEventListener('navigate', onTraverse);
    addEventListener(LEAVE, onLeave);
    document.addEventListener('click', onClick, { capture: true });
    return () => {
      back?.removeEventListener('navigate', onTraverse);
      removeEventListener(LEAVE, onLeave);
      document.removeEventListener('click', onClick, { capture: true });
    };
  }, [router]);
  return (
    <Dialog
      open={going !== null}
      onClose={() => setGoing(null)}
      title="Leave without saving?"
      description="What you typed on this page is not saved."
    >
      <div className="flex gap-2.5">
        <Button weight="main" onClick={() => setGoing(null)}>
          Stay here
        </Button>
        <Button
          weight="grave"
          onClick={() => {
            going?.();
            setGoing(null);
          }}
        >
          Leave without saving
        </Button>
      </div>
    </Dialog>
  );
}
