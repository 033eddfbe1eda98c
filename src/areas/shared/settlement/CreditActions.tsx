'use client';

import { useState } from 'react';
import { Button } from '@/ui/Button';
import { AllocateDialog, type CreditLeft } from './AllocateDialog';
import { RefundDialog } from './RefundDialog';

/** What can be done with what is left of a receipt or a credit note. */
export function CreditActions({ credit }: { readonly credit: CreditLeft }) {
  const [asking, setAsking] = useState<'settle' | 'refund' | null>(null);
  const close = () => setAsking(null);
  return (
    <span className="inline-flex gap-2.5">
      <Button weight="quiet" onClick={() => setAsking('settle')}>
        Allocate…
      </Button>
      <Button weight="quiet" onClick={() => setAsking('refund')}>
        Refund…
      </Button>
      {asking === 'settle' && <AllocateDialog credit={credit} onClose={close} />}
      {asking === 'refund' && <RefundDialog credit={credit} onClose={close} />}
    </span>
  );
}
