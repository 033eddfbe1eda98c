'use client';

import { useRouter } from 'next/navigation';
import { useEffect, useRef, useState } from 'react';
import { wordRefusals } from '@/core/wording/refusals';
import { hasBook } from '@/store/records';
import { Button } from '@/ui/Button';
import { onBook } from '@/workers/client';
import { bookDb, today } from '../shell/book';
import { routes } from '../shell/routes';

type Stage = 'looking' | 'asking' | 'building' | { readonly failed: string };

/** Opens the sample book; asks first when it would replace another. */
export function OpenDemo() {
  const router = useRouter();
  const [stage, setStage] = useState<Stage>('looking');
  const started = useRef(false);

  const build = async (replace: boolean) => {
    setStage('building');
    try {
      const result = await onBook((face) => face.openDemo(today(), { replace, copyAt: new Date().toISOString() }));
      if (result.ok) router.replace(routes.sales);
      else setStage({ failed: wordRefusals(result.refusals) });
    } catch (error) {
      setStage({ failed: `The sample could not be built: ${(error as Error).message}` });
    }
  };
  useEffect(() => {
    if (started.current) return;
    started.current = true;
    void hasBook(bookDb()).then((begun) => {
      if (!begun) void build(false);
      else setStage('asking');
    });
  });
  return (
    <main className="mx-auto max-w-[560px] px-8 py-16">
      <h1 className="mb-3 font-serif text-2xl">The sample book</h1>
      {stage === 'building' && <p role="status">Writing some months of documents…</p>}
      {typeof stage === 'object' && <p role="alert">{stage.failed}</p>}
      {stage === 'asking' && (
        <>
          <p className="mb-4">
            This browser holds a book already. Opening the sample replaces it; a copy stays in the browser until another
            book is replaced, and can be restored in Setup, Book file.
          </p>
          <div className="flex gap-3">
            <Button weight="main" onClick={() => router.replace(routes.today)}>
              Keep my book
            </Button>
            <Button onClick={() => router.push(routes.section('book'))}>Save it to a file</Button>
            <Button weight="grave" onClick={() => void build(true)}>
              Replace it with the sample
            </Button>
          </div>
        </>
      )}
    </main>
  );
}
