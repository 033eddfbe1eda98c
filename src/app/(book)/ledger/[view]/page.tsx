import { notFound } from 'next/navigation';
import { TrialBalanceScreen } from '@/areas/ledger/TrialBalanceScreen';
import { WriteJournal } from '@/areas/ledger/WriteJournal';

export default async function Page({ params }: { readonly params: Promise<{ view: string }> }) {
  const { view } = await params;
  if (view === 'trial-balance') return <TrialBalanceScreen />;
  if (view === 'write') return <WriteJournal />;
  notFound();
}
