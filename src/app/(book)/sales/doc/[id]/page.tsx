import { IssuedScreen } from '@/areas/documents/issued/IssuedScreen';

export default async function Page({ params }: { readonly params: Promise<{ id: string }> }) {
  const { id } = await params;
  return <IssuedScreen key={id} id={id} />;
}
