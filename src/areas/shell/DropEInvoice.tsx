'use client';

import { useRouter } from 'next/navigation';
import { useEffect, useState } from 'react';
import { openFile } from './openedFile';
import { routes } from './routes';

const isEInvoice = (file: File) => /\.(xml|pdf)$/i.test(file.name);
const holdsFiles = (event: DragEvent) => event.dataTransfer?.types.includes('Files') === true;

/** An e-invoice may be dropped anywhere: it is read, checked and shown. */
export function DropEInvoice() {
  const router = useRouter();
  const [over, setOver] = useState(false);
  useEffect(() => {
    const drag = (event: DragEvent) => {
      if (!holdsFiles(event)) return;
      event.preventDefault();
      setOver(true);
    };
    const leave = (event: DragEvent) => {
      if (event.relatedTarget === null) setOver(false);
    };
    const drop = (event: DragEvent) => {
      setOver(false);
      if (!holdsFiles(event)) return;
      // Without this the browser would leave the book and show the file.
      event.preventDefault();
      const file = [...(event.dataTransfer?.files ?? [])].find(isEInvoice);
      if (file !== undefined) void openFile(file).then(() => router.push(routes.eInvoice));
    };
    addEventListener('dragover', drag);
    addEventListener('dragleave', leave);
    addEventListener('drop', drop);
    return () => {
      removeEventListener('dragover', drag);
      removeEventListener('dragleave', leave);
      removeEventListener('drop', drop);
    };
  }, [router]);
  if (!over) return null;
  return (
    <div
      role="status"
      className="pointer-events-none fixed inset-0 z-50 flex items-center justify-center border-4 border-rust border-dashed bg-paper/80 font-serif text-xl"
    >
      Drop an e-invoice to read and check it
    </div>
  );
}
