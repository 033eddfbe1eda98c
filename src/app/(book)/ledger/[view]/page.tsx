import { notFound } from 'next/navigation';
import { HistoryScreen } from '@/areas/ledger/HistoryScreen';
import { SealScreen } from '@/areas/ledger/SealScreen';
import { TrialBalanceScreen } from '@/areas/ledger/TrialBalanceScreen';
import { WriteJournal } from '@/areas/ledger/WriteJournal';

export default async function Page({ params }: { readonly params: Promise<{ view: string }> }) {
  const { view } = await params;
  if (view === 'trial-balance') return <TrialBalanceScreen />;
  if (view === 'write') return <WriteJournal />;
  if (view === 'seals') return <SealScreen />;
  if (view === 'history') return <HistoryScreen />;
  notFound();
}
