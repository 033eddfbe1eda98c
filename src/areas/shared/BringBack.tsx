'use client';

import { useRouter } from 'next/navigation';
import { useEffect, useState } from 'react';
import { toast } from 'sonner';
import { dayOf, writeDate } from '@/core/kernel/date';
import { wordRefusals } from '@/core/wording/refusals';
import { keptCopy } from '@/store/copies';
import { Button } from '@/ui/Button';
import { onBook } from '@/workers/client';
import { routes } from '../shell/routes';

/** Brings back, in one step, the book that was replaced last. */
export function BringBack() {
  const router = useRouter();
  const [copy, setCopy] = useState<{ business: string; madeAt: string } | null>(null);
  const [wrong, setWrong] = useState('');
  useEffect(() => {
    let current = true;
    keptCopy()
      .then((kept) => current && setCopy(kept))
      .catch(() => undefined);
    return () => {
      current = false;
    };
  }, []);
  if (copy === null) return null;
  const bring = async () => {
    const result = await onBook((face) => face.bringBack(new Date().toISOString()));
    if (!result.ok) return setWrong(wordRefusals(result.refusals));
    toast(`The book of ${result.value.business} is back`);
    router.push(routes.today);
  };
  return (
    <p className="mt-2">
      A copy of {copy.business || 'a book'} was saved on {writeDate(dayOf(copy.madeAt))}, before it was replaced.{' '}
      <Button onClick={() => void bring()}>Restore it</Button>
      {wrong !== '' && (
        <span role="alert" className="block text-brick">
          ▲ {wrong}
        </span>
      )}
    </p>
  );
}
