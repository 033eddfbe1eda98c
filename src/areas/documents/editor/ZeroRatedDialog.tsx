'use client';

import { useEffect, useRef, useState } from 'react';
import type { Preview } from '@/core/documents/preview';
import { takeTaxOff, zeroRatedSince } from '@/core/documents/zeroRated';
import { Button } from '@/ui/Button';
import { Dialog } from '@/ui/Dialog';
import type { DraftStore } from './draftStore';

/** Asks what becomes of tax-inclusive prices whose lines charge no tax any more. */
export function ZeroRatedDialog({ store, shown }: { readonly store: DraftStore; readonly shown: Preview | null }) {
  const last = useRef<Preview | null>(null);
  const [asked, setAsked] = useState<{ readonly before: Preview; readonly ids: readonly string[] } | null>(null);
  useEffect(() => {
    const before = last.current;
    last.current = shown;
    if (before === null || shown === null) return;
    const ids = zeroRatedSince(before, shown);
    if (ids.length > 0) setAsked({ before, ids });
  }, [shown]);
  const close = () => setAsked(null);
  const count = asked?.ids.length ?? 0;
  return (
    <Dialog
      open={asked !== null}
      onClose={close}
      title={count === 1 ? 'This line charges no tax now' : `${count} lines charge no tax now`}
      description="The price included tax. Either the customer goes on paying that price, or the tax comes off it."
    >
      <div className="flex gap-2.5">
        <Button weight="main" onClick={close}>
          Keep what the customer pays
        </Button>
        <Button
          onClick={() => {
            if (asked !== null) store.rework((now) => takeTaxOff(now, asked.before, asked.ids));
            close();
          }}
        >
          Take the tax off the price
        </Button>
      </div>
    </Dialog>
  );
}
