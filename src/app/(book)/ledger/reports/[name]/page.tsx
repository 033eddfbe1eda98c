import { REPORT_NAMES } from '@/areas/reports/names';
import { ReportScreen } from '@/areas/reports/ReportScreen';

export const dynamicParams = false;

export function generateStaticParams(): { name: string }[] {
  return REPORT_NAMES.map((name) => ({ name }));
}

export default async function Page({ params }: { readonly params: Promise<{ name: string }> }) {
  const { name } = await params;
  return <ReportScreen key={name} name={name} />;
}
