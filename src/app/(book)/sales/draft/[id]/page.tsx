import { DraftScreen } from '@/areas/documents/editor/DraftScreen';

export default async function Page({ params }: { readonly params: Promise<{ id: string }> }) {
  const { id } = await params;
  return <DraftScreen key={id} id={id} />;
}
