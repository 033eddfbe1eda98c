import { type ComponentType, Suspense } from 'react';
import { AuditFileScreen } from '@/areas/ledger/AuditFileScreen';
import { ChartScreen } from '@/areas/ledger/ChartScreen';
import { DeferredScreen } from '@/areas/ledger/DeferredScreen';
import { HistoryScreen } from '@/areas/ledger/HistoryScreen';
import { OpeningScreen } from '@/areas/ledger/OpeningScreen';
import { ProveScreen } from '@/areas/ledger/ProveScreen';
import { RevaluationScreen } from '@/areas/ledger/RevaluationScreen';
import { SealScreen } from '@/areas/ledger/SealScreen';
import { WriteJournal } from '@/areas/ledger/WriteJournal';
import { YearsScreen } from '@/areas/ledger/YearsScreen';

const VIEWS = {
  write: WriteJournal,
  opening: OpeningScreen,
  years: YearsScreen,
  chart: ChartScreen,
  'audit-file': AuditFileScreen,
  prove: ProveScreen,
  deferred: DeferredScreen,
  revaluation: RevaluationScreen,
  seals: SealScreen,
  history: HistoryScreen,
} satisfies Readonly<Record<string, ComponentType>>;
type View = keyof typeof VIEWS;

export const dynamicParams = false;

export function generateStaticParams(): { view: View }[] {
  return (Object.keys(VIEWS) as View[]).map((view) => ({ view }));
}

export default async function Page({ params }: { readonly params: Promise<{ view: string }> }) {
  const Screen = VIEWS[(await params).view as View];
  return (
    <Suspense>
      <Screen />
    </Suspense>
  );
}
