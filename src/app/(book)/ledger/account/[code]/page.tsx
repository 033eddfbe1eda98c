import { AccountScreen } from '@/areas/ledger/AccountScreen';

export default async function Page({ params }: { readonly params: Promise<{ code: string }> }) {
  const { code } = await params;
  return <AccountScreen key={code} code={code} />;
}
