'use client';

import { useEffect, useState } from 'react';
import { toast } from 'sonner';
import { BOOK_LET_GO } from './book';

/** Says faults that nobody waited for, instead of leaving the person before a screen that does nothing. */
export function useFaults(): void {
  useEffect(() => {
    const tell = (words: string) =>
      toast.error(
        `Something went wrong: ${words}. Nothing was saved in part; load the page again if something does not answer.`,
      );
    const rejected = ({ reason }: PromiseRejectionEvent) =>
      tell((reason as Error | undefined)?.message ?? String(reason));
    addEventListener('unhandledrejection', rejected);
    return () => removeEventListener('unhandledrejection', rejected);
  }, []);
}

/** True once this window has let go of the book; see `bookDb`. */
export function useLetGo(): boolean {
  const [letGo, setLetGo] = useState(false);
  useEffect(() => {
    const hear = () => setLetGo(true);
    addEventListener(BOOK_LET_GO, hear);
    return () => removeEventListener(BOOK_LET_GO, hear);
  }, []);
  return letGo;
}
