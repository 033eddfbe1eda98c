import NextLink from 'next/link';
import type { ComponentProps } from 'react';

/** A way to another page. It is fetched when it is gone to: the pages are kept in the browser anyway. */
export default function Link(props: Omit<ComponentProps<typeof NextLink>, 'prefetch'>) {
  return <NextLink prefetch={false} {...props} />;
}
