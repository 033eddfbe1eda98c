'use client';

import { FaultScreen } from '@/areas/start/FaultScreen';

export default function Fault({ error, reset }: { readonly error: Error; readonly reset: () => void }) {
  return <FaultScreen error={error} onAgain={reset} />;
}
