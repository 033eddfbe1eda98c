import { SetupScreen } from '@/areas/setup/SetupScreen';

export default async function Page({ params }: { readonly params: Promise<{ path?: string[] }> }) {
  const { path = [] } = await params;
  return <SetupScreen section={path[0] ?? 'business'} id={decodeURIComponent(path[1] ?? '')} />;
}
