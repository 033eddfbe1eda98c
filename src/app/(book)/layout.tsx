import type { ReactNode } from 'react';
import { BookShell } from '@/areas/shell/BookShell';

export default function Layout({ children }: { readonly children: ReactNode }) {
  return <BookShell>{children}</BookShell>;
}
