'use client';

import { CatalogueScreen } from '@/areas/catalogue/CatalogueScreen';
import { useNamed } from '@/areas/shell/useNamed';

export default function Page() {
  const [section = '', id = ''] = useNamed('/sales');
  return <CatalogueScreen section={section} id={id} />;
}
