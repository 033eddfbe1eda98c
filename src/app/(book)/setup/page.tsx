'use client';

import { SetupScreen } from '@/areas/setup/SetupScreen';
import { useNamed } from '@/areas/shell/useNamed';

export default function Page() {
  const [section = 'business', id = ''] = useNamed('/setup');
  return <SetupScreen section={section} id={id} />;
}
